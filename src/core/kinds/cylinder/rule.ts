import { pressureSpec, stageBase } from '@/core/grammar/rule';
import { figure, object, text } from '@/core/grammar/schema';
import { kind } from '../kind';

const schema = object({
  ...stageBase,
  /** A regulator that could give more than this is not used. */
  regulatorMost: pressureSpec,
  source: text(),
  /** How far it is raised here, where that is not the test pressure. */
  reaches: figure().optional(),
});
/** A cylinder is opened only when its label was read, its regulator wound out and all that hangs on it made for the pressure. */
export const cylinder = kind('cylinder', schema, {
  outcomes: () => ['ready', 'none'],
  step: () => 'answer',
  good: () => 'ready',
  work: () => ({ hands: 4 }),
  bandSource: (stage) => stage.source,
  lines: (stage, write) =>
    write.add(
      ['regulatorMost'],
      'Regulator gives at most',
      typeof stage.regulatorMost === 'string' ? stage.regulatorMost : 'by formula',
      'any',
      stage.source,
    ),
});
