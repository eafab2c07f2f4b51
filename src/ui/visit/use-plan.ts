'use client';
import { useState } from 'react';
import { useWorker } from '@/ui/kit/use-worker';
import type { VisitPlan } from '@/core/visit/types';
import { answerPlan, type PlanRequest } from '@/worker/visit';

export interface Planned {
  readonly plan: VisitPlan | null;
  readonly trouble: string;
  readonly ms: number;
}
const start = () => new Worker(new URL('../../worker/visit.ts', import.meta.url), { type: 'module' });

/** The plan of a visit, worked out in a worker; the last one stays beside the trouble of a question that has none. */
export function usePlan(request: PlanRequest): Planned {
  const { answer } = useWorker(start, answerPlan, request, JSON.stringify(request));
  const [plan, setPlan] = useState<VisitPlan | null>(null);
  if (answer && 'plan' in answer && answer.plan !== plan) setPlan(answer.plan);
  if (!answer) return { plan, trouble: '', ms: 0 };
  return 'plan' in answer
    ? { plan: answer.plan, trouble: '', ms: answer.ms }
    : { plan, trouble: answer.trouble, ms: 0 };
}
