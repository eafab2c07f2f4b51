/** Wall clocks of time zones against UTC. */
const zones = new Map<string, Intl.DateTimeFormat>();
/** Minutes by which a zone's clock was ahead of UTC at a moment. @throws RangeError on an unknown zone */
function zoneOffsetMinutes(at: number, zone: string): number {
  let format = zones.get(zone);
  if (!format) {
    format = new Intl.DateTimeFormat('en-GB', {
      timeZone: zone,
      hourCycle: 'h23',
      year: 'numeric',
      month: '2-digit',
      day: '2-digit',
      hour: '2-digit',
      minute: '2-digit',
      second: '2-digit',
    });
    zones.set(zone, format);
  }
  const p = Object.fromEntries(format.formatToParts(at).map((x) => [x.type, Number(x.value)]));
  const shown = Date.UTC(p.year!, p.month! - 1, p.day, p.hour, p.minute, p.second);
  return Math.round((shown - Math.floor(at / 1000) * 1000) / 60_000);
}
/**
 * A clock time of a zone as UTC. In the hour that a clock goes through twice the earlier one is taken.
 * @param ms as on a clock, as if it were UTC
 */
export function wallToUtc(ms: number, zone: string): number {
  const before = ms - zoneOffsetMinutes(ms - 86_400_000, zone) * 60_000;
  const after = ms - zoneOffsetMinutes(ms + 86_400_000, zone) * 60_000;
  if (before === after) return before;
  const early = Math.min(before, after);
  return early + zoneOffsetMinutes(early, zone) * 60_000 === ms ? early : Math.max(before, after);
}
