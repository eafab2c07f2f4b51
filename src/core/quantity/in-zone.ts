const zoned = (zone: string, options: Intl.DateTimeFormatOptions): Intl.DateTimeFormat => {
  try {
    return new Intl.DateTimeFormat('en-GB', { ...options, timeZone: zone });
  } catch {
    return new Intl.DateTimeFormat('en-GB', { ...options, timeZone: 'UTC' });
  }
};
const TIME = { hour: '2-digit', minute: '2-digit', second: '2-digit', timeZoneName: 'short' } as const;

/** A moment in the zone of the run: "20 Nov 2026, 08:00:30 GMT". */
export const inZone = (ms: number, zone: string): string =>
  zoned(zone, { day: 'numeric', month: 'short', year: 'numeric', ...TIME }).format(new Date(ms));
/** The clock alone: "08:00:30 GMT". */
export const clockInZone = (ms: number, zone: string): string => zoned(zone, TIME).format(new Date(ms));
