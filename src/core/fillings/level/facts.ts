import type { Filling } from '../filling';
import { DRIPS } from '../looks';

/** Standing water with an open surface. */
export const level = {
  name: 'level',
  of: 'water',
  line: 'water, standing',
  explained: 30,
  barometer: false,
  warmth: false,
  spreads: false,
  mark: true,
  stores: null,
  why: 'Standing water: the level itself shows a loss, and the head is no more than the drain sees when it is blocked.',
  joints: null,
  photos: 'photos of level, gauge and boundary',
  appliances: false,
  added: 'Water added',
  pumped: false,
  simulated: { kind: 'liquid', unit: 'bar' },
  looks: DRIPS,
} as const satisfies Filling;
