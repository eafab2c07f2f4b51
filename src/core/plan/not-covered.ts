/** What a test does not cover, in words: what the place leaves out, what the procedure cannot prove, what no such test does. */
import { tradeOf } from '@/core/trades';
import type { Plan } from './plan';

/** No tightness test of gas says anything of these; they stand on every gas record. */
export const NEVER_BY_TIGHTNESS = 'combustion, carbon monoxide, flues, ventilation and pipe sizing';

/** @returns lines for the record; records of the first format carry only what the place leaves out */
export const notCoveredIn = (plan: Plan): string[] =>
  plan.format < 2
    ? [...plan.system.notCovered]
    : [
        ...new Set([
          ...plan.system.notCovered,
          ...plan.procedure.cannotProve,
          ...(tradeOf(plan.system).fuel ? [NEVER_BY_TIGHTNESS] : []),
        ]),
      ];
