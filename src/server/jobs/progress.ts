import 'server-only';
import { type Job, setJob } from './jobs';

/** Told so often at most, ms. */
const EVERY_MS = 1_000;
/** How far a job is, told to whoever looks on: often enough to be seen moving. */
export interface Progress {
  /** Another part of the work begins. */
  step: (words: string, of: number) => Promise<void>;
  /** So many more are done. */
  more: (count: number) => Promise<void>;
}
export function progressOf(job: Job): Progress {
  let done = 0;
  let told = 0;
  return {
    async step(words, of) {
      done = 0;
      told = Date.now();
      await setJob(job, { step: words, done, of });
    },
    async more(count) {
      done += count;
      if (Date.now() - told < EVERY_MS) return;
      told = Date.now();
      await setJob(job, { done });
    },
  };
}
/** For whoever is not looked upon. */
export const SILENT: Progress = { step: () => Promise.resolve(), more: () => Promise.resolve() };
