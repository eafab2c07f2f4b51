/** Several servers on one database: what one tells, benches on the others hear, also after the channel was cut. */
import pg from 'pg';
import { closePool, lookUp } from '@/database/client';
import { listen, type RunNews, stopHearing, tell } from './bus';

const ORG = '00000000-0000-4000-8000-00000000aaaa';
const RUN = '00000000-0000-4000-8000-00000000bbbb';
const superuser = new pg.Client({ connectionString: process.env.VAST_SUPERUSER_URL });
const other = new pg.Client({ connectionString: process.env.DATABASE_URL });
const payloads: { from: string; notes: { org: string; run: string; news: RunNews }[] }[] = [];
const until = async (there: () => boolean) => {
  for (let n = 0; !there(); n += 1) {
    if (n > 400) throw new Error('it never came');
    await new Promise((r) => setTimeout(r, 25));
  }
};
const shows = (gauge: string, digits: number): RunNews => ({
  kind: 'gauge',
  gauge,
  simulated: false,
  at: 1,
  digits,
  scale: 1,
  unit: 'mbar',
});
const says = (from: string, ...notes: object[]) =>
  other.query('select pg_notify($1, $2)', ['vast_news', JSON.stringify({ from, notes })]);
const listening = async () =>
  (
    await superuser.query<{ pid: number }>(
      "select pid from pg_stat_activity where query = 'listen vast_news' and datname = current_database() and pid <> $1",
      [(other as unknown as { processID: number }).processID],
    )
  ).rows.map((r) => r.pid);

beforeAll(async () => {
  await superuser.connect();
  await other.connect();
  other.on('notification', (m) => {
    if (m.payload?.startsWith('{"from"')) payloads.push(JSON.parse(m.payload) as (typeof payloads)[number]);
  });
  await other.query('listen vast_news');
  // a server that works has its pool open
  await lookUp('now()', []);
});
afterAll(async () => {
  await stopHearing();
  await other.end();
  await superuser.end();
  await closePool();
});

test('what is told is heard here at once, and by others a moment later: of each gauge the newest display alone', async () => {
  const heard: RunNews[] = [];
  const off = listen(ORG, RUN, (n) => heard.push(n));
  for (let digits = 0; digits < 50; digits += 1) tell(ORG, RUN, shows('g1', digits));
  tell(ORG, RUN, shows('g2', 7));
  tell(ORG, RUN, { kind: 'log' });
  tell(ORG, RUN, { kind: 'log' });
  expect(heard).toHaveLength(53);
  off();
  await until(() => payloads.length > 0);
  const notes = payloads.flatMap((p) => p.notes);
  expect(notes.map((n) => n.news)).toEqual([shows('g1', 49), shows('g2', 7), { kind: 'log' }]);
  expect(notes.every((n) => n.org === ORG && n.run === RUN)).toBe(true);
});
test('much at once goes in several notifications, none larger than the database takes', async () => {
  payloads.length = 0;
  for (let n = 0; n < 300; n += 1) tell(ORG, RUN, shows(`gauge-${n}`, n));
  await until(() => payloads.flatMap((p) => p.notes).length === 300);
  expect(payloads.length).toBeGreaterThan(1);
  expect(Math.max(...payloads.map((p) => JSON.stringify(p).length))).toBeLessThan(8000);
});
test('what another server tells is heard by who listens to that run, and one’s own is not heard twice', async () => {
  const heard: RunNews[] = [];
  const off = listen(ORG, RUN, (n) => heard.push(n));
  while (!(await listening()).length) await new Promise((r) => setTimeout(r, 25));
  await says('another server', { org: ORG, run: RUN, news: shows('g1', 3) });
  await says('another server', { org: ORG, run: ORG, news: { kind: 'log' } });
  await says(payloads[0]!.from, { org: ORG, run: RUN, news: { kind: 'log' } });
  await until(() => heard.length === 1);
  await new Promise((r) => setTimeout(r, 100));
  expect(heard).toEqual([shows('g1', 3)]);
  off();
});
test('the channel is opened again when it is cut; who listens is told to look into the log', async () => {
  const heard: RunNews[] = [];
  const off = listen(ORG, RUN, (n) => heard.push(n));
  const [pid] = await listening();
  await superuser.query('select pg_terminate_backend($1)', [pid]);
  await until(() => heard.length > 0);
  expect(heard[0]).toEqual({ kind: 'log' });
  await says('another server', { org: ORG, run: RUN, news: shows('g1', 4) });
  await until(() => heard.length > 1);
  expect(heard[1]).toEqual(shows('g1', 4));
  off();
});
test('what is no news is left, and the next is heard', async () => {
  const heard: RunNews[] = [];
  const off = listen(ORG, RUN, (n) => heard.push(n));
  for (const payload of ['', 'no json', '7', '{"from":"x"}', '{"notes":[{}]}'])
    await other.query('select pg_notify($1, $2)', ['vast_news', payload]);
  await says('another server', { org: ORG, run: RUN, news: { kind: 'log' } });
  await until(() => heard.length === 1);
  off();
});
