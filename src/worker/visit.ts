/** Plans visits off the main thread: the page stays quick while the search runs. */
import { currentPlan, type VisitNow } from '@/core/visit/current';
import type { VisitFacts } from '@/core/visit/facts';
import { VisitError, type VisitPlan } from '@/core/visit/types';

export interface PlanRequest {
  readonly ask: number;
  readonly facts: Pick<VisitFacts, 'tasks' | 'crew' | 'wishes' | 'pinned' | 'done'>;
  readonly promise: number | null;
  readonly now: VisitNow;
}
export type PlanAnswer =
  | { readonly ask: number; readonly plan: VisitPlan; readonly ms: number }
  | { readonly ask: number; readonly trouble: string };

/** What the worker answers; also called directly where there is no worker. */
export function answerPlan(request: PlanRequest): PlanAnswer {
  const began = performance.now();
  try {
    const plan = currentPlan(request.facts, request.promise, request.now);
    return { ask: request.ask, plan, ms: performance.now() - began };
  } catch (error) {
    if (error instanceof VisitError) return { ask: request.ask, trouble: error.message };
    throw error;
  }
}
if (typeof document === 'undefined' && typeof self !== 'undefined') {
  self.addEventListener('message', (event: MessageEvent<PlanRequest>) =>
    self.postMessage(answerPlan(event.data)),
  );
  // what was asked before this stood may be lost: it is asked again
  self.postMessage('ready');
}
