import { parseFigure } from '@/core/quantity/exact';
import type { Verbs } from '@/core/run/verbs';

export const dialVerbs: Verbs = {
  mark: ({ first }) => ({ kind: 'dial-start', mark: first }),
  still: ({ first }) => ({ kind: 'dial-end', moved: false, ...(first ? { short: first } : {}) }),
  moved: ({ first }) => ({
    kind: 'dial-end',
    moved: true,
    turns: parseFigure(first, '1'),
    direction: 'forward',
  }),
  input: ({ first, second, third }) => ({
    kind: 'dial-input',
    appliance: first,
    turns: parseFigure(second, '1'),
    seconds: parseFigure(third, 's'),
  }),
};
