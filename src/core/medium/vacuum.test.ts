import { vacuumShares } from '@/core/testing/vacuums';
import fc from 'fast-check';
import { FEWEST, type VacuumPoint, vacuumFit } from './vacuum';

const minutes = (pa: (m: number) => number, count = 10): VacuumPoint[] =>
  Array.from({ length: count + 1 }, (_, m) => ({ seconds: m * 60, pa: Math.round(pa(m)) }));

test('a tenth of the benchmark: the right cause in at least 95 of 100, and none named that is the other one', () => {
  const { right, wrong } = vacuumShares(300);
  expect(right).toBeGreaterThanOrEqual(95);
  expect(wrong).toBe(0);
});
test('level, falling, and too few to see a shape', () => {
  expect(
    vacuumFit(
      minutes(() => 60),
      1,
      2,
    ).cause,
  ).toBe('level');
  expect(
    vacuumFit(
      minutes((m) => 60 + m / 8),
      1,
      2,
    ).cause,
  ).toBe('level');
  expect(
    vacuumFit(
      minutes((m) => 60 - m / 5),
      1,
      2,
    ).cause,
  ).toBe('falls');
  expect(vacuumFit(minutes((m) => 60 + 9 * m).slice(0, FEWEST - 1), 1, 2).cause).toBe('few');
  expect(vacuumFit([], 1, 2).cause).toBe('few');
});
test('slopes and the end it flattens to come back as they were put in', () => {
  const f = vacuumFit(
    minutes((m) => 50 + 2 * m + 180 * (1 - Math.exp(-m / 3)), 30),
    1,
    2,
  );
  expect(f.cause).toBe('moisture');
  expect(f.leak).toBeGreaterThan(1.7);
  expect(f.leak).toBeLessThan(2.3);
  expect(f.moisture).toBeGreaterThan(50);
  expect(f.moisture).toBeLessThan(70);
  expect(Math.abs(f.towards! - 230)).toBeLessThan(15);
});
test('moisture cannot rise above the vapour pressure of the coldest part: what passes it is air', () => {
  // bends a little, towards 2.5 kPa: at -5 °C water gives 401 Pa at most
  const bends = minutes((m) => 40 + 2500 * (1 - Math.exp(-m / 18)));
  expect(vacuumFit(bends, 1, 2, 25).cause).toBe('moisture');
  expect(vacuumFit(bends, 1, 2, -5).cause).not.toBe('moisture');
});
test('whatever is read, a cause is named and no figure is none', () => {
  fc.assert(
    fc.property(
      fc.array(
        fc.record({ seconds: fc.integer({ min: 0, max: 86_400 }), pa: fc.integer({ min: 0, max: 101_325 }) }),
        {
          maxLength: 40,
        },
      ),
      fc.option(fc.integer({ min: -40, max: 60 })),
      (points, celsius) => {
        const f = vacuumFit(
          points.sort((a, b) => a.seconds - b.seconds),
          1,
          2,
          celsius,
        );
        expect([f.rise, f.leak, f.moisture, f.sure].every(Number.isFinite)).toBe(true);
        expect(f.leak >= 0 && f.moisture >= 0).toBe(true);
      },
    ),
  );
});
