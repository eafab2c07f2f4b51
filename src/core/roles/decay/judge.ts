import { judgeDecay } from '@/core/verdict/judge';
import type { RoleJudge } from '../judging';

export const judge: RoleJudge = ({ facts, perceptible }) => judgeDecay(facts, perceptible);
