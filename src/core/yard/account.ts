/** One account of a practice run in the order of time: what was entered at the bench, done by hand, and came in between. */
import type { Plan } from '@/core/plan/plan';
import type { Exact } from '@/core/quantity/exact';
import { momentOf, type PlacedEvent, type RunEvent } from '@/core/run/events';
import { currentVisit } from '@/core/run/read';
import { begin, step } from '@/core/run/reduce';
import type { RunState } from '@/core/run/state';
import { verdictOf } from '@/core/verdict/verdict';
import type { VerdictWord } from '@/core/verdict/words';
import type { SimulatedView } from '@/core/simulation/simulation';
import type { YardAct } from './acts';

export interface Told {
  readonly at: number;
  /** The stage that stood then; '' after the end. */ readonly stage: string;
  /** An entry that took effect. */ readonly entry?: RunEvent;
  readonly act?: YardAct;
  /** A stage was reached. */ readonly reached?: string;
  /** How the installation stood. */ readonly seen?: SimulatedView;
}
export interface Account {
  readonly told: readonly Told[];
  readonly state: RunState;
  /** ms up to which it goes */ readonly until: number;
  readonly result: VerdictWord | null;
  readonly ended: number | null;
  readonly owes: number;
  readonly cause: string | null;
  readonly place: string | null;
  readonly left: readonly { readonly stage: string; readonly outcome: string; readonly at: number }[];
  readonly holds: readonly {
    readonly stage: string;
    readonly from: number;
    readonly ms: number;
    readonly start: Exact;
    readonly end?: Exact;
  }[];
}
/** @param until ms: the moment up to which it is told */
export function accountOf(
  plan: Plan,
  events: readonly PlacedEvent[],
  acts: readonly YardAct[],
  until: number,
): Account {
  const state = begin(plan);
  const told: Told[] = [];
  let ended: number | null = null;
  let visits = 0;
  const reach = (at: number) => {
    for (; visits < state.visits.length; visits += 1) {
      const { stage } = state.visits[visits]!;
      told.push({ at, stage, reached: stage });
    }
  };
  reach(Date.parse(plan.made.at));
  const here = () => currentVisit(state)?.stage ?? '';
  const todo = [...acts].sort((a, b) => a.at - b.at);
  const upTo = (at: number) => {
    while (todo.length && todo[0]!.at <= at) {
      const act = todo.shift()!;
      told.push({ at: act.at, stage: here(), act });
    }
  };
  // what nobody took back needs nothing to go back to
  const keep = events.some((e) => e.kind === 'undo');
  for (const entry of inOrder(events)) {
    const at = momentOf(entry);
    if (at > until) continue;
    upTo(at);
    const stage = here();
    if (step(plan, state, entry, keep)) continue;
    if (entry.kind !== 'stream') told.push({ at, stage, entry });
    if (ended === null && state.ending) ended = at;
    reach(at);
  }
  upTo(until);
  const concluded = [...acts].reverse().find((a) => a.kind === 'concluded');
  return {
    told,
    state,
    until,
    result: verdictOf(plan, state)?.word ?? null,
    ended,
    owes: state.debts.filter((d) => !d.cleared).length,
    cause: concluded?.kind === 'concluded' ? concluded.cause : null,
    place: concluded?.kind === 'concluded' ? concluded.place : null,
    left: state.visits.flatMap((v) =>
      v.outcome && v.left !== undefined ? [{ stage: v.stage, outcome: v.outcome, at: v.left }] : [],
    ),
    holds: state.visits.flatMap((v) =>
      v.holds.map((h) => ({
        stage: v.stage,
        from: h.startedAt,
        ms: (h.endedAt ?? h.broken?.at ?? until) - h.startedAt,
        start: h.start.figure,
        ...(h.end ? { end: h.end.figure } : {}),
      })),
    ),
  };
}
/** By the office's places; what has none yet comes last, as it was made. */
const inOrder = (events: readonly PlacedEvent[]): readonly PlacedEvent[] =>
  [...events].sort(
    (a, b) =>
      (a.position ?? Infinity) - (b.position ?? Infinity) ||
      momentOf(a) - momentOf(b) ||
      a.deviceSeq - b.deviceSeq,
  );
