import { stageBase } from '@/core/grammar/rule';
import { figure, number, object, text } from '@/core/grammar/schema';
import { kind } from '../kind';

const schema = object({
  ...stageBase,
  /** From the marks to the reading, at least. */
  minutes: number().min(1).max(10080),
  minutesSource: text(),
  /** A level read to less than this does not show. */
  perceptible: figure(),
  perceptibleSource: text(),
});
/** A pool and a bucket in it, marked together and read together: what it loses beyond what evaporates. */
export const bucket = kind('bucket', schema, {
  outcomes: () => ['loses', 'same', 'gains', 'discarded'],
  step: () => 'answer',
  good: () => 'same',
  work: (stage) => ({ hands: 5, wait: stage.minutes, close: 5 }),
  bandSource: (stage) => stage.minutesSource,
  lines: (stage, write) => {
    write.add(
      ['minutes'],
      'From marks to reading, min',
      stage.minutes,
      'smaller',
      stage.minutesSource,
      'number',
    );
    write.add(['perceptible'], 'Shows from', stage.perceptible, 'greater', stage.perceptibleSource, 'figure');
  },
});
