/**
 * A valve that passes and a leak behind it, told apart by two slopes at two pressures, with what the slopes' own uncertainty leaves
 * open. Advice only while the temperature drifts by less than 0.02 K/min. Source: laws of small leaks (Poiseuille, Bernoulli)
 */
import { STANDARD_ATMOSPHERE } from '@/core/quantity/unit';
import { drive } from './leak';

export interface Slope {
  /** gauge Pa in the middle of the hold */ readonly pressure: number;
  /** Pa/s, a rise is + */ readonly slope: number;
  /** standard uncertainty of it, Pa/s */ readonly error: number;
}
/** m3/s with its 95 % interval. */
export interface Apart {
  readonly value: number;
  readonly low: number;
  readonly high: number;
}
export interface ValveAndLeak {
  /** What the valve passes at the full difference. */ readonly letBy: Apart;
  /** What leaks at the pressure asked for. */ readonly leak: Apart;
}
/** Pressures closer than this part of the higher one are alike. House figure. */
const ALIKE = 0.1;
/** Half the width of the grid, in standard deviations, and its points a side. */
const WIDE = 5;
const POINTS = 160;

/**
 * (V/P_atm) dp/dt = k_in (s_s - s) - k_out s at both pressures, s = (P2 - A2) / 2A; neither k is below nothing.
 * @param volume m3, with its relative standard uncertainty  @param supply gauge Pa before the valve
 * @param at gauge Pa at which the leak is told
 * @returns null where both pressures are alike: one slope cannot tell two things apart
 */
export function valveAndLeak(
  volume: { readonly value: number; readonly unsure: number },
  supply: number,
  a: Slope,
  b: Slope,
  at: number,
  atmosphere = STANDARD_ATMOSPHERE,
): ValveAndLeak | null {
  const s = (p: number) => drive(p, atmosphere);
  const [sa, sb, full] = [s(a.pressure), s(b.pressure), s(supply)];
  const give = volume.value / atmosphere;
  if (!(supply > 0) || Math.abs(sa - sb) < ALIKE * Math.max(sa, sb)) return null;
  // the two rows solved: k_in and k_out as sums of the two flows
  const [fa, fb] = [give * a.slope, give * b.slope];
  const solve = (qa: number, qb: number) => {
    const sum = (qa - qb) / (sb - sa);
    const kIn = (qa + sum * sa) / full;
    return [kIn, sum - kIn] as const;
  };
  const [kIn, kOut] = solve(fa, fb);
  const [ia, oa] = solve(give * a.error, 0);
  const [ib, ob] = solve(0, give * b.error);
  const sdIn = Math.hypot(ia, ib);
  const sdOut = Math.hypot(oa, ob);
  if (!(sdIn > 0) || !(sdOut > 0)) return null;
  const rho = Math.max(-0.9999, Math.min(0.9999, (ia * oa + ib * ob) / (sdIn * sdOut)));
  const axis = (mean: number, sd: number) => {
    const from = Math.max(0, mean - WIDE * sd);
    const to = Math.max(from + sd, mean + WIDE * sd);
    return Array.from({ length: POINTS }, (_, i) => from + ((i + 0.5) * (to - from)) / POINTS);
  };
  const [ins, outs] = [axis(kIn, sdIn), axis(kOut, sdOut)];
  const wIn = ins.map(() => 0);
  const wOut = outs.map(() => 0);
  ins.forEach((u, i) =>
    outs.forEach((v, j) => {
      const [x, y] = [(u - kIn) / sdIn, (v - kOut) / sdOut];
      const w = Math.exp(-(x * x - 2 * rho * x * y + y * y) / (2 * (1 - rho * rho)));
      wIn[i]! += w;
      wOut[j]! += w;
    }),
  );
  const told = (
    axisOf: readonly number[],
    weights: readonly number[],
    times: number,
    seen: boolean,
  ): Apart => {
    const sum = weights.reduce((t, w) => t + w, 0);
    const quantile = (part: number) => {
      let below = 0;
      for (const [i, w] of weights.entries()) {
        below += w / sum;
        if (below >= part) return axisOf[i]! * times;
      }
      return axisOf[axisOf.length - 1]! * times;
    };
    const value = quantile(0.5);
    const wide = 1.96 * volume.unsure * value;
    return {
      value,
      // where the slopes alone allow for none, the interval begins at none
      low: seen ? Math.max(0, value - Math.hypot(value - quantile(0.025), wide)) : 0,
      high: value + Math.hypot(quantile(0.975) - value, wide),
    };
  };
  return {
    letBy: told(ins, wIn, full, kIn > 1.96 * sdIn),
    leak: told(outs, wOut, s(at), kOut > 1.96 * sdOut),
  };
}

/** What a section could gain, or lose, at a pressure without being seen; m3/s. */
interface Unseen {
  readonly pressure: number;
  readonly flow: number;
}
/**
 * The largest leak that two holds could leave unseen while a valve feeds it: at the first the section gained at most `flow`, at the
 * second it would lose that much unseen. From k_in (s_s - s_a) - k_out s_a <= flow_a and k_out s_b - k_in (s_s - s_b) <= flow_b.
 * @param at gauge Pa at which it is told  @returns null where the second pressure is not above the first, or not below the supply:
 * the balance could be anywhere, or nothing
 */
export function hiddenMost(
  supply: number,
  a: Unseen,
  b: Unseen,
  at: number,
  atmosphere = STANDARD_ATMOSPHERE,
): { readonly most: number; readonly alone: number } | null {
  const s = (p: number) => drive(p, atmosphere);
  const [sa, sb, full] = [s(a.pressure), s(b.pressure), s(supply)];
  if (!(sb > sa) || !(full > sa)) return null;
  // how much of what the valve gives at the first pressure it still gives at the second
  const still = Math.max(0, full - sb) / (full - sa);
  const most = (still * Math.max(0, a.flow) + b.flow) / (sb - still * sa);
  return { most: s(at) * most, alone: (s(at) * b.flow) / sb };
}

/** Lengths that holds are proposed in, min. */
const MINUTES = [1, 2, 3, 5, 10, 15, 20, 30];
/** Two let-by holds of one length, gauge Pa and minutes each. */
export interface TwoHolds {
  readonly pressures: readonly [number, number];
  readonly minutes: number;
}
/**
 * Two let-by holds that would show a leak of so much behind a valve that passes just as much: at the pressure at which both may
 * be in balance, and at half of it, where what the valve passes has grown and what leaks is less.
 * @param error standard uncertainty of a slope after so many minutes, Pa/s  @param leak m3/s at `at`
 * @returns null where half an hour each would not be enough
 */
export function twoHolds(
  volume: { readonly value: number; readonly unsure: number },
  supply: number,
  pressure: number,
  error: (minutes: number) => number,
  at: number,
  leak: number,
  atmosphere = STANDARD_ATMOSPHERE,
): TwoHolds | null {
  const s = (p: number) => drive(p, atmosphere);
  const low = pressure / 2;
  const kOut = leak / s(at);
  const kIn = (kOut * s(pressure)) / Math.max(1e-9, s(supply) - s(pressure));
  const slope = ((kIn * (s(supply) - s(low)) - kOut * s(low)) * atmosphere) / volume.value;
  for (const minutes of MINUTES) {
    const e = error(minutes);
    const found = valveAndLeak(
      volume,
      supply,
      { pressure, slope: 0, error: e },
      { pressure: low, slope, error: e },
      at,
      atmosphere,
    );
    // seen with 95 % when it is there: so much further than what could be none
    if (found && found.leak.low > 0 && found.leak.low > 0.45 * leak)
      return { pressures: [pressure, low], minutes };
  }
  return null;
}
