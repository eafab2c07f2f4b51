/** Plugs in and out of a line, counted by kind and size, and what happens when one does not hold. */
import type { Plan } from '@/core/plan/plan';
import { wanted } from '@/core/formula';
import { LEAST_PLUG } from '@/core/formula/pool';
import { compare, showExact } from '@/core/quantity/exact';
import { UNITS } from '@/core/quantity/unit';
import type { Course } from '@/core/run/course';
import type { EventOf } from '@/core/run/events';
import type { Fold, OnStage } from '@/core/run/fold';
import type { RunState } from '@/core/run/state';
import { runningHold } from '@/core/run/read';
import { breakHold, follow, no, type Refusal, returnToFill, stopNow } from '@/core/run/transition';
import { plugsFor } from '@/core/limit/pool';
import { poolEnds, type PoolEnd } from '@/core/trades/pool/ends';
import { PLUG_KINDS } from './entries';
import type { Plug } from './state';

const FAILED = { slipped: 'slipped', burst: 'burst', leaks: 'leaks' } as const;
/** The ends that this run closes: those of its line. */
export const endsOfLine = (plan: Plan, state: RunState): PoolEnd[] =>
  poolEnds(plan.system, state.rooms.map.found);
/** Plugs that are in now. */
export const plugsIn = (state: RunState): Plug[] => state.rooms.plugs.plugs.filter((p) => !isOut(state, p));
/** Counted out at its step, or struck off the put-back list. */
const isOut = (state: RunState, p: Plug): boolean =>
  !!p.out || state.debts.some((d) => d.subject === p.end && d.openedAt === p.at && !!d.cleared);
/** How many of each kind and size went in, and how many came out. */
export function plugCount(
  state: RunState,
): { readonly what: string; readonly in: number; readonly out: number }[] {
  const rows = new Map<string, { in: number; out: number }>();
  for (const p of state.rooms.plugs.plugs) {
    const what = `${PLUG_KINDS[p.plug]}${p.size ? `, ${p.size}` : ''}, ${p.open ? 'open' : 'closed'}`;
    const row = rows.get(what) ?? { in: 0, out: 0 };
    rows.set(what, { in: row.in + 1, out: row.out + (isOut(state, p) ? 1 : 0) });
  }
  return [...rows].map(([what, n]) => ({ what, ...n }));
}
const nameOf = (plan: Plan, state: RunState, end: string): string =>
  endsOfLine(plan, state).find((e) => e.id === end)?.name ?? end;
const way = (on: OnStage): 'in' | 'out' | null => (on.stage.kind === 'plugs' ? on.stage.way : null);

export const plugsFold: Fold<'plug-in' | 'plug-out' | 'plug-failed' | 'plug-cannot'> = {
  'plug-in': {
    apply: (event, on) => plugIn(on, event),
    words: (event, { plan, state }) =>
      [
        `${event.open ? 'open' : 'closed'} ${PLUG_KINDS[event.plug]}${event.size ? `, ${event.size}` : ''} in at ${nameOf(plan, state, event.end)}`,
        ...(event.rating ? [`rated ${showExact(event.rating)}`] : []),
        ...(event.inflation ? [`inflated to ${showExact(event.inflation)}`] : []),
        ...(event.light ? ['seen with a light to seal all round'] : []),
        ...(event.proved ? [`proved: ${event.proved}`] : []),
      ].join('; '),
  },
  'plug-out': {
    anytime: (event, { state, at }) => plugOut(state, event, at),
    words: (event, { plan, state }) => `plug out at ${nameOf(plan, state, event.end)}, counted`,
  },
  'plug-failed': {
    anytime: (event, { plan, state, at }) =>
      state.phase === 'running' ? plugFailed(plan, state, event, at) : undefined,
    apply: () => no('ended', 'The test has ended.'),
    words: (event, { plan, state }) => `plug at ${nameOf(plan, state, event.end)} ${FAILED[event.how]}`,
    said: () => true,
  },
  'plug-cannot': {
    transition: true,
    apply: (event, on) => cannot(on, event),
    words: (event, { plan, state }) => `plug at ${nameOf(plan, state, event.end)}: ${event.why}`,
    said: () => true,
  },
};

function plugIn(on: OnStage, event: EventOf<'plug-in'>): Refusal | null {
  const { plan, state, stage, at } = on;
  if (stage.kind !== 'plugs' || stage.way !== 'in') return no('wrong-step', 'Plugs go in at their own step.');
  if (!endsOfLine(plan, state).some((e) => e.id === event.end))
    return no('unknown-end', 'This end is no part of the line.');
  if (plugsIn(state).some((p) => p.end === event.end))
    return no('overtaken', 'A plug is in at this end already. Count it out first.');
  if (event.open && event.plug === 'valve')
    return no('valve', 'A valve closes an end; it cannot be the open plug.');
  if (event.open && plugsIn(state).some((p) => p.open))
    return no('open', 'One end is open to the pressure already: the others are closed.');
  if (event.plug === 'inflatable' && (!event.inflation || !event.light))
    return no(
      'inflation',
      'An inflatable plug holds by its own pressure: read it, and look with a light from the other side that it seals all round.',
    );
  if (event.rating && UNITS[event.rating.unit].dimension !== 'pressure')
    return no('unit', 'A plug is rated in a pressure, like 30 psi.');
  if (event.inflation && UNITS[event.inflation.unit].dimension !== 'pressure')
    return no('unit', 'A plug is inflated to a pressure, like 25 psi.');
  if (event.plug === 'valve' && !event.proved.trim())
    return no('proved', 'A valve serves as an end only when it was proved holding: say how.');
  const { end, plug, open, item, size, rating, inflation, light, proved, byName } = event;
  state.rooms.plugs.plugs.push({
    end,
    plug,
    open,
    size,
    proved,
    at,
    byName,
    ...(item ? { item } : {}),
    ...(rating ? { rating } : {}),
    ...(inflation ? { inflation } : {}),
    ...(light ? { light } : {}),
  });
  if (plug !== 'valve') state.debts.push({ key: stage.debt, subject: end, openedAt: at });
  return null;
}

function plugOut(state: RunState, event: EventOf<'plug-out'>, at: number): Refusal | null {
  const plug = plugsIn(state).find((p) => p.end === event.end);
  if (!plug) return no('overtaken', 'No plug is in at this end.');
  if (runningHold(state))
    return no(
      'pressure',
      'The line is under pressure: never take a plug out of it. End the hold and release it first.',
    );
  plug.out = { at, byName: event.byName };
  for (const debt of state.debts)
    if (debt.subject === event.end && !debt.cleared)
      debt.cleared = { at, byName: event.byName, text: 'counted out' };
  if (state.phase === 'put-back' && state.debts.every((d) => d.cleared)) state.phase = 'signing';
  return null;
}

/** Slipped or burst: everything stops, the hold is void, and every plug is still counted out. One that leaks is own kit. */
function plugFailed(plan: Plan, state: RunState, event: EventOf<'plug-failed'>, at: number): Refusal | null {
  const plug = plugsIn(state).find((p) => p.end === event.end);
  if (!plug) return no('overtaken', 'No plug is in at this end.');
  plug.failed = { how: event.how, at };
  const said = `The plug at ${nameOf(plan, state, event.end)} ${FAILED[event.how]}`;
  if (event.how === 'leaks') {
    state.notes.push({ at, byName: event.byName, text: said, kind: 'disturbance' });
    if (!runningHold(state)) return null;
    breakHold(state, said, at);
    returnToFill(plan, state, at);
    return null;
  }
  stopNow(plan, state, said, at);
  state.ending = { at, by: 'stop', reason: 'movement', text: `${said}.` };
  return null;
}

function cannot(on: OnStage, event: EventOf<'plug-cannot'>): Refusal | null {
  const { plan, state, at, visit } = on;
  const going = way(on);
  if (!going) return no('wrong-step', 'No plug goes in or out now.');
  const known =
    going === 'in'
      ? endsOfLine(plan, state).some((e) => e.id === event.end)
      : plugsIn(state).some((p) => p.end === event.end);
  if (!known)
    return no(
      'unknown-end',
      going === 'in' ? 'This end is no part of the line.' : 'No plug is in at this end.',
    );
  state.rooms.plugs.cannot.push({ end: event.end, why: event.why });
  visit.split = `${nameOf(plan, state, event.end)}: ${event.why}`;
  follow(plan, state, going === 'in' ? 'cannot' : 'kept', at);
  return null;
}

/** What is still missing before the line is closed; '' where nothing is. */
export function plugsMissing(plan: Plan, state: RunState): string {
  const ends = endsOfLine(plan, state);
  if (!ends.length)
    return 'No end of this line is known: draw its outlets on the place page, or map them first.';
  const open = ends.filter((e) => !plugsIn(state).some((p) => p.end === e.id));
  if (open.length) return `Still without a plug: ${open.map((e) => e.name).join(', ')}.`;
  if (!plugsIn(state).some((p) => p.open))
    return 'One plug must be an open one: pressure and gauge come in there.';
  return '';
}
export function confirmPlugs(on: OnStage): Refusal | null {
  const { plan, state, at } = on;
  if (way(on) === 'in') {
    const missing = plugsMissing(plan, state);
    if (missing) return no('plugs', missing);
    // the weakest plug caps the pressure; one of unknown rating leaves the cap to the house figure
    const rated = plugsIn(state).filter((p) => p.plug !== 'valve');
    delete state.kept[LEAST_PLUG];
    if (rated.length && rated.every((p) => p.rating))
      state.kept[LEAST_PLUG] = rated
        .map((p) => p.rating!)
        .reduce((a, b) => (compare(wanted(b, a.unit, 'down'), a) < 0 ? b : a));
    follow(plan, state, 'in', at);
    return null;
  }
  const left = plugsIn(state).filter((p) => p.plug !== 'valve');
  if (left.length)
    return no(
      'plugs',
      `The count does not come out: still in at ${left.map((p) => nameOf(plan, state, p.end)).join(', ')}.`,
    );
  follow(plan, state, 'out', at);
  return null;
}
/** Closed plugs and open ones that the line takes, every end counted, the equipment's too. */
export const plugsNeeded = (plan: Plan, state: RunState) => {
  const n = endsOfLine(plan, state).length;
  return n ? plugsFor(n) : { closed: 0, open: 0 };
};
const WORDS: Readonly<Record<string, string>> = {
  in: 'plugs in',
  out: 'plugs out, counted',
  cannot: 'could not be closed',
  kept: 'a plug did not come out',
};
export const plugsCourse: Course = (visit) => ({
  word: WORDS[visit.outcome ?? ''] ?? 'open',
  text: visit.split ?? '',
});
