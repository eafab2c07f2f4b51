/** An hour of benches that look on while their gauges stream: what the server holds in memory must not grow with time. */
import { readFileSync } from 'node:fs';
import type { Report } from './run';
import { batchOf, onOwnServer, pairedGauges, points, post } from './own-server';
import { cookiesOf } from '../scripts/houses';

const BENCHES = 20;
const BATCH = 10;
/** `VAST_SOAK_MINUTES=10` for a shorter one. */
const MINUTES = Number(process.env.VAST_SOAK_MINUTES ?? 60);
/** After warming up (the first third) it may grow so much, MB: garbage is collected when there is need. House figure. */
const GROWS = 40;

export const soak = (report: Report): Promise<void> =>
  onOwnServer('soak', async ({ url, webPid }) => {
    const { house, sends } = await pairedGauges(BENCHES);
    const cookie = await cookiesOf(url, house);
    const over = new AbortController();
    const until = Date.now() + MINUTES * 60_000;
    let news = 0;
    const look = async (run: string): Promise<void> => {
      while (Date.now() < until) {
        const stream = await fetch(`${url}/api/runs/${run}/stream`, {
          headers: { cookie },
          signal: over.signal,
        });
        if (!stream.ok) throw new Error(`A bench is not told of its run: ${stream.status}`);
        // an event of the stream ends with an empty line
        for await (const chunk of stream.body as unknown as AsyncIterable<Uint8Array>)
          news += Buffer.from(chunk).toString().split('\n\n').length - 1;
      }
    };
    const benches = sends.map(({ run }) => look(run).catch((error: unknown) => over.signal.aborted || error));
    const took: number[] = [];
    const held: number[] = [];
    const streams = sends.map(async ({ token }, g) => {
      await new Promise((r) => setTimeout(r, (1000 * g) / BENCHES));
      for (let s = 0; Date.now() < until; s += 1) {
        const at = performance.now();
        const shown = { live: points(5, Date.now(), 200), scale: 1, unit: 'mbar' };
        took.push(await post(url, token, { ...shown, ...(s % BATCH === 0 ? batchOf(s + 1, BATCH) : {}) }));
        await new Promise((r) => setTimeout(r, Math.max(0, 1000 - (performance.now() - at))));
      }
    });
    const meter = setInterval(() => {
      const status = readFileSync(`/proc/${webPid()}/status`, 'utf8');
      held.push(Number(/VmRSS:\s+(\d+)/.exec(status)![1]) / 1000);
    }, 5_000);
    await Promise.all(streams);
    clearInterval(meter);
    over.abort();
    const troubles = (await Promise.all(benches)).filter((b) => b instanceof Error);
    if (troubles.length) throw troubles[0]!;
    const middle = (from: number, to: number) => {
      const part = held.slice(held.length * from, held.length * to).sort((a, b) => a - b);
      return part[Math.floor(part.length / 2)]!;
    };
    took.sort((a, b) => a - b);
    report(
      `a soak of ${MINUTES} min: posts of ${BENCHES} gauges, p95`,
      took[Math.floor(took.length * 0.95)]!,
      'ms',
      500,
    );
    report('  news told to benches', news, '');
    report('  held in memory after warming up', middle(1 / 3, 2 / 3), 'MB');
    report('  grown since then', middle(2 / 3, 1) - middle(1 / 3, 2 / 3), 'MB', GROWS);
  });
