import { parseFigure } from '@/core/quantity/exact';
import type { Verbs } from '@/core/run/verbs';

export const volumeVerbs: Verbs = {
  volume: ({ first, second, third, figure }) =>
    first
      ? { kind: 'volume', drawn: parseFigure(first, 'l'), before: figure(second), after: figure(third) }
      : { kind: 'volume' },
};
