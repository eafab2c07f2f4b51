import type { Filling } from '../filling';

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
} as const satisfies Filling;
