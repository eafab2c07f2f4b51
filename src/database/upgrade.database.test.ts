import { readFileSync } from 'node:fs';
import pg from 'pg';
import { migrateDatabase } from '../../scripts/migrate';
import { networkOf, readInstallation } from '@/core/network/enter';
import { bakery } from '@/core/testing/bakery';

/** When each step was made that led to the baseline, as a database made step by step keeps it. */
const STEPS = [
  1795478058297, 1795478059129, 1795491596475, 1795491598032, 1795496707590, 1795496708702, 1795561836954,
  1795561838732, 1795573154991, 1795573156486, 1795592247557, 1795592249141, 1795592250751, 1795609202937,
  1795781253672, 1795781255276,
];
const base = process.env.VAST_SUPERUSER_URL!;
const owner = process.env.VAST_OWNER_URL!;
const named = (url: string, name: string) => Object.assign(new URL(url), { pathname: `/${name}` }).toString();
const ask = async (url: string, ...statements: (string | [string, unknown[]])[]) => {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  try {
    let rows: Record<string, unknown>[] = [];
    for (const s of statements)
      rows = (typeof s === 'string' ? await client.query(s) : await client.query(s[0], s[1])).rows;
    return rows;
  } finally {
    await client.end();
  }
};
/** A database with everything that the steps made, and what it says of them. */
async function madeInSteps(name: string, steps: readonly number[]): Promise<string> {
  await ask(base, `drop database if exists ${name}`, `create database ${name} owner vast_owner`);
  const url = named(owner, name);
  const sql = readFileSync('src/database/migrations/0000_baseline.sql', 'utf8');
  await ask(url, ...sql.split('--> statement-breakpoint'));
  await ask(
    url,
    'create schema drizzle',
    'create table drizzle.__drizzle_migrations (id serial primary key, hash text not null, created_at bigint)',
    ...steps.map((at): [string, unknown[]] => [
      'insert into drizzle.__drizzle_migrations (hash, created_at) values ($1, $2)',
      [`step ${at}`, at],
    ]),
  );
  return url;
}
const NAMES = ['vast_upgrade_whole', 'vast_upgrade_half', 'vast_upgrade_new'];
afterAll(async () => {
  await ask(base, ...NAMES.map((n) => `drop database if exists ${n}`));
});

test('a database made step by step goes on: nothing is made twice, and its places become networks as they are read', async () => {
  const url = await madeInSteps(NAMES[0]!, STEPS);
  const [org, id] = ['00000000-0000-4000-8000-0000000000a1', '00000000-0000-4000-8000-0000000000b2'];
  const lists = bakery({ id });
  await ask(
    named(base, NAMES[0]!),
    [`insert into organisations (org, name) values ($1, 'Hollin')`, [org]],
    [`insert into sites (org, id, name, address, customer) values ($1, $2, 'Mill', 'Yard', 'C')`, [org, id]],
    [
      'insert into systems (org, id, site, name, facts) values ($1, $2, $2, $3, $4)',
      [org, id, lists.name, JSON.stringify(lists)],
    ],
  );
  await migrateDatabase(url);
  await migrateDatabase(url);
  const said = await ask(url, 'select created_at::text as at from drizzle.__drizzle_migrations order by 1');
  const later = (
    JSON.parse(readFileSync('src/database/migrations/meta/_journal.json', 'utf8')) as {
      entries: { when: number }[];
    }
  ).entries.slice(1);
  expect(said.map((r) => Number(r.at))).toEqual([...STEPS, ...later.map((e) => e.when)]);
  expect(await ask(url, `select to_regclass('part_photos')::text as name`)).toEqual([
    { name: 'part_photos' },
  ]);
  const [kept] = await ask(named(base, NAMES[0]!), 'select facts from systems');
  const { network, ...section } = readInstallation(kept!.facts as never);
  expect(section).toEqual(lists);
  expect(network).toEqual(networkOf(lists));
});
test('one that stopped on the way is refused with what to do, and stays as it was', async () => {
  const url = await madeInSteps(NAMES[1]!, STEPS.slice(0, 2));
  await expect(migrateDatabase(url)).rejects.toThrow(/too old to go on from.*export each organisation/);
  expect(await ask(url, 'select id from drizzle.__drizzle_migrations')).toHaveLength(2);
});
test('an empty one gets the baseline at once', async () => {
  await ask(base, `drop database if exists ${NAMES[2]}`, `create database ${NAMES[2]} owner vast_owner`);
  const url = named(owner, NAMES[2]!);
  await migrateDatabase(url);
  const [tables] = await ask(url, `select count(*)::int as n from pg_tables where schemaname = 'public'`);
  expect(tables!.n).toBeGreaterThan(25);
});
