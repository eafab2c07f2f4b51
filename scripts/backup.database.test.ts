// @further a backup put into an empty cluster
/** A copy by PostgreSQL's own tools, put into an empty database: everything is there, every seal stands, and houses stay apart. */
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import pg from 'pg';
import { closePool } from '../src/database/client';
import { migrateDatabase } from './migrate';
import { standingDemo } from './demo';
import { backup, restore } from './backup.mjs';
import { checkSeals } from './seals';

const superuser = process.env.VAST_SUPERUSER_URL!;
const at = (url: string, name: string) => url.replace(/[^/]*$/, name);
const INTO = 'vast_check_restored';
const into = at(superuser, INTO);
const file = path.join(mkdtempSync(path.join(tmpdir(), 'vast-copy-')), 'copy.dump');
const asked = async <R extends pg.QueryResultRow>(url: string, text: string) => {
  const db = new pg.Client({ connectionString: url });
  await db.connect();
  try {
    return (await db.query<R>(text)).rows;
  } finally {
    await db.end();
  }
};
const fresh = async () => {
  await asked(at(superuser, 'postgres'), `drop database if exists "${INTO}" with (force)`);
  await asked(at(superuser, 'postgres'), `create database "${INTO}" owner vast_owner`);
};
beforeAll(async () => {
  await migrateDatabase(process.env.VAST_OWNER_URL!);
  await standingDemo();
  await fresh();
}, 400_000);
afterAll(async () => {
  await closePool();
  await asked(at(superuser, 'postgres'), `drop database if exists "${INTO}" with (force)`);
});

test('a copy put into an empty database holds every row, and every seal in it stands', async () => {
  expect(backup(superuser, file)).toMatch(/^\d+\.\d MB$/);
  expect(await restore(into, file)).toMatch(/^[1-9]\d* seals checked, 0 faults$/);
  const tables = await asked<{ name: string }>(
    superuser,
    "select tablename as name from pg_tables where schemaname = 'public' order by 1",
  );
  expect(tables.length).toBeGreaterThan(30);
  for (const { name } of tables) {
    const count = async (url: string) =>
      (await asked<{ n: number }>(url, `select count(*)::int n from "${name}"`))[0]!.n;
    expect([name, await count(into)]).toEqual([name, await count(superuser)]);
  }
});
test('what keeps houses apart came along: the application sees no row without an organisation, and changes no entry', async () => {
  const app = at(process.env.DATABASE_URL!, INTO);
  expect(await asked(app, 'select 1 from seals')).toEqual([]);
  await expect(asked(app, 'delete from events')).rejects.toThrow(/permission denied|append/);
});
test('a copy is never written over, nor put where something is, nor taken from a file that is none', async () => {
  expect(() => backup(superuser, file)).toThrow(/is there already/);
  await expect(restore(into, file)).rejects.toThrow(/has tables already/);
  await fresh();
  const broken = `${file}.broken`;
  writeFileSync(broken, 'no copy');
  await expect(restore(into, broken)).rejects.toThrow(/pg_restore failed/);
  await expect(restore(into, `${file}.none`)).rejects.toThrow(/There is no file/);
});
test('a record that was changed, and one that was taken out, are found', async () => {
  await fresh();
  await restore(into, file);
  await asked(into, 'alter table seals disable trigger all');
  const [first] = await asked<{ number: string; org: string; run: string }>(
    into,
    'select s.number, s.org, s.run from seals s where exists (select 1 from seals n where n.org = s.org and n.previous = s.hash) order by s.sealed_at limit 1',
  );
  // what was brought in twice bears one run in two organisations
  const where = `where org = '${first!.org}' and run = '${first!.run}'`;
  await asked(into, `update seals set body = replace(body, 'mbar', 'nbar') ${where}`);
  const changed = await checkSeals(into);
  expect(changed.faults.join('\n')).toMatch(new RegExp(`${first!.number}: .*changed after sealing`));
  await asked(
    into,
    'alter table record_marks disable trigger all; alter table public_links disable trigger all; alter table ledger disable trigger all',
  );
  await asked(into, `set session_replication_role = replica; delete from seals ${where}`);
  const gone = await checkSeals(into);
  expect(gone.seals).toBe(changed.seals - 1);
  expect(gone.faults.join('\n')).toMatch(/the record before it in its chain is missing/);
});
