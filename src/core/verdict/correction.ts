/**
 * What warmth and barometer alone do to a section: the one answer for the screen beside the clock and for the judge.
 * A gas follows the gas law; a full section follows its own dp/dT, which may be of either sign; a level is never corrected.
 */
import type { AloneOf } from '@/core/fillings/filling';
import { movesOf } from '@/core/fillings/moves';
import type { Plan } from '@/core/plan/plan';
import type { RunState } from '@/core/run/state';

/** How movement is explained without a leak in a part of this run: by what fills it. */
export const aloneIn = (plan: Plan, state: RunState, part?: string | null): AloneOf =>
  movesOf(plan, part).alone(plan, state);
