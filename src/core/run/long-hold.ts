/** Holds that go on for hours: as they were planned, and the time in which nobody and nothing read them. */
import type { Hold, Visit } from './state';

/** What was planned before it was extended, min. */
export const plannedMinutes = (hold: Hold): number =>
  hold.minutes - (hold.extended ?? []).reduce((sum, e) => sum + e.minutes, 0);

/** A time without a reading as long as this is one that nobody witnessed, ms. House figure. */
export const UNWITNESSED = 30 * 60_000;
export interface Unwitnessed {
  readonly from: number;
  readonly to: number;
}
/**
 * The intervals of a hold in which it was read by nobody, nor by a gauge that sends or logs; ms on the server's line.
 * @param until now, for a hold that runs
 */
export function unwitnessed(visit: Visit, hold: Hold, until: number): Unwitnessed[] {
  const end = hold.end?.readMoment ?? until;
  const seen = [
    hold.startedAt,
    ...visit.readings.filter((r) => !r.late).map((r) => r.readMoment),
    ...visit.trace.map(([t]) => t),
    ...hold.topUps.map((t) => t.at),
    ...(hold.places ?? []).map((p) => p.at),
    ...(hold.extended ?? []).map((e) => e.at),
    end,
  ]
    .filter((t) => t >= hold.startedAt && t <= end)
    .sort((a, b) => a - b);
  return seen.slice(1).flatMap((to, i) => (to - seen[i]! >= UNWITNESSED ? [{ from: seen[i]!, to }] : []));
}
