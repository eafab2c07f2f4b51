/**
 * What a vacuum that stands by itself says: the shape of its rise. A leak lets air in evenly; moisture and gas from walls and oil
 * come fast and then slower, towards water's vapour pressure at the temperature or below it.
 */
import { waterVapourPressure } from './refrigerant';

export interface VacuumPoint {
  /** since the pump was shut */ readonly seconds: number;
  /** absolute */ readonly pa: number;
}
/** What the rise looks like. `few`: too few readings to see a shape. */
export type VacuumCause = 'level' | 'falls' | 'leak' | 'moisture' | 'both' | 'few';
export interface VacuumFit {
  readonly cause: VacuumCause;
  /** Of the whole, from first to last reading, Pa. */
  readonly rise: number;
  /** The even part, and the part that dies away, at the start; Pa a minute. */
  readonly leak: number;
  readonly moisture: number;
  /** Where the part that dies away would end, Pa absolute; null where nothing dies away. */
  readonly towards: number | null;
  /** How sure the cause is, 0 to 1, as far as readings and these two causes go. */
  readonly sure: number;
}
/** Readings without which no shape is seen. */
export const FEWEST = 5;
/** One slope is so much larger than the other, or the trace cannot tell. House figure; the benchmark keeps it. */
const LARGER = 1.7;
const SURE = 0.8;

/** Least squares of p = a + b t + c g(t) with b and c not below zero; what would be below is left out. */
function fit(points: readonly VacuumPoint[], g: (t: number) => number, uses: { b: boolean; c: boolean }) {
  const columns = [() => 1, ...(uses.b ? [(t: number) => t] : []), ...(uses.c ? [g] : [])];
  const n = columns.length;
  const m = Array.from({ length: n }, () => Array<number>(n + 1).fill(0));
  for (const { seconds, pa } of points) {
    const row = columns.map((f) => f(seconds));
    for (let i = 0; i < n; i += 1) {
      for (let j = 0; j < n; j += 1) m[i]![j]! += row[i]! * row[j]!;
      m[i]![n]! += row[i]! * pa;
    }
  }
  for (let i = 0; i < n; i += 1) {
    const pivot = m[i]![i]!;
    if (!(Math.abs(pivot) > 1e-9)) return null;
    for (let j = i; j <= n; j += 1) m[i]![j]! /= pivot;
    for (let k = 0; k < n; k += 1)
      if (k !== i) {
        const factor = m[k]![i]!;
        for (let j = i; j <= n; j += 1) m[k]![j]! -= factor * m[i]![j]!;
      }
  }
  const solved = m.map((row) => row[n]!);
  const b = uses.b ? solved[1]! : 0;
  const c = uses.c ? solved[n - 1]! : 0;
  const square = points.reduce(
    (sum, p) => sum + (p.pa - solved[0]! - b * p.seconds - c * (uses.c ? g(p.seconds) : 0)) ** 2,
    0,
  );
  return { a: solved[0]!, b, c, square };
}
type Fitted = NonNullable<ReturnType<typeof fit>>;
/** The best of a fit with both parts, and with one of them alone, none of them below zero. */
function bounded(points: readonly VacuumPoint[], g: (t: number) => number): Fitted | null {
  const both = fit(points, g, { b: true, c: true });
  if (both && both.b >= 0 && both.c >= 0) return both;
  const alone = [fit(points, g, { b: true, c: false }), fit(points, g, { b: false, c: true })].filter(
    (f): f is Fitted => f !== null && f.b >= 0 && f.c >= 0,
  );
  return alone.reduce<Fitted | null>((best, f) => (!best || f.square < best.square ? f : best), null);
}

/**
 * The cause of a rise. For every time in which the dying part may fade the two parts are fitted; each counts by how well it fits, so
 * that what the readings cannot tell stays open.
 * @param points in their order, the first when the pump was shut @param step of the gauge, Pa @param celsius of the coldest part, where
 * it is known: moisture cannot rise above its vapour pressure there @param perceptible the smallest movement that counts, Pa
 */
export function vacuumFit(
  points: readonly VacuumPoint[],
  step: number,
  perceptible: number,
  celsius: number | null = null,
): VacuumFit {
  const first = points[0];
  const last = points[points.length - 1];
  const rise = first && last ? last.pa - first.pa : 0;
  const none = { rise, leak: 0, moisture: 0, towards: null, sure: 1 };
  if (rise <= -perceptible) return { ...none, cause: 'falls' };
  if (points.length < FEWEST) return { ...none, cause: 'few', sure: 0 };
  if (rise < perceptible) return { ...none, cause: 'level' };
  const span = last!.seconds - first!.seconds;
  const most = celsius === null ? Infinity : waterVapourPressure(celsius);
  const fits: { tau: number; f: Fitted }[] = [];
  for (let i = 0; i <= 40; i += 1) {
    // from a twentieth of the time watched to twice it: slower than that it is straight to any eye
    const tau = (span / 20) * 40 ** (i / 40);
    const f = bounded(points, (t) => 1 - Math.exp(-t / tau));
    if (f && f.a + f.c <= most * 1.05) fits.push({ tau, f });
  }
  const straight = fit(points, () => 0, { b: true, c: false });
  if (straight && straight.b >= 0) fits.push({ tau: Infinity, f: straight });
  if (!fits.length) return { ...none, cause: 'few', sure: 0 };
  const least = Math.min(...fits.map((x) => x.f.square));
  // what the gauge's steps and the best shape leave unexplained
  const noise = Math.max(least / Math.max(1, points.length - 3), (step * step) / 12);
  const weighed = fits.map((x) => ({ ...x, w: Math.exp(-(x.f.square - least) / (2 * noise)) }));
  const total = weighed.reduce((sum, x) => sum + x.w, 0);
  const mean = (of: (x: (typeof weighed)[number]) => number) =>
    weighed.reduce((sum, x) => sum + x.w * of(x), 0) / total;
  const leakOf = (x: { f: Fitted }) => x.f.b * 60;
  const moistureOf = (x: { f: Fitted; tau: number }) => (x.tau === Infinity ? 0 : (x.f.c / x.tau) * 60);
  const part = (test: (x: (typeof weighed)[number]) => boolean) => mean((x) => Number(test(x)));
  const leaks = part((x) => leakOf(x) > LARGER * moistureOf(x));
  const dies = part((x) => moistureOf(x) > LARGER * leakOf(x));
  const cause = leaks >= SURE ? 'leak' : dies >= SURE ? 'moisture' : 'both';
  const dying = weighed.filter((x) => x.tau !== Infinity && x.f.c > 0);
  const dyingWeight = dying.reduce((sum, x) => sum + x.w, 0);
  return {
    cause,
    rise,
    leak: mean(leakOf),
    moisture: mean(moistureOf),
    towards: dyingWeight > 0 ? dying.reduce((sum, x) => sum + x.w * (x.f.a + x.f.c), 0) / dyingWeight : null,
    sure: cause === 'leak' ? leaks : cause === 'moisture' ? dies : 1 - leaks - dies,
  };
}
