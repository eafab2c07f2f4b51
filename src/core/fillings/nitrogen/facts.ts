import type { Filling } from '../filling';
import { BUBBLES } from '../looks';

/** Oxygen-free dry nitrogen at pressures where it is no ideal gas any more. */
export const nitrogen = {
  name: 'nitrogen',
  of: 'gas',
  line: 'dry nitrogen, counted as a real gas',
  explained: 30,
  barometer: true,
  warmth: true,
  spreads: true,
  mark: false,
  stores: 'gas',
  why: 'Dry nitrogen leaves neither water nor oxygen behind. It stores far more energy than water would: stages, distance, slow release.',
  joints: 'leak fluid on every joint',
  photos: 'photos of gauge, plates and certificates',
  appliances: false,
  added: 'Re-adjusted during a hold',
  pumped: false,
  simulated: { kind: 'gas', unit: 'bar' },
  looks: BUBBLES,
} as const satisfies Filling;
