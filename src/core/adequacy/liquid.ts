import { visibleChange, type Blur } from './change';

/** A timed hold on a section full of liquid. */
export interface LiquidHold {
  /** stiffness C, m3/Pa */ readonly stiffness: number;
  /** perceptible movement of the gauge, Pa */ readonly perceptible: number;
  readonly seconds: number;
  readonly blur: Blur;
}
/**
 * The smallest leak a liquid hold can show: q_min = C dp_min / t.
 * @returns m3/s. Source: smallest visible change times stiffness over time @throws RangeError on a stiffness or time of zero
 */
export function smallestLiquidLeak(hold: LiquidHold): number {
  if (!(hold.stiffness > 0)) throw new RangeError('The stiffness must be above zero: enter pipes first.');
  if (!(hold.seconds > 0)) throw new RangeError('The hold must be longer than zero.');
  return (hold.stiffness * visibleChange(hold.perceptible, hold.blur)) / hold.seconds;
}
/**
 * Minutes a liquid hold needs to show a leak, rounded up to half a minute; null when a day is not enough.
 * @param leak m3/s  @param temperature standard uncertainty of the temperature difference after so many minutes, K
 */
export function neededLiquidMinutes(
  hold: Omit<LiquidHold, 'seconds'>,
  leak: number,
  temperature: (minutes: number) => number,
): number | null {
  for (let minutes = 0.5; minutes <= 24 * 60; minutes += minutes < 60 ? 0.5 : 5) {
    const blur = { ...hold.blur, temperature: temperature(minutes) };
    if (smallestLiquidLeak({ ...hold, seconds: minutes * 60, blur }) <= leak) return minutes;
  }
  return null;
}
