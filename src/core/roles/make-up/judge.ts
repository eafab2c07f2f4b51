import { known } from '@/core/formula';
import type { Stage } from '@/core/kinds';
import { acceptOf } from '@/core/plan/limits';
import { type Plan } from '@/core/plan/plan';
import { compare, type Exact } from '@/core/quantity/exact';
import type { Hold, RunState } from '@/core/run/state';
import { lowestOf, madeUp, makeUpLimit } from '@/core/run/water-limits';
import { judgeMakeUp } from '@/core/verdict/judge';
import type { RoleJudge } from '../judging';

export const judge: RoleJudge = ({ plan, state, hold, facts, perceptible, own, context, part }) =>
  judgeMakeUp(
    facts,
    perceptible,
    madeUp(hold),
    makeUpLimit(plan, state, own!, facts),
    lowestOf(state, hold, facts.end),
    acceptOf(own?.accept?.low, 'low', context, plan, part)!,
  );

/** Whether more water was added already than the rule permits over the whole hold: nothing that follows takes it back. */
export function makeUpDecided(plan: Plan, state: RunState, stage: Stage, hold: Hold, end: Exact): boolean {
  if (hold.role !== 'make-up' || stage.kind !== 'hold' || plan.format < 2) return false;
  const found = known(() =>
    makeUpLimit(plan, state, stage, {
      start: hold.start.figure,
      end,
      elapsedMs: Math.max(hold.minutes, hold.rule) * 60_000,
    }),
  );
  return 'value' in found && found.value !== null && compare(madeUp(hold), found.value.value) > 0;
}

export { limits } from '../floor/judge';
