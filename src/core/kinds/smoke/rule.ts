import { stageBase } from '@/core/grammar/rule';
import { maybe, number, object, text } from '@/core/grammar/schema';
import { kind } from '../kind';

const schema = object({
  ...stageBase,
  /** The machine warms up for so long before it can be used. */
  minutes: number().min(0).max(120),
  minutesSource: text(),
  /** What a photo taken here is to show; it can be left out. */
  photo: maybe(),
});
/** Smoke shows where: found, sealed, and what each sealing gained. */
export const smoke = kind('smoke', schema, {
  outcomes: () => ['again', 'later'],
  step: () => 'answer',
  good: () => 'again',
  work: (stage) => ({ hands: 20, wait: stage.minutes }),
  named: () => 'smoke, findings, sealing',
  bandSource: (stage) => stage.minutesSource,
  lines: (stage, write) =>
    write.add(
      ['minutes'],
      'Smoke machine warms up, min',
      stage.minutes,
      'smaller',
      stage.minutesSource,
      'number',
    ),
});
