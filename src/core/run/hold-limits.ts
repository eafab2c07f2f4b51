/** The fall and rise that a hold is judged against, for drawing and for words. */
import type { Gauge } from '@/core/instrument/gauge';
import type { Stage } from '@/core/kinds';
import { type Plan } from '@/core/plan/plan';
import { LIMITS } from '@/core/roles/judges';
import type { HoldLimits } from '@/core/roles/judging';
import { perceptibleOf, permittedDrop } from './read';
import type { Hold, RunState } from './state';

export type { HoldLimits };

/** @param hold the hold itself where it runs: a floor counts from its start */
export function holdLimits(
  plan: Plan,
  state: RunState,
  stage: Stage,
  gauge: Gauge,
  hold: Hold | null,
): HoldLimits {
  const pm = perceptibleOf(plan, gauge, stage.part);
  const nil = { fall: pm, rise: pm, nil: true };
  if (stage.kind !== 'hold') return nil;
  const drop = stage.allowance ? permittedDrop(plan, state, stage.part) : null;
  return (
    LIMITS[stage.role]?.({ plan, state, stage, gauge, hold, pm }) ?? {
      fall: drop ?? pm,
      rise: pm,
      nil: !drop,
    }
  );
}
