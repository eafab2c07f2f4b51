import { stageBase } from '@/core/grammar/rule';
import { object, words } from '@/core/grammar/schema';
import { kind } from '../kind';

const PER_JOINT = 1.5;
const BASE = 2;
/** Minutes that looking at so many joints takes. House estimate. */
export const minutesForJoints = (count: number): number => BASE + PER_JOINT * count;

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
