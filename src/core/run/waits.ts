/** What a run waits for by the clock: the hold that runs, a smoke machine that warms up, joints that cure. */
import { curedAt } from '@/core/kinds/cure/fold';
import { warmAt, warmMinutes } from '@/core/kinds/smoke/fold';
import type { Plan } from '@/core/plan/plan';
import { holdEnds, runningHold } from './read';
import type { RunState } from './state';

export interface Wait {
  /** ms on the line of the log */
  readonly ends: number;
  /** What is to be done once it is over, as it is said on a board of timers. */
  readonly then: string;
}
/** The wait that a person must not miss; null where nothing is timed. A hold stands before what only gets ready beside it. */
export function waitOf(plan: Plan, state: RunState): Wait | null {
  const hold = runningHold(state);
  if (hold) return { ends: holdEnds(hold), then: 'read the gauge' };
  if (state.phase !== 'running') return null;
  const cure = [...state.rooms.cures].reverse().find((c) => !c.ended);
  if (cure) return { ends: curedAt(cure), then: 'joints are cured' };
  const minutes = warmMinutes(plan);
  const warm = minutes === null ? null : warmAt(state, minutes);
  // once smoke was found with it, it is warm and needs no clock
  const used = state.rooms.smoke.searches.some((s) => s.onAt !== undefined);
  return warm === null || used ? null : { ends: warm, then: 'smoke machine is warm' };
}
