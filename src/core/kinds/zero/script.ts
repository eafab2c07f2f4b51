import type { Verbs } from '@/core/run/verbs';

export const zeroVerbs: Verbs = {
  zero: ({ first, figure }) => ({ kind: 'zero', figure: figure(first), openToAir: true }),
};
