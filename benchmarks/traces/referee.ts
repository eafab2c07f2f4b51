/**
 * How probable a trace is under each cause, by the generator's own courses, sizes and noise: what anybody could know at best. The
 * most probable sizes are searched for, then the probability of all sizes together is summed by chance about them (importance
 * sampling), so that nothing rests on a curve's shape.
 */
import type { Cause } from '@/core/analysis/section';
import { normal, type Random } from '../../scripts/honesty/worlds';
import { erf, type Scene, type Trace, type World } from './worlds';

const SAMPLES = 160;
const phi = (x: number) => 0.5 * (1 + erf(x / Math.SQRT2));
/** Between two points of a normal, far out too. */
function between(a: number, b: number): number {
  const p = phi(b) - phi(a);
  if (p > 1e-13) return Math.log(p);
  const near = Math.min(Math.abs(a), Math.abs(b));
  return -(near * near) / 2 - Math.log(near + 1) - 0.92;
}
/** Log-likelihood of displays about a course: rounded where each is new; whitened where neighbours are alike. */
function likely(s: Scene, y: Float64Array, mean: Float64Array): number {
  const { step } = s.facts;
  let sum = 0;
  if (s.rho === 0) {
    for (let i = 0; i < y.length; i += 1) {
      const off = y[i]! - mean[i]!;
      sum += between((off - step / 2) / s.sigma, (off + step / 2) / s.sigma);
    }
    return sum;
  }
  const rounding = (step * step) / 12;
  let before = 0;
  for (let i = 0; i < y.length; i += 1) {
    const e = y[i]! - mean[i]!;
    const rest = i ? e - s.rho * before : e;
    const v = i ? s.sigma ** 2 * (1 - s.rho ** 2) + rounding * (1 + s.rho ** 2) : s.sigma ** 2 + rounding;
    sum += -(rest * rest) / (2 * v) - Math.log(v) / 2 - Math.log(2 * Math.PI) / 2 + Math.log(step);
    before = e;
  }
  return sum;
}
/** Lower triangle of a positive matrix; null where it is none. */
function lower(a: number[][]): number[][] | null {
  const n = a.length;
  const l = a.map((row) => row.map(() => 0));
  for (let i = 0; i < n; i += 1)
    for (let j = 0; j <= i; j += 1) {
      let sum = a[i]![j]!;
      for (let k = 0; k < j; k += 1) sum -= l[i]![k]! * l[j]![k]!;
      if (i === j) {
        if (!(sum > 0)) return null;
        l[i]![i] = Math.sqrt(sum);
      } else l[i]![j] = sum / l[j]![j]!;
    }
  return l;
}
const forward = (l: number[][], b: number[]) => {
  const x: number[] = [];
  b.forEach((v, i) => x.push((v - x.reduce((s, w, k) => s + l[i]![k]! * w, 0)) / l[i]![i]!));
  return x;
};
const backward = (l: number[][], b: number[]) => {
  const x = [...b];
  for (let i = b.length - 1; i >= 0; i -= 1) {
    let sum = b[i]!;
    for (let k = i + 1; k < b.length; k += 1) sum -= l[k]![i]! * x[k]!;
    x[i] = sum / l[i]![i]!;
  }
  return x;
};
/** What the readings say of the sizes at a place: slopes of the course, weighed by the noise. */
export function information(s: Scene, w: World, z: Float64Array): { slopes: Float64Array[]; a: number[][] } {
  const at = new Float64Array(s.t.length);
  w.course(z, s.t, at);
  const slopes = Array.from(z, (v, j) => {
    const moved = Float64Array.from(z);
    moved[j] = v + 1e-4;
    const out = new Float64Array(s.t.length);
    w.course(moved, s.t, out);
    return out.map((o, i) => (o - at[i]!) / 1e-4);
  });
  const v = s.sigma ** 2 + s.facts.step ** 2 / 12;
  const thin = (1 - s.rho) / (1 + s.rho);
  const a = slopes.map((p, i) =>
    slopes.map((q, j) => p.reduce((sum, x, k) => sum + x * q[k]!, 0) * (thin / v) + Number(i === j)),
  );
  return { slopes, a };
}
/** Log of the probability of the readings under one world, all its sizes together. */
function evidence(r: Random, s: Scene, y: Float64Array, w: World, starts: readonly Float64Array[]): number {
  const out = new Float64Array(s.t.length);
  const value = (z: Float64Array) => {
    w.course(z, s.t, out);
    return likely(s, y, out) - z.reduce((sum, x) => sum + x * x, 0) / 2;
  };
  let best: Float64Array | null = null;
  let most = -Infinity;
  for (const start of starts) {
    let z = Float64Array.from(start);
    let here = value(z);
    let damp = 1e-2;
    for (let turn = 0; turn < 25 && damp < 1e7; turn += 1) {
      const { slopes, a } = information(s, w, z);
      w.course(z, s.t, out);
      const v = s.sigma ** 2 + s.facts.step ** 2 / 12;
      const thin = (1 - s.rho) / (1 + s.rho);
      const b = slopes.map(
        (p, j) => p.reduce((sum, x, k) => sum + x * (y[k]! - out[k]!), 0) * (thin / v) - z[j]!,
      );
      const l = lower(a.map((row, i) => row.map((x, j) => (i === j ? x * (1 + damp) : x))));
      if (!l) break;
      const move = backward(l, forward(l, b));
      const next = z.map((x, j) => Math.max(-4, Math.min(4, x + move[j]!)));
      const there = value(next);
      if (there > here) {
        const gain = there - here;
        [z, here] = [next, there];
        damp /= 5;
        if (gain < 1e-3) break;
      } else damp *= 6;
    }
    if (here > most) [best, most] = [z, here];
  }
  if (!best) return -Infinity;
  const l = lower(information(s, w, best).a);
  if (!l) return -Infinity;
  const logDet = l.reduce((sum, row, i) => sum + Math.log(row[i]!), 0);
  // a little wider than the curvature, so that no tail is missed
  const wide = 1.3;
  const k = best.length;
  const logs: number[] = [];
  for (let n = 0; n < SAMPLES; n += 1) {
    const u = Array.from({ length: k }, () => normal(r));
    const move = backward(l, u);
    const z = best.map((x, j) => x + wide * move[j]!);
    const density = -u.reduce((sum, x) => sum + x * x, 0) / 2 + logDet - k * Math.log(wide);
    logs.push(value(z) - density);
  }
  const top = Math.max(...logs);
  return top + Math.log(logs.reduce((sum, x) => sum + Math.exp(x - top), 0) / SAMPLES);
}
function startsOf(s: Scene, y: Float64Array, w: World, truth: Float64Array | null): Float64Array[] {
  const zeros = new Float64Array(w.size);
  const list = truth ? [truth, zeros] : [zeros];
  if (w.cause === 'step') {
    // every moment is tried by eye: the largest jumps
    const n = y.length;
    const sizes = Array.from({ length: n - 1 }, (_, i) => ({ i, d: Math.abs(y[i + 1]! - y[i]!) })).sort(
      (a, b) => b.d - a.d,
    );
    for (const { i } of sizes.slice(0, 4)) {
      const share = (s.t[i]! + s.t[i + 1]!) / 2 / s.t[n - 1]!;
      const z = Float64Array.from(zeros);
      z[w.size - 1] = inverse(share);
      z[w.size - 2] = (y[i + 1]! - y[i]!) / (25 * s.facts.step);
      list.push(z);
    }
    return list;
  }
  for (let j = s.facts.filling === 'gas' || s.facts.filling === 'liquid' ? 2 : 1; j < w.size; j += 1)
    for (const v of [-1.5, 1.5]) {
      const z = Float64Array.from(zeros);
      z[j] = v;
      list.push(z);
    }
  return list;
}
/** Standard normal below which a share lies, by halving. */
function inverse(share: number): number {
  let [low, high] = [-4, 4];
  for (let i = 0; i < 40; i += 1) {
    const mid = (low + high) / 2;
    if (phi(mid) < share) low = mid;
    else high = mid;
  }
  return (low + high) / 2;
}
/** Every cause with the log of its probability; causes with several worlds by all of them together. */
export function judge(r: Random, trace: Trace): Map<Cause, number> {
  const found = new Map<Cause, number[]>();
  for (const w of trace.worlds) {
    const log = evidence(
      r,
      trace,
      trace.y,
      w,
      startsOf(trace, trace.y, w, w === trace.world ? trace.z : null),
    );
    found.set(w.cause, [...(found.get(w.cause) ?? []), log]);
  }
  return new Map(
    [...found].map(([cause, logs]) => {
      const top = Math.max(...logs);
      return [
        cause,
        top === -Infinity
          ? top
          : top + Math.log(logs.reduce((s, x) => s + Math.exp(x - top), 0) / logs.length),
      ];
    }),
  );
}
/** The generator's likelihood favours the truth over every other cause by 20 to 1. */
export function separable(judged: ReadonlyMap<Cause, number>, truth: Cause): boolean {
  const own = judged.get(truth)!;
  return [...judged].every(([cause, log]) => cause === truth || own - log >= Math.log(20));
}
/** Least standard error of the leak that readings, priors and the section's own uncertainty allow, as a part of it. */
export function bound(trace: Trace): number {
  const w = trace.world;
  const at = w.leak!.at;
  const { a } = information(trace, w, trace.z);
  // what the readings say of the leak itself, without what was known of it beforehand
  a[at]![at]! -= 1;
  const l = lower(a);
  if (!l) return Infinity;
  const e = a.map((_, i) => Number(i === at));
  const column = backward(l, forward(l, e));
  const h = 1e-4;
  const relative =
    (w.leak!.rate(trace.z[at]! + h) - w.leak!.rate(trace.z[at]!)) / h / w.leak!.rate(trace.z[at]!);
  return Math.hypot(Math.sqrt(column[at]!) * relative, trace.off);
}
