import { stageBase } from '@/core/grammar/rule';
import { among, object, text } from '@/core/grammar/schema';
import { kind } from '../kind';

const schema = object({
  ...stageBase,
  way: among(['in', 'out']),
  /** The put-back line that each plug in a line runs up. */
  debt: text(60),
});
/** Every end of the line plugged, one of them open to the pressure; afterwards each counted out again. */
export const plugs = kind('plugs', schema, {
  outcomes: (stage) => (stage.way === 'in' ? ['in', 'cannot'] : ['out', 'kept']),
  step: () => 'answer',
  good: (stage) => stage.way,
  work: (stage) => ({ hands: stage.way === 'in' ? 15 : 8 }),
  debts: (stage) => [stage.debt],
  named: (stage) => (stage.way === 'in' ? 'plugs in' : 'plugs out'),
  lines: (stage, write) =>
    write.add(
      ['gate'],
      'Gate',
      stage.way === 'in' ? 'one open plug, every other end closed' : 'every plug counted out',
      'removed',
    ),
});
