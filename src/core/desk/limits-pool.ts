/** Desk lines of the limits of pools. */
import {
  bucketLoss,
  plugsFor,
  plugThrust,
  poolPressure,
  type PoolPressure,
  type PoolSchool,
} from '@/core/limit/pool';
import { type DeskFormula, input } from './types';

/** A mark on a wall is read to this much. Source: perceptible movement of a level */
const MARK = 0.002;
const CAPPED_BY: Readonly<Record<PoolPressure['by'], string>> = {
  school: 'The school sets the upper end.',
  pump: 'The pump’s working pressure sets the upper end.',
  plug: 'The plug sets the upper end.',
  unknown: 'What is not known is taken as 15 psi to 2 in, 10 above.',
};
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
    source:
      'Published practice of pool lines: narrow 15 to 20 psi to 2 in, at most 15 above; wide 10 to 25 psi to 2 in, 5 to 15 above. House figures: narrow from 10 psi above 2 in; air at most 15 psi to 2 in, 10 above; the same where pump or plug is not known',
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
          { key: 'narrow', label: 'water, narrow' },
          { key: 'wide', label: 'water, wide' },
          { key: 'air', label: 'air to the full pressure' },
        ],
        value: 'narrow',
      },
      {
        key: 'known',
        name: 'what is known',
        options: [
          { key: 'both', label: 'pump and plug' },
          { key: 'pump', label: 'the pump only' },
          { key: 'plug', label: 'the plug only' },
          { key: 'none', label: 'neither' },
        ],
        value: 'both',
      },
    ],
    outputs: [
      { key: 'low', name: 'from', unit: 'psi' },
      { key: 'high', name: 'to', unit: 'psi' },
      { key: 'says', name: 'what it says' },
    ],
    work: (n, c) => {
      const known = (what: string) => c.known === 'both' || c.known === what;
      const r = poolPressure(
        n.D!,
        c.school as PoolSchool,
        known('pump') ? n.pump! : null,
        known('plug') ? n.plug! : null,
      );
      return {
        low: r.low,
        high: r.high,
        says: r.impossible
          ? 'The cap lies below the school’s band: choose a plug of a higher rating, or test at the cap and say so.'
          : `${CAPPED_BY[r.by]} Raise by 5 psi at a time, with a look and 10 s at each.`,
      };
    },
  },
  {
    id: 'pool-thrust',
    group: 'pool',
    title: 'Thrust on a plug',
    answers: 'The force that drives a plug out of its pipe.',
    formula: 'F = p × π/4 × D²',
    source: 'Force is pressure times area',
    inputs: [
      input('p', 'pressure behind the plug', 'psi', 'gauge', '15'),
      input('D', 'bore at the plug', 'in', 'positive', '3'),
    ],
    outputs: [{ key: 'F', name: 'thrust', unit: 'lbf' }],
    work: (n) => ({ F: plugThrust(n.p!, n.D!) }),
  },
  {
    id: 'pool-bucket',
    group: 'pool',
    title: 'Pool beside a bucket',
    answers: 'What a pool loses beyond what evaporation takes.',
    formula: 'loss = fall of the pool − fall of the bucket;  Q = loss × surface / time',
    source:
      'Two free surfaces in the same weather; 24 h with the pump on and 24 h off, auto-fill shut, no bathers, no rain',
    inputs: [
      input('pool', 'fall of the pool', 'mm', 'any', '7'),
      input('bucket', 'fall in the bucket', 'mm', 'any', '5'),
      input('t', 'time between the readings', 'h', 'positive', '24'),
      input('A', 'surface of the pool', 'm2', 'positive', '32'),
    ],
    outputs: [
      { key: 'loss', name: 'loss beyond evaporation', unit: 'mm' },
      { key: 'Q', name: 'as a leak', unit: 'l/h' },
      { key: 'day', name: 'in a day', unit: 'l' },
      { key: 'says', name: 'what it says' },
    ],
    work: (n) => {
      const { loss, rate } = bucketLoss({ pool: n.pool!, bucket: n.bucket!, hours: n.t! / 3600 }, n.A!);
      return {
        loss,
        Q: rate!,
        day: rate! * 86_400,
        says:
          loss >= MARK - 1e-9
            ? 'The pool loses water: lines, fittings, liner and equipment, one after the other.'
            : loss <= 1e-9 - MARK
              ? 'The pool gained against the bucket: rain, a hose or the auto-fill. Set both marks again.'
              : 'Nothing beyond evaporation was seen. Marks are read to 1 mm: less than 2 mm is not to be told.',
      };
    },
  },
  {
    id: 'pool-volume',
    group: 'pool',
    title: 'Water of a pool',
    answers: 'What a pool holds, and how much water a millimetre of level is.',
    formula: 'V = surface × mean depth;  one millimetre = surface × 1 mm',
    source: 'Geometry; mean depth of an even slope is half of shallow and deep end together',
    inputs: [
      input('A', 'surface of the pool', 'm2', 'positive', '32'),
      input('shallow', 'depth at the shallow end', 'm', 'positive', '1.1'),
      input('deep', 'depth at the deep end', 'm', 'positive', '1.9'),
    ],
    outputs: [
      { key: 'V', name: 'water in the pool', unit: 'm3' },
      { key: 'mm', name: 'one millimetre of level', unit: 'l' },
    ],
    work: (n) => ({ V: n.A! * ((n.shallow! + n.deep!) / 2), mm: n.A! * 0.001 }),
  },
];
