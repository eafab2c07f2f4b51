/** Pressures of refrigerant circuits. */
import { cappedPressure, type CappedPressure } from './water';

/** How warm the place of a condenser gets, and how it is cooled. */
export type Ambient = '32' | '38' | '43' | '55';
export type Cooled = 'air' | 'water';

/** Strength = factor x PS, capped by the weakest element. @param ps gauge Pa */
export const strengthPressure = (ps: number, factor: number, weakest: number): CappedPressure =>
  cappedPressure(ps, factor, weakest);

/** Design temperatures of an air-cooled circuit by the warmest air outside, °C. Source: refrigerating systems, ambient classes */
const CLASSES: Readonly<Record<Ambient, { readonly low: number; readonly high: number }>> = {
  '32': { low: 32, high: 55 },
  '38': { low: 38, high: 59 },
  '43': { low: 43, high: 63 },
  '55': { low: 55, high: 67 },
};
/** A condenser cooled by water, up to 32 °C outside. */
const WATER_COOLED = 43;
/**
 * Temperature whose saturation pressure is PS of a side where no plate says it, °C; null for a water-cooled condenser in a warmer
 * class, of which only its plate says.
 */
export function designCelsius(side: 'high' | 'low', ambient: Ambient, cooled: Cooled): number | null {
  if (side === 'low') return CLASSES[ambient].low;
  if (cooled === 'air') return CLASSES[ambient].high;
  return ambient === '32' ? WATER_COOLED : null;
}

/**
 * What three readings of a standing vacuum say (house figures), all absolute, Pa: it starts at or below 67; at or below 133 after ten
 * minutes and level or flattening is sound; an even rise of 67 or more is a leak; flattening above 133 is moisture. A trace of many
 * readings tells them apart better.
 */
export function vacuumResult(start: number, five: number, ten: number): string {
  if (start > 67) return 'The pump had not reached 67 Pa: pump on, this watch says nothing.';
  const [first, second] = [five - start, ten - five];
  if (first < 0 || second < 0)
    return 'No result: a closed circuit does not pump itself. A valve to the pump stands open, it cools, or the gauge drifts. Find it and watch again.';
  const straight = first + second > 0 && second >= 0.8 * first;
  if (straight) {
    if (ten - start >= 67) return 'Not tight: the rise is even. Prove your own hoses first.';
    return 'Not clear: an even rise, still small. Watch for 30 minutes.';
  }
  return ten <= 133
    ? 'Tight: low, and the rise flattens.'
    : 'Moisture: it flattens, but above 133 Pa. Break with dry nitrogen and pump again.';
}
