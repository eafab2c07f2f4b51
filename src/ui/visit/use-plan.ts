'use client';
import { useEffect, useRef, useState } from 'react';
import type { VisitPlan } from '@/core/visit/types';
import { answerPlan, type PlanAnswer, type PlanRequest } from '@/worker/visit';

export interface Planned {
  readonly plan: VisitPlan | null;
  readonly trouble: string;
  readonly ms: number;
}

/** The plan of a visit, worked out in a worker; the last one stays until the next is there. */
export function usePlan(request: Omit<PlanRequest, 'ask'>): Planned {
  const worker = useRef<Worker | null>(null);
  const ask = useRef(0);
  const [planned, setPlanned] = useState<Planned>({ plan: null, trouble: '', ms: 0 });
  const key = JSON.stringify(request);
  useEffect(() => {
    const take = (a: PlanAnswer) => {
      if (a.ask !== ask.current) return; // overtaken by a newer question
      setPlanned((old) =>
        'plan' in a ? { plan: a.plan, trouble: '', ms: a.ms } : { plan: old.plan, trouble: a.trouble, ms: 0 },
      );
    };
    const question = { ...(JSON.parse(key) as Omit<PlanRequest, 'ask'>), ask: ++ask.current };
    const here = () => take(answerPlan(question));
    try {
      worker.current ??= new Worker(new URL('../../worker/visit.ts', import.meta.url), { type: 'module' });
    } catch {
      here(); // no workers here: the page plans itself
      return;
    }
    const w = worker.current;
    const listen = (e: MessageEvent<PlanAnswer | 'ready'>) =>
      e.data === 'ready' ? w.postMessage(question) : take(e.data);
    w.addEventListener('message', listen);
    w.addEventListener('error', here, { once: true });
    w.postMessage(question);
    return () => w.removeEventListener('message', listen);
  }, [key]);
  useEffect(() => () => worker.current?.terminate(), []);
  return planned;
}
