import { parseFigure } from '@/core/quantity/exact';
import type { EventOf } from '@/core/run/events';
import type { Verbs } from '@/core/run/verbs';
import { endsOfLine, plugsIn } from './fold';

export const plugsVerbs: Verbs = {
  /** plug END KIND open|closed SIZE RATING [INFLATION] */
  plug: ({ args: [end = '', plug = 'short', open = '', size = '', rating = '', inflation = ''] }) => ({
    kind: 'plug-in',
    end,
    plug: plug as EventOf<'plug-in'>['plug'],
    open: open === 'open',
    size,
    proved: plug === 'valve' ? 'shut and watched' : '',
    ...(rating ? { rating: parseFigure(rating, 'psi') } : {}),
    ...(inflation ? { inflation: parseFigure(inflation, 'psi'), light: true as const } : {}),
  }),
  /** plugs in OPEN-END: short ones of 2 in everywhere, the open one there; plugs out. */
  plugs: ({ plan, state, first, second }) =>
    first === 'out'
      ? [
          ...plugsIn(state).map((p) => ({ kind: 'plug-out' as const, end: p.end })),
          { kind: 'proceed' as const },
        ]
      : [
          ...endsOfLine(plan, state).map((e) => ({
            kind: 'plug-in' as const,
            end: e.id,
            plug: 'short' as const,
            open: e.id === second,
            size: '2 in',
            rating: parseFigure('30', 'psi'),
            proved: '',
          })),
          { kind: 'proceed' as const },
        ],
  plugout: ({ first }) => ({ kind: 'plug-out', end: first }),
  plugfails: ({ first, second }) => ({
    kind: 'plug-failed',
    end: first,
    how: second as EventOf<'plug-failed'>['how'],
  }),
  plugcannot: ({ first, second }) => ({ kind: 'plug-cannot', end: first, why: second }),
};
