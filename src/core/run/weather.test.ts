import fc from 'fast-check';
import { toNumber } from '@/core/quantity/exact';
import { barometerAt } from './weather';

const HOUR = 3_600_000;
const station = [
  { at: 0, mbar: 1012 },
  { at: HOUR, mbar: 1014 },
  { at: 5 * HOUR, mbar: 1020 },
];
test('straight between two readings; at a reading exactly that', () => {
  expect(barometerAt(station, HOUR / 2, 2)).toEqual({ digits: 101_300, scale: 2, unit: 'mbar' });
  expect(toNumber(barometerAt(station, HOUR, 2)!)).toBe(1014);
  expect(toNumber(barometerAt([...station].reverse(), 0, 2)!)).toBe(1012);
});
test('not before its first, not after its last, not across a gap of more than three hours', () => {
  expect(barometerAt(station, -1, 2)).toBeNull();
  expect(barometerAt(station, 5 * HOUR + 1, 2)).toBeNull();
  expect(barometerAt(station, 3 * HOUR, 2)).toBeNull();
  const three = [station[0]!, { at: 3 * HOUR, mbar: 1015 }];
  expect(toNumber(barometerAt(three, HOUR, 0)!)).toBe(1013);
  expect(barometerAt([], 0, 2)).toBeNull();
});
test('known no finer than the station says', () => {
  expect(
    barometerAt(
      [
        { at: 0, mbar: 1012 },
        { at: 10, mbar: 1013 },
      ],
      4,
      0,
    ),
  ).toEqual({ digits: 1012, scale: 0, unit: 'mbar' });
});
test('always between the readings about it', () => {
  fc.assert(
    fc.property(
      fc.array(
        fc.record({ at: fc.integer({ min: 0, max: HOUR }), mbar: fc.integer({ min: 900, max: 1080 }) }),
        { minLength: 2 },
      ),
      fc.integer({ min: 0, max: HOUR }),
      (list, t) => {
        const found = barometerAt(list, t, 2);
        if (!found) return;
        const all = list.map((r) => r.mbar);
        expect(toNumber(found)).toBeGreaterThanOrEqual(Math.min(...all));
        expect(toNumber(found)).toBeLessThanOrEqual(Math.max(...all));
      },
    ),
  );
});
