/** Desk lines of the limits of pools. */
import { plugsFor, poolPressure } from '@/core/limit/pool';
import { type DeskFormula, input } from './types';

export const POOL_LINES: readonly DeskFormula[] = [
  {
    id: 'pool-plugs',
    group: 'pool',
    title: 'Plugs of a joined line',
    answers: 'How many plugs a line takes, to be counted out again.',
    formula: 'closed = ends − 1;  open = 1',
    source: 'Published practice of pool lines',
    inputs: [input('ends', 'ends of the joined line', '1', 'count', '4')],
    outputs: [
      { key: 'closed', name: 'closed plugs', unit: '1' },
      { key: 'open', name: 'open plug', unit: '1' },
    ],
    work: (n) => ({ ...plugsFor(n.ends!) }),
  },
  {
    id: 'pool-pressure',
    group: 'pool',
    title: 'Pressure of a pool line',
    answers: 'The band of the school under the pump’s pressure and the plug’s rating.',
    formula: 'min(school’s band, pump working pressure, plug rating at that bore)',
    source: 'Published practice of pool lines: narrow 15 to 20 psi; wide 10 to 25 psi to 2 in, 5 to 15 above',
    inputs: [
      input('D', 'pipe size', 'in', 'positive', '2'),
      input('pump', 'pump working pressure', 'psi', 'positive', '20'),
      input('plug', 'plug rating at that bore', 'psi', 'positive', '25'),
    ],
    choices: [
      {
        key: 'school',
        name: 'school',
        options: [
          { key: 'narrow', label: 'narrow' },
          { key: 'wide', label: 'wide' },
        ],
        value: 'narrow',
      },
    ],
    outputs: [
      { key: 'low', name: 'from', unit: 'psi' },
      { key: 'high', name: 'to', unit: 'psi' },
      { key: 'says', name: 'what it says' },
    ],
    work: (n, c) => {
      const r = poolPressure(n.D!, c.school as 'narrow' | 'wide', n.pump!, n.plug!);
      return {
        low: r.low,
        high: r.high,
        says: r.impossible
          ? 'The cap lies below the school’s band: choose a plug of a higher rating, or test at the cap and say so.'
          : 'Raise in small steps with a look at each.',
      };
    },
  },
];
