/**
 * What a running hold shows so far: where it is heading, whether it has settled, what the temperature alone would do.
 * Advice beside the clock: the end reading judges. Source: least squares on the readings
 */

export interface Sample {
  /** ms */ readonly t: number;
  /** in the gauge's unit */ readonly p: number;
}
export interface Projection {
  /** at the end of the hold, in the gauge's unit, with the ends of its 95 % band */
  readonly value: number;
  readonly low: number;
  readonly high: number;
  /** per minute */ readonly slope: number;
  /** where the line stands at the first and last sample */ readonly first: Sample;
  readonly last: Sample;
}
/** Samples closer together than this tell little more than one of them: a display holds its value. */
const THIN_MS = 5000;
/** Two-sided 95 % of Student's t for so many degrees of freedom; the normal value from 30 on. */
const T95 = [
  12.71, 4.3, 3.18, 2.78, 2.57, 2.45, 2.36, 2.31, 2.26, 2.23, 2.2, 2.18, 2.16, 2.14, 2.13, 2.12, 2.11, 2.1,
  2.09, 2.09,
];
const t95 = (df: number): number => (df <= 0 ? Infinity : (T95[df - 1] ?? (df < 30 ? 2.05 : 1.96)));

/** How many readings' worth of weight the display step has before any scatter is seen. House figure. */
const PRIOR_READINGS = 4;

/** One sample at most each few seconds, the first and the last kept. */
function thinned(samples: readonly Sample[]): Sample[] {
  const sorted = [...samples].sort((a, b) => a.t - b.t);
  const out: Sample[] = [];
  for (const [i, s] of sorted.entries())
    if (!out.length || s.t - out[out.length - 1]!.t >= THIN_MS || i === sorted.length - 1) out.push(s);
  return out;
}
/**
 * Straight line through the readings so far, carried to the end of the hold with its 95 % band (display step and scatter
 * together). @param end ms  @param resolution display step, gauge's unit
 * @returns null while there is too little: fewer than two readings, or less than a tenth of the hold
 */
export function projectEnd(samples: readonly Sample[], end: number, resolution: number): Projection | null {
  const s = thinned(samples.filter((x) => Number.isFinite(x.p)));
  const n = s.length;
  if (n < 2) return null;
  const first = s[0]!;
  const last = s[n - 1]!;
  if (last.t - first.t < 0.1 * (end - first.t) || end <= first.t) return null;
  const minute = (t: number) => (t - first.t) / 60_000;
  const meanT = s.reduce((sum, x) => sum + minute(x.t), 0) / n;
  const meanP = s.reduce((sum, x) => sum + x.p, 0) / n;
  const sxx = s.reduce((sum, x) => sum + (minute(x.t) - meanT) ** 2, 0);
  const slope = s.reduce((sum, x) => sum + (minute(x.t) - meanT) * (x.p - meanP), 0) / sxx;
  const at = (t: number) => meanP + slope * (minute(t) - meanT);
  const residual = s.reduce((sum, x) => sum + (x.p - at(x.t)) ** 2, 0);
  // scatter of the readings pooled with what is known beforehand: a reading is good to about one display step
  const df = PRIOR_READINGS + n - 2;
  // once there are enough readings their own scatter may only widen it
  const own = n >= 8 ? residual / (n - 2) : 0;
  const sigma = Math.sqrt(Math.max((PRIOR_READINGS * resolution ** 2 + residual) / df, own));
  const factor = t95(df);
  const far = minute(end) - meanT;
  const half = factor * sigma * Math.sqrt(1 / n + (far * far) / sxx + 1);
  const value = at(end);
  return {
    value,
    low: value - half,
    high: value + half,
    slope,
    first: { t: first.t, p: at(first.t) },
    last: { t: last.t, p: at(last.t) },
  };
}

export interface Settling {
  readonly steady: boolean;
  /** movement over the last window, gauge's unit; null while the readings do not reach back that far */
  readonly moved: number | null;
  readonly windowMs: number;
}
/**
 * Whether the last window moved less than can be perceived and nothing was re-adjusted in it. The window is
 * max(60 s, hold / 10). Source: the work, general rules of judging
 */
export function settling(
  samples: readonly Sample[],
  at: number,
  windowMs: number,
  perceptible: number,
  lastTopUp: number | null,
): Settling {
  const from = at - windowMs;
  const sorted = [...samples].sort((a, b) => a.t - b.t);
  const inside = sorted.filter((s) => s.t >= from);
  const before = sorted.filter((s) => s.t < from).pop();
  // the value held at the window's start counts; without a reading before it the window is not covered
  const seen = before ? [before, ...inside] : inside;
  if (!before && !(inside[0] && inside[0].t <= from + 1000)) return { steady: false, moved: null, windowMs };
  if (!inside.length) return { steady: false, moved: null, windowMs };
  const values = seen.map((s) => s.p);
  const moved = Math.max(...values) - Math.min(...values);
  // exactly perceptible is movement; the differences of decimal figures are off by what floats cannot hold
  return {
    steady: moved < perceptible * (1 - 1e-9) && (lastTopUp === null || lastTopUp <= from),
    moved,
    windowMs,
  };
}

/** Two readings at most so far apart show a sudden change, ms; slower falls may be a leak. House figure. */
const STEP_MS = 20_000;
/** A step is at least so many perceptible movements, and so many times what the hold moves otherwise. House figures. */
const STEP_SIZE = 3;
/**
 * A sudden step among the readings: water drawn, a valve or a hand. A leak falls evenly; this much within seconds, and
 * nothing like it before or after, is something else. Offered as a disturbance, never assumed.
 * @param perceptible in the gauge's unit  @returns the newest step with its moment and size; null where there is none
 */
export function suddenStep(
  samples: readonly Sample[],
  perceptible: number,
): { readonly at: number; readonly change: number } | null {
  const s = [...samples].sort((a, b) => a.t - b.t);
  const between = s.slice(1).map((x, i) => ({ at: x.t, ms: x.t - s[i]!.t, change: x.p - s[i]!.p }));
  const sizes = between.map((b) => Math.abs(b.change)).sort((a, b) => a - b);
  // what the others do: the middle of them, the largest left out, since it is the one in question
  const usual = sizes.slice(0, -1)[Math.floor((sizes.length - 1) / 2)] ?? 0;
  const found = between
    .filter((b) => b.ms <= STEP_MS && Math.abs(b.change) >= Math.max(STEP_SIZE * perceptible, 5 * usual))
    .pop();
  return found ? { at: found.at, change: found.change } : null;
}
