/** Pressures and vacuum of refrigerant circuits. */
import { cappedPressure, type CappedPressure } from './water';

/** Strength = factor x PS, capped by the weakest element. @param ps gauge Pa */
export const strengthPressure = (ps: number, factor: number, weakest: number): CappedPressure =>
  cappedPressure(ps, factor, weakest);

/**
 * What a standing vacuum says after ten minutes (house figures): it must start at or below 67 Pa; at or below 133 Pa with
 * a falling slope is sound; 200 Pa or more and straight is a leak; else moisture. All absolute, Pa.
 */
export function vacuumResult(start: number, five: number, ten: number): string {
  if (start > 67) return 'The pump had not reached 67 Pa: pump on, this watch says nothing.';
  const [first, second] = [five - start, ten - five];
  if (first < 0 || second < 0)
    return 'No result: a closed circuit does not pump itself. A valve to the pump stands open, it cools, or the gauge drifts. Find it and watch again.';
  const straight = second >= 0.8 * first;
  if (ten <= 133 && second < first) return 'Tight: low, and the rise flattens.';
  if (ten >= 200 && straight) return 'Not tight: the rise is straight.';
  return 'Moisture, or still degassing: break with dry nitrogen and pump again.';
}
