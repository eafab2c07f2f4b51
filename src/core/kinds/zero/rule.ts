import { stageBase } from '@/core/grammar/rule';
import { among, object } from '@/core/grammar/schema';
import { kind } from '../kind';

/** The gauge open to air, before and after. */
export const zero = kind('zero', object({ ...stageBase, when: among(['before', 'after']) }), {
  outcomes: (stage) => (stage.when === 'before' ? ['zeroed'] : ['zeroed', 'off-zero']),
  step: () => 'zero',
  outside: () => true,
  good: () => 'zeroed',
  work: () => ({ hands: 2 }),
});
