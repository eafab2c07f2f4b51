import { parseFigure } from '@/core/quantity/exact';
import type { Verbs } from '@/core/run/verbs';

export const holdVerbs: Verbs = {
  start: ({ first, timed }) => ({ kind: 'hold-start', ...timed(first) }),
  end: ({ first, timed }) => ({ kind: 'hold-end', ...timed(first) }),
  short: ({ first, second, timed }) => ({ kind: 'hold-end', short: second, ...timed(first) }),
  read: ({ first, timed }) => ({ kind: 'reading', ...timed(first) }),
  topup: ({ first, second, third, figure }) => ({
    kind: 'top-up',
    before: figure(first),
    after: figure(second),
    ...(third ? { added: parseFigure(third, 'l') } : {}),
  }),
  witness: ({ first, second, third }) => ({
    kind: 'witness',
    when: first as 'end',
    seen: second as 'same',
    text: third,
  }),
  disturb: ({ first, second }) => ({ kind: 'disturbance', what: first, text: second }),
  temperature: ({ first, second }) => ({
    kind: 'temperature',
    when: first as 'start',
    figure: parseFigure(second, 'C'),
  }),
  barometer: ({ first, second }) =>
    first === 'none'
      ? { kind: 'barometer', when: 'start', none: true }
      : { kind: 'barometer', when: first as 'start', figure: parseFigure(second, 'mbar') },
};
