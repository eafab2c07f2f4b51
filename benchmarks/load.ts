/**
 * Many gauges at once, at a server of its own over a database of its own: what they show now, and what they showed. Beside it the same
 * rows inserted bare, in the same run, and one gauge at the end of a day's log beside its beginning.
 */
import pg from 'pg';
import type { Report } from './run';
import { batchOf, onOwnServer, pairedGauges, points, post, type Sends } from './own-server';
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
export const load = (report: Report): Promise<void> =>
  onOwnServer('load', async ({ url, d }) => {
    const { sends } = await pairedGauges(GAUGES);
    const send = (token: string, body: object) => post(url, token, body);
    const shown = () => ({ live: points(LIVE, Date.now(), 100), scale: 1, unit: 'mbar' });
    // what a process makes on first use is no part of what is measured
    for (let n = 0; n < 2; n += 1) for (const { token } of sends) await send(token, shown());
    const alone: number[] = [];
    for (const { token } of sends) alone.push(await send(token, shown()));
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
          (full ? kept : live).push(
            await send(token, { ...shown(), ...(full ? batchOf(s + 1, BATCH) : {}) }),
          );
          await new Promise((r) => setTimeout(r, Math.max(0, 1000 - (performance.now() - at))));
        }
      }),
    );
    const took = (performance.now() - began) / 1000;
    report('gauges: live readings a second', (GAUGES * SECONDS * LIVE) / took, 'of 2000 sent');
    report('gauges: 2,000 live readings a second, p95', part(live, 0.95), 'ms', 500);
    report('gauges: the batches among them, p95', part(kept, 0.95), 'ms', 500);
    await oneByOne(report, d, sends, (token, n) => send(token, { ...shown(), ...batchOf(n, BATCH) }));
    await aDay(report, d, sends[1]!, (token, n) => send(token, { ...shown(), ...batchOf(n, BATCH) }));
  });
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
      ...batchOf(2000 + n, BATCH),
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
