/** When a run rings for its people: before and at the end of what it waits for, and while something is still owed. */
import type { Plan } from '@/core/plan/plan';
import { debtWords, inDebtOrder } from './read';
import type { RunState } from './state';
import { waitOf } from './waits';

/** A wait of an hour and more says in good time that it ends: people have gone to other work. House figures. */
const LONG_MINUTES = 60;
const GOOD_TIME = 15;
/** What is owed is called to mind after so many minutes in which nothing was entered. House figures. */
const OWED_MINUTES = [30, 240] as const;

export interface Alarm {
  /** The same alarm always has the same: it rings once. */
  readonly tag: string;
  /** ms on the line of the log */
  readonly at: number;
  readonly text: string;
}
const minutesWords = (n: number) => (n === 1 ? 'a minute' : `${n} minutes`);

/**
 * The alarms of a run as it stands, also those that are past.
 * @param minutes how long before the end of a wait it is to ring, each 0 or more
 * @param lastEntry moment of the last entry, ms on the line of the log
 */
export function alarmsOf(
  plan: Plan,
  state: RunState,
  minutes: readonly number[],
  lastEntry: number,
): Alarm[] {
  const name = `${plan.site.name}, ${plan.system.name}`;
  const wait = waitOf(plan, state);
  if (wait) {
    const long = wait.ends - lastEntry >= LONG_MINUTES * 60_000;
    return (
      [...new Set([...minutes, ...(long ? [GOOD_TIME] : [])])]
        .sort((a, b) => b - a)
        .map((m) => ({
          tag: `${plan.run}:${wait.ends}:${m}`,
          at: wait.ends - m * 60_000,
          text: m ? `${name}: ${minutesWords(m)} to go, then ${wait.then}.` : `${name}: now ${wait.then}.`,
        }))
        // what was over before the wait began is no warning
        .filter((a) => a.at > lastEntry || a.at === wait.ends)
    );
  }
  if (state.phase === 'signed') return [];
  const owed = inDebtOrder(plan, state);
  if (!owed.length) return [];
  const more = owed.length > 1 ? `, and ${owed.length - 1} more` : '';
  return OWED_MINUTES.map((m) => ({
    tag: `${plan.run}:owed:${lastEntry}:${m}`,
    at: lastEntry + m * 60_000,
    text: `${name}: still owed: ${debtWords(plan, owed[0]!)}${more}.`,
  }));
}
