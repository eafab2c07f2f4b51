import { stageBase } from '@/core/grammar/rule';
import { maybe, number, object, text } from '@/core/grammar/schema';
import { kind } from '../kind';

const schema = object({
  ...stageBase,
  /** From the last joint to pressure, where no table of the cement says less. */
  minutes: number().min(1).max(20160),
  minutesSource: text(),
  /** What a photo taken here is to show; it can be left out. */
  photo: maybe(),
});
/** Pipe is cut and coupled, counted, and left alone until its joints bear pressure. */
export const cure = kind('cure', schema, {
  outcomes: () => ['cured', 'later'],
  step: () => 'answer',
  good: () => 'cured',
  work: (stage) => ({ hands: 20, wait: stage.minutes }),
  named: () => 'cut, couple, cure',
  bandSource: (stage) => stage.minutesSource,
  lines: (stage, write) =>
    write.add(
      ['minutes'],
      'From the last joint to pressure, min',
      stage.minutes,
      'smaller',
      stage.minutesSource,
      'number',
    ),
});
