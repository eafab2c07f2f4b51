/**
 * Whose clock stands behind the times of a record. An entry's own time is a claim of the device that made it; the office
 * notes when each entry came in. Together they say what was witnessed by the office's clock, what stands on the device's
 * alone, and what cannot be true.
 */
import type { Plan } from '@/core/plan/plan';
import { duration } from '@/core/quantity/duration';
import { clockInZone, inZone } from '@/core/quantity/in-zone';
import { momentOf, type PlacedEvent } from '@/core/run/events';
import type { Hold, Reading, RunState } from '@/core/run/state';
import { holdsOf } from './holds';

/** An entry that came in no later than this after it was made was made under the office's clock, ms. House figure: a slow signal. */
export const LIVE_MS = 30_000;
/** No clock is set better than this by one question and its answer, ms. House figure. */
export const SLACK_MS = 30_000;

export interface HoldTimes {
  /** `office`: both ends came in as they were read, and as much time passed there between them. */
  readonly by: 'office' | 'device' | 'file' | 'unsent';
  readonly words: string;
}
/** What an entry says of when it was made, and of when the gauge was read for it. */
const saidTimes = (e: PlacedEvent): number[] => [
  momentOf(e),
  ...('readAt' in e ? [e.readAt + e.offset] : []),
];
const earliest = (e: PlacedEvent): number => Math.min(...saidTimes(e));
const latest = (e: PlacedEvent): number => Math.max(...saidTimes(e));
type Log = ReadonlyMap<string, PlacedEvent>;
const came = (log: Log, reading: Reading): number | undefined => log.get(reading.id)?.received;
/** Counted for a hold that has ended, ms; 0 before. */
const counted = (hold: Hold): number => hold.judgement?.elapsedMs ?? 0;

/** By whose clock a hold was timed, in words that stand beside it. */
export function holdTimes(plan: Plan, log: Log, hold: Hold): HoldTimes {
  if (plan.outside) return { by: 'file', words: `from the file ${plan.outside.file}` };
  const zone = plan.made.zone;
  const start = came(log, hold.start);
  const end = hold.end && came(log, hold.end);
  if (start === undefined || (hold.end && end === undefined))
    return { by: 'unsent', words: 'not all with the office yet' };
  const live = (reading: Reading, received: number) => received - reading.readMoment <= LIVE_MS;
  const begun = live(hold.start, start);
  const ended = !hold.end || live(hold.end, end!);
  const passed = !hold.end || counted(hold) <= end! - start + LIVE_MS;
  const at = (ms: number) => clockInZone(ms, zone);
  if (begun && ended && passed)
    return {
      by: 'office',
      words: `witnessed by the office’s clock: start came in ${at(start)}${hold.end ? `, end ${at(end!)}` : ''}`,
    };
  return {
    by: 'device',
    words: `by the device’s clock: start received ${inZone(start, zone)}${hold.end ? `, end ${inZone(end!, zone)}` : ''}`,
  };
}

/**
 * What cannot be true of the times in a log, in words; nothing where all can. Entries that had no effect are left out. What
 * was brought in from a file has its times from there and is no certificate anyway.
 * @param until the moment of sealing on the office's clock, ms UTC
 */
export function impossibleTimes(
  plan: Plan,
  state: RunState,
  events: readonly PlacedEvent[],
  until: number,
): string[] {
  if (plan.outside) return [];
  const zone = plan.made.zone;
  const began = Date.parse(plan.made.at);
  const without = new Set(state.withoutEffect.map((w) => w.id));
  const effective = events.filter((e) => !without.has(e.id) && !(e.kind === 'stream' && e.imported));
  const early = effective.find((e) => earliest(e) < began - SLACK_MS);
  const ahead = effective.find((e) => latest(e) > (e.received ?? until) + SLACK_MS);
  const log = new Map(events.map((e) => [e.id, e]));
  const long = holdsOf(state).find(
    ({ hold }) => hold.end && counted(hold) > (came(log, hold.end) ?? until) - began + SLACK_MS,
  );
  const total = holdsOf(state).reduce((sum, { hold }) => sum + counted(hold), 0);
  const passed = Math.max(0, until - began);
  return [
    ...(early
      ? [
          `An entry says it was made ${inZone(earliest(early), zone)}, before the test was begun (${inZone(began, zone)}).`,
        ]
      : []),
    ...(ahead
      ? [
          `An entry says it was made ${inZone(latest(ahead), zone)}, but the office had it already (${inZone(ahead.received ?? until, zone)}).`,
        ]
      : []),
    ...(long
      ? [
          `${long.title} counts ${duration(counted(long.hold))}, more than had passed since the test was begun.`,
        ]
      : []),
    ...(!long && total > passed + SLACK_MS
      ? [
          `The holds count ${duration(total)} together, but only ${duration(passed)} passed between the begin of the test and its seal.`,
        ]
      : []),
  ];
}

/** What the record says of its clocks as a whole. */
export function clockLine(plan: Plan, state: RunState, events: readonly PlacedEvent[]): string {
  const zone = `zone ${plan.made.zone}`;
  if (plan.outside) return `Times from the file ${plan.outside.file}; ${zone}.`;
  const log = new Map(events.map((e) => [e.id, e]));
  const not = holdsOf(state).filter(({ hold }) => holdTimes(plan, log, hold).by !== 'office');
  if (!not.length) return `Times from the device's clock, checked against the server's; ${zone}.`;
  const titles = [...new Set(not.map(({ title }) => title))];
  return `Times from the device's clock; ${zone}. The office's clock did not see: ${titles.join(', ')}.`;
}
