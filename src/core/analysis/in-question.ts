/** What of a run is in question: a hold that did not come out well, a pressure that would not stand, air that blew out. */
import { kindOf } from '@/core/kinds';
import { type Plan, ruleOf } from '@/core/plan/plan';
import { runningHold, stageOf } from '@/core/run/read';
import type { Hold, RunState, Visit } from '@/core/run/state';

export interface Questioned {
  readonly visit: Visit;
  /** Null where nothing could be held: it would not stand, or a fan blew. */
  readonly hold: Hold | null;
  /** What a fan lost at its reference pressure, m3/s. */
  readonly flow: number | null;
}
/** The same on the bench: while nothing is held anew and nobody has begun to sign. */
export const inQuestion = (plan: Plan, state: RunState): Questioned | null =>
  state.phase === 'running' || state.phase === 'put-back' ? questioned(plan, state) : null;
/** The last of it; null: nothing is in question. */
export function questioned(plan: Plan, state: RunState): Questioned | null {
  if (runningHold(state)) return null;
  for (const visit of [...state.visits].reverse()) {
    const stage = stageOf(plan, visit);
    const classes = (ruleOf(plan, stage.part).classes ?? []).map((c) => c.key);
    const good = kindOf(stage).good(stage, classes);
    const blown = state.rooms.fan.visits.find((f) => f.visit === visit.ordinal && f.of === 'system')?.result;
    if (blown) return blown.outcome === good ? null : { visit, hold: null, flow: blown.at?.flow ?? null };
    if (visit.unheld?.way === 'falls') return { visit, hold: null, flow: null };
    const hold = [...visit.holds, ...visit.cycles.flatMap((c) => (c.hold ? [c.hold] : []))]
      .reverse()
      .find((h) => h.judgement && !h.broken && h.role !== 'settle' && h.role !== 'slopes');
    if (!hold?.judgement) continue;
    return hold.judgement.outcome === (visit.cycles.length ? 'nil' : good)
      ? null
      : { visit, hold, flow: null };
  }
  return null;
}
