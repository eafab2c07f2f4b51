/**
 * What warmth and barometer alone do to a section: the one answer for the screen beside the clock and for the judge.
 * A gas follows the gas law; a full section follows its own dp/dT, which may be of either sign; a level is never corrected.
 */
import { systemStiffness } from '@/core/installation/section';
import { type Plan, ruleOf } from '@/core/plan/plan';
import { type Exact, toNumber } from '@/core/quantity/exact';
import { pascal } from '@/core/quantity/pascal';
import { STANDARD_ATMOSPHERE, toKelvin } from '@/core/quantity/unit';
import { sectionNow } from '@/core/run/section-now';
import type { RunState } from '@/core/run/state';

/** What was logged beside a hold, at its start and end. */
export interface Logged {
  readonly temperature?: readonly [Exact, Exact];
  readonly barometer?: readonly [Exact, Exact];
}
/** Change that needs no leak, Pa; null where nothing was logged; 'unknown' where it was but cannot be worked out. */
export type Alone = number | 'unknown' | null;
/** @param start gauge pressure at the start, Pa */
export type AloneOf = (start: number, logged: Logged) => Alone;

const kelvin = (t: Exact): number => toKelvin(toNumber(t), t.unit);

/**
 * A closed gas section: P1 = P0 T1/T0 absolute, and the gauge reads above the barometer of the moment. Source: Boyle and
 * Charles in a closed section.
 */
export const gasAlone: AloneOf = (start, { temperature, barometer }) => {
  if (!temperature && !barometer) return null;
  const [b0, b1] = barometer?.map(pascal) ?? [STANDARD_ATMOSPHERE, STANDARD_ATMOSPHERE];
  const [t0, t1] = temperature?.map(kelvin) ?? [1, 1];
  return ((start + b0!) * t1!) / t0! - b1! - start;
};
/** A section full of liquid: dp/dT of water and wall at the mean temperature. Unknown where a pipe's wall is. */
export const liquidAlone =
  (perKelvin: (start: number, celsius: number) => number | null): AloneOf =>
  (start, { temperature }) => {
    if (!temperature) return null;
    const [t0, t1] = temperature.map(kelvin);
    if (t0 === t1) return 0;
    const each = perKelvin(start, (t0! + t1!) / 2 - 273.15);
    return each === null ? 'unknown' : each * (t1! - t0!);
  };
/** A level stands where it stands: temperatures beside it are printed, never counted. */
export const levelAlone: AloneOf = () => null;

/** Water between these temperatures is known; outside them its expansion is not. degrees C */
const WATER_KNOWN = [-10, 110] as const;

/** How movement is explained without a leak in a part of this run: by what fills it. */
export function aloneIn(plan: Plan, state: RunState, part?: string | null): AloneOf {
  const { fills } = ruleOf(plan, part);
  if (fills === 'level') return levelAlone;
  if (fills !== 'liquid') return gasAlone;
  const system = sectionNow(plan, state);
  return liquidAlone((start, celsius) =>
    celsius < WATER_KNOWN[0] || celsius > WATER_KNOWN[1]
      ? null
      : (systemStiffness(system, Math.max(0, start), celsius)?.perKelvin ?? null),
  );
}
