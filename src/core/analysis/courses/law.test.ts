import { leakedPressure } from '@/core/medium/leak';
import type { SectionFacts } from '../section';
import { fallOf, power } from './law';

const facts = (filling: SectionFacts['filling'], pressure: number) =>
  ({ filling, pressure, atmosphere: 101_325 }) as SectionFacts;
const fallen = (f: SectionFacts, exponent: number, slope: number, t: number) => {
  const out = new Float64Array(1);
  fallOf(f)(exponent, slope, Float64Array.of(t), out);
  return -out[0]!;
};
test('a laminar leak of a gas falls as the law of small leaks has it, whatever the pressure', () => {
  for (const p of [850, 2050, 20_700, 150_000]) {
    const [k, volume] = [1e-12, 0.02];
    const slope = (101_325 / volume) * k * (p + (p * p) / (2 * 101_325));
    for (const t of [10, 600, 7200])
      expect(p - fallen(facts('gas', p), 1, slope, t)).toBeCloseTo(leakedPressure(p, k, volume, t), 4);
  }
});
test('between a hairline and a hole the way down lies between theirs', () => {
  const f = facts('gas', 2050);
  const [hair, between, hole] = [1, 0.75, 0.5].map((n) => fallen(f, n, 3, 500));
  expect(hair).toBeLessThan(between!);
  expect(between).toBeLessThan(hole!);
  // an orifice far below the atmosphere: the root of the pressure falls evenly
  expect(fallen(f, 0.5, 3, 500)).toBeCloseTo(2050 * (1 - (1 - (3 * 500) / (2 * 2050)) ** 2), -1);
});
test('nothing falls below nothing, and a slope of none moves nothing', () => {
  for (const filling of ['gas', 'liquid'] as const)
    for (const n of [0.5, 0.7, 1]) {
      expect(fallen(facts(filling, 2050), n, 50, 1e5)).toBeLessThanOrEqual(2050);
      expect(fallen(facts(filling, 2050), n, 50, 1e5)).toBeGreaterThan(2000);
      expect(fallen(facts(filling, 2050), n, 0, 1e5)).toBeCloseTo(0, 9);
    }
  expect(fallen(facts('level', 0), 1, 2, 3)).toBe(6);
});
test('an exponent lies between a hole and a hairline', () => {
  expect([power(-9), power(0), power(9)].map((x) => Number(x.toFixed(3)))).toEqual([0.5, 0.75, 1]);
});
