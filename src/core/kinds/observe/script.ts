import type { Verbs } from '@/core/run/verbs';

export const observeVerbs: Verbs = {
  observe: ({ first, second }) => ({ kind: 'observe', result: first, ...(second ? { text: second } : {}) }),
};
