/** What the analysis makes of traces whose truth is known: the cause, the rate, the warning; and how long it takes. */
import { analyse, STANDS_OUT } from '@/core/analysis/analyse';
import { LEAKS } from '@/core/analysis/section';
import type { Report } from './run';
import { unmask, type Unmasked, unmasked } from './traces/masked';
import { ownTraces } from './traces/own';
import { count, sum, type Tally, tally } from './traces/tally';
import { draw } from './traces/worlds';
import { warned, watch, type Warned } from './traces/warnings';
import { seeded } from '../scripts/honesty/worlds';

export const SEED = 200_000;
/** Targets, percent unless said otherwise. */
export const TARGETS = {
  right: 90,
  dangerous: 0.5,
  held: [94, 96],
  bound: 1.15,
  falseAlarm: 1,
  cooling: 1,
  ms: 30,
  unmasked: 90,
};

export interface Measured {
  readonly tally: Tally;
  readonly warned: Warned;
  readonly masked: Unmasked;
}
export function measured(
  traces: number,
  holds: number,
  seed = SEED,
  told?: (seed: number, judged: () => boolean) => boolean,
): Measured {
  const t = tally();
  for (let i = 0; i < traces; i += 1) count(t, seed + i, told);
  const w = warned();
  for (let i = 0; i < holds; i += 1) watch(w, seed + 500_000 + i);
  const masked = unmasked();
  for (let i = 0; i < traces / 5; i += 1) unmask(masked, seed + i);
  return { tally: t, warned: w, masked };
}
/** The figures that the targets are about. */
export function figuresOf({ tally: t, warned: w, masked: m }: Measured) {
  const separable = sum(t, (r) => r.separable);
  const leaks = [...t.rows].reduce((s, [cause, r]) => s + (LEAKS.has(cause) ? r.separable : 0), 0);
  return {
    traces: sum(t, (r) => r.traces),
    separable,
    right: (100 * sum(t, (r) => r.right)) / separable,
    wrong: (100 * sum(t, (r) => r.wrong)) / separable,
    dangerous: (100 * sum(t, (r) => r.dangerous)) / leaks,
    held: (100 * t.held.inside) / t.held.of,
    rates: t.held.of,
    bound: Math.sqrt(t.held.square / t.held.of),
    falseAlarm: (100 * w.false) / w.good,
    warned: (100 * w.warned) / w.bad,
    saved: (100 * w.saved) / w.warned,
    cooling: (100 * w.calledLeak) / w.cooling,
    band: (100 * w.inside) / w.bands,
    unmasked: (100 * m.unmasked) / m.hidden,
    calledMasked: (100 * m.called) / m.sound,
  };
}
/** Milliseconds for traces of 600 readings, the middle of many; the first calls compile. */
function milliseconds(): number {
  const times: number[] = [];
  for (let seed = 1; times.length < 60; seed += 1) {
    const trace = draw(seeded(9000 + seed));
    if (trace.facts.filling !== 'gas' && trace.facts.filling !== 'liquid') continue;
    const span = trace.t[trace.t.length - 1]!;
    const t = Float64Array.from({ length: 600 }, (_, i) => (span * i) / 599);
    const out = new Float64Array(600);
    trace.world.course(trace.z, t, out);
    const samples = Array.from(t, (s, i) => ({
      t: s * 1000,
      p: trace.facts.pressure + Math.round(out[i]! / trace.facts.step) * trace.facts.step,
    }));
    const began = performance.now();
    analyse(samples, trace.facts);
    times.push(performance.now() - began);
  }
  return times.slice(20).sort((a, b) => a - b)[20]!;
}
export function analysis(report: Report, traces = 5000, holds = 1500): void {
  const m = measured(traces, holds);
  const f = figuresOf(m);
  console.log(
    `      of ${f.traces} traces ${f.separable} are separable (${((100 * f.separable) / f.traces).toFixed(1)} %); told from ${100 * STANDS_OUT} % on`,
  );
  for (const [cause, r] of [...m.tally.rows].sort(([a], [b]) => a.localeCompare(b)))
    console.log(
      `      ${cause.padEnd(18)} ${String(r.traces).padStart(5)} traces, ${String(r.separable).padStart(5)} separable: ${r.right} right, ${r.untold} cannot tell, ${r.wrong} wrong${r.taken.size ? ` (first: ${[...r.taken].map(([c, n]) => `${c} ${n}`).join(', ')})` : ''}`,
    );
  for (const [name, r] of ownTraces(40))
    console.log(
      `      own simulator, ${name.padEnd(20)} ${r.right} of ${r.of} right, ${r.untold} cannot tell${r.else.size ? `, ${[...r.else].map(([c, n]) => `${c} ${n}`).join(', ')}` : ''}`,
    );
  report('separable traces without their cause', 100 - f.right, '%', 100 - TARGETS.right);
  report('called by another cause', f.wrong, '%');
  report('leaks called warmth with more than 80 %', f.dangerous, '%', TARGETS.dangerous);
  report(`rates inside their 95 % interval, of ${f.rates}`, f.held, '%');
  report('that beside 95 %', Math.abs(f.held - 95), '%', 1);
  report('error of the rate beside the least there is', f.bound, 'times', TARGETS.bound);
  report('holds warned of that ended well', f.falseAlarm, '%', TARGETS.falseAlarm);
  report('holds warned of that ended beyond', f.warned, '%');
  report('part of the hold that the warning saved', f.saved, '%');
  report('cooling pipes warned of as a leak', f.cooling, '%', TARGETS.cooling);
  report('ends inside their 95 % band after a third', f.band, '%');
  report('leaks hidden by a valve that stay hidden', 100 - f.unmasked, '%', 100 - TARGETS.unmasked);
  report('sound sections called leaking behind it', f.calledMasked, '%');
  report('a trace of 600 readings', milliseconds(), 'ms', TARGETS.ms);
}
