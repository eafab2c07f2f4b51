'use client';
import { useEffect, useEffectEvent, useState } from 'react';
import { AskWorker } from '@/worker/ask-worker';

/** What was answered, and whether it is the answer to what is asked now. */
export interface Worked<A> {
  readonly answer: A | null;
  readonly settled: boolean;
}
/**
 * The answer of a worker to a question; the last one stays, not settled, until the next is there.
 * @param keys tell questions apart; a long text stands by itself, so that it is compared and never joined
 */
export function useWorker<Q, A>(
  start: () => Worker,
  here: (question: Q) => A,
  question: Q,
  ...keys: readonly [unknown, unknown?]
): Worked<A> {
  const [one, other] = keys;
  const [asker] = useState(() => new AskWorker<Q, A>(start, here));
  const [worked, setWorked] = useState<{ answer: A; one: unknown; other: unknown } | null>(null);
  const put = useEffectEvent(() => asker.ask(question, (answer) => setWorked({ answer, one, other })));
  useEffect(() => put(), [one, other]);
  useEffect(() => () => asker.end(), [asker]);
  return {
    answer: worked ? worked.answer : null,
    settled: worked !== null && worked.one === one && worked.other === other,
  };
}
