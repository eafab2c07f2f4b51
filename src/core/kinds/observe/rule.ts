import { stageBase } from '@/core/grammar/rule';
import { list, maybe, maybeAmong, maybeNumber, object, text } from '@/core/grammar/schema';
import { kind } from '../kind';

const schema = object({
  ...stageBase,
  question: text(),
  /** What a photo taken here is to show; it can be left out. */
  photo: maybe(),
  /** What stands beside the question: what the test before left in, and what warmth does to it; or what a valve could hide. */
  shows: maybeAmong(['left-in', 'hidden']),
  results: list(
    object({
      key: text(),
      text: text(),
      note: maybe(),
      /** Before so many repeats of the failing hold this answer needs a reason, which prints. */
      reasonBefore: maybeNumber().integer().min(1).max(10),
    }),
  ).min(1),
});

/** A question whose answer decides where the way leads; the first answer is the good one. */
export const observe = kind('observe', schema, {
  outcomes: (stage) => stage.results.map((r) => r.key),
  step: () => 'choose',
  paper: () => 'utility',
  good: (stage) => stage.results[0]?.key ?? null,
  work: () => ({ hands: 2 }),
});
