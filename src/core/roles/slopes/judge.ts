import { judgeSlope } from '@/core/verdict/judge';
import type { RoleJudge } from '../judging';

export const judge: RoleJudge = ({ facts, perceptible }) => judgeSlope(facts, perceptible);
