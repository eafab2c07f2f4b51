/** Taking a step back soon after it was made: the log keeps both, the run goes on from where it stood before. */
import type { EventOf, RunEvent } from './events';
import type { EntryRule, On } from './fold';
import type { RunState } from './state';
import { no, type Refusal } from './transition';

/** A step can be taken back for this long, ms. House figure: long enough to see what one pressed, short enough that nothing was built on it */
export const UNDO_MS = 10_000;
/** What the press itself and two clocks may add; with a reason to be typed a minute, ms. House figures */
const GRACE_MS = { plain: 5_000, sign: 60_000 } as const;
const KEPT_MS = UNDO_MS + GRACE_MS.sign;
/** Further entries that a step taken back is kept with; after more it stands. */
const MOST_SINCE = 400;

/** A step that can still be taken back. */
export interface Back {
  readonly id: string;
  readonly at: number;
  /** It reported a danger, or ended what is judged: taken back only with a reason. */
  readonly sign: boolean;
  /** The step in words. */
  readonly words: string;
  /** The run as it stood before; never changed. */
  readonly before: RunState;
  /** What was entered since and is no step itself: it stays. */
  readonly since: readonly RunEvent[];
}
/** A step that was taken back, for the record. */
export interface Undone {
  readonly words: string;
  readonly reason: string;
  readonly at: number;
  readonly byName: string;
}

/** Whether this step can be taken back at this moment, and needs a reason for it. @param at server-line ms */
export function undoable(
  state: RunState,
  id: string,
  at: number,
): { readonly sign: boolean; readonly until: number } | null {
  const n = state.back.findIndex((b) => b.id === id);
  if (n < 0 || at > state.back[n]!.at + UNDO_MS) return null;
  return { sign: state.back.slice(n).some((b) => b.sign), until: state.back[n]!.at + UNDO_MS };
}

/** Whether a step reports what must not vanish without a word: a danger, a finding, the end of what is judged. */
export function isSign(
  rule: EntryRule<RunEvent>,
  event: RunEvent,
  before: RunState,
  after: RunState,
): boolean {
  const grave = (s: RunState) =>
    Object.values(s.claims).filter((c) => c.finding === 'not-tight' || c.finding === 'void' || c.danger)
      .length;
  return (
    rule.sign?.(event, before) === true ||
    after.denied.length > before.denied.length ||
    after.spoiled.length > before.spoiled.length ||
    grave(after) > grave(before) ||
    (event.kind === 'check' &&
      event.answer === 'yes' &&
      (after.visits.length !== before.visits.length || after.phase !== before.phase))
  );
}

/** Notes what was taken into a run, so that it can be taken back. @param before null: it is no step */
export function remember(
  state: RunState,
  event: RunEvent,
  at: number,
  step: Omit<Back, 'since' | 'id' | 'at'> | null,
): void {
  if (step) {
    state.back = [
      ...state.back.filter((b) => at - b.at <= KEPT_MS),
      { ...step, id: event.id, at, since: [] },
    ];
    return;
  }
  const last = state.back[state.back.length - 1];
  if (!last) return;
  state.back =
    last.since.length < MOST_SINCE && at - last.at <= KEPT_MS
      ? [...state.back.slice(0, -1), { ...last, since: [...last.since, event] }]
      : [];
}

/**
 * Takes a step back, and the steps made after it; what was entered since and is no step stays. The log keeps everything.
 * @param copy of a state  @param again takes an entry into the state
 */
export function takeBack(
  { state, at }: On,
  event: EventOf<'undo'>,
  copy: <T>(value: T) => T,
  again: (e: RunEvent) => void,
): Refusal | null {
  const n = state.back.findIndex((b) => b.id === event.of);
  const first = state.back[n];
  const gone = state.back.slice(Math.max(0, n));
  const sign = gone.some((b) => b.sign);
  if (!first || at - first.at > UNDO_MS + GRACE_MS[sign ? 'sign' : 'plain'])
    return no(
      'late',
      `A step can be taken back for ${UNDO_MS / 1000} s. A reading can still be corrected under More; what ended a hold stays, and the hold can be repeated.`,
    );
  if (state.signatures.length > first.before.signatures.length)
    return no('signed', 'It was signed since. Nothing is taken back any more.');
  const reason = event.reason?.trim() ?? '';
  if (sign && !reason) return no('reason', 'Say why it is taken back. It is printed.');
  const { clockMarks, events, lastAt } = state;
  Object.assign(state, copy(first.before), { back: state.back.slice(0, n) });
  for (const e of gone.flatMap((b) => b.since)) again(e);
  for (const b of gone) {
    const seconds = Math.max(0, Math.round((at - b.at) / 1000));
    state.withoutEffect.push({
      id: b.id,
      code: 'undone',
      text: `taken back by ${event.byName} after ${seconds} s${reason ? `: ${reason}` : ''}`,
    });
    state.undone.push({ words: b.words, reason, at, byName: event.byName });
  }
  // what clocks showed, and how much was entered, stays whatever is taken back
  state.clockMarks = [...new Set([...clockMarks, ...state.clockMarks])];
  state.events = events;
  state.lastAt = lastAt;
  return null;
}
