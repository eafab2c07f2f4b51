/** What a reading is once it is in the run, and what is remembered of it. */
import { wanted } from '@/core/formula';
import { type Plan } from '@/core/plan/plan';
import { enteredCaps } from '@/core/plan/weakest';
import { compare, type Exact, showExact } from '@/core/quantity/exact';
import { UNITS } from '@/core/quantity/unit';
import { clockPoint } from '@/core/run/clock';
import { type RunEvent } from '@/core/run/events';
import { type Reading, type RunState } from '@/core/run/state';

/** An entry older than this when saved is late: kept, marked, never the start or end of a judged hold. House figure. */
export const LATE_AFTER_MS = 60_000;

export const mark = (state: RunState, text: string) => {
  if (!state.clockMarks.includes(text)) state.clockMarks.push(text);
};

/** Remembers a reading by name: later bands and holds refer to it. */
export function keep(state: RunState, name: string | undefined, reading: Reading): void {
  if (!name) return;
  state.kept[name] = reading.figure;
  state.keptReadings[name] = reading;
}

export const readingFrom = (event: Extract<RunEvent, { readonly readAt: number }>, at: number): Reading => ({
  id: event.id,
  at,
  readMoment: event.readAt + event.offset,
  figure: event.figure,
  byName: event.byName,
  late: (event.kind === 'reading' && event.late === true) || event.at - event.readAt > LATE_AFTER_MS,
  same: event.same === true,
  streamed: event.streamed === true,
  clock: clockPoint(event, event.readAt),
});

/** A value taken over from the display was shown within this time of being taken, ms. House figure: a gauge shows one a second. */
const SHOWN_WITHIN_MS = 5_000;
/**
 * Whether a reading said to be taken over from the display was shown there: the gauge's own values of that moment stand in
 * the run. Without them it counts as typed, whatever the device said.
 */
export const wasShown = (
  state: RunState,
  reading: Pick<Reading, 'streamed' | 'readMoment' | 'figure'>,
): boolean =>
  reading.streamed &&
  state.visits.some((v) =>
    v.trace.some(
      ([t, digits]) =>
        digits === reading.figure.digits && Math.abs(t - reading.readMoment) <= SHOWN_WITHIN_MS,
    ),
  );

/** What a reading above the weakest part in scope says; '' while it is not above it. */
export function passedCap(plan: Plan, figure: Exact): string {
  const [weakest] = enteredCaps(plan);
  if (!weakest || UNITS[weakest.most.unit].dimension !== UNITS[figure.unit].dimension) return '';
  const most = wanted(weakest.most, figure.unit, 'down');
  return compare(figure, most) > 0
    ? `${showExact(figure)} is above what ${weakest.name} permits (${showExact(weakest.most)}). Release now, slowly; look at it before you raise again.`
    : '';
}
