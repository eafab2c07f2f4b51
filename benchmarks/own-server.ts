/** A server of its own over a database of its own, and houses whose gauges are paired with it. */
import { randomBytes } from 'node:crypto';
import { freePort, startCluster } from '../scripts/cluster.mjs';
import { addGauge, beginTest, makeHouse } from '../scripts/houses';
import { migrateDatabase } from '../scripts/migrate';
import { build, startProcesses } from '../scripts/supervise.mjs';
import { playScript } from '@/core/run/script';
import { uuid7 } from '@/wire/uuid7';

export interface OwnServer {
  readonly url: string;
  readonly webPid: () => number;
  readonly d: { readonly superuser: string; readonly app: string; readonly owner: string };
}
/** Works with a server that is there for it alone. */
export async function onOwnServer(name: string, work: (server: OwnServer) => Promise<void>): Promise<void> {
  const cluster = await startCluster('bench', 54900, () => {});
  let stop = async (): Promise<unknown> => undefined;
  try {
    const d = await cluster.database(`vast_bench_${name}`, true);
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
    await work({ url: processes.url, webPid: () => processes.webPid(), d });
  } finally {
    await stop();
    await (await import('@/database/client')).closePool();
    await cluster.stop();
  }
}
/** Sends what a gauge shows. @returns how long it took, ms */
export async function post(url: string, token: string, body: object): Promise<number> {
  const began = performance.now();
  const answer = await fetch(`${url}/api/gauge/readings`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', authorization: `Bearer ${token}` },
    body: JSON.stringify(body),
  });
  if (!answer.ok) throw new Error(`${answer.status}: ${await answer.text()}`);
  await answer.arrayBuffer();
  return performance.now() - began;
}
/** So many points, the last at a moment, `step` ms apart. */
export const points = (n: number, until: number, step: number): [number, number][] =>
  Array.from({ length: n }, (_, i) => [until - (n - 1 - i) * step, 205 + (i % 3)]);
export const batchOf = (n: number, seconds: number) => ({
  batch: { id: uuid7(Date.now()), sequence: n, points: points(seconds, Date.now(), 1000) },
});
export interface Sends {
  readonly org: string;
  readonly run: string;
  readonly gauge: string;
  readonly token: string;
}
/** So many runs, each judged by a gauge of its own that is paired. */
export async function pairedGauges(
  count: number,
): Promise<{ house: Awaited<ReturnType<typeof makeHouse>>; sends: Sends[] }> {
  const { makeCode, pairGauge } = await import('@/server/gauge/pairing');
  const { appendEvents, readRun } = await import('@/server/runs/log');
  const made = await makeHouse('Bench House');
  const { who } = made;
  const sends: Sends[] = [];
  for (let n = 0; n < count; n += 1) {
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
  return { house: made, sends };
}
