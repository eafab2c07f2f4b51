import { acceptOf } from '@/core/plan/limits';
import { letByLimit } from '@/core/run/read';
import { judgeLockUp } from '@/core/verdict/judge';
import type { Judging, RoleJudge } from '../judging';

export const standing =
  (creep: boolean): RoleJudge =>
  ({ plan, own, gauge, facts, perceptible, context, part }: Judging) => {
    const bound = (side: 'low' | 'high' | 'vent') =>
      acceptOf(own?.accept?.[side], side === 'high' ? 'high' : 'low', context, plan, part);
    return judgeLockUp(facts, perceptible, {
      low: bound('low'),
      high: bound('high'),
      vent: bound('vent'),
      creep,
      ...(own?.limit ? { creepLimit: letByLimit(plan, own, gauge) } : {}),
    });
  };
export const judge: RoleJudge = standing(true);
