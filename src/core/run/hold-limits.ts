/** The fall and rise that a hold is judged against, for drawing and for words. */
import type { Gauge } from '@/core/instrument/gauge';
import type { Stage } from '@/core/kinds';
import { acceptOf, type Plan } from '@/core/plan/plan';
import { subtract, type Limit } from '@/core/quantity/exact';
import { fallLimit } from './water-limits';
import { contextOf, letByLimit, perceptibleOf, permittedDrop } from './read';
import type { Hold, RunState } from './state';

export interface HoldLimits {
  readonly fall: Limit;
  readonly rise: Limit;
  /** No movement is permitted: what can be perceived counts. */
  readonly nil: boolean;
}

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
  switch (stage.role) {
    case 'let-by':
      return { ...nil, rise: letByLimit(plan, stage, gauge) };
    case 'stretch':
      return { fall: fallLimit(stage, gauge), rise: pm, nil: false };
    case 'floor':
    case 'make-up': {
      const low =
        hold && acceptOf(stage.accept?.low, 'low', contextOf(plan, state, stage.part), plan, stage.part);
      return low
        ? {
            fall: { value: subtract(hold.start.figure, low.value), broken: 'above', source: low.source },
            rise: pm,
            nil: false,
          }
        : nil;
    }
    default: {
      const drop = stage.allowance ? permittedDrop(plan, state, stage.part) : null;
      return { fall: drop ?? pm, rise: pm, nil: !drop };
    }
  }
}
