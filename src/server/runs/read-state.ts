import 'server-only';
import type { Plan } from '@/core/plan/plan';
import type { PlacedEvent } from '@/core/run/events';
import { reduce } from '@/core/run/reduce';
import type { RunState } from '@/core/run/state';

/**
 * The state of a run in a list of many; null where its log cannot be read. One such run must not take the others along: it is
 * said in its place, and its entries are kept.
 */
export function readState(plan: Plan, events: readonly PlacedEvent[]): RunState | null {
  try {
    return reduce(plan, events);
  } catch (error) {
    console.error(`run ${plan.run} cannot be read: ${(error as Error).message}`);
    return null;
  }
}
/** What a list says of such a run. */
export const UNREADABLE =
  'This run cannot be read. Its entries are kept; open it, or ask whoever keeps the server.';
