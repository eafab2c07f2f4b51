import { newRooms } from '@/core/kinds/rooms';
import type { Plan } from '@/core/plan/plan';
import { type EventOf, momentOf, type PlacedEvent, type RunEvent } from './events';
import { foldOf } from './folds';
import { notAhead } from './gate';
import { newSearch, shutForSearch } from './isolations';
import { currentVisit, expectation, stageOf } from './read';
import { LATE_AFTER_MS, mark } from './readings';
import type { RunState } from './state';
import { enter, overtaken, type Refusal } from './transition';
import { isSign, remember, takeBack } from './undo';

/** A run that has just begun: nothing entered, its first stage open. */
export function begin(plan: Plan): RunState {
  const state: RunState = {
    phase: 'running',
    visits: [],
    gauge: null,
    ownKit: null,
    debts: [],
    claims: {},
    ending: null,
    denied: [],
    spoiled: [],
    repeats: 0,
    fails: 0,
    passes: 0,
    rises: 0,
    smallFalls: 0,
    tapped: null,
    taken: {},
    kept: {},
    keptReadings: {},
    findings: [],
    watch: null,
    photos: [],
    imports: [],
    joints: [],
    rooms: newRooms(),
    observations: [],
    inventory: [],
    volume: null,
    search: newSearch(),
    valves: {},
    reports: [],
    followUps: [],
    unsafe: null,
    notes: [],
    signatures: [],
    withoutEffect: [],
    clockMarks: [],
    papers: { site: null, calibrations: {} },
    back: [],
    undone: [],
    events: 0,
    lastAt: 0,
  };
  enter(plan, state, plan.procedure.first, Date.parse(plan.made.at));
  return state;
}

/**
 * One entry taken into the state, which it changes: it takes effect or is set aside with a reason. Total: any schema-valid
 * event in any state. @param keep remembers what stood before, so that the step can be taken back  @returns why it had no effect, or null
 */
export function step(plan: Plan, state: RunState, event: RunEvent, keep = false): Refusal | null {
  const rule = foldOf(event);
  const undo = event.kind === 'undo';
  // signed is signed: nothing behind it is kept to go back to
  const before =
    keep && (rule.transition || rule.undo) && state.phase !== 'signed'
      ? copyOf({ ...state, back: [] })
      : null;
  const refusal = undo ? takeBackHere(plan, state, event) : apply(plan, state, event);
  if (keep && !refusal && !undo)
    remember(
      state,
      event,
      momentOf(event),
      before && {
        before,
        sign: isSign(rule, event, before, state),
        words: rule.words(event, { plan, state: before }),
      },
    );
  if (refusal) state.withoutEffect.push({ id: event.id, ...refusal });
  if (Math.abs(event.offset) > LATE_AFTER_MS)
    mark(
      state,
      `The clock of a device stood ${offsetWords(event.offset)} the server; server time was used for the holds, both are kept.`,
    );
  state.events += 1;
  state.lastAt = Math.max(state.lastAt, momentOf(event));
  return refusal;
}

/**
 * Derives the state of a run from its log. Pure: the same events in any order, with any repeats, give the same
 * state. Placed events come first, by position; unsent ones last, by device and its sequence.
 */
export function reduce(plan: Plan, events: readonly PlacedEvent[]): RunState {
  const state = begin(plan);
  // what nobody took back needs nothing to go back to
  const keep = events.some((e) => e.kind === 'undo');
  for (const event of inOrder(events)) step(plan, state, event, keep);
  return state;
}

/** The log in the order it counts: by position, the unsent last; each id once. */
export function inOrder(events: readonly PlacedEvent[]): PlacedEvent[] {
  const byId = new Map<string, PlacedEvent>();
  for (const e of events)
    if (!byId.has(e.id) || (byId.get(e.id)!.position === undefined && e.position !== undefined))
      byId.set(e.id, e);
  return [...byId.values()].sort(
    (a, b) =>
      (a.position ?? Infinity) - (b.position ?? Infinity) ||
      compareText(a.device, b.device) ||
      a.deviceSeq - b.deviceSeq ||
      compareText(a.id, b.id) ||
      0,
  );
}

export const compareText = (a: string, b: string) => (a < b ? -1 : a > b ? 1 : 0);

export const offsetWords = (offset: number) => {
  const minutes = Math.round(Math.abs(offset) / 60000);
  return `${minutes} min ${offset > 0 ? 'behind' : 'ahead of'}`;
};

/** Why a figure of this event does not fit; null when all fit. Asked before the event takes effect. */
export const misfit = (plan: Plan, state: RunState, event: RunEvent): Refusal | null =>
  notAhead(event) ?? foldOf(event).misfit?.(event, { plan, state }) ?? null;

function takeBackHere(plan: Plan, state: RunState, event: EventOf<'undo'>): Refusal | null {
  return (
    notAhead(event) ??
    takeBack({ plan, state, at: momentOf(event) }, event, copyOf, (e) => void step(plan, state, e, true))
  );
}
function apply(plan: Plan, state: RunState, event: RunEvent): Refusal | null {
  const rule = foldOf(event);
  const on = { plan, state, at: momentOf(event) };
  if (rule.anytime) {
    const taken = misfit(plan, state, event) ?? rule.anytime(event, on);
    if (taken !== undefined) return taken;
  }
  const visit = currentVisit(state);
  if (!visit || (rule.transition && event.expects !== expectation(state))) return overtaken();
  const shut = rule.transition ? shutForSearch(plan, state, visit.kind) : null;
  return (
    shut ?? misfit(plan, state, event) ?? rule.apply!(event, { ...on, visit, stage: stageOf(plan, visit) })
  );
}

/** What a new event would do to a run: its refusal, or null when it takes effect. The state is left as it is. */
export const tryEvent = (plan: Plan, state: RunState, event: RunEvent): Refusal | null =>
  step(plan, copyOf(state), event);

/** A state and the ids of the entries it was made of, in the order they counted. */
export interface Folded {
  readonly plan: Plan;
  readonly ids: readonly string[];
  readonly state: RunState;
}

/**
 * The state of a log as `reduce` gives it, going on from an earlier one while this log begins with the same entries; from the
 * start where something came in between. The earlier one is left as it is; it is given back when nothing is new.
 */
export function foldOn(plan: Plan, before: Folded | null, events: readonly PlacedEvent[]): Folded {
  const log = inOrder(events);
  const known = before?.plan === plan && before.ids.every((id, n) => log[n]?.id === id) ? before : null;
  if (known?.ids.length === log.length) return known;
  const state = known ? copyOf(known.state) : begin(plan);
  for (const event of log.slice(known?.ids.length)) step(plan, state, event, true);
  return { plan, ids: log.map((e) => e.id), state };
}

/** A log as far as it was gone through, by position, to be gone on with in place. */
export interface Standing {
  readonly plan: Plan;
  readonly state: RunState;
  /** The last entry that was taken in. */ position: number;
  /** Who wrote in it, by their ids. */
  readonly people: Set<string>;
  /** When something was last entered that no gauge streamed, ms; at first when the run was made. */
  lastEntry: number;
}
export const standingAt = (plan: Plan): Standing => ({
  plan,
  state: begin(plan),
  position: 0,
  people: new Set(),
  lastEntry: Date.parse(plan.made.at),
});
/** Takes in what was placed since, in its order; what it knows already is left out. The state is changed in place. */
export function standOn(s: Standing, events: readonly PlacedEvent[]): void {
  for (const event of events) {
    if (event.position === undefined || event.position <= s.position) continue;
    step(s.plan, s.state, event, true);
    s.position = event.position;
    s.people.add(event.by);
    if (event.kind !== 'stream') s.lastEntry = Math.max(s.lastEntry, momentOf(event));
  }
}
/** How a run would stand after these, left as it is. */
export function after(
  { plan, state }: Pick<Standing, 'plan' | 'state'>,
  events: readonly RunEvent[],
): RunState {
  const copy = copyOf(state);
  for (const event of events) step(plan, copy, event, true);
  return copy;
}

/** A state that can be changed without the one it came from. */
function copyOf<T>(value: T): T {
  // a pair of numbers is never changed in its place: a trace of a day is copied as one list
  if (Array.isArray(value))
    return (Array.isArray(value[0]) && typeof value[0][0] === 'number' ? [...value] : value.map(copyOf)) as T;
  if (typeof value !== 'object' || value === null) return value;
  // what can be gone back to is never changed either
  return Object.fromEntries(Object.entries(value).map(([k, v]) => [k, k === 'back' ? v : copyOf(v)])) as T;
}
