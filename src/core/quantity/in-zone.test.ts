import { clockInZone, inZone, zoned } from './in-zone';

const AT = Date.UTC(2026, 10, 20, 8, 0, 30);

test('a moment is told by the clock of its place, with the zone it is told in', () => {
  expect(inZone(AT, 'Europe/London')).toBe('20 Nov 2026, 08:00:30 GMT');
  expect(inZone(AT, 'Pacific/Auckland')).toBe('20 Nov 2026, 21:00:30 GMT+13');
  expect(clockInZone(Date.UTC(2026, 6, 1, 8), 'Europe/London')).toBe('09:00:00 BST');
});
test('a zone that is not known is read as UTC, and said so', () => {
  expect(inZone(AT, 'Nowhere/Hollin')).toBe('20 Nov 2026, 08:00:30 UTC');
});
test('a way of telling is made once for a zone, each by itself; where the device stands is asked again', () => {
  const hour = { hour: '2-digit' } as const;
  expect(zoned('Europe/Rome', hour)).toBe(zoned('Europe/Rome', { ...hour }));
  expect(zoned('Europe/Rome', hour)).not.toBe(zoned('Europe/London', hour));
  expect(zoned('Europe/Rome', hour)).not.toBe(zoned('Europe/Rome', { minute: '2-digit' }));
  expect(zoned('Europe/Rome', hour)).not.toBe(zoned('Europe/Rome', hour, 'en-CA'));
  expect(zoned(undefined, hour)).not.toBe(zoned(undefined, hour));
});
