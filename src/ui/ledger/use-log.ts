'use client';
import { useWorker, type Worked } from '@/ui/kit/use-worker';
import { answerLog, type LogAnswer, type LogRequest } from '@/worker/gauge-log';

const start = () => new Worker(new URL('../../worker/gauge-log.ts', import.meta.url), { type: 'module' });

/** A log read in a worker. */
export function useLog(request: LogRequest): Worked<LogAnswer> {
  const { text, mapping, zone, began, to, unit } = request;
  return useWorker(start, answerLog, request, text, JSON.stringify({ mapping, zone, began, to, unit }));
}
