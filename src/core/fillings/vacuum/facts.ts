import type { Filling } from '../filling';
import { BUBBLES } from '../looks';

/** Pumped empty: what comes back is read absolutely, and its shape says what it is. */
export const vacuum = {
  name: 'vacuum',
  of: 'gas',
  line: 'vacuum, absolute',
  explained: 0,
  barometer: false,
  warmth: false,
  spreads: false,
  mark: false,
  stores: null,
  why: 'Under vacuum water boils off and leaks let air in: how the pressure comes back tells the two apart.',
  joints: null,
  photos: 'photos of gauge and labels',
  appliances: false,
  added: 'Let in during a hold',
  pumped: false,
  simulated: { kind: 'gas', unit: 'Pa(abs)' },
  looks: BUBBLES,
} as const satisfies Filling;
