import { stageBase } from '@/core/grammar/rule';
import { among, mark, object } from '@/core/grammar/schema';
import { kind } from '../kind';

/** The gauge open to air, before and after. */
export const zero = kind(
  'zero',
  object({
    ...stageBase,
    when: among(['before', 'after']),
    /** An absolute gauge shows the atmosphere when it is open to air, or that it is over its range. */
    absolute: mark(),
  }),
  {
    outcomes: (stage) => (stage.when === 'before' ? ['zeroed'] : ['zeroed', 'off-zero']),
    step: () => 'zero',
    outside: () => true,
    good: () => 'zeroed',
    work: () => ({ hands: 2 }),
  },
);
