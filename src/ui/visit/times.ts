import { zoned } from '@/core/quantity/in-zone';

/** Clock time of a minute of a visit, in its zone. */
export const clockOf = (begin: number, minutes: number, zone: string): string =>
  zoned(zone, { hour: '2-digit', minute: '2-digit' }).format(new Date(begin + Math.round(minutes) * 60_000));
/** A day in words: "Tue 24 Nov 2026"; short: without the year. */
export const dayWords = (day: string, short = false): string =>
  zoned('UTC', {
    weekday: 'short',
    day: 'numeric',
    month: 'short',
    ...(short ? {} : { year: 'numeric' }),
  }).format(new Date(`${day}T12:00:00Z`));
