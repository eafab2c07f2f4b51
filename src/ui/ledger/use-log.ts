'use client';
import { useEffect, useRef, useState } from 'react';
import { answerLog, type LogAnswer, type LogRequest } from '@/worker/gauge-log';

/** A log read in a worker; the newest question wins, and the last answer stays until the next is there. */
export function useLog(request: Omit<LogRequest, 'ask'>): LogAnswer | null {
  const worker = useRef<Worker | null>(null);
  const ask = useRef(0);
  const [answer, setAnswer] = useState<LogAnswer | null>(null);
  const { text, mapping, zone, began, to, unit } = request;
  const rest = JSON.stringify({ mapping, zone, began, to, unit });
  useEffect(() => {
    const question: LogRequest = {
      ask: ++ask.current,
      text,
      ...(JSON.parse(rest) as Omit<LogRequest, 'ask' | 'text'>),
    };
    const take = (a: LogAnswer) => {
      if (a.ask === ask.current) setAnswer(a);
    };
    try {
      worker.current ??= new Worker(new URL('../../worker/gauge-log.ts', import.meta.url), {
        type: 'module',
      });
    } catch {
      take(answerLog(question)); // no workers here: the page reads it itself
      return;
    }
    const w = worker.current;
    const listen = (e: MessageEvent<LogAnswer | 'ready'>) =>
      e.data === 'ready' ? w.postMessage(question) : take(e.data);
    w.addEventListener('message', listen);
    w.postMessage(question);
    return () => w.removeEventListener('message', listen);
  }, [text, rest]);
  useEffect(() => () => worker.current?.terminate(), []);
  return answer;
}
