import { minutes, stageBase } from '@/core/grammar/rule';
import { among, object, text } from '@/core/grammar/schema';
import { kind, optional } from '../kind';

const schema = object({
  ...stageBase,
  role: among(['leak', 'input']),
  minutes,
  minutesSource: text(),
  /** Smallest part of a turn an eye sees against its mark, like "0.02", and where the figure comes from. */
  visible: text(10).matches(/^0\.\d+$/, 'must be a part of a turn, like "0.02"'),
  visibleSource: text(),
});

/** The meter's own dial watched: no gauge. Role `leak`: any movement is a leak; `input`: what an appliance takes. */
export const dial = kind('dial', schema, {
  presses: true,
  outcomes: (stage) => [...(stage.role === 'leak' ? ['still', 'moved'] : ['done']), ...optional(stage)],
  step: ({ dial }) => (dial ? 'run' : 'start'),
  paper: () => 'utility',
  good: (stage) => (stage.role === 'leak' ? 'still' : 'done'),
  work: (stage) => ({
    hands: 2,
    wait: { spec: stage.minutes, source: stage.minutesSource, sees: false },
    close: 1,
  }),
  claims: (stage) => ({ tight: stage.role === 'leak' ? 'still' : undefined }),
  lines: (stage, write) => write.minutes(stage.minutes, stage.minutesSource),
});
