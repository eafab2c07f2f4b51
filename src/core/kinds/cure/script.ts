import type { Verbs } from '@/core/run/verbs';

export const cureVerbs: Verbs = {
  /** coupled CUTS COUPLINGS MINUTES means [table] */
  coupled: ({ args: [cuts = '', couplings = '', minutes = '', means = '', table = ''] }) => ({
    kind: 'joints-made',
    cuts: Number(cuts),
    couplings: Number(couplings),
    minutes: Number(minutes),
    means,
    table,
  }),
  curelater: () => ({ kind: 'cure-later' }),
};
