import fc from 'fast-check';
import { addDays, addMonths, isDay, localDate } from './local-date';

test.each([
  // a licence valid to the 20th is valid all of the 20th where the tester stands
  ['2026-11-21T00:30:00Z', 'America/Denver', '2026-11-20'],
  ['2026-11-20T23:30:00Z', 'Europe/London', '2026-11-20'],
  ['2026-11-20T13:30:00Z', 'Pacific/Auckland', '2026-11-21'],
  ['2026-11-20T13:30:00Z', 'no such zone', '2026-11-20'],
])('%s in %s is %s', (at, zone, day) => expect(localDate(Date.parse(at), zone)).toBe(day));
test('a day ends at midnight there, not a millisecond before', () => {
  const midnight = Date.parse('2026-11-21T07:00:00Z'); // in Denver
  expect([localDate(midnight - 1, 'America/Denver'), localDate(midnight, 'America/Denver')]).toEqual([
    '2026-11-20',
    '2026-11-21',
  ]);
});
test('law: days and months go forward and never skip the end of a month', () => {
  fc.assert(
    fc.property(
      fc.date({ min: new Date('2000-01-01'), max: new Date('2090-01-01'), noInvalidDate: true }),
      fc.integer({ min: 1, max: 60 }),
      (d, n) => {
        const day = d.toISOString().slice(0, 10);
        expect(addDays(addDays(day, n), -n)).toBe(day);
        const later = addMonths(day, n);
        expect(later > day).toBe(true);
        expect(Number(later.slice(8)) <= Number(day.slice(8))).toBe(true);
      },
    ),
  );
});
test('the 31st, a month on, is the last of the shorter one', () => {
  expect([addMonths('2026-01-31', 1), addMonths('2028-01-31', 1), addMonths('2026-10-31', 13)]).toEqual([
    '2026-02-28',
    '2028-02-29',
    '2027-11-30',
  ]);
});
test.each([
  ['2026-11-24', true],
  ['2028-02-29', true],
  ['2026-02-29', false],
  ['2026-02-30', false],
  ['2026-13-01', false],
  ['2026-00-10', false],
  ['9999-99-99', false],
  ['9999-12-31', true],
  ['26-11-24', false],
  [' 2026-11-24', false],
  ['', false],
])('%p is a day: %p', (text, is) => {
  expect(isDay(text)).toBe(is);
});
