import type { Filling } from '../filling';
import { DRIPS } from '../looks';

export const gas = {
  name: 'gas',
  of: 'gas',
  explained: 15,
  barometer: true,
  warmth: true,
  spreads: true,
  mark: false,
  stores: 'gas',
  why: null,
  joints: 'leak fluid on the joints',
  photos: 'photos of gauge and boundary',
  appliances: true,
  added: 'Re-adjusted during a hold',
  pumped: false,
  simulated: { kind: 'gas', unit: 'mbar' },
  looks: DRIPS,
} as const satisfies Filling;
