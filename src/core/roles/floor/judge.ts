import { acceptOf } from '@/core/plan/limits';
import { subtract } from '@/core/quantity/exact';
import { contextOf } from '@/core/run/read';
import { lowestOf } from '@/core/run/water-limits';
import { judgeFloor } from '@/core/verdict/judge';
import type { RoleJudge, RoleLimits } from '../judging';

export const judge: RoleJudge = ({ plan, state, hold, facts, perceptible, own, context, part }) =>
  judgeFloor(facts, perceptible, lowestOf(state, hold, facts.end), {
    low: acceptOf(own?.accept?.low, 'low', context, plan, part)!,
    high: acceptOf(own?.accept?.high, 'high', context, plan, part),
  });

/** From where it started down to what it may not fall below. */
export const limits: RoleLimits = ({ plan, state, stage, hold, pm }) => {
  const low =
    hold && acceptOf(stage.accept?.low, 'low', contextOf(plan, state, stage.part), plan, stage.part);
  return low
    ? {
        fall: { value: subtract(hold.start.figure, low.value), broken: 'above', source: low.source },
        rise: pm,
        nil: false,
      }
    : { fall: pm, rise: pm, nil: true };
};
