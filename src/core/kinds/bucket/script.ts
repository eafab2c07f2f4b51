import { parseFigure } from '@/core/quantity/exact';
import type { Verbs } from '@/core/run/verbs';

export const bucketVerbs: Verbs = {
  marks: () => ({ kind: 'bucket-set' }),
  /** bucket POOL BUCKET [rain] [filled] [bathers], mm below the marks */
  bucket: ({ args: [pool = '', inside = '', ...spoilt] }) => ({
    kind: 'bucket-read',
    pool: parseFigure(pool, 'mm'),
    bucket: parseFigure(inside, 'mm'),
    rain: spoilt.includes('rain'),
    filled: spoilt.includes('filled'),
    bathers: spoilt.includes('bathers'),
  }),
};
