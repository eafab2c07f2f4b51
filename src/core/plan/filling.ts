import { fillingNamed } from '@/core/fillings';
import type { Filling } from '@/core/fillings/filling';
import { type Plan, ruleOf } from './plan';

/** What fills the section in a part of a run; absent: in its procedure. */
export const fillingOf = (plan: Plan, part?: string | null): Filling =>
  fillingNamed(ruleOf(plan, part).fills);
