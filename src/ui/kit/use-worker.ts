'use client';
import { useEffect, useEffectEvent, useState } from 'react';
import { AskWorker } from '@/worker/ask-worker';

/**
 * The answer of a worker to a question; the last one stays until the next is there.
 * @param key tells questions apart
 */
export function useWorker<Q, A>(
  start: () => Worker,
  here: (question: Q) => A,
  question: Q,
  key: unknown,
): A | null {
  const [asker] = useState(() => new AskWorker<Q, A>(start, here));
  const [answer, setAnswer] = useState<A | null>(null);
  const put = useEffectEvent(() => asker.ask(question, setAnswer));
  useEffect(() => put(), [key]);
  useEffect(() => () => asker.end(), [asker]);
  return answer;
}
