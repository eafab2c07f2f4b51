/** What the holds of parts say together: Bayes by the rates that were measured, and whether the parts' rates add up. Source: Bayes */
import type { Isolation } from './order';

/** l/h with its standard uncertainty. */
export interface Measured {
  readonly rate: number;
  readonly error: number;
}
export interface Result extends Measured {
  readonly isolation: Isolation;
}
export interface Found {
  /** Probability of each part, were it one leak. */
  readonly probability: readonly number[];
  /** The most probable part, and how sure that is. */
  readonly part: number;
  readonly confidence: number;
  /** In sentences: where the rates of the parts are not the rate of the whole. */
  readonly doubts: readonly string[];
}
/** A rate is known to so much beside its own uncertainty: another pressure, another volume. House figure. */
const OTHERWISE = 0.15;
/** Beyond so many standard uncertainties two rates are not the same. */
const APART = 3;
/** However sure a hold seems: a valve that passes, a hand, a slip. House figure. */
const SLIP = 0.02;

/** @param whole what all parts together lose  @param names of the parts, for what is said of them */
export function found(
  suspicion: readonly number[],
  whole: Measured,
  results: readonly Result[],
  names: readonly string[],
): Found {
  const doubts: string[] = [];
  const logs = suspicion.map((w) => Math.log(w));
  for (const r of results) {
    const sd = Math.hypot(r.error, whole.error, OTHERWISE * whole.rate);
    logs.forEach((_, i) => {
      const expected = r.isolation.holds & (1 << i) ? whole.rate : 0;
      const off = (r.rate - expected) / Math.hypot(expected ? sd : r.error, 1e-9);
      logs[i]! += Math.log((1 - SLIP) * Math.exp(-(off * off) / 2) + SLIP);
    });
    const held = names.filter((_, i) => r.isolation.holds & (1 << i)).join(', ');
    const off = Math.abs(r.rate - whole.rate) / sd;
    if (r.rate > APART * r.error && off > APART)
      doubts.push(
        r.rate < whole.rate
          ? `${held}: a part of the whole only. The rest leaks too, or a valve between them passes.`
          : `${held}: more than the whole lost. One of the two holds was disturbed: hold both again.`,
      );
  }
  // holds of parts that share nothing and are all of it
  const all = 2 ** suspicion.length - 1;
  for (const [i, a] of results.entries())
    for (const b of results.slice(i + 1))
      if ((a.isolation.holds & b.isolation.holds) === 0 && (a.isolation.holds | b.isolation.holds) === all) {
        const sd = Math.hypot(a.error, b.error, whole.error, OTHERWISE * whole.rate);
        if (Math.abs(a.rate + b.rate - whole.rate) > APART * sd)
          doubts.push(
            'The two parts together do not lose what the whole lost: a valve used as an end passes, or the leak comes and goes.',
          );
      }
  const most = Math.max(...logs);
  const weights = logs.map((l) => Math.exp(l - most));
  const sum = weights.reduce((s, w) => s + w, 0);
  const probability = weights.map((w) => w / sum);
  const part = probability.indexOf(Math.max(...probability));
  return { probability, part, confidence: probability[part]!, doubts };
}
