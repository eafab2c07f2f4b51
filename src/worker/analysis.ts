/** Analyses a trace off the main thread: a phone in a cellar keeps answering while the courses are fitted. */
import { type Meaning, meaningOf, type MeaningRequest } from '@/core/analysis/meaning';
import { serve } from './serve';

/** What the worker answers; also called directly where there is no worker. Null: nothing can be said. */
export const answerMeaning = (request: MeaningRequest | null): Meaning | null =>
  request && meaningOf(request);
serve(answerMeaning);
