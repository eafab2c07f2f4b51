/**
 * Fits a candidate to readings: the most probable curve (Levenberg-Marquardt on a censored likelihood and the section's priors),
 * and how probable the readings are under it at all, all its curves taken together (Laplace; rates, which cannot be below nothing,
 * by a sum over their prior). Source: Bayesian model comparison
 */
import { type Likelihood, type Readings, solve } from './noise';

/** A course that readings can have. Its parameters: first those that are standard normal beforehand, then rates. */
export interface Candidate {
  readonly key: string;
  /** Standard normal beforehand. */
  readonly size: number;
  /** Rates, each above nothing, in its own unit: log-normal beforehand. */
  readonly rates: readonly { readonly mid: number; readonly spread: number }[];
  /** @param x parameters  @param out the course at the readings' times, less the first reading */
  readonly mean: (x: Float64Array, t: Float64Array, out: Float64Array) => void;
  /** Where the search begins; several where it could end in the wrong valley. */
  readonly starts: readonly (readonly number[])[];
}
export interface Fit {
  readonly x: Float64Array;
  readonly mean: Float64Array;
  /** Log-likelihood at the best curve. */
  readonly best: number;
  /** Log of the probability of the readings under the candidate as a whole. */
  readonly evidence: number;
  /** Inverse of the curvature: covariance of the parameters, rates taken as free. */
  readonly covariance: Float64Array[];
  /** Of each rate: what it is with what weight, ascending; weights sum to 1. Made when it is asked for. */
  readonly rates: () => readonly Weighed[];
}
export type Weighed = readonly { readonly value: number; readonly weight: number }[];
/** How long a search goes on: turns at most, and the gain below which it is content. */
export interface Effort {
  readonly turns: number;
  readonly gain: number;
}
export const THOROUGH: Effort = { turns: 40, gain: 1e-4 };
export const QUICK: Effort = { turns: 14, gain: 0.02 };
const STEP = 1e-4;
const LOG_2PI = Math.log(2 * Math.PI);

interface Point {
  readonly x: Float64Array;
  readonly mean: Float64Array;
  readonly value: number;
  readonly best: number;
}
/** Of several starts, all are followed for so many turns, and so many of them to the end. */
const TRIAL = { turns: 6, kept: 2 };

/**
 * @param starts where the search begins; absent: the candidate's own  @param effort how long each goes on
 * @returns null where the search does not come to an end with a curvature of its own
 */
export function fit(
  r: Readings,
  like: Likelihood,
  c: Candidate,
  starts: readonly ArrayLike<number>[] = c.starts,
  effort: Effort = THOROUGH,
): Fit | null {
  const climb = climber(r, like, c);
  let from: Float64Array[] = starts.map((s) => Float64Array.from(s));
  if (from.length > TRIAL.kept)
    from = from
      .flatMap((s) => climb(s, { turns: TRIAL.turns, gain: effort.gain }) ?? [])
      .sort((a, b) => b.here.value - a.here.value)
      .slice(0, TRIAL.kept)
      .map((x) => x.here.x);
  let found: Fit | null = null;
  for (const start of from) {
    const top = climb(start, effort);
    const whole = top && inverse(top.a, top.here.x.length);
    const one = whole && weighed(c, top.here, whole.inverse, whole.logDeterminant);
    if (one && (!found || one.evidence > found.evidence)) found = one;
  }
  return found;
}
/** Goes uphill from a place: where it came to, with the curvature there. */
function climber(r: Readings, like: Likelihood, c: Candidate) {
  const n = r.t.length;
  const k = c.size + c.rates.length;
  const at = (x: Float64Array): Point => {
    const mean = new Float64Array(n);
    c.mean(x, r.t, mean);
    const best = like(mean, true);
    let value = best;
    for (let j = 0; j < c.size; j += 1) value -= (x[j]! * x[j]!) / 2;
    return { x, mean, value, best };
  };
  const columns = Array.from({ length: k }, () => new Float64Array(n));
  const moved = new Float64Array(n);
  /** Curvature with the right side as last column, at a point whose likelihood was derived last. */
  const curvature = (p: Point): Float64Array[] => {
    for (let j = 0; j < k; j += 1) {
      const x = Float64Array.from(p.x);
      const h = STEP * Math.max(1, Math.abs(x[j]!));
      x[j]! += h;
      c.mean(x, r.t, moved);
      const column = columns[j]!;
      for (let i = 0; i < n; i += 1) column[i] = (moved[i]! - p.mean[i]!) / h;
    }
    const { slope, weight } = like;
    const a = Array.from({ length: k }, () => new Float64Array(k + 1));
    for (let j = 0; j < k; j += 1) {
      const cj = columns[j]!;
      const row = a[j]!;
      let right = 0;
      for (let i = 0; i < n; i += 1) right += cj[i]! * slope[i]!;
      for (let l = 0; l <= j; l += 1) {
        const cl = columns[l]!;
        let sum = 0;
        for (let i = 0; i < n; i += 1) sum += cj[i]! * cl[i]! * weight[i]!;
        row[l] = sum;
        a[l]![j] = sum;
      }
      if (j < c.size) {
        row[j]! += 1;
        right -= p.x[j]!;
      }
      row[k] = right;
    }
    return a;
  };
  return (start: Float64Array, { turns, gain: least }: Effort): { here: Point; a: Float64Array[] } | null => {
    let here = at(start);
    if (!Number.isFinite(here.value)) return null;
    let damping = 1e-3;
    let a = curvature(here);
    for (let turn = 0; turn < turns; turn += 1) {
      const move = solve(
        a.map((row, j) => {
          const copy = Float64Array.from(row);
          copy[j]! *= 1 + damping;
          copy[j]! += 1e-12;
          return copy;
        }),
      );
      if (!move) return null;
      const next = at(here.x.map((v, j) => v + move[j]!));
      if (Number.isFinite(next.value) && next.value > here.value - 1e-9) {
        const gain = next.value - here.value;
        here = next;
        damping = Math.max(1e-9, damping / 6);
        a = curvature(here);
        if (gain < least) break;
      } else {
        damping *= 8;
        if (damping > 1e8) break;
      }
    }
    return { here, a };
  };
}
/** Inverse of the left part and log of its determinant; null where it is not positive. */
function inverse(
  a: readonly Float64Array[],
  k: number,
): { inverse: Float64Array[]; logDeterminant: number } | null {
  // Cholesky, so that what is no minimum is seen
  const l = Array.from({ length: k }, () => new Float64Array(k));
  let log = 0;
  for (let i = 0; i < k; i += 1)
    for (let j = 0; j <= i; j += 1) {
      let sum = a[i]![j]!;
      for (let m = 0; m < j; m += 1) sum -= l[i]![m]! * l[j]![m]!;
      if (i === j) {
        if (!(sum > 0)) return null;
        l[i]![i] = Math.sqrt(sum);
        log += Math.log(sum);
      } else l[i]![j] = sum / l[j]![j]!;
    }
  const inv = Array.from({ length: k }, () => new Float64Array(k));
  for (let col = 0; col < k; col += 1) {
    const y = new Float64Array(k);
    for (let i = 0; i < k; i += 1) {
      let sum = i === col ? 1 : 0;
      for (let m = 0; m < i; m += 1) sum -= l[i]![m]! * y[m]!;
      y[i] = sum / l[i]![i]!;
    }
    for (let i = k - 1; i >= 0; i -= 1) {
      let sum = y[i]!;
      for (let m = i + 1; m < k; m += 1) sum -= l[m]![i]! * inv[m]![col]!;
      inv[i]![col] = sum / l[i]![i]!;
    }
  }
  return { inverse: inv, logDeterminant: log };
}
interface Node {
  readonly value: number;
  /** length of axis it stands for */ readonly width: number;
}
/** Places at which a rate is summed: dense where the readings put it, and over all its prior. */
function nodes(prior: { mid: number; spread: number }, best: number, sigma: number): Node[] {
  const at: number[] = [];
  for (let i = -24; i <= 24; i += 1) {
    const v = best + (i / 4) * sigma;
    if (v > 0) at.push(v);
  }
  for (let i = -16; i <= 16; i += 1) at.push(prior.mid * Math.exp((prior.spread * i) / 4));
  at.sort((p, q) => p - q);
  return at.map((value, i) => ({
    value,
    width: ((at[i + 1] ?? value) - (at[i - 1] ?? 0)) / 2,
  }));
}
const logNormal = (q: number, { mid, spread }: { mid: number; spread: number }): number =>
  -((Math.log(q / mid) / spread) ** 2 / 2) - Math.log(q * spread) - LOG_2PI / 2;

/** The evidence, and what each rate is: normals in closed form, rates summed over their prior. */
function weighed(c: Candidate, p: Point, covariance: Float64Array[], logDeterminant: number): Fit | null {
  const m = c.rates.length;
  // all parameters free: the whole volume under the curve; the normals' own priors stand in it without their constant
  const whole = p.value - logDeterminant / 2 + (m * LOG_2PI) / 2;
  const base = { x: p.x, mean: p.mean, best: p.best, covariance };
  if (m === 0) return { ...base, evidence: whole, rates: () => [] };
  const i = c.size;
  const s1 = Math.sqrt(covariance[i]![i]!);
  if (!(s1 > 0)) return null;
  const q1 = p.x[i]!;
  const normal = (v: number, mean: number, s: number) =>
    -(((v - mean) / s) ** 2) / 2 - Math.log(s) - LOG_2PI / 2;
  if (m === 1) {
    const list = nodes(c.rates[0]!, q1, s1).map(({ value, width }) => ({
      value,
      log: normal(value, q1, s1) + logNormal(value, c.rates[0]!) + Math.log(width || 1e-300),
    }));
    const { total, list: rates } = normed(list);
    return { ...base, evidence: whole + total, rates: () => [rates] };
  }
  // two rates: the second first, the first given it
  const j = i + 1;
  const s2 = Math.sqrt(covariance[j]![j]!);
  const q2 = p.x[j]!;
  if (!(s2 > 0)) return null;
  const slope = covariance[i]![j]! / (s2 * s2);
  const rest = Math.sqrt(Math.max(1e-12 * s1 * s1, s1 * s1 - (slope * s2) ** 2));
  const first: { value: number; log: number }[] = [];
  const list = nodes(c.rates[1]!, q2, s2).map(({ value, width }) => {
    const mean = q1 + slope * (value - q2);
    const outer = normal(value, q2, s2) + logNormal(value, c.rates[1]!) + Math.log(width || 1e-300);
    const inner = nodes(c.rates[0]!, mean, rest).map((n) => ({
      value: n.value,
      log: normal(n.value, mean, rest) + logNormal(n.value, c.rates[0]!) + Math.log(n.width || 1e-300),
    }));
    const sum = normed(inner);
    for (const x of sum.list)
      first.push({ value: x.value, log: outer + sum.total + Math.log(x.weight || 1e-300) });
    return { value, log: outer + sum.total };
  });
  const { total, list: second } = normed(list);
  const firsts = () => normed(first.sort((a, b) => a.value - b.value)).list;
  return { ...base, evidence: whole + total, rates: () => [firsts(), second] };
}
function normed(list: readonly { value: number; log: number }[]): {
  total: number;
  list: { value: number; weight: number }[];
} {
  const most = list.reduce((a, x) => Math.max(a, x.log), -Infinity);
  if (most === -Infinity) return { total: -Infinity, list: list.map((x) => ({ value: x.value, weight: 0 })) };
  const weights = list.map((x) => Math.exp(x.log - most));
  const sum = weights.reduce((a, w) => a + w, 0);
  return {
    total: most + Math.log(sum),
    list: list.map((x, i) => ({ value: x.value, weight: weights[i]! / sum })),
  };
}
/** Value below which so much of the weight lies. */
export function quantile(list: readonly { value: number; weight: number }[], part: number): number {
  let sum = 0;
  for (const [i, x] of list.entries()) {
    const next = sum + x.weight;
    if (next >= part) {
      const before = list[i - 1]?.value ?? x.value;
      return x.weight > 0 ? before + ((x.value - before) * (part - sum)) / x.weight : x.value;
    }
    sum = next;
  }
  return list[list.length - 1]?.value ?? NaN;
}
