/** Which hold of a run is in question: it did not come out well, and nothing is held anew. */
import type { Plan } from '@/core/plan/plan';
import { roleOf } from '@/core/roles';
import { runningHold, stageOf } from '@/core/run/read';
import type { Hold, RunState, Visit } from '@/core/run/state';

/** The last judged hold that did not come out well, while nothing is held anew; null: none is in question. */
export function inQuestion(plan: Plan, state: RunState): { visit: Visit; hold: Hold } | null {
  if (runningHold(state) || state.ending) return null;
  for (const visit of [...state.visits].reverse()) {
    const stage = stageOf(plan, visit);
    const hold = [...visit.holds, ...visit.cycles.flatMap((c) => (c.hold ? [c.hold] : []))]
      .reverse()
      .find((h) => h.judgement && !h.broken && h.role !== 'settle');
    if (!hold?.judgement) continue;
    const classes = 'classes' in stage && Array.isArray(stage.classes) ? (stage.classes as string[]) : [];
    return hold.judgement.outcome === roleOf(hold.role).good(classes) ? null : { visit, hold };
  }
  return null;
}
