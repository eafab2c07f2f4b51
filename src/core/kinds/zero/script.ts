import type { Verbs } from '@/core/run/verbs';

export const zeroVerbs: Verbs = {
  zero: ({ first, figure }) => ({ kind: 'zero', figure: figure(first), openToAir: true }),
  /** atair F | over */
  atair: ({ first, figure }) =>
    first === 'over' ? { kind: 'at-air', over: true } : { kind: 'at-air', figure: figure(first) },
};
