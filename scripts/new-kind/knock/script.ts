import type { Verbs } from '@/core/run/verbs';

export const knockVerbs: Verbs = {
  knock: ({ first }) => ({ kind: 'knock', heard: first === 'clear' ? 'clear' : 'dull' }),
};
