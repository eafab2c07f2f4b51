/** Traces of known truth, analysed: how often the cause is right, how well the leak is measured, what goes wrong dangerously. */
import { analyse, STANDS_OUT } from '@/core/analysis/analyse';
import { type Cause, LEAKS } from '@/core/analysis/section';
import { seeded } from '../../scripts/honesty/worlds';
import { bound, judge, separable } from './referee';
import { draw, type Trace } from './worlds';

export interface Row {
  traces: number;
  separable: number;
  right: number;
  wrong: number;
  untold: number;
  /** called warmth with more than 80 % */ dangerous: number;
  /** what it was taken for instead */ readonly taken: Map<Cause, number>;
}
export interface Tally {
  readonly rows: Map<Cause, Row>;
  /** separable traces with a leak whose cause was told: intervals that held the truth, and errors against the bound */
  readonly held: { inside: number; of: number; square: number };
  ms: number;
}
export const tally = (): Tally => ({ rows: new Map(), held: { inside: 0, of: 0, square: 0 }, ms: 0 });
const samplesOf = (trace: Trace) =>
  Array.from(trace.t, (t, i) => ({ t: t * 1000, p: trace.facts.pressure + trace.y[i]! }));

/** `answers` stands for the referee where its answer to this seed is kept. */
export function count(
  into: Tally,
  seed: number,
  answers?: (seed: number, judged: () => boolean) => boolean,
): void {
  const r = seeded(seed);
  const trace = draw(r);
  const { cause } = trace.world;
  const row = into.rows.get(cause) ?? {
    traces: 0,
    separable: 0,
    right: 0,
    wrong: 0,
    untold: 0,
    dangerous: 0,
    taken: new Map<Cause, number>(),
  };
  into.rows.set(cause, row);
  row.traces += 1;
  const judged = () => separable(judge(r, trace), cause);
  if (!(answers ? answers(seed, judged) : judged())) return;
  row.separable += 1;
  const began = performance.now();
  const a = analyse(samplesOf(trace), trace.facts);
  into.ms += performance.now() - began;
  const told = a?.told ?? null;
  if (told === cause) row.right += 1;
  else if (told === null) row.untold += 1;
  else row.wrong += 1;
  const first = a?.causes[0]?.cause;
  if (first && first !== cause) row.taken.set(first, (row.taken.get(first) ?? 0) + 1);
  if (LEAKS.has(cause)) {
    const warmth = (a?.causes ?? []).find((c) => c.cause === 'temperature')?.probability ?? 0;
    if (warmth > STANDS_OUT) row.dangerous += 1;
    if (a?.rate && told && LEAKS.has(told)) {
      into.held.of += 1;
      if (trace.leak >= a.rate.low && trace.leak <= a.rate.high) into.held.inside += 1;
      into.held.square += ((a.rate.value - trace.leak) / trace.leak / bound(trace)) ** 2;
    }
  }
}
export const sum = (t: Tally, of: (r: Row) => number): number =>
  [...t.rows.values()].reduce((s, r) => s + of(r), 0);
