/** Plans visits off the main thread: the page stays quick while the search runs. */
import { currentPlan, type VisitNow } from '@/core/visit/current';
import type { VisitFacts } from '@/core/visit/facts';
import { VisitError, type VisitPlan } from '@/core/visit/types';
import { serve } from './serve';

export interface PlanRequest {
  readonly facts: Pick<VisitFacts, 'tasks' | 'crew' | 'wishes' | 'pinned' | 'done'>;
  readonly promise: number | null;
  readonly now: VisitNow;
}
export type PlanAnswer = { readonly plan: VisitPlan; readonly ms: number } | { readonly trouble: string };

/** What the worker answers; also called directly where there is no worker. */
export function answerPlan(request: PlanRequest): PlanAnswer {
  const began = performance.now();
  try {
    const plan = currentPlan(request.facts, request.promise, request.now);
    return { plan, ms: performance.now() - began };
  } catch (error) {
    if (error instanceof VisitError) return { trouble: error.message };
    throw error;
  }
}
serve(answerPlan);
