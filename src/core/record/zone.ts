/** A moment in the zone of the run: "20 Nov 2026, 08:00:30 GMT". */
export function inZone(ms: number, zone: string): string {
  let z = zone;
  try {
    new Intl.DateTimeFormat('en-GB', { timeZone: zone });
  } catch {
    z = 'UTC';
  }
  return new Intl.DateTimeFormat('en-GB', {
    day: 'numeric',
    month: 'short',
    year: 'numeric',
    hour: '2-digit',
    minute: '2-digit',
    second: '2-digit',
    timeZone: z,
    timeZoneName: 'short',
  }).format(new Date(ms));
}
