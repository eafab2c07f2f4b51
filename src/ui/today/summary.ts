import { currentVisit } from '@/core/run/read';
import { waitOf } from '@/core/run/waits';
import type { Plan } from '@/core/plan/plan';
import { urgentOwed } from '@/core/run/beside';
import { verdictOf } from '@/core/verdict/verdict';
import type { RunState } from '@/core/run/state';

export interface RunSummary {
  readonly run: string;
  readonly site: string;
  readonly system: string;
  readonly procedure: string;
  readonly practice: boolean;
  readonly stage: string;
  /** When what it waits for ends, ms on the server's line; null when nothing is timed. */
  readonly ends: number | null;
  /** What is to be done then. */
  readonly then: string;
  readonly phase: RunState['phase'];
  /** Put-back debts still standing after the test has ended. */
  readonly owed: number;
  /** Owed and not to be forgotten: what, and since when it rings. */
  readonly urgent: ReturnType<typeof urgentOwed>;
}
/** A run whose log cannot be read: named, so that the others stay in sight. */
export const unreadableSummary = (plan: Plan, text: string): RunSummary => ({
  run: plan.run,
  site: plan.site.name,
  system: plan.system.name,
  procedure: plan.procedure.title,
  practice: plan.practice,
  stage: text,
  ends: null,
  then: '',
  phase: 'running',
  owed: 0,
  urgent: null,
});
export function runningSummary(plan: Plan, state: RunState): RunSummary {
  const wait = waitOf(plan, state);
  const words = {
    running: currentVisit(state)?.title ?? '',
    'put-back': 'Put back',
    signing: 'Signatures',
    signed: 'Waiting for its number',
  };
  return {
    run: plan.run,
    site: plan.site.name,
    system: plan.system.name,
    procedure: plan.procedure.title,
    practice: plan.practice,
    stage: words[state.phase],
    ends: wait?.ends ?? null,
    then: wait?.then ?? '',
    phase: state.phase,
    urgent: urgentOwed(plan, state, verdictOf(plan, state)?.use),
    owed: state.phase === 'put-back' ? state.debts.filter((d) => !d.cleared).length : 0,
  };
}
