'use client';
import { useEffect, useEffectEvent, useState } from 'react';
import { AskWorker } from '@/worker/ask-worker';

/**
 * The answer of a worker to a question; the last one stays until the next is there.
 * @param keys tell questions apart; a long text stands by itself, so that it is compared and never joined
 */
export function useWorker<Q, A>(
  start: () => Worker,
  here: (question: Q) => A,
  question: Q,
  ...keys: readonly [unknown, unknown?]
): A | null {
  const [one, other] = keys;
  const [asker] = useState(() => new AskWorker<Q, A>(start, here));
  const [answer, setAnswer] = useState<A | null>(null);
  const put = useEffectEvent(() => asker.ask(question, setAnswer));
  useEffect(() => put(), [one, other]);
  useEffect(() => () => asker.end(), [asker]);
  return answer;
}
