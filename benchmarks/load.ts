/**
 * Many gauges at once, at a server of its own over a database of its own: what they show now, and what they showed. Beside it the same
 * rows inserted bare, in the same run, and one gauge at the end of a day's log beside its beginning.
 */
import { randomBytes } from 'node:crypto';
import pg from 'pg';
import type { Report } from './run';
import { freePort, startCluster } from '../scripts/cluster.mjs';
import { build, startProcesses } from '../scripts/supervise.mjs';
import { addGauge, beginTest, makeHouse } from '../scripts/houses';
import { migrateDatabase } from '../scripts/migrate';
import { playScript } from '@/core/run/script';
import { uuid7 } from '@/wire/uuid7';

const GAUGES = 200;
/** Live readings in each post, one post a second: 2,000 a second from all of them. */
const LIVE = 10;
const SECONDS = 20;
/** Seconds of points in a batch. */
const BATCH = 10;
const DAY = 86_400;

const part = (ms: number[], share: number): number =>
  ms.toSorted((a, b) => a - b)[Math.min(ms.length - 1, Math.floor(ms.length * share))]!;
const points = (n: number, until: number, step: number): [number, number][] =>
  Array.from({ length: n }, (_, i) => [until - (n - 1 - i) * step, 205 + (i % 3)]);

const batchOf = (n: number) => ({
  batch: { id: uuid7(Date.now()), sequence: n, points: points(BATCH, Date.now(), 1000) },
});

export async function load(report: Report): Promise<void> {
  const cluster = await startCluster('bench', 54900, () => {});
  let stop = async (): Promise<unknown> => undefined;
  try {
    const d = await cluster.database('vast_bench_load', true);
    await migrateDatabase(d.owner);
    process.env.DATABASE_URL = d.app;
    process.env.VAST_SECRET = randomBytes(32).toString('hex');
    await build();
    const processes = startProcesses({
      addresses: d,
      port: await freePort(3500),
      gaugePort: await freePort(3600),
      gaugeFolder: '.run/bench-gauge',
      extra: { VAST_SECRET: process.env.VAST_SECRET },
    });
    stop = () => processes.stop();
    await processes.ready;
    const sends = await gauges();
    const post = async (token: string, body: object): Promise<number> => {
      const began = performance.now();
      const answer = await fetch(`${processes.url}/api/gauge/readings`, {
        method: 'POST',
        headers: { 'content-type': 'application/json', authorization: `Bearer ${token}` },
        body: JSON.stringify(body),
      });
      if (!answer.ok) throw new Error(`${answer.status}: ${await answer.text()}`);
      await answer.arrayBuffer();
      return performance.now() - began;
    };
    const shown = () => ({ live: points(LIVE, Date.now(), 100), scale: 1, unit: 'mbar' });
    // what a process makes on first use is no part of what is measured
    for (let n = 0; n < 2; n += 1) for (const { token } of sends) await post(token, shown());
    const alone: number[] = [];
    for (const { token } of sends) alone.push(await post(token, shown()));
    report('a live post alone, median', part(alone, 0.5), 'ms');
    const live: number[] = [];
    const kept: number[] = [];
    const began = performance.now();
    await Promise.all(
      sends.map(async ({ token }, g) => {
        // they do not all send at one moment
        await new Promise((r) => setTimeout(r, (1000 * g) / GAUGES));
        for (let s = 0; s < SECONDS; s += 1) {
          const at = performance.now();
          const full = (s + g) % BATCH === 0;
          (full ? kept : live).push(await post(token, { ...shown(), ...(full ? batchOf(s + 1) : {}) }));
          await new Promise((r) => setTimeout(r, Math.max(0, 1000 - (performance.now() - at))));
        }
      }),
    );
    const took = (performance.now() - began) / 1000;
    report('gauges: live readings a second', (GAUGES * SECONDS * LIVE) / took, 'of 2000 sent');
    report('gauges: 2,000 live readings a second, p95', part(live, 0.95), 'ms', 500);
    report('gauges: the batches among them, p95', part(kept, 0.95), 'ms', 500);
    await oneByOne(report, d, sends, (token, n) => post(token, { ...shown(), ...batchOf(n) }));
    await aDay(report, d, sends[1]!, (token, n) => post(token, { ...shown(), ...batchOf(n) }));
  } finally {
    await stop();
    await (await import('@/database/client')).closePool();
    await cluster.stop();
  }
}
interface Sends {
  readonly org: string;
  readonly run: string;
  readonly gauge: string;
  readonly token: string;
}
/** So many runs, each judged by a gauge of its own that is paired. */
async function gauges(): Promise<Sends[]> {
  const { makeCode, pairGauge } = await import('@/server/gauge/pairing');
  const { appendEvents, readRun } = await import('@/server/runs/log');
  const made = await makeHouse('Bench House');
  const { who } = made;
  const sends: Sends[] = [];
  for (let n = 0; n < GAUGES; n += 1) {
    const gauge = await addGauge(made, `G-${n}`);
    const run = await beginTest(made, `Kiln ${n}`);
    const { plan } = await readRun(who, run);
    const lines = playScript(
      plan,
      [
        [1, 'checks'],
        [2, 'gauge', `G-${n}`],
      ],
      {
        device: uuid7(1),
        pageLoad: uuid7(1),
        zone: 'UTC',
        by: who.person,
        byName: who.name,
        began: Date.parse(plan.made.at),
        id: () => uuid7(Date.now()),
      },
    );
    await appendEvents(who, run, lines);
    const { token } = await pairGauge((await makeCode(who, gauge)).code, `reader ${n}`, `10.0.${n}.1`);
    sends.push({ org: who.org, run, gauge, token });
  }
  return sends;
}
const TIMES = 200;
/** Batches one after the other, beside the same rows inserted bare in a transaction of the same organisation. */
async function oneByOne(
  report: Report,
  d: { superuser: string; app: string },
  sends: readonly Sends[],
  send: (token: string, n: number) => Promise<number>,
): Promise<void> {
  const { takeReadings } = await import('@/server/gauge/ingest');
  const through: number[] = [];
  const office: number[] = [];
  const bare: number[] = [];
  const raw = new pg.Client({ connectionString: d.app });
  await raw.connect();
  const { rows } = await raw
    .query("select set_config('app.org', $1, false)", [sends[0]!.org])
    .then(() =>
      raw.query<{ body: object }>("select body from events where body->>'kind' = 'stream' limit 1"),
    );
  const { run, org } = sends[0]!;
  const { rows: top } = await raw.query<{ top: number }>(
    'select max(position) top from events where run = $1',
    [run],
  );
  for (let n = 0; n < TIMES; n += 1) {
    // the first of each looks at its run: that is no part of what is measured
    const { token } = sends[2 + (n % 5)]!;
    through.push(await send(token, 1000 + n));
    const asked = performance.now();
    await takeReadings(token, {
      live: [[Date.now(), 205]],
      scale: 1,
      unit: 'mbar',
      ...batchOf(2000 + n),
    } as never);
    if (n >= 5) office.push(performance.now() - asked);
    const began = performance.now();
    await raw.query('begin');
    await raw.query("select set_config('app.org', $1, true)", [org]);
    await raw.query(
      'insert into events (org, run, id, position, received, body) values ($1, $2, $3, $4, $5, $6)',
      [org, run, uuid7(Date.now()), top[0]!.top + 1 + n, Date.now(), rows[0]!.body],
    );
    await raw.query('commit');
    bare.push(performance.now() - began);
  }
  await raw.end();
  report('a batch through the web, median', part(through, 0.5), 'ms');
  report(
    'a batch as the office places it, beside a bare insert',
    part(office, 0.5) / part(bare, 0.5),
    'times',
    3,
  );
  report('  beside: the same row inserted bare', part(bare, 0.5), 'ms');
}
/** A run into which a gauge has streamed for a day: its next batch, beside the first of another. */
async function aDay(
  report: Report,
  d: { superuser: string },
  { org, run, gauge, token }: Sends,
  send: (token: string, n: number) => Promise<number>,
): Promise<void> {
  const measured = async () => {
    const ms: number[] = [];
    for (let n = 0; n < 40; n += 1) ms.push(await send(token, 5000 + n));
    return part(ms, 0.95);
  };
  const first = await measured();
  const raw = new pg.Client({ connectionString: d.superuser });
  await raw.connect();
  const { rows } = await raw.query<{ body: object; top: number }>(
    "select body, (select max(position) from events where org = $1 and run = $2) as top from events where org = $1 and run = $2 and body->>'kind' = 'stream' limit 1",
    [org, run],
  );
  const rowsOf = DAY / BATCH;
  for (let from = 0; from < rowsOf; from += 1000) {
    const values = Array.from({ length: Math.min(1000, rowsOf - from) }, (_, i) => ({
      id: uuid7(Date.now() + i),
      position: rows[0]!.top + 1 + from + i,
      body: {
        ...rows[0]!.body,
        gauge,
        points: points(BATCH, Date.now() - (rowsOf - from - i) * 1000 * BATCH, 1000),
      },
    }));
    await raw.query(
      'insert into events (org, run, id, position, received, body) select $1, $2, x.id, x.position, 0, x.body from jsonb_to_recordset($3) x (id uuid, position int, body jsonb)',
      [org, run, JSON.stringify(values)],
    );
  }
  await raw.end();
  report('a batch after a day at 1 Hz, p95', await measured(), 'ms', Math.max(50, 3 * first));
  report('  beside: the same before that day', first, 'ms');
}
