import type { Verbs } from '@/core/run/verbs';

export const fillVerbs: Verbs = {
  fill: ({ first, timed }) => ({ kind: 'fill', confirmed: true, ...timed(first) }),
};
