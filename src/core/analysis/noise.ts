/**
 * What a displayed figure says of the pressure behind it: it lies within half a step, but for the gauge's own scatter. The
 * likelihood of a reading is the probability of its step (interval-censored); far out it grows no steeper, so that one knock on
 * the hose does not decide. Source: normal errors, rounded
 */

/** Beyond so many standard deviations a reading counts as a knock: its weight grows no further. House figure. */
const KNOCK = 4;
/** Scatter above so many steps hides the rounding: it is then one more part of the scatter (step squared / 12). */
const HIDES = 1.5;

const ROOT_2PI = Math.sqrt(2 * Math.PI);
const density = (x: number): number => Math.exp(-0.5 * x * x) / ROOT_2PI;
/** Tail over density at x >= 0: a series near the middle, a continued fraction beyond. */
function mills(x: number): number {
  if (x < 2) {
    let term = x;
    let sum = x;
    for (let k = 3; Math.abs(term) > 1e-17 * sum || k < 5; k += 2) {
      term *= (x * x) / k;
      sum += term;
      if (k > 199) break;
    }
    return 0.5 / density(x) - sum;
  }
  let f = 0;
  for (let k = 120; k >= 1; k -= 1) f = k / (x + f);
  return 1 / (x + f);
}
const PER = 64;
const MOST = 10;
const TABLE = Float64Array.from({ length: MOST * PER + 2 }, (_, i) => mills(i / PER));
/** Between two values by their slopes, both over the whole step. @param s part of the step, 0 to 1 */
export function cubic(s: number, a: number, da: number, b: number, db: number): number {
  const s2 = s * s;
  const s3 = s2 * s;
  return (2 * s3 - 3 * s2 + 1) * a + (s3 - 2 * s2 + s) * da + (3 * s2 - 2 * s3) * b + (s3 - s2) * db;
}
/** The same from a table, by a cubic through values and slopes (R' = x R - 1). */
function tailOverDensity(x: number): number {
  if (x >= MOST) return 1 / (x + 1 / (x + 2 / x));
  const at = x * PER;
  const i = at | 0;
  const s = at - i;
  const [a, b] = [TABLE[i]!, TABLE[i + 1]!];
  const da = ((i / PER) * a - 1) / PER;
  const db = (((i + 1) / PER) * b - 1) / PER;
  return cubic(s, a, da, b, db);
}
/** Probability that a standard normal lies above x. */
export const upperTail = (x: number): number =>
  x >= 0 ? density(x) * tailOverDensity(x) : 1 - density(x) * tailOverDensity(-x);

export interface Readings {
  /** seconds from the start, ascending */ readonly t: Float64Array;
  /** what was displayed, less the first; Pa, or m of a level */ readonly y: Float64Array;
  /** how many readings each stands for */ readonly weight: Float64Array;
  /** display step, same unit as y */ readonly step: number;
}
/** Log-likelihood of readings about a curve, with its slope and weight at each (first and second derivative by the mean). */
export interface Likelihood {
  readonly slope: Float64Array;
  readonly weight: Float64Array;
  (mean: Float64Array, derive: boolean): number;
}
/**
 * @param sigma scatter of the gauge before it rounds  @param thin how much one reading counts where neighbours say the same
 * again (coloured noise), 0 to 1  @param knock standard deviations from which a reading counts as a knock
 */
export function likelihoodOf(r: Readings, sigma: number, thin = 1, knock = KNOCK): Likelihood {
  const n = r.t.length;
  const slope = new Float64Array(n);
  const weight = new Float64Array(n);
  const rounded = sigma <= HIDES * r.step;
  const spread = rounded ? sigma : Math.sqrt(sigma * sigma + (r.step * r.step) / 12);
  const half = r.step / 2;
  const base = Math.log(r.step / (spread * ROOT_2PI));
  const evaluate = (mean: Float64Array, derive: boolean): number => {
    let total = 0;
    for (let i = 0; i < n; i += 1) {
      const w = r.weight[i]! * thin;
      const off = r.y[i]! - mean[i]!;
      // distance of the curve from the step, or from its middle, in standard deviations
      const far = (rounded ? Math.abs(off) - half : Math.abs(off)) / spread;
      if (far > knock) {
        // a straight tail that goes on from where the normal one is left
        const edge = rounded ? Math.log(upperTail(knock)) : base - (knock * knock) / 2;
        const steep = rounded ? knock + 0.22 : knock;
        total += w * (edge - steep * (far - knock));
        if (derive) {
          slope[i] = (w * Math.sign(off) * steep) / spread;
          weight[i] = (w * steep) / (far * spread * spread);
        }
      } else if (rounded) {
        const a = (off - half) / spread;
        const b = (off + half) / spread;
        const [da, db] = [density(a), density(b)];
        const p = Math.max(
          1e-12,
          a >= 0
            ? da * tailOverDensity(a) - db * tailOverDensity(b)
            : b <= 0
              ? db * tailOverDensity(-b) - da * tailOverDensity(-a)
              : 1 - db * tailOverDensity(b) - da * tailOverDensity(-a),
        );
        total += w * Math.log(p);
        if (derive) {
          const g = (da - db) / (spread * p);
          slope[i] = w * g;
          weight[i] =
            w * Math.max(g * g - (a * da - b * db) / (spread * spread * p), 1e-6 / (spread * spread));
        }
      } else {
        total += w * (base - (far * far) / 2);
        if (derive) {
          slope[i] = (w * off) / (spread * spread);
          weight[i] = w / (spread * spread);
        }
      }
    }
    return total;
  };
  return Object.assign(evaluate, { slope, weight });
}

/** Scatter is never taken for less than so many steps: between the steps nobody can see it. House figure. */
export const LEAST_SCATTER = 0.15;
/** Scatter of a gauge whose readings are too few to show it, in steps. House figure. */
export const USUAL_SCATTER = 0.5;
/** As if so many readings had shown it. House figure. */
const BELIEVED = 4;
/** Readings from which their own scatter is believed. */
export const FEWEST = 12;

/** What the gauge's own noise is taken for. */
export interface Scatter {
  readonly sigma: number;
  /** how much one reading counts: 1 where each is new, less where neighbours repeat each other */ readonly thin: number;
  /** of neighbours, -1 to 1 */ readonly correlation: number;
}
/** Solves a small symmetric system given with its right side as last column; null where it has no single answer. */
export function solve(a: Float64Array[]): Float64Array | null {
  const n = a.length;
  for (let i = 0; i < n; i += 1) {
    let best = i;
    for (let k = i + 1; k < n; k += 1) if (Math.abs(a[k]![i]!) > Math.abs(a[best]![i]!)) best = k;
    [a[i], a[best]] = [a[best]!, a[i]!];
    const pivot = a[i]![i]!;
    if (!(Math.abs(pivot) > 1e-300)) return null;
    for (let k = i + 1; k < n; k += 1) {
      const f = a[k]![i]! / pivot;
      if (f) for (let j = i; j <= n; j += 1) a[k]![j]! -= f * a[i]![j]!;
    }
  }
  const x = new Float64Array(n);
  for (let i = n - 1; i >= 0; i -= 1) {
    let sum = a[i]![n]!;
    for (let j = i + 1; j < n; j += 1) sum -= a[i]![j]! * x[j]!;
    x[i] = sum / a[i]![i]!;
  }
  return x;
}
const TRIED = [
  0.15, 0.19, 0.24, 0.3, 0.37, 0.45, 0.55, 0.68, 0.83, 1, 1.25, 1.6, 2, 2.6, 3.4, 4.5, 6, 8, 11, 15, 20, 30,
];
/**
 * Scatter of the gauge and how alike neighbours are, from what a course leaves over.
 * @param mean the course at every reading  @param used parameters that the course took from the readings
 */
export function scatterAbout(r: Readings, mean: Float64Array, used: number): Scatter {
  const n = r.t.length;
  const usual = USUAL_SCATTER * r.step;
  const left = r.y.map((y, i) => y - mean[i]!);
  // a knock stands out in the middle of the sizes, not in their sum: judged without the largest
  const sizes = Float64Array.from(left, Math.abs).sort();
  const most = Math.max(sizes[Math.floor(0.9 * (n - 1))]! * 2.5, r.step);
  if (n < FEWEST) {
    const seen = left.reduce((sum, e) => sum + e * e, 0);
    const square = (BELIEVED * usual ** 2 + seen) / (BELIEVED + Math.max(0, n - used));
    return { sigma: Math.max(LEAST_SCATTER * r.step, Math.sqrt(square)), thin: 1, correlation: 0 };
  }
  const kept = Float64Array.from(r.weight, (w, i) => (Math.abs(left[i]!) <= most ? w : 0));
  let [best, sigma] = [-Infinity, usual];
  for (const tried of TRIED) {
    const of = likelihoodOf({ ...r, weight: kept }, tried * r.step)(mean, false);
    if (of < best - 3) break;
    if (of > best) [best, sigma] = [of, tried * r.step];
  }
  // the course has taken up a part of the scatter
  sigma *= Math.sqrt(n / Math.max(1, n - used));
  let [both, own] = [0, 0];
  for (let i = 0; i < n; i += 1) {
    if (!kept[i]) continue;
    own += left[i]! ** 2;
    if (i && kept[i - 1]) both += left[i]! * left[i - 1]!;
  }
  // what a course takes up makes neighbours look less alike than they are
  const seen = (own > 0 ? both / own : 0) + used / n;
  const coloured = sigma > USUAL_SCATTER * r.step && seen > 2.5 / Math.sqrt(n);
  const correlation = coloured ? Math.min(0.98, seen) : 0;
  return {
    sigma: Math.max(sigma, LEAST_SCATTER * r.step),
    thin: (1 - correlation) / (1 + correlation),
    correlation,
  };
}
/** Scatter by how far each reading lies beside the line between its neighbours: before any course is fitted. */
export function roughness(r: Readings): number {
  const n = r.t.length;
  if (n < FEWEST) return USUAL_SCATTER * r.step;
  const squares = Float64Array.from({ length: n - 2 }, (_, k) => {
    const i = k + 1;
    const part = (r.t[i]! - r.t[i - 1]!) / (r.t[i + 1]! - r.t[i - 1]! || 1);
    const off = r.y[i]! - (1 - part) * r.y[i - 1]! - part * r.y[i + 1]!;
    return (off * off) / (1 + part * part + (1 - part) ** 2);
  }).sort();
  const kept = squares.slice(0, Math.ceil(0.9 * squares.length));
  const mean = kept.reduce((sum, x) => sum + x, 0) / kept.length;
  return Math.max(LEAST_SCATTER * r.step, Math.sqrt(Math.max(0, 1.4 * mean - (r.step * r.step) / 12)));
}
