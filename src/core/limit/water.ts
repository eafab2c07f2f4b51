/** Test pressures and limits of water, heating and drain pipework. Source: published schools, named at each */
import { headPressure } from '@/core/medium/water';

const positive = (value: number, name: string): void => {
  if (!(value > 0) || !Number.isFinite(value)) throw new RangeError(`${name} must be above zero.`);
};

export interface CappedPressure {
  /** Pa, what is wanted */ readonly wanted: number;
  /** Pa, what may be used */ readonly used: number;
  readonly capped: boolean;
  /** the cap lies below the working pressure or the least the rule asks for: no test is possible as entered */
  readonly impossible: boolean;
}
/**
 * Test pressure as a multiple of the working (or design) pressure, never above the weakest element.
 * @param multiple 1.5 x working in one school, 1.1 x design in the other  @param weakest Pa  @param least Pa
 */
export function cappedPressure(
  working: number,
  multiple: number,
  weakest: number,
  least = 0,
): CappedPressure {
  positive(working, 'The working pressure');
  positive(multiple, 'The multiple');
  positive(weakest, 'The permitted pressure of the weakest element');
  const wanted = Math.max(working * multiple, least);
  return {
    wanted,
    used: Math.min(wanted, weakest),
    capped: weakest < wanted,
    impossible: weakest < Math.max(working, least),
  };
}
/**
 * Plastic school A: STP for 30 min, then bled to a third within 2 min, at most 0.1 bar above it, 90 min; the twin uses
 * half and 120 min. @param stp gauge Pa  @returns the band in which the 90 min start, Pa
 */
export const schoolABand = (stp: number, part: 3 | 2 = 3): { low: number; high: number; minutes: number } => {
  positive(stp, 'The test pressure');
  return { low: stp / part, high: stp / part + 10_000, minutes: part === 3 ? 90 : 120 };
};
/** Plastic school B: p30 - p60 below 0.6 bar, and p60 - p180 below 0.2 bar; equality is too much. All gauge Pa. */
export function schoolB(p30: number, p60: number, p180: number): { first: boolean; second: boolean } {
  for (const p of [p30, p60, p180]) positive(p, 'Each pressure');
  // readings are exact steps of a gauge; a hundredth of a pascal takes the rounding of the arithmetic out
  return { first: p30 - p60 < 60_000 - 0.01, second: p60 - p180 < 20_000 - 0.01 };
}
/** Dry test: 120 min up to 100 l and 20 min more for each further 100 l or part. @param volume m3  @returns min */
export function dryMinutes(volume: number): number {
  positive(volume, 'The volume');
  return 120 + 20 * Math.max(0, Math.ceil((volume - 0.1) / 0.1 - 1e-9));
}
/** Dry load pressure: at most 3 bar up to DN 50, 1 bar above. @param dn m  @returns Pa */
export const dryLoad = (dn: number): number => {
  positive(dn, 'The nominal size');
  return dn <= 0.05 + 1e-9 ? 300_000 : 100_000;
};
/** Loss permitted in a drain, European pack: 0.15 l per m2 of wetted surface in 30 min. @returns m3 */
export function drainLossLimit(wetted: number, seconds: number): number {
  positive(wetted, 'The wetted surface');
  positive(seconds, 'The time');
  return 0.00015 * wetted * (seconds / 1800);
}
/** Smallest loss a level mark shows: free surface x 2 mm / time. @param surface m2, all of them  @returns m3/s */
export function levelLeak(surface: number, seconds: number, mark = 0.002): number {
  positive(surface, 'The free surface');
  positive(seconds, 'The time');
  return (surface * mark) / seconds;
}
/** Pressure at the lowest point from the height of the level above it, Pa. */
export const headAtLowest = (level: number, lowest: number): number => {
  if (!(level >= lowest))
    throw new RangeError('The lowest point lies above the level: check the two heights.');
  return headPressure(level - lowest);
};
