import { parseFigure } from '@/core/quantity/exact';
import type { Verbs } from '@/core/run/verbs';

export const pumpVerbs: Verbs = {
  pump: ({ first, second, third, timed }) => ({
    kind: 'pump-step',
    ...timed(first),
    ...(second ? { added: parseFigure(second, 'l') } : {}),
    ...(third ? { strokes: Number(third) } : {}),
  }),
  look: ({ first, second, third, timed }) => ({
    kind: 'pump-look',
    ...timed(first),
    joints: second as 'dry',
    where: third,
  }),
  nopump: ({ first }) => ({ kind: 'pump-failed', text: first }),
};
