import { standing } from '../lock-up/judge';
import type { RoleJudge } from '../judging';

export const judge: RoleJudge = standing(false);
