/** What a timed hold can show: by the gas in the section, by the liquid that fills it, or by a water level. */
import type { HoldSees } from '@/core/fillings/filling';
import { movesOf } from '@/core/fillings/moves';
import type { Gauge } from '@/core/instrument/gauge';
import type { Plan } from '@/core/plan/plan';
import type { RunState } from './state';

/**
 * What a hold with this gauge sees; null where a fact is missing (no gauge, no pressure, walls of the pipes or free
 * surfaces not entered).
 * @param pressurePa gauge pressure of the hold, Pa; absent: the planned test pressure
 * @param kelvin standard uncertainty of a logged temperature difference, K; absent: not logged, the pack's default
 */
export function holdSees(
  plan: Plan,
  state: RunState,
  part: string | null | undefined,
  gauge: Gauge | null,
  pressurePa?: number,
  kelvin?: number,
): HoldSees | null {
  return gauge && movesOf(plan, part).sees({ plan, state, part, gauge, pressure: pressurePa, kelvin });
}
