const formats = new Map<string, Intl.DateTimeFormat>();
/** So many zones and ways of telling are kept: to make one takes longer than to use it a hundred times. */
const MOST = 500;
/**
 * A way of telling moments by the clock of a place, made once.
 * @param zone IANA name; one that is not known is read as UTC, none is where the device stands
 */
export function zoned(
  zone: string | undefined,
  options: Intl.DateTimeFormatOptions,
  locale = 'en-GB',
): Intl.DateTimeFormat {
  const key = `${locale} ${zone} ${JSON.stringify(options)}`;
  let found = formats.get(key);
  if (!found) {
    const made = (timeZone?: string) =>
      new Intl.DateTimeFormat(locale, { ...options, ...(timeZone === undefined ? {} : { timeZone }) });
    try {
      found = made(zone);
    } catch {
      found = made('UTC');
    }
    // where the device stands can change
    if (zone !== undefined && formats.size < MOST) formats.set(key, found);
  }
  return found;
}
const TIME = { hour: '2-digit', minute: '2-digit', second: '2-digit', timeZoneName: 'short' } as const;

/** A moment in the zone of the run: "20 Nov 2026, 08:00:30 GMT". */
export const inZone = (ms: number, zone: string): string =>
  zoned(zone, { day: 'numeric', month: 'short', year: 'numeric', ...TIME }).format(new Date(ms));
/** The clock alone: "08:00:30 GMT". */
export const clockInZone = (ms: number, zone: string): string => zoned(zone, TIME).format(new Date(ms));
