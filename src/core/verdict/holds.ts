import { lower } from '@/core/quantity/words';
import { SEPARATED } from '@/core/roles/fields';
/** Which holds of a run decide, and what the let-by stages say together. */
import type { IsolateStage } from '@/core/kinds';
import { type Plan, ruleOf } from '@/core/plan/plan';
import { roleOf } from '@/core/roles';
import type { Hold, RunState, Visit } from '@/core/run/state';

/** Visits of a part; all of the run where no part is named. */
export const visitsOf = (plan: Plan, state: RunState, part: string | null): readonly Visit[] =>
  part === null ? state.visits : state.visits.filter((v) => plan.procedure.stages[v.stage]?.part === part);

/**
 * The judged hold that decides: the one on which the claim rests where it was a hold, otherwise the last one with a
 * result. A repeat before a witness that makes no claim of its own does not take the place of the full hold.
 */
export function decidingHold(
  plan: Plan,
  state: RunState,
  part: string | null = null,
): { hold: Hold; visit: Visit } | null {
  const judgedIn = (visit: Visit | undefined) => {
    const hold = visit && [...visit.holds].reverse().find((h) => roleOf(h.role).decides && h.judgement);
    return hold ? { hold, visit } : null;
  };
  const claim = state.claims[part ?? ''];
  const rests = judgedIn(claim && state.visits[claim.visit - 1]);
  if (rests) return rests;
  for (const visit of [...visitsOf(plan, state, part)].reverse()) {
    const found = judgedIn(visit);
    if (found) return found;
  }
  return null;
}
/** The last judged hold of the pipework alone. */
export function pipeworkHold(plan: Plan, state: RunState, part: string | null): Hold | null {
  for (const visit of [...visitsOf(plan, state, part)].reverse()) {
    const stage = plan.procedure.stages[visit.stage];
    if (stage?.kind === 'isolate-and-repeat' && (stage as IsolateStage).subjects === 'pipework') {
      const cycle = [...visit.cycles].reverse().find((c) => c.hold?.judgement);
      if (cycle) return cycle.hold!;
    }
  }
  return null;
}

export type Footing = 'proved' | 'not-proved' | 'suspected' | 'separated' | 'skipped' | 'missing';
/**
 * What the let-by stages say together: the last completed one counts; a skip is sound only where physically
 * separated. Where the pack says that the section is cut or capped, its check list has confirmed it.
 */
export function footing(plan: Plan, state: RunState, part: string | null = null): Footing {
  let word: Footing = ruleOf(plan, part).boundary === 'separated' ? 'separated' : 'missing';
  for (const visit of state.visits) {
    const stage = plan.procedure.stages[visit.stage];
    const letBy = stage?.kind === 'hold' && stage.role === 'let-by';
    if (visit.outcome === 'skipped' && visit.skipped && letBy)
      word = visit.skipped.sound ? 'separated' : 'skipped';
    const judged = visit.holds.filter((h) => h.role === 'let-by' && h.judgement);
    if (visit.skipped || !judged.length) continue;
    const outcome = judged[judged.length - 1]!.judgement!.outcome;
    word = outcome === 'proved' ? 'proved' : outcome === 'suspected' ? 'suspected' : 'not-proved';
  }
  return word;
}
/** How the boundary stands where no let-by was held: cut or capped, or what the pack says in its place. */
export function separationWords(plan: Plan, state: RunState): string {
  const skipped = [...state.visits].reverse().find((v) => {
    const stage = plan.procedure.stages[v.stage];
    return v.skipped?.sound && stage?.kind === 'hold' && stage.role === 'let-by';
  })?.skipped;
  return !skipped || skipped.key === SEPARATED
    ? 'the section was physically separated from the supply'
    : lower(skipped.reason);
}
