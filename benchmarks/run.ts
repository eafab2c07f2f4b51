/**
 * What is measured, against the floors it is measured against. `npm run benchmarks` (core only) or with a server:
 * `VAST_BENCH_URL=http://127.0.0.1:3000 npm run benchmarks` for start-up, script sizes and time to interactive. With a name
 * (`npm run benchmarks -- analysis`) that one alone.
 */
import { spawn } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { analysis } from './analysis';
import { circuits } from './circuits';
import { ducts } from './ducts';
import { effort } from './effort';
import { load } from './load';
import { pages } from './pages';
import { pools } from './pools';
import { scale } from './scale';
import { soak } from './soak';
import { splitting } from './splitting';
import { dayOfLog, ledgerSearch, papers, sealing } from './records';
import packJson from '@packs/gas-metric.json';
import { bakery, gauge, hold, SIGNED, upTo, uuid } from '@/core/testing/bakery';
import { task } from '@/core/testing/visit';
import { loadPack } from '@/core/pack/load';
import { makePlan } from '@/core/plan/plan';
import type { PlacedEvent } from '@/core/run/events';
import { reduce } from '@/core/run/reduce';
import { place, playScript } from '@/core/run/script';
import { verdictOf } from '@/core/verdict/verdict';
import { DESK_LINES } from '@/core/desk';
import { deskResult } from '@/core/desk/work';
import type { VisitTask } from '@/core/visit/types';
import { answerPlan } from '@/worker/visit';

const VISITS = 100;
/** A visit as they are: three tests in chains with long holds, some on one gauge, things done while they wait, errands. */
function randomVisit(seed: number, count: number): VisitTask[] {
  let s = (seed * 2654435761 + 12345) >>> 0;
  const random = (most: number) => (s = (Math.imul(s, 1664525) + 1013904223) >>> 0) % most;
  const tasks: VisitTask[] = [];
  for (let t = 0; t < 4; t++) {
    const things = [`section:${t}`, `gauge:${random(3)}`];
    const wait = 5 + random(60);
    tasks.push(
      task(`${t}.1`, 5 + random(20), { wait: 5 + random(15), close: 1, after: ['brief'], takes: things }),
    );
    tasks.push(task(`${t}.2`, 1 + random(5), { wait, close: 1, after: [`${t}.1`] }));
    tasks.push(task(`${t}.3`, 5 + random(15), { after: [`${t}.2`], frees: things }));
  }
  const inside = task('soap', 4 + random(10), { during: `${random(4)}.2` });
  return [task('brief', 5), ...tasks, inside].slice(0, count);
}

const floors = JSON.parse(readFileSync('benchmarks/floors.json', 'utf8')) as Record<string, number>;
let worse = 0;
export type Report = typeof report;
function report(name: string, value: number, unit: string, floor = floors[name]): void {
  const bad = floor !== undefined && value > floor;
  if (bad) worse += 1;
  console.log(
    `${bad ? 'OVER ' : 'ok   '} ${name.padEnd(44)} ${value.toFixed(1).padStart(9)} ${unit}${floor === undefined ? '' : `  (floor ${floor})`}`,
  );
}

/** Seconds from the command to the line that it is ready; stopped again afterwards. */
async function startOnce(): Promise<number> {
  const began = performance.now();
  const child = spawn('./start', {
    env: { ...process.env, PORT: '3700' },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  await new Promise<void>((resolve, reject) => {
    child.stdout.on('data', (d: Buffer) => {
      if (d.toString().includes('ready in')) resolve();
    });
    child.on('exit', () => reject(new Error('./start ended; is it running already in this folder?')));
  });
  const seconds = (performance.now() - began) / 1000;
  child.removeAllListeners('exit');
  await new Promise((resolve) => {
    child.on('exit', resolve);
    child.kill('SIGINT');
  });
  return seconds;
}

async function everything(): Promise<void> {
  // 1. reduce + verdict over a log of 100 000 readings
  const pack = loadPack(packJson);
  const plan = makePlan({
    run: uuid(1, 3),
    practice: false,
    organisation: { id: uuid(1, 1), name: 'x' },
    site: { id: uuid(1, 4), name: 'x', address: '', customer: '' },
    system: bakery(),
    pack,
    packHash: 'x',
    procedureId: pack.procedures[0]!.id,
    case: 'existing',
    gauges: [gauge()],
    made: { at: '2026-11-20T08:00:00.000Z', zone: 'UTC', by: 'x' },
  });
  const began = Date.parse(plan.made.at);
  const base = place(
    playScript(
      plan,
      [...upTo(['9.10', '9.10']), ...hold(200, '20.50', '20.48'), [450, 'zero', '0'], ...SIGNED(500)],
      {
        device: uuid(1, 6),
        zone: 'UTC',
        pageLoad: uuid(1, 7),
        by: uuid(1, 2),
        byName: 'x',
        began,
        id: (n) => uuid(n, 8),
      },
    ),
  );
  const at = base.findLastIndex((e) => e.kind === 'hold-start');
  const start = base[at]!;
  const many = Array.from(
    { length: 100_000 },
    (_, i) =>
      ({
        ...start,
        kind: 'reading',
        id: uuid(i, 99),
        deviceSeq: 1000 + i,
        at: start.at + i,
        expects: start.expects,
        readAt: start.at + i,
        figure: { digits: 2050, scale: 2, unit: 'mbar' },
      }) as PlacedEvent,
  );
  const log = [...base.slice(0, at + 1), ...many, ...base.slice(at + 1)].map((e, i) => ({
    ...e,
    position: i + 1,
  }));
  global.gc?.();
  const before = process.memoryUsage().heapUsed;
  const t0 = performance.now();
  const state = reduce(plan, log);
  const verdict = verdictOf(plan, state);
  report('reduce + verdict, 100 000 readings', performance.now() - t0, 'ms');
  report('heap of that state', (process.memoryUsage().heapUsed - before) / 1e6, 'MB');
  if (verdict?.word !== 'tight') throw new Error(`The benchmark log must judge Tight, not ${verdict?.word}.`);

  pools(report);
  circuits(report);
  ducts(report);
  effort(report);
  analysis(report);
  splitting(report);
  // 2. planning visits of 14 tasks: the worst of many, with what the proof says; and every result of the Desk
  {
    const times: number[] = [];
    let proved = 0;
    let gap = 0;
    for (let n = 0; n < VISITS; n++) {
      const tasks = randomVisit(n, 14);
      const answer = answerPlan({
        facts: { tasks, crew: 1, wishes: {}, pinned: [], done: {} },
        promise: null,
        now: { progress: {}, now: 0 },
      });
      if (!('plan' in answer)) throw new Error(answer.trouble);
      times.push(answer.ms);
      if (answer.plan.proved) proved += 1;
      gap = Math.max(gap, (answer.plan.length - answer.plan.bound) / answer.plan.length);
    }
    times.sort((a, b) => a - b);
    report('visit of 14 tasks, worst of 100', times[times.length - 1]!, 'ms');
    report('visit of 14 tasks, median', times[VISITS / 2]!, 'ms');
    report('visit of 14 tasks, not proved shortest', VISITS - proved, 'of 100');
    report('visit of 14 tasks, largest gap to the bound', gap * 100, '%');
    let slowest = 0;
    let which = '';
    for (const f of DESK_LINES) {
      deskResult(f); // the first call compiles
      const began = performance.now();
      for (let i = 0; i < 20; i++) deskResult(f);
      const each = (performance.now() - began) / 20;
      if (each > slowest) [slowest, which] = [each, f.id];
    }
    report(`Desk, slowest result`, slowest, `ms (${which})`);
  }

  const url = process.env.VAST_BENCH_URL;
  // the record: sealing, checking, reading in, searching; PDFs where a server runs
  sealing(report);
  dayOfLog(report);
  await ledgerSearch(report);
  await load(report);
  await scale(report);
  if (url) await papers(report, url);
  if (url) {
    // 4. every page as a browser has it
    await pages(report, url);
  } else {
    // 3. second start: the first brings everything up to date, the second has nothing to do
    await startOnce();
    report('./start, second run', await startOnce(), 's');
  }
}

const served = (): string => {
  const url = process.env.VAST_BENCH_URL;
  if (!url) throw new Error('Say in VAST_BENCH_URL where a server with the demo runs.');
  return url;
};
const ALONE: Readonly<Record<string, (report: Report) => void | Promise<void>>> = {
  pages: (r) => pages(r, served()),
  analysis,
  splitting,
  pools,
  circuits,
  ducts,
  effort,
  load,
  scale,
  soak,
};
const alone = process.argv[2];
if (alone && ALONE[alone]) await ALONE[alone](report);
else if (alone) throw new Error(`There is no benchmark ${alone}: ${Object.keys(ALONE).join(', ')}.`);
else await everything();
if (worse) process.exitCode = 1;
