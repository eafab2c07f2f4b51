/** The barometer of a weather station at a moment: straight between two of its readings. */
import { exact, type Exact } from '@/core/quantity/exact';

export interface StationReading {
  /** ms UTC */ readonly at: number;
  /** mbar, absolute */ readonly mbar: number;
}
/** Readings of a station further apart than this say nothing of the time between, ms. House figure: stations send hourly. */
const APART = 3 * 3_600_000;
/**
 * @param decimals of the station's own readings: what lies between them is known no finer
 * @returns null where the readings do not reach, or lie too far apart
 */
export function barometerAt(readings: readonly StationReading[], t: number, decimals: number): Exact | null {
  const list = [...readings].sort((a, b) => a.at - b.at);
  const next = list.findIndex((r) => r.at >= t);
  if (next < 0) return null;
  const b = list[next]!;
  const a = b.at === t ? b : list[next - 1];
  if (!a || b.at - a.at > APART) return null;
  const mbar = a === b ? b.mbar : a.mbar + ((b.mbar - a.mbar) * (t - a.at)) / (b.at - a.at);
  return exact(Math.round(mbar * 10 ** decimals), decimals, 'mbar');
}
