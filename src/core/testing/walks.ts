/** People who walk along a run and listen, by the model and by another law of sound. */
import { CLARITY, type Clarity, fitOf, OVER, REACH, type Spot, loudness } from '@/core/trades/pool/listen';
import type { Random } from './pools';

const pick = <T>(r: Random, list: readonly T[]): T => list[Math.floor(r() * list.length)]!;
/** A figure of a bell curve, by the sum of twelve. */
const bell = (r: Random): number => Array.from({ length: 12 }, r).reduce((a, b) => a + b, 0) - 6;

export interface Walk {
  readonly length: number;
  readonly truth: number;
  readonly spots: readonly Spot[];
}
/** Four to nine spots along a run of 4 to 20 m. @param law how sound falls with distance */
export function randomWalk(r: Random, law: typeof loudness = loudness): Walk {
  const length = 4 + r() * 16;
  const truth = r() * length;
  const over = pick(r, OVER);
  const reach = pick(r, REACH);
  const count = 4 + Math.floor(r() * 6);
  const spots = Array.from({ length: count }, (_, i): Spot => {
    const along = Math.min(length, ((i + 0.2 + 0.6 * r()) * length) / count);
    const clear = pick(r, Object.keys(CLARITY) as Clarity[]);
    const heard = Math.round(law(over, reach, along - truth) + bell(r) * CLARITY[clear].spread);
    return { along, clear, loud: Math.min(10, Math.max(0, heard)) };
  });
  return { length, truth, spots };
}
/** Share of walks whose stretch holds the true place, of those in which anything was heard. */
export function coverage(r: Random, walks: number, law?: typeof loudness): number {
  let inside = 0;
  let heard = 0;
  for (let i = 0; i < walks; i++) {
    const { length, truth, spots } = randomWalk(r, law);
    const fit = fitOf(spots, length);
    if (!fit) continue;
    heard += 1;
    if (truth >= fit.from - length / 240 && truth <= fit.to + length / 240) inside += 1;
  }
  return inside / heard;
}
