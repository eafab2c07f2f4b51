import fc from 'fast-check';
import { parseReading, perceptibleMovement } from '@/core/instrument/gauge';
import { coarse, gauge } from '@/core/testing/bakery';
import {
  add,
  breaks,
  compare,
  exact,
  formatExact,
  parseFigure,
  parseWithUnit as q,
  subtract,
  toNumber,
} from './exact';
import { convert } from './unit';

const decimal = fc
  .tuple(fc.integer({ min: -999999, max: 999999 }), fc.integer({ min: 0, max: 4 }))
  .map(([d, s]) => exact(d, s, 'mbar'));

test('law: what is printed parses back to the same figure', () => {
  fc.assert(fc.property(decimal, (a) => expect(parseFigure(formatExact(a), 'mbar')).toEqual(a)));
});
test('law: adding and subtracting are exact and undo each other', () => {
  fc.assert(fc.property(decimal, decimal, (a, b) => compare(subtract(add(a, b), b), a) === 0));
});
test('law: the order of exact figures is the order of integers at a common scale', () => {
  fc.assert(
    fc.property(
      decimal,
      decimal,
      (a, b) =>
        compare(a, b) === Math.sign(a.digits * 10 ** (4 - a.scale) - b.digits * 10 ** (4 - b.scale)) + 0,
    ),
  );
});
test('trailing zeros are kept, the minus is a true minus, and there is no minus zero', () => {
  expect(formatExact(q('20.30 mbar'))).toBe('20.30');
  expect(formatExact(q('-0.05 mbar'))).toBe('−0.05');
  expect(formatExact(parseFigure('-0.00', 'mbar'))).toBe('0.00');
});
test.each([
  ['1,234', 'comma'],
  ['-12,500', 'comma'],
  ['1,2,3', 'comma'],
  ['1,234.5', 'comma'],
  [',', 'not-a-number'],
  ['1,', 'not-a-number'],
  ['20.35 mbar', 'unit'],
  ['', 'empty'],
  ['1e3', 'unit'],
  ['--2', 'not-a-number'],
  ['.5', 'not-a-number'],
  ['12345678901', 'too-long'],
])('"%s" is refused as %s', (text, code) => {
  expect(() => parseFigure(text, 'mbar')).toThrow(expect.objectContaining({ code }));
});
test('a comma is taken where it can only be a decimal sign, as fine as it was typed', () => {
  for (const [typed, digits, scale] of [
    ['20,35', 2035, 2],
    ['20,30', 2030, 2],
    ['−0,5', -5, 1],
    ['0,250', 250, 3], // no thousand begins with nothing
    ['1234,567', 1234567, 3], // nor has one four digits before it
    ['1,2345', 12345, 4],
  ] as const)
    expect([typed, parseFigure(typed, 'mbar')]).toEqual([typed, { digits, scale, unit: 'mbar' }]);
  expect(() => parseFigure('1,234', 'mbar')).toThrow(
    '1,234 can be read as 1.234 or as 1234. Type one of the two.',
  );
});
test('limits state their comparator: at equality or above', () => {
  const limit = (broken: 'at' | 'above') => ({ value: q('0.25 mbar'), broken, source: 's' });
  expect([
    breaks(q('0.25 mbar'), limit('at')),
    breaks(q('0.25 mbar'), limit('above')),
    breaks(q('0.2501 mbar'), limit('above')),
  ]).toEqual([true, false, true]);
});
test('readings follow the gauge: decimals filled, not invented; range and step kept; dials in half divisions', () => {
  expect(parseReading('20.3', gauge())).toEqual(q('20.30 mbar'));
  expect(() => parseReading('20.35', coarse)).toThrow(/1 decimal/);
  expect(() => parseReading('200.01', gauge())).toThrow(/above this gauge/);
  expect(() => parseReading('-100.01', gauge())).toThrow(/below range/);
  const dial = gauge({ kind: 'dial', resolution: q('0.5 mbar') });
  expect(parseReading('20.25', dial)).toEqual(q('20.25 mbar'));
  expect(() => parseReading('20.10', dial)).toThrow(/steps of 0.25/);
});
test('perceptible movement without a pack: two steps or 0.1 % of scale, whichever is larger; half a division', () => {
  expect(perceptibleMovement(gauge(), {}).value).toEqual(q('0.200 mbar'));
  expect(
    perceptibleMovement(gauge({ greatest: q('20 mbar'), resolution: q('0.05 mbar') }), {}).value,
  ).toEqual(q('0.10 mbar'));
  expect(perceptibleMovement(gauge({ kind: 'dial', resolution: q('0.5 mbar') }), {}).value).toEqual(
    q('0.25 mbar'),
  );
});
test('units convert by their exact constants and never across dimensions', () => {
  expect(convert(1, 'inWC', 'Pa')).toBe(249.08891);
  expect(convert(1, 'psi', 'mbar')).toBeCloseTo(68.94757293, 8);
  expect(() => convert(1, 'mbar', 'l/h')).toThrow(/different things/);
  expect(toNumber(q('20.35 mbar'))).toBe(20.35);
});
