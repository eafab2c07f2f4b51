/**
 * The search for a leak: parts of the section held by themselves after a hold that failed. It judges nothing; but while something
 * is closed for it, nothing of the test itself can be held.
 */
import { ruleOfKind, type StageKind } from '@/core/kinds';
import { networkOf } from '@/core/network/enter';
import { type Positions, type Reach, reachOf } from '@/core/network/flood';
import { type Joined, partOf, positionKey, shutName } from '@/core/network/network';
import type { Plan } from '@/core/plan/plan';
import { duration } from '@/core/quantity/duration';
import { type Exact, showChange, showExact, subtract } from '@/core/quantity/exact';
import { UNITS } from '@/core/quantity/unit';
import { elapsedBetween } from './clock';
import type { EventOf } from './events';
import type { Fold, On } from './fold';
import { onGauge } from './gate';
import { runningHold } from './read';
import { readingFrom } from './readings';
import type { Reading, RunState } from './state';
import { no, type Refusal } from './transition';

/** What one part showed while the rest was shut off. */
export interface Isolated {
  /** ids of the parts of the drawing that were closed */ readonly closed: readonly string[];
  readonly at: number;
  readonly byName: string;
  /** Held: from what to what, in how long. */
  readonly held?: { readonly start: Exact; readonly end: Exact; readonly ms: number; readonly gauge: string };
  /** Blown into: what it lost at the reference pressure. */
  readonly flow?: Exact;
}
export interface Search {
  /** Parts that were worked on today; null: not said. */
  workedOn: readonly string[] | null;
  open: { readonly closed: readonly string[]; readonly start: Reading; readonly gauge: string } | null;
  /** Still closed for the search, as far as anybody said. */
  shut: readonly string[];
  /** Closed for good when the search was over. */
  left: readonly string[];
  results: Isolated[];
}
export const newSearch = (): Search => ({ workedOn: null, open: null, shut: [], left: [], results: [] });

/** What is closed for the search just now; none where it stands as the test has it. */
export const closedNow = ({ search }: Pick<RunState, 'search'>): readonly string[] =>
  search.open?.closed ?? search.shut;
/** Why a step of the test cannot be made while something is closed for the search; null: it can. */
export function shutForSearch(plan: Plan, state: RunState, kind: StageKind): Refusal | null {
  const closed = closedNow(state);
  if (!closed.length || !ruleOfKind(kind).presses) return null;
  const names = namesOf(plan, closed).join(', ');
  return no(
    'search-shut',
    `${names}: closed for the search. Open again, and say so there; otherwise only a part of the section would be tested.`,
  );
}
/** How everything stands by now, with what is closed for the search, and what that reaches. */
export function standing(
  network: Joined,
  state: RunState,
): { readonly positions: Positions; readonly reach: Reach } {
  const { valves } = state;
  const ids = closedNow(state);
  const closed = ids.flatMap((id) => partOf(network, id) ?? []);
  const positions = closed.length
    ? { ...valves, ...Object.fromEntries(closed.map((p) => [positionKey(network, p), 'closed' as const])) }
    : valves;
  return { positions, reach: reachOf(network, positions, new Set(ids)) };
}
/** Names of parts of the drawing, as they stand at the place. */
export function namesOf(plan: Plan, ids: readonly string[]): string[] {
  const network = networkOf(plan.system);
  return ids.map((id) => {
    const part = partOf(network, id);
    return part ? shutName(network, part) : id;
  });
}
/** Gas was smelt, or the danger is immediate: nothing is put under pressure again. */
export const smelt = (state: RunState): boolean =>
  state.observations.some((o) => o.what === 'smell') || state.unsafe?.danger === 'immediate-danger';
/** Why nothing may be put under pressure, or searched, here and now. */
function notNow({ state }: Pick<On, 'state'>): Refusal | null {
  if (smelt(state))
    return no(
      'smell',
      'Gas was smelt: nothing is put under pressure again. Make safe and leave it shut off.',
    );
  if (state.phase !== 'running' && state.phase !== 'put-back')
    return no('overtaken', 'The test is being signed: the search is over.');
  if (runningHold(state))
    return no('hold-runs', 'A hold is running: end it before a part is held by itself.');
  const seen = state.visits.some(
    (v) => v.unheld || v.holds.some((h) => h.judgement) || v.cycles.some((c) => c.hold?.judgement),
  );
  return seen || state.rooms.fan.visits.some((v) => v.result)
    ? null
    : no('nothing-held', 'Nothing was held yet: first test the whole section.');
}
function known({ plan }: Pick<On, 'plan'>, ids: readonly string[]): Refusal | null {
  const network = networkOf(plan.system);
  return ids.every((id) => partOf(network, id))
    ? null
    : no('unknown-part', 'This part is not in the drawing of the plan. Choose from those listed.');
}
const free = ({ plan, state }: Pick<On, 'plan' | 'state'>): Refusal | null =>
  shutForSearch(plan, state, 'hold');

export const isolationFold: Fold<
  | 'worked-on'
  | 'isolation-start'
  | 'isolation-end'
  | 'isolation-flow'
  | 'isolation-dropped'
  | 'isolation-reopened'
> = {
  'worked-on': {
    anytime: (event, on) => {
      const refused = known(on, event.parts);
      if (refused) return refused;
      on.state.search.workedOn = [...new Set(event.parts)];
      return null;
    },
    words: (event, { plan }) =>
      event.parts.length
        ? `worked on today: ${namesOf(plan, event.parts).join(', ')}`
        : 'nothing was worked on today',
    said: () => true,
  },
  'isolation-start': {
    undo: true,
    entered: 'a part held by itself',
    misfit: (event, on) => onGauge(on, event.figure),
    anytime: (event, on) => {
      const refused = notNow(on) ?? known(on, event.closed) ?? free(on);
      if (refused) return refused;
      const { state, at } = on;
      const start = readingFrom(event, at);
      state.search.open = { closed: [...new Set(event.closed)], start, gauge: state.gauge ?? '' };
      return null;
    },
    words: (event, { plan }) =>
      `${namesOf(plan, event.closed).join(', ')} closed; the rest held by itself from ${showExact(event.figure)}`,
  },
  'isolation-end': {
    undo: true,
    entered: 'a part held by itself',
    misfit: (event, on) => onGauge(on, event.figure),
    anytime: (event, on) => end(on, event),
    words: (event) => `the part held by itself read ${showExact(event.figure)}`,
  },
  'isolation-flow': {
    undo: true,
    misfit: (event) =>
      UNITS[event.flow.unit].dimension === 'flow' && event.flow.digits >= 0
        ? null
        : no('flow', 'Type the flow that the fan shows at the reference pressure, zero or more.'),
    anytime: (event, on) => {
      const refused = notNow(on) ?? known(on, event.closed) ?? free(on);
      if (refused) return refused;
      const { state, at } = on;
      const closed = [...new Set(event.closed)];
      state.search.results.push({ closed, at, byName: event.byName, flow: event.flow });
      state.search.shut = closed;
      return null;
    },
    words: (event, { plan }) =>
      `${namesOf(plan, event.closed).join(', ')} closed; the rest lost ${showExact(event.flow)}`,
    said: () => true,
  },
  'isolation-dropped': {
    anytime: (_, { state }) => {
      const { search } = state;
      if (!search.open) return no('overtaken', 'No part is held by itself.');
      search.shut = search.open.closed;
      search.open = null;
      return null;
    },
    words: () => 'the hold of a part was dropped',
  },
  'isolation-reopened': {
    undo: true,
    anytime: (event, { state }) => {
      const { search } = state;
      if (search.open) return no('part-held', 'A part is held by itself: read it, or drop it, first.');
      if (!search.shut.length) return no('overtaken', 'Nothing is closed for the search.');
      if (event.left && state.phase === 'running')
        return no(
          'scope',
          'The test goes on over the whole section: open it again. Left shut it can stay once the test has ended.',
        );
      if (event.left) search.left = [...new Set([...search.left, ...search.shut])];
      search.shut = [];
      return null;
    },
    words: (event) =>
      event.left
        ? 'what was closed for the search stays shut'
        : 'what was closed for the search is open again',
  },
};
function end(on: On, event: EventOf<'isolation-end'>): Refusal | null {
  const { state, at } = on;
  const { search } = state;
  if (!search.open) return no('overtaken', 'No part is held by itself.');
  const read = readingFrom(event, at);
  const { start, closed, gauge } = search.open;
  if (read.figure.unit !== start.figure.unit)
    return no('unit', 'The gauge was changed while the part was held. Drop it, and hold it again.');
  const { ms } = elapsedBetween(start.clock, read.clock);
  if (!(ms > 0)) return no('time', 'No time has passed since its start reading. Wait, then read again.');
  search.results.push({
    closed,
    at,
    byName: event.byName,
    held: { start: start.figure, end: read.figure, ms, gauge },
  });
  search.open = null;
  search.shut = closed;
  return null;
}
/** What a part showed, in words. */
export function isolatedWords(plan: Plan, r: Isolated): string {
  const closed = `${namesOf(plan, r.closed).join(', ')} closed`;
  if (r.flow) return `${closed}: the rest lost ${showExact(r.flow)}`;
  const { start, end: last, ms } = r.held!;
  return `${closed}: the rest from ${showExact(start)} to ${showExact(last)} (${showChange(subtract(last, start))}) in ${duration(ms)}`;
}
/** The search as it stands on a record. */
export const searchLines = (plan: Plan, { search }: RunState): string[] => [
  ...(search.workedOn?.length ? [`Worked on today: ${namesOf(plan, search.workedOn).join(', ')}`] : []),
  ...search.results.map((r) => isolatedWords(plan, r)),
  ...(search.left.length ? [`Left shut after the search: ${namesOf(plan, search.left).join(', ')}`] : []),
  ...(search.shut.length ? [`Not said to be open again: ${namesOf(plan, search.shut).join(', ')}`] : []),
];
