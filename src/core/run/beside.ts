/** Two runs side by side: which stage of one must wait for the other. Each keeps its own log, clock and result. */
import type { Use } from '@/core/grammar/rule';
import type { Coupling, Pack } from '@/core/pack/schema';
import type { Plan } from '@/core/plan/plan';
import { currentVisit, runningHold } from './read';
import type { RunState } from './state';

/** The couplings that hold the present stage back; none where the other run has passed them, or has ended. */
export function heldBack(
  plan: Plan,
  state: RunState,
  other: { readonly plan: Plan; readonly state: RunState } | null,
): readonly Coupling[] {
  const visit = currentVisit(state);
  if (!plan.beside || !visit || !other || other.state.phase !== 'running') return [];
  return plan.beside.couplings.filter(
    (c) =>
      c.procedure === plan.procedure.id &&
      c.stage === visit.stage &&
      c.waitsFor === other.plan.procedure.id &&
      !other.state.visits.some((v) => v.stage === c.past && v.left !== undefined && v.outcome !== 'broken'),
  );
}

/** What is written into the plan of a run that goes side by side. @param runs of both, by procedure */
export function besideOf(
  pack: Pack,
  id: string,
  runs: readonly { readonly run: string; readonly procedure: string }[],
): Plan['beside'] | null {
  const beside = pack.besides?.find((b) => b.id === id);
  if (!beside) return null;
  const named = beside.runs.flatMap((r) => {
    const run = runs.find((x) => x.procedure === r.procedure);
    return run ? [{ run: run.run, procedure: r.procedure, title: r.title }] : [];
  });
  return named.length === beside.runs.length
    ? { title: beside.title, runs: named, couplings: beside.couplings }
    : null;
}

/**
 * Something owed that must not be forgotten, and since when it rings; null while a hold runs or nothing urgent is owed.
 * @param use how the finished run leaves the system; absent: it has not ended. Shut off, nothing rings for it to be turned on.
 */
export function urgentOwed(
  plan: Plan,
  state: RunState,
  use?: Use,
): { readonly text: string; readonly since: number; readonly everyMs: number } | null {
  if (runningHold(state) || state.phase === 'signed') return null;
  const urgent = state.debts
    .filter((d) => !d.cleared)
    .flatMap((d) => {
      const rule = plan.procedure.debts[d.key];
      if (use === 'shut-off' && rule?.unsafe) return [];
      return rule?.urgent ? [{ text: rule.text, openedAt: d.openedAt, everyMs: rule.urgent * 60_000 }] : [];
    });
  const first = urgent.sort((a, b) => a.everyMs - b.everyMs)[0];
  return first
    ? { text: first.text, since: Math.max(first.openedAt, state.lastAt), everyMs: first.everyMs }
    : null;
}
