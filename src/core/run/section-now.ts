/** The section as this run has found it: the place's facts, and the air that its own pump strokes showed to be trapped. */
import type { System } from '@/core/installation/section';
import type { Plan } from '@/core/plan/plan';
import { exact, toNumber, type Exact } from '@/core/quantity/exact';
import { convert, STANDARD_ATMOSPHERE } from '@/core/quantity/unit';
import type { RunState, Visit } from './state';

/** The newest raising by a pump; null where nothing was pumped. */
export const lastPumped = (state: RunState): Visit | null =>
  [...state.visits].reverse().find((v) => v.pumped.length > 0) ?? null;

/** Air that the newest raising showed to be trapped, l at atmospheric pressure; null where nothing was measured. */
export function trappedLitres(state: RunState): number | null {
  const airs = lastPumped(state)?.pumped.flatMap((s) => (s.air ? [s.air.litres] : [])) ?? [];
  return airs.length ? Math.max(...airs) : null;
}
/** Trapped air squeezed to a gauge pressure, as a volume. Isothermal: V P is kept. @param gauge Pa */
const squeezed = (litres: number, gauge: number): number =>
  (litres * STANDARD_ATMOSPHERE) / (STANDARD_ATMOSPHERE + Math.max(0, gauge));

/**
 * The system with all gas in it at a pressure: vessels and arrestors as entered, and trapped air as measured in this run.
 * @param at gauge pressure; absent: the newest raising's
 */
export function sectionNow(plan: Plan, state: RunState, at?: Exact): System {
  const litres = trappedLitres(state);
  if (!litres) return plan.system;
  const steps = lastPumped(state)!.pumped;
  const pressure = at ?? steps[steps.length - 1]!.reached.figure;
  const air = squeezed(litres, convert(toNumber(pressure), pressure.unit, 'Pa'));
  const known = plan.system.gasInside
    ? convert(toNumber(plan.system.gasInside), plan.system.gasInside.unit, 'l')
    : 0;
  return { ...plan.system, gasInside: exact(Math.round((air + known) * 1e6), 6, 'l') };
}
