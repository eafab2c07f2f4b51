import type { Filling } from '../filling';
import { BUBBLES } from '../looks';

/** Air that a fan moves through ducts: a flow at a pressure, nothing that is held. */
export const air = {
  name: 'air',
  of: 'gas',
  line: 'air, moved by a fan',
  explained: 0,
  barometer: false,
  warmth: false,
  spreads: false,
  mark: false,
  stores: null,
  why: 'A flow at one uniform pressure compares systems. It is not what they lose in service.',
  joints: null,
  photos: 'photos of fan, masks and probe',
  appliances: false,
  added: 'Let in',
  pumped: false,
  simulated: { kind: 'duct', unit: 'Pa' },
  looks: BUBBLES,
} as const satisfies Filling;
