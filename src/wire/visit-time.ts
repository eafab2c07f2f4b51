/** Day and clock time of a visit in its zone, as moments and back. */

/** Minutes by which a zone is ahead of UTC at a moment. */
function ahead(ms: number, zone: string): number {
  const parts = new Intl.DateTimeFormat('en-GB', {
    timeZone: zone,
    hourCycle: 'h23',
    year: 'numeric',
    month: '2-digit',
    day: '2-digit',
    hour: '2-digit',
    minute: '2-digit',
  }).formatToParts(new Date(ms));
  const of = (type: string) => Number(parts.find((p) => p.type === type)!.value);
  return (
    (Date.UTC(of('year'), of('month') - 1, of('day'), of('hour'), of('minute')) -
      Math.floor(ms / 60_000) * 60_000) /
    60_000
  );
}
/** The moment at which it is a clock time on a day in a zone, ms. A time that a clock change skips counts as an hour later. */
export function momentIn(day: string, clock: string, zone: string): number {
  const wall = Date.parse(`${day}T${clock}:00Z`);
  const first = wall - ahead(wall, zone) * 60_000;
  return wall - ahead(first, zone) * 60_000;
}
export const visitStart = (v: { day: string; start: string; zone: string }): number =>
  momentIn(v.day, v.start, v.zone);
