/** The plan of a visit as it stands: by hand where an order was chosen, otherwise the shortest, both from what has happened. */
import { arrange, planVisit, type VisitOptions } from './planner';
import type { VisitFacts } from './facts';
import type { Progress, VisitPlan } from './types';

export interface VisitNow {
  readonly progress: Readonly<Record<string, Progress>>;
  /** Minutes from the start before which nothing new can begin. */
  readonly now: number;
}
/** The tasks with the promise of the visit laid on the ends of its tests. @param promise minutes from the start, or null */
export const withPromise = (facts: Pick<VisitFacts, 'tasks'>, promise: number | null) =>
  promise === null
    ? facts.tasks
    : facts.tasks.map((t) => (t.kind === 'test' && t.frees.length > 0 ? { ...t, finishBy: promise } : t));

/** @throws VisitError when the tasks contradict each other */
export function currentPlan(
  facts: Pick<VisitFacts, 'tasks' | 'crew' | 'wishes' | 'pinned' | 'done'>,
  promise: number | null,
  at: VisitNow,
): VisitPlan {
  const progress: Record<string, Progress> = {
    ...Object.fromEntries(
      Object.entries(facts.done).map(([id, d]) => [id, { state: 'done' as const, ...d }]),
    ),
    ...at.progress,
  };
  const options: VisitOptions = { crew: facts.crew, now: at.now, progress };
  const tasks = withPromise(facts, promise);
  return Object.keys(facts.wishes).length
    ? arrange(tasks, facts.wishes, new Set(facts.pinned), options)
    : planVisit(tasks, options);
}
