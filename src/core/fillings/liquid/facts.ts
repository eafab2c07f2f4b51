import type { Filling } from '../filling';
import { DRIPS } from '../looks';

/** Full of water, without air: pumped, or by the mains. */
export const liquid = {
  name: 'liquid',
  of: 'water',
  line: 'water, pumped or by the mains',
  explained: 60,
  barometer: false,
  warmth: false,
  spreads: false,
  mark: false,
  stores: 'water',
  why: 'Water stores little energy and shows a loss at once in a full, stiff section; air must be out of it.',
  joints: 'a dry look at every joint',
  photos: 'photos of level, gauge and boundary',
  appliances: false,
  added: 'Water added',
  pumped: true,
  simulated: { kind: 'liquid', unit: 'bar' },
  looks: DRIPS,
} as const satisfies Filling;
