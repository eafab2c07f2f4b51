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
  /** extend MINUTES WHY */
  extend: ({ first, second }) => ({ kind: 'extend', minutes: Number(first), why: second }),
  witness: ({ first, second, third }) => ({
    kind: 'witness',
    when: first as 'end',
    seen: second as 'same',
    text: third,
  }),
  disturb: ({ first, second }) => ({ kind: 'disturbance', what: first, text: second }),
  /** temperature start|between|end F [PLACE], or none */
  temperature: ({ first, second, third }) =>
    first === 'none'
      ? { kind: 'temperature', when: 'start', none: true }
      : {
          kind: 'temperature',
          when: first as 'start',
          figure: parseFigure(second, 'C'),
          ...(third ? { place: third } : {}),
        },
  barometer: ({ first, second }) =>
    first === 'none'
      ? { kind: 'barometer', when: 'start', none: true }
      : { kind: 'barometer', when: first as 'start', figure: parseFigure(second, 'mbar') },
};
