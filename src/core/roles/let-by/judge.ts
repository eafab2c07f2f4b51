import { letByLimit } from '@/core/run/read';
import { judgeLetBy } from '@/core/verdict/judge';
import type { RoleJudge } from '../judging';

export const judge: RoleJudge = ({ plan, own, gauge, facts, perceptible }) =>
  judgeLetBy(facts, perceptible, letByLimit(plan, own!, gauge));
