/** How runs stand in this process, against a whole fold of their logs: at each place, whatever was added, by whomever. */
import pg from 'pg';
import { reduce } from '@/core/run/reduce';
import type { PlacedEvent } from '@/core/run/events';
import { closePool, inOrganisation } from '@/database/client';
import { forgetStandings, standingOf, standingsOf } from '@/server/runs/standing';
import { openRuns } from '@/server/records/records';
import { standingDemo } from '../../../scripts/demo';
import { migrateDatabase } from '../../../scripts/migrate';
import { uuid7 } from '@/wire/uuid7';

const superuser = new pg.Client({ connectionString: process.env.VAST_SUPERUSER_URL });
let org: string;
let copy: string;
let log: PlacedEvent[];
/** The log of the demo with the most entries, of a run of its own that grows as the test wants: an old one, others look at the newest. */
beforeAll(async () => {
  await migrateDatabase(process.env.VAST_OWNER_URL!);
  ({ org } = await standingDemo());
  await superuser.connect();
  const { rows } = await superuser.query<{ run: string }>(
    'select run from events where org = $1 group by run order by count(*) desc limit 1',
    [org],
  );
  copy = uuid7(Date.now());
  await superuser.query(
    'insert into runs (org, id, site, system, practice, plan, made, made_by) select org, $2, site, system, practice, plan, to_timestamp(0), made_by from runs where org = $1 and id = $3',
    [org, copy, rows[0]!.run],
  );
  log = (
    await superuser.query<{ position: number; received: string; body: PlacedEvent }>(
      'select position, received, body from events where org = $1 and run = $2 order by position',
      [org, rows[0]!.run],
    )
  ).rows.map((r) => ({ ...r.body, position: r.position, received: Number(r.received) }));
}, 400_000);
afterAll(async () => {
  await superuser.end();
  await closePool();
});
const add = async (events: readonly PlacedEvent[]) => {
  for (const { position, received, ...body } of events)
    await superuser.query(
      'insert into events (org, run, id, position, received, body) values ($1, $2, $3, $4, $5, $6)',
      [org, copy, uuid7(Date.now() + position!), position, received, body],
    );
};
const stands = () => inOrganisation({ org }, (tx) => standingOf(tx, { org }, copy));
const plain = (state: unknown) => JSON.parse(JSON.stringify({ ...(state as object), back: [] })) as unknown;

test('a log that grows by pieces stands as the whole log folded, at each piece, asked once or many times at once', async () => {
  expect((await stands()).position).toBe(0);
  let done = 0;
  for (const step of [1, 3, 17, 40, Infinity]) {
    const piece = log.slice(done, done + step);
    await add(piece);
    done += piece.length;
    const [first, ...others] = await Promise.all([stands(), stands(), stands()]);
    expect(first.position).toBe(log[done - 1]!.position);
    expect(plain(first.state)).toEqual(plain(reduce(first.plan, log.slice(0, done))));
    for (const o of others) expect(o.state).toBe(first.state);
  }
  expect(done).toBe(log.length);
});
test('forgotten it is gone through again, and is the same', async () => {
  const before = await stands();
  forgetStandings();
  const again = await stands();
  expect(again.state).not.toBe(before.state);
  expect(plain(again.state)).toEqual(plain(before.state));
  const both = await inOrganisation({ org }, (tx) => standingsOf(tx, { org }, [copy, copy]));
  expect(both[0]!.state).toBe(again.state);
});
test('a run of another organisation stands nowhere', async () => {
  const other = { org: uuid7(1) };
  await expect(inOrganisation(other, (tx) => standingOf(tx, other, copy))).rejects.toMatchObject({
    status: 404,
  });
});
test('it is open until it is sealed, and counted whatever is shown', async () => {
  const { runs, all } = await openRuns({ org }, 1);
  expect(runs).toHaveLength(1);
  expect(runs[0]!.plan).toBeDefined();
  const { rows } = await superuser.query<{ n: number }>(
    'select count(*)::int n from runs r where org = $1 and not exists (select 1 from seals s where s.org = r.org and s.run = r.id)',
    [org],
  );
  expect(all).toBe(rows[0]!.n);
  const { rows: derived } = await superuser.query<{ n: number }>(
    'select count(*)::int n from open_runs where org = $1',
    [org],
  );
  expect(derived[0]!.n).toBe(all);
});
