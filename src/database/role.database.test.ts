/** What the role of the application may do, whatever a statement that reached it says. */
import { sql } from 'drizzle-orm';
import pg from 'pg';
import { makeOrganisation } from '../../scripts/demo';
import { migrateDatabase } from '../../scripts/migrate';
import { closePool, inOrganisation, pool } from './client';
import { people } from './schema';
import { uuid7 } from '@/wire/uuid7';

const superuser = new pg.Pool({ connectionString: process.env.VAST_SUPERUSER_URL, max: 2 });
let mill: { org: string };
beforeAll(async () => {
  await migrateDatabase(process.env.VAST_OWNER_URL!);
  const domain = `${uuid7(Date.now())}.example`;
  mill = await makeOrganisation(domain, '', [{ key: 'oda-role', name: 'Oda', role: 'owner' }], domain);
}, 60_000);
afterAll(async () => {
  await closePool();
  await superuser.end();
});

test('what was ended stays ended: sessions, links, invitations, retired keys', async () => {
  const { rows } = await superuser.query<{ name: string; column: string }>(
    `select c.relname as name, encode(substring(t.tgargs from 1 for length(t.tgargs) - 1), 'escape') as column
     from pg_trigger t join pg_class c on c.oid = t.tgrelid join pg_proc p on p.oid = t.tgfoid where p.proname = 'refuse_undoing' order by 1`,
  );
  expect(rows.map((r) => `${r.name}.${r.column}`)).toEqual([
    'invitations.ended',
    'paired_gauges.ended',
    'passkeys.ended',
    'public_links.revoked',
    'sessions.revoked',
    'signature_links.ended',
    'signing_keys.retired',
  ]);
  const person = (await inOrganisation(mill, (tx) => tx.select().from(people)))[0]!;
  const id = uuid7(Date.now());
  await inOrganisation(mill, (tx) =>
    tx.execute(
      sql`insert into sessions (org, id, person, token_hash, made, expires, device) values (${mill.org}, ${id}, ${person.id}, ${id}, now(), now() + interval '1 day', '')`,
    ),
  );
  const set = (to: string) =>
    inOrganisation(mill, (tx) =>
      tx.execute(sql.raw(`update sessions set revoked = ${to} where id = '${id}'`)),
    );
  await set('now()');
  for (const to of ['null', `now() + interval '1 day'`])
    await expect(set(to)).rejects.toMatchObject({
      cause: expect.objectContaining({ message: expect.stringContaining('cannot be undone') }),
    });
});
test('keys are not put among the published ones by the application: not inserted, not changed, never without their secret', async () => {
  const mine = (statement: string) => inOrganisation(mill, (tx) => tx.execute(sql.raw(statement)));
  const key = 'ab'.repeat(32);
  for (const statement of [
    `insert into signing_keys (org, public_key, sealed_secret, made) values ('${mill.org}', '${key}', 'x', now())`,
    `update signing_keys set retired = now()`,
    `update signing_keys set made = now() - interval '1 year'`,
    `delete from signing_keys`,
  ])
    await expect(mine(statement)).rejects.toMatchObject({
      cause: expect.objectContaining({ message: expect.stringMatching(/permission denied/) }),
    });
  await expect(mine(`select new_signing_key('${key}', '', now())`)).rejects.toThrow();
  await mine(`select bring_in_key('${key}', now() - interval '1 year', null, now())`);
  const { rows } = await superuser.query(
    'select retired is not null as retired, brought_in is not null as marked, sealed_secret from signing_keys where public_key = $1',
    [key],
  );
  expect(rows).toEqual([{ retired: true, marked: true, sealed_secret: null }]);
});
test('look-ups take nothing from a schema that anybody can write into, and there is none to write into', async () => {
  const { rows } = await superuser.query<{ name: string; path: string | null; by: string; open: boolean }>(
    `select p.oid::regprocedure::text as name, (select c from unnest(p.proconfig) c where c like 'search_path=%') as path,
            r.rolname as by, exists (select 1 from aclexplode(p.proacl) a where a.grantee = 0) as open
     from pg_proc p join pg_namespace n on n.oid = p.pronamespace join pg_roles r on r.oid = p.proowner
     where n.nspname = 'public' and p.prosecdef`,
  );
  expect(rows.length).toBeGreaterThanOrEqual(11);
  for (const f of rows)
    expect(f).toEqual({
      name: f.name,
      path: 'search_path=pg_catalog, public, pg_temp',
      by: 'vast_lookup',
      open: false,
    });
  for (const statement of ['create temp table people (email text)', 'create table public.mine (x int)'])
    await expect(pool().query(statement)).rejects.toThrow(/permission denied/);
});
