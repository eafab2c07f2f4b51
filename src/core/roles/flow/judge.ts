import type { RoleJudge } from '../judging';
import { standing } from '../lock-up/judge';

export const judge: RoleJudge = standing(false);
