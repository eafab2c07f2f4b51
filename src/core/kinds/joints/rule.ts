import { stageBase } from '@/core/grammar/rule';
import { object, words } from '@/core/grammar/schema';
import { kind } from '../kind';
import { BASE, PER_JOINT } from './estimate';

/** The joints touched today, each cleared by leak fluid. */
export const joints = kind(
  'joints',
  object({
    ...stageBase,
    /** Which joints must stand in the list besides those disturbed today. */
    always: words(120),
  }),
  {
    outcomes: () => ['clear', 'bubbles'],
    step: () => 'answer',
    paper: () => 'inspector',
    good: () => 'clear',
    work: () => ({ hands: BASE, each: { of: 'joint', minutes: PER_JOINT } }),
    lines: (_, write) =>
      write.add(['gate'], 'Gate', 'every joint touched cleared with leak fluid', 'removed'),
  },
);
