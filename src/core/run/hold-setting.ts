/** What a hold is worked out from: the volume, the pressure and the gauge it is judged with. */
import type { HoldSetting } from '@/core/adequacy/gas';
import { volumeUncertainty } from '@/core/installation/section';
import type { Gauge } from '@/core/instrument/gauge';
import { testPressure } from '@/core/plan/limits';
import { caseOf, type Plan, planVolume, ruleOf } from '@/core/plan/plan';
import { toNumber } from '@/core/quantity/exact';
import { convert } from '@/core/quantity/unit';
import { gaugeOf, perceptibleOf } from './read';
import type { RunState } from './state';

/** The volume under test: measured in this run where it was, otherwise from the pipe list. */
export const volumeOf = (plan: Plan, state: RunState, part?: string | null) =>
  state.volume?.figure ?? planVolume(plan, part);
/** Its relative standard uncertainty: as it was measured, otherwise that of the list. */
export const volumeUnsure = (plan: Plan, state: RunState, part?: string | null): number =>
  state.volume?.uncertainty ?? volumeUncertainty(plan.system, caseOf(plan, part).appliances);

/** Settings of a hold for adequacy, from the plan and the judging gauge. */
export function holdSetting(
  plan: Plan,
  state: RunState,
  minutes: number,
  part?: string | null,
  pressurePa?: number,
  judging?: Gauge | null,
): HoldSetting | null {
  const gauge = judging ?? gaugeOf(plan, state);
  if (!gauge) return null;
  const working = plan.system.workingPressure;
  let pressure = pressurePa;
  if (pressure === undefined) {
    const test = testPressure(plan, part);
    pressure = convert(toNumber(test), test.unit, 'Pa');
  }
  return {
    volume: volumeOf(plan, state, part).value,
    pressure,
    workingPressure:
      ruleOf(plan, part).adequacy.at === 'test' ? pressure : convert(toNumber(working), working.unit, 'Pa'),
    minutes,
    gauge,
    perceptible: perceptibleOf(plan, gauge, part),
  };
}
