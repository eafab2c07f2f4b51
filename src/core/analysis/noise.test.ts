import fc from 'fast-check';
import { likelihoodOf, type Readings, roughness, scatterAbout, solve, upperTail } from './noise';

const readings = (y: readonly number[], step = 1): Readings => ({
  t: Float64Array.from(y, (_, i) => i),
  y: Float64Array.from(y),
  weight: Float64Array.from(y, () => 1),
  step,
});
test('the upper tail of a normal, beside its tables', () => {
  const table = [
    [0, 0.5],
    [1, 0.158655253931],
    [1.96, 0.0249978951482],
    [3, 0.00134989803163],
    [6, 9.86587645038e-10],
    [12, 1.776482112e-33],
  ] as const;
  for (const [x, p] of table) {
    expect(upperTail(x) / p).toBeCloseTo(1, 5);
    expect(upperTail(-x)).toBeCloseTo(1 - p, 10);
  }
});
test('slopes and weights are the derivatives of the likelihood, rounded or not, near and far', () => {
  fc.assert(
    fc.property(
      fc.double({ min: -8, max: 8, noNaN: true }),
      fc.double({ min: 0.15, max: 4, noNaN: true }),
      (off, sigma) => {
        const like = likelihoodOf(readings([0]), sigma);
        const at = (m: number) => like(Float64Array.of(m), false);
        const h = 1e-4 * sigma;
        like(Float64Array.of(off), true);
        const numeric = (at(off + h) - at(off - h)) / (2 * h);
        // where the tail begins to go straight the slope jumps by a little
        const far = (Math.abs(off) - (sigma <= 1.5 ? 0.5 : 0)) / Math.hypot(sigma, sigma <= 1.5 ? 0 : 0.2887);
        if (Math.abs(far - 4) < 0.01) return;
        expect(like.slope[0]!).toBeCloseTo(numeric, 2);
        expect(like.weight[0]!).toBeGreaterThan(0);
      },
    ),
    { numRuns: 300 },
  );
});
test('a knock counts no more the further it is', () => {
  const like = likelihoodOf(readings([0]), 0.5);
  const at = (m: number) => like(Float64Array.of(m), false);
  expect(at(20) - at(21)).toBeCloseTo(at(40) - at(41), 6);
});
test('scatter is found through a slope and a curve, and beside a knock', () => {
  let s = 7;
  const uniform = () => {
    s = (Math.imul(s, 1664525) + 1013904223) >>> 0;
    return (s + 0.5) / 2 ** 32;
  };
  const normal = () => Math.sqrt(-2 * Math.log(uniform())) * Math.cos(2 * Math.PI * uniform());
  const course = (i: number) => 200 * Math.exp(-i / 60);
  const r = readings(
    Array.from({ length: 300 }, (_, i) => Math.round(course(i) + 0.8 * normal()) + (i === 150 ? 40 : 0)),
  );
  expect(roughness(r)).toBeGreaterThan(0.6);
  expect(roughness(r)).toBeLessThan(1.1);
  const { sigma, correlation } = scatterAbout(r, Float64Array.from(r.t, course), 2);
  expect(sigma).toBeGreaterThan(0.65);
  expect(sigma).toBeLessThan(1);
  expect(correlation).toBe(0);
});
test('neighbours that repeat each other count for less', () => {
  let s = 9;
  const uniform = () => {
    s = (Math.imul(s, 1664525) + 1013904223) >>> 0;
    return (s + 0.5) / 2 ** 32;
  };
  let e = 0;
  const r = readings(
    Array.from({ length: 400 }, () => {
      e = 0.8 * e + 1.2 * (uniform() + uniform() + uniform() - 1.5);
      return Math.round(2 * e) / 2;
    }),
    0.5,
  );
  const { thin, correlation } = scatterAbout(r, new Float64Array(400), 1);
  expect(correlation).toBeGreaterThan(0.6);
  expect(thin).toBeLessThan(0.25);
});
test('a system that has no single answer has none', () => {
  expect(solve([Float64Array.of(1, 2, 3), Float64Array.of(2, 4, 6)])).toBeNull();
  expect(Array.from(solve([Float64Array.of(2, 1, 5), Float64Array.of(1, 3, 10)])!)).toEqual([1, 3]);
});
