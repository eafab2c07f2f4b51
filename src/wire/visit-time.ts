import { wallToUtc } from '@/core/quantity/zone';

/** Day and clock time of a visit in its zone, as moments and back. */

/** The moment at which it is a clock time on a day in a zone, ms. A time that a clock change skips counts as an hour later. */
export function momentIn(day: string, clock: string, zone: string): number {
  return wallToUtc(Date.parse(`${day}T${clock}:00Z`), zone);
}
export const visitStart = (v: { day: string; start: string; zone: string }): number =>
  momentIn(v.day, v.start, v.zone);
