/** Days as people have them: by the calendar where somebody stands, never by UTC. */

import { zoned } from './in-zone';

const DAY = { year: 'numeric', month: '2-digit', day: '2-digit' } as const;
/** The local day of a moment, YYYY-MM-DD. @param ms UTC  @param zone IANA name */
export function localDate(ms: number, zone: string): string {
  const parts = Object.fromEntries(
    zoned(zone, DAY, 'en-CA')
      .formatToParts(ms)
      .map((p) => [p.type, p.value]),
  );
  return `${parts.year}-${parts.month}-${parts.day}`;
}
/** Whether a text is a day of the calendar, YYYY-MM-DD: 2026-02-30 is none. */
export const isDay = (text: string): boolean =>
  /^\d{4}-\d{2}-\d{2}$/.test(text) &&
  !Number.isNaN(Date.parse(`${text}T00:00:00Z`)) &&
  addDays(text, 0) === text;
/** A day so many days after another, YYYY-MM-DD. */
export const addDays = (day: string, days: number): string =>
  new Date(Date.parse(`${day}T00:00:00Z`) + days * 86_400_000).toISOString().slice(0, 10);
/** The same day so many months on; the last of the month where it has fewer days. */
export function addMonths(day: string, months: number): string {
  const d = new Date(`${day}T00:00:00Z`);
  const there = new Date(Date.UTC(d.getUTCFullYear(), d.getUTCMonth() + months, 1));
  const last = new Date(Date.UTC(there.getUTCFullYear(), there.getUTCMonth() + 1, 0)).getUTCDate();
  there.setUTCDate(Math.min(d.getUTCDate(), last));
  return there.toISOString().slice(0, 10);
}
