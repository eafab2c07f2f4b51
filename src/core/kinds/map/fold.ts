/** Looks at the ends of unseen lines, and what they come to. */
import type { Plan } from '@/core/plan/plan';
import type { Course } from '@/core/run/course';
import type { System } from '@/core/installation/section';
import type { EventOf, RunEvent } from '@/core/run/events';
import type { Fold, OnStage } from '@/core/run/fold';
import type { RunState } from '@/core/run/state';
import { follow, no, type Refusal } from '@/core/run/transition';
import {
  endsOfLook,
  lookingEnds,
  lookWords,
  poolEnds,
  type PoolEnd,
  poolMap,
  type PoolMap,
} from '@/core/trades/pool/ends';
import type { FoundEnd, Look } from '@/core/trades/pool/joins';

/** More looks than any pool asks for: a list nobody can survey. */
const MOST_LOOKS = 120;
const MOST_FOUND = 20;
/** The looks that count: those of runs before and of this one, less what was taken back. */
export function looksNow(plan: Plan, state: RunState): Look[] {
  const { seen, back } = state.rooms.map;
  return [...(plan.system.looks ?? []), ...seen.map((s) => s.look)].filter(
    (l) => !back.some((b) => b.look === l.id),
  );
}
/** What is known of the lines now. */
export const mapNow = (plan: Plan, state: RunState): PoolMap =>
  poolMap(plan.system, looksNow(plan, state), state.rooms.map.found);
/** The look that an entry is. */
export function lookOf(event: EventOf<'look'>): Look {
  const { id, from: at, what, on, off, plugged, stood, joined, elsewhere } = event;
  switch (what) {
    case 'closed':
      return { id, kind: 'closed', at, quiet: on, flowing: off };
    case 'air':
      return {
        id,
        kind: 'air',
        at,
        plugged,
        bubbled: on,
        still: off,
        ...(stood ? { stood } : {}),
        ...(elsewhere?.trim() ? { elsewhere: elsewhere.trim() } : {}),
      };
    case 'among':
      return { id, kind: 'among', at, of: on };
    case 'pipe':
      return { id, kind: 'pipe', ends: on, joined: joined === true };
  }
}

const nameOf = (plan: Plan, state: RunState) => {
  const ends = lookingEnds(plan.system, state.rooms.map.found);
  return (id: string): string => ends.find((e) => e.id === id)?.name ?? id;
};
/** Taken as long as the test runs, where there are ends to look at: also beside a pressure that will not come. */
const looking = ({ plan, state }: { plan: Plan; state: RunState }): boolean =>
  state.phase === 'running' && poolEnds(plan.system, state.rooms.map.found).length > 0;

export const mapFold: Fold<'look' | 'look-back' | 'end-found' | 'end-seat'> = {
  look: {
    anytime: (event, on) => (looking(on) ? look(on.plan, on.state, event, on.at) : undefined),
    apply: () => no('no-ends', 'No outlet or connection is entered here: draw them on the place page first.'),
    words: (event, { plan, state }) => lookWords(lookOf(event), nameOf(plan, state)),
  },
  'look-back': {
    anytime: (event, on) => (looking(on) ? takeBack(on.plan, on.state, event) : undefined),
    apply: () => no('no-ends', 'There is nothing to take back here.'),
    words: (event, { plan, state }) => {
      const seen = [...(plan.system.looks ?? []), ...state.rooms.map.seen.map((s) => s.look)].find(
        (l) => l.id === event.look,
      );
      return `taken back: ${seen ? lookWords(seen, nameOf(plan, state)) : 'a look'}; ${event.why}`;
    },
    said: () => true,
  },
  'end-found': {
    anytime: (event, on) =>
      on.state.phase === 'running' && on.plan.system.network ? found(on.plan, on.state, event) : undefined,
    apply: () => no('no-ends', 'This installation has no drawing to add an end to.'),
    words: (event) => `found, in no list until now: ${event.name}${event.near ? `, ${event.near}` : ''}`,
    said: () => true,
  },
  'end-seat': {
    anytime: (event, on) => {
      if (!looking(on)) return undefined;
      if (!poolEnds(on.plan.system, on.state.rooms.map.found).some((e) => e.id === event.end))
        return no('unknown-end', 'This end is not in the list.');
      on.state.rooms.map.seats[event.end] = event.round;
      return null;
    },
    apply: () => no('no-ends', 'No outlet is entered here.'),
    words: (event, { plan, state }) =>
      `seat at ${nameOf(plan, state)(event.end)}: ${event.round ? 'round' : 'out of round'}`,
  },
};

/** Why a look cannot be taken as it stands; null where it can. */
function wrongLook(own: Look, ends: readonly PoolEnd[]): Refusal | null {
  const named = endsOfLook(own).filter((id) => id !== '');
  if (named.some((id) => !ends.some((e) => e.id === id)))
    return no(
      'unknown-end',
      'An end of this look is not in the list. Add it first: an outlet that nobody had listed.',
    );
  if (new Set(named).size !== named.length)
    return no('twice', 'An end stands twice in this look: either it moved or it did not.');
  switch (own.kind) {
    case 'pipe':
      return own.ends.length < 2 ? no('few', 'Name two ends or more whose pipe was seen.') : null;
    case 'closed':
      if (!ends.find((e) => e.id === own.at)?.dry)
        return no('from', 'A line is closed at the equipment: choose the connection whose line was shut.');
      return own.quiet.length || own.flowing.length
        ? null
        : no('nothing', 'Say what went quiet and what kept flowing.');
    case 'among':
      if (!own.at) return no('from', 'Say from which end you looked.');
      return own.of.length ? null : no('few', 'Name the ends that the bubbles could have come from.');
    case 'air':
      if (!own.at) return no('from', 'Say from which end you looked.');
      return own.bubbled.length || own.still.length || own.elsewhere
        ? null
        : no('nothing', 'Say what bubbled, and what was watched and stayed still.');
  }
}
function look(plan: Plan, state: RunState, event: EventOf<'look'>, at: number): Refusal | null {
  const { seen, found } = state.rooms.map;
  const own = lookOf(event);
  const wrong = wrongLook(own, lookingEnds(plan.system, found));
  if (wrong) return wrong;
  if (seen.length >= MOST_LOOKS)
    return no('too-many', 'So many looks help nobody: end the map with what is known.');
  seen.push({ look: own, at, byName: event.byName });
  return null;
}
/** What earlier runs on the same installation saw, as the next one begins with it. @param events of all of them, in order */
export function remembered(
  system: Pick<System, 'network'>,
  events: readonly RunEvent[],
): Pick<System, 'looks' | 'foundEnds'> {
  const foundEnds: FoundEnd[] = [];
  let looks: Look[] = [];
  for (const e of events) {
    const ends = poolEnds(system, foundEnds);
    if (e.kind === 'look' && !wrongLook(lookOf(e), ends)) looks.push(lookOf(e));
    else if (e.kind === 'look-back') looks = looks.filter((l) => l.id !== e.look);
    else if (e.kind === 'end-found' && !ends.some((x) => x.id === e.end))
      foundEnds.push({ id: e.end, name: e.name, type: e.type, place: e.near });
  }
  return { ...(looks.length ? { looks } : {}), ...(foundEnds.length ? { foundEnds } : {}) };
}
/** The entries that a run after this one knows. */
export const REMEMBERED = ['look', 'look-back', 'end-found'] as const satisfies readonly RunEvent['kind'][];

function takeBack(plan: Plan, state: RunState, event: EventOf<'look-back'>): Refusal | null {
  if (!looksNow(plan, state).some((l) => l.id === event.look))
    return no('overtaken', 'This look is not in the list any more.');
  state.rooms.map.back.push({ look: event.look, why: event.why, byName: event.byName });
  return null;
}
function found(plan: Plan, state: RunState, event: EventOf<'end-found'>): Refusal | null {
  const { found: list } = state.rooms.map;
  if (poolEnds(plan.system, list).some((e) => e.id === event.end))
    return no('overtaken', 'This end is in the list already.');
  if (list.length >= MOST_FOUND)
    return no('too-many', 'So many ends belong on the drawing of the place: add them there.');
  list.push({ id: event.end, name: event.name, type: event.type, place: event.near });
  return null;
}
/** Ends the map with what is known: whole, in part, or with looks that contradict each other. */
export function confirmMap({ plan, state, at }: OnStage): Refusal | null {
  const { joins, lost, ends } = mapNow(plan, state);
  if (!ends.length)
    return no('no-ends', 'No outlet or connection is entered: draw them on the place page first.');
  follow(
    plan,
    state,
    joins.clashes.length ? 'unclear' : joins.settled && !lost.length ? 'mapped' : 'partly',
    at,
  );
  return null;
}
const WORDS: Readonly<Record<string, string>> = {
  mapped: 'every line known',
  partly: 'known in part',
  unclear: 'looks contradict each other',
};
export const mapCourse: Course = (visit) => ({ word: WORDS[visit.outcome ?? ''] ?? 'open', text: '' });
