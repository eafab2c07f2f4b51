/**
 * A leak that a passing valve can hide from the let-by and the tightness test together, and the two holds that would tell both
 * apart. Advice, never a verdict. Source: laws of small leaks (Poiseuille, Bernoulli)
 */
import { defaultTemperatureUncertainty } from '@/core/adequacy/gas';
import { LOGGED_KELVIN } from '@/core/adequacy/rate';
import { movesOf } from '@/core/fillings/moves';
import type { Gauge } from '@/core/instrument/gauge';
import { ONE_SIDED_95 } from '@/core/adequacy/change';
import { hiddenMost, type Slope, twoHolds, type TwoHolds } from '@/core/medium/two-slopes';
import { fillingOf } from '@/core/plan/filling';
import { testPressure } from '@/core/plan/limits';
import { type Plan, ruleOf } from '@/core/plan/plan';
import { gaugePascal, kelvin, pascal } from '@/core/quantity/pascal';
import { STANDARD_ATMOSPHERE } from '@/core/quantity/unit';
import { roleOf } from '@/core/roles';
import { volumeOf, volumeUnsure } from './hold-setting';
import { gaugeOfHold, perceptibleOf } from './read';
import type { Hold, RunState } from './state';

/** The slope of a hold without what its temperatures explain. */
export interface HeldSlope extends Slope {
  /** K over the hold, and its minutes; null where nobody read it. */
  readonly warmed: { readonly kelvin: number; readonly minutes: number } | null;
}
/** @returns null where it was not judged, was broken or re-adjusted, or was read in no pressure */
export function slopeOf(plan: Plan, hold: Hold, part: string | null | undefined): HeldSlope | null {
  const { end, judgement, temperature } = hold;
  const gauge = gaugeOfHold(plan, hold);
  const start = gaugePascal(hold.start.figure);
  const last = end ? gaugePascal(end.figure) : null;
  if (!judgement || !gauge || start === null || last === null || hold.broken || hold.topUps.length)
    return null;
  const seconds = judgement.elapsedMs / 1000;
  if (!(seconds > 0)) return null;
  const [t0, t1] = [temperature.start, temperature.end].map((t) => (t ? kelvin(t) : null));
  const minutes = seconds / 60;
  const warmed = t0 != null && t1 != null ? { kelvin: t1 - t0, minutes } : null;
  return {
    pressure: (start + last) / 2,
    slope: (last - start - perKelvin(plan, part, start) * (warmed?.kelvin ?? 0)) / seconds,
    error: slopeError(plan, part, gauge, start, minutes, warmed !== null),
    warmed,
  };
}
const perKelvin = (plan: Plan, part: string | null | undefined, pressure: number): number =>
  movesOf(plan, part).weather(plan.system, Math.max(0, pressure))?.perKelvin ?? 0;
/** Standard uncertainty of a slope: two displayed readings, and the temperature as it was read or not. Pa/s */
function slopeError(
  plan: Plan,
  part: string | null | undefined,
  gauge: Gauge,
  pressure: number,
  minutes: number,
  read: boolean,
): number {
  const u = read
    ? LOGGED_KELVIN
    : defaultTemperatureUncertainty(minutes, ruleOf(plan, part).temperatureDefault);
  return (
    Math.hypot(pascal(gauge.resolution) / Math.sqrt(6), perKelvin(plan, part, pressure) * u) / (minutes * 60)
  );
}

export interface Hidden {
  /** The largest leak that let-by and tightness together could leave unseen, m3/s. */
  readonly most: number;
  /** What the tightness test alone could leave unseen, were the valve shut. */
  readonly alone: number;
  readonly matters: number;
  /**
   * The two holds that would tell a leak twice the one that matters; null: it is not worth them (no leak that matters, or not
   * well above what the tightness test alone could miss), or no half hours would be enough.
   */
  readonly holds: TwoHolds | null;
}
/**
 * What could hide behind the valve after the let-by as it was held, in the tightness test as it is planned.
 * @param minutes of the tightness test  @param matters m3/s, where the rule tells it
 * @returns null where nothing stands behind a valve, no let-by was held, or the volume is not known
 */
export function hiddenBehind(
  plan: Plan,
  state: RunState,
  part: string | null | undefined,
  minutes: number,
  matters: number,
): Hidden | null {
  if (fillingOf(plan, part).name !== 'gas') return null;
  const supply = gaugePascal(plan.system.supplyPressure);
  const working = gaugePascal(plan.system.workingPressure);
  const value = volumeOf(plan, state, part).value;
  const held = state.visits
    .flatMap((v) => v.holds)
    .reverse()
    .find((h) => roleOf(h.role).provesBoundary && h.judgement);
  const gauge = held && gaugeOfHold(plan, held);
  const letBy = held && slopeOf(plan, held, part);
  if (!gauge || !letBy || !supply || !working || !(value > 0) || !(letBy.pressure > 0)) return null;
  const test = pascal(testPressure(plan, part));
  const at = ruleOf(plan, part).adequacy.at === 'test' ? test : working;
  const unseen =
    pascal(perceptibleOf(plan, gauge, part).value) / (minutes * 60) +
    ONE_SIDED_95 * slopeError(plan, part, gauge, test, minutes, false);
  const give = value / STANDARD_ATMOSPHERE;
  const found = hiddenMost(
    supply,
    { pressure: letBy.pressure, flow: give * (letBy.slope + ONE_SIDED_95 * letBy.error) },
    { pressure: test, flow: give * unseen },
    at,
  );
  if (!found) return null;
  const error = (m: number) => slopeError(plan, part, gauge, letBy.pressure, m, true);
  const leak = Math.min(found.most, 2 * matters);
  // every replay of a run asks: the holds are worked out only where they would be proposed
  const worth = found.most > matters && found.most > 1.5 * found.alone;
  return {
    ...found,
    matters,
    holds: worth
      ? twoHolds({ value, unsure: volumeUnsure(plan, state, part) }, supply, letBy.pressure, error, at, leak)
      : null,
  };
}
/** Whether two holds more are proposed. */
export const worthTelling = (h: Hidden | null): h is Hidden & { holds: TwoHolds } => h?.holds != null;
