'use client';
import type { Meaning, MeaningRequest } from '@/core/analysis/meaning';
import { useWorker } from '@/ui/kit/use-worker';
import { answerMeaning } from '@/worker/analysis';

const start = () => new Worker(new URL('../../worker/analysis.ts', import.meta.url), { type: 'module' });
/** A stream is looked at anew after so long, ms: its curve does not change faster. */
const EVERY_MS = 4000;

/** What a trace means, worked out in a worker; the last answer stays until the next is there. */
export function useMeaning(request: MeaningRequest | null): Meaning | null {
  const last = request?.samples[request.samples.length - 1];
  const few = request && request.samples.length < 30;
  const key = request
    ? [
        request.begin,
        request.end,
        request.facts.warmth.length,
        few ? request.samples.length : Math.floor((last?.t ?? 0) / EVERY_MS),
        few ? last?.p : '',
      ].join()
    : '';
  return useWorker(start, answerMeaning, request, key).answer;
}
