import { letByLimit } from '@/core/run/read';
import { judgeLetBy } from '@/core/verdict/judge';
import type { RoleJudge, RoleLimits } from '../judging';

export const judge: RoleJudge = ({ plan, own, gauge, facts, perceptible }) =>
  judgeLetBy(facts, perceptible, letByLimit(plan, own!, gauge));

export const limits: RoleLimits = ({ plan, stage, gauge, pm }) => ({
  fall: pm,
  rise: letByLimit(plan, stage, gauge),
  nil: true,
});
