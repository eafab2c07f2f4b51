import { parseFigure } from '@/core/quantity/exact';
import type { Verbs } from '@/core/run/verbs';

export const drawDownVerbs: Verbs = {
  drawn: ({ first, second, timed }) => ({
    kind: 'draw-down',
    ...timed(first),
    volume: parseFigure(second, 'l'),
  }),
};
