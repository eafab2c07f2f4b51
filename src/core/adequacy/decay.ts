/**
 * The rate of a line that empties. Over more than a tenth of fall a straight line between start and end understates what
 * leaks at working pressure: the rate comes from the decay itself, fitted over the readings by both laws of small leaks.
 */
import { STANDARD_ATMOSPHERE } from '@/core/quantity/unit';

/** One reading: s since the first, gauge Pa. */
export type DecayPoint = readonly [number, number];

/** From this part of the start a fall counts as emptying. Source: decay of a closed section, general method of the house */
export const EMPTYING = 0.1;
/** A line that fell below half of its start needs so many readings above it. */
export const LEAST_READINGS = 3;

export interface DecayRate {
  /** m3/s at atmospheric pressure, at the pressure asked for; the middle of both laws. */
  readonly rate: number;
  readonly low: number;
  /** Infinity: the readings only bound it from below. */
  readonly high: number;
  /** True where the line was empty, or too few readings lie above half the start: `rate` is then a least figure. */
  readonly atLeast: boolean;
}

interface Law {
  /** Turns the decay into a straight line. */
  readonly line: (p: number, atmosphere: number) => number;
  /** Its slope against p. */
  readonly slope: (p: number, atmosphere: number) => number;
}
/**
 * Laminar: dP/dt goes with P2 - A2 absolute, so ln(p / (p + 2A)) falls straight. Orifice: dP/dt goes with the root of p, so
 * 2 sqrt(p) does. p gauge, A atmosphere.
 */
const LAMINAR: Law = {
  line: (p, a) => Math.log(p / (p + 2 * a)),
  slope: (p, a) => (2 * a) / (p * (p + 2 * a)),
};
const ORIFICE: Law = { line: (p) => 2 * Math.sqrt(p), slope: (p) => 1 / Math.sqrt(p) };

/** Straight line through (t, y) with weights; its slope and the standard deviation of it from the points' own. */
function fit(points: readonly { t: number; y: number; sd: number }[]): {
  slope: number;
  sd: number;
  chi2: number;
} {
  const w = points.map((x) => 1 / (x.sd * x.sd));
  const sw = w.reduce((s, x) => s + x, 0);
  const mt = points.reduce((s, x, i) => s + w[i]! * x.t, 0) / sw;
  const my = points.reduce((s, x, i) => s + w[i]! * x.y, 0) / sw;
  const stt = points.reduce((s, x, i) => s + w[i]! * (x.t - mt) ** 2, 0);
  const slope = points.reduce((s, x, i) => s + w[i]! * (x.t - mt) * (x.y - my), 0) / stt;
  const chi2 = points.reduce((s, x, i) => s + w[i]! * (x.y - my - slope * (x.t - mt)) ** 2, 0);
  return { slope, sd: Math.sqrt(1 / stt), chi2 };
}

/**
 * Rate at a pressure from readings of a line that empties.
 * @param points the first is the start; times ascend  @param volume m3  @param at gauge Pa  @param step display step, Pa
 * @param drift standard uncertainty of the change over the whole time (temperature, barometer), Pa
 * @returns null while the fall is no more than a tenth of the start: then the straight difference serves
 * @throws RangeError without a start above zero, or without time passed
 */
export function decayRate(
  points: readonly DecayPoint[],
  volume: number,
  at: number,
  step: number,
  drift: number,
  atmosphere = STANDARD_ATMOSPHERE,
): DecayRate | null {
  const [first] = points;
  const last = points[points.length - 1];
  if (!first || !last || !(first[1] > 0) || !(last[0] > first[0]))
    throw new RangeError('A decay needs a start above zero and time passed.');
  const start = first[1];
  if (start - last[1] <= EMPTYING * start) return null;
  const upper = points.filter(([, p]) => p > start / 2);
  // a reading within its own step of nothing says only that it is empty
  const floor = Math.max(step, start * 1e-6);
  const flow = (law: Law, slope: number) => ((volume / atmosphere) * -slope) / law.slope(at, atmosphere);
  // while the end itself stands above half, start and end already fix the mean of the decay
  if (upper.length < LEAST_READINGS && last[1] <= start / 2) {
    // between start and end both laws bound what must have flowed; what flowed faster cannot be excluded
    const end = Math.max(last[1], floor);
    const seconds = last[0] - first[0];
    const least = [LAMINAR, ORIFICE].map((law) =>
      flow(law, (law.line(end, atmosphere) - law.line(start, atmosphere)) / seconds),
    );
    const rate = Math.min(...least);
    return { rate, low: rate, high: Infinity, atLeast: true };
  }
  const noise = Math.sqrt(step * step * (1 / 12 + 1 / 4));
  const span = upper[upper.length - 1]![0] - upper[0]![0];
  const both = [LAMINAR, ORIFICE].map((law) => {
    const f = fit(
      upper.map(([t, p]) => ({ t, y: law.line(p, atmosphere), sd: noise * law.slope(p, atmosphere) })),
    );
    const scatter = Math.sqrt(Math.max(1, f.chi2 / Math.max(1, upper.length - 2)));
    const rate = flow(law, f.slope);
    const half = 1.96 * Math.hypot(flow(law, f.sd * scatter), ((volume / atmosphere) * drift) / span);
    return { rate, half };
  });
  // the true law lies between the two: half of their distance counts as a uniform spread beside what the readings leave open
  const rate = (both[0]!.rate + both[1]!.rate) / 2;
  const law = (0.95 * Math.abs(both[0]!.rate - both[1]!.rate)) / 2;
  const half = Math.hypot(Math.max(...both.map((b) => Math.abs(b.half))), law);
  return { rate, low: rate - half, high: rate + half, atLeast: false };
}
