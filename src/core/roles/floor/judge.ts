import { acceptOf } from '@/core/plan/plan';
import { lowestOf } from '@/core/run/water-limits';
import { judgeFloor } from '@/core/verdict/judge';
import type { RoleJudge } from '../judging';

export const judge: RoleJudge = ({ plan, state, hold, facts, perceptible, own, context, part }) =>
  judgeFloor(facts, perceptible, lowestOf(state, hold, facts.end), {
    low: acceptOf(own?.accept?.low, 'low', context, plan, part)!,
    high: acceptOf(own?.accept?.high, 'high', context, plan, part),
  });
