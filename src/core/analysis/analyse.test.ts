import fc from 'fast-check';
import { gasFacts } from '@/core/testing/traces';
import { ahead, analyse, curveOf, readingsOf, STANDS_OUT } from './analyse';
import { type Cause, LEAKS, type Sample, type SectionFacts } from './section';

const gas = gasFacts;
const water: SectionFacts = {
  ...gas,
  filling: 'liquid',
  pressure: 6e5,
  give: 1e-9,
  giveUncertainty: 0.15,
  perKelvin: -1e4,
  stretches: true,
  matters: 1e-4 / 3600,
  step: 100,
  perceptible: 200,
};
const level: SectionFacts = {
  ...gas,
  filling: 'level',
  pressure: 0,
  give: 0.02,
  perKelvin: 0,
  drift: { perMinute: 0, most: 0 },
  step: 1e-3,
  perceptible: 2e-3,
};
const vacuum: SectionFacts = {
  ...level,
  filling: 'vacuum',
  pressure: 40,
  give: 1e-7,
  step: 1,
  perceptible: 2,
};
/** Scatter that is the same each time. */
function scatter(seed: number): () => number {
  let s = seed | 0;
  const uniform = () => {
    s = (s + 0x6d2b79f5) | 0;
    let t = Math.imul(s ^ (s >>> 15), 1 | s);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return (((t ^ (t >>> 14)) >>> 0) + 0.5) / 2 ** 32;
  };
  return () => Math.sqrt(-2 * Math.log(uniform())) * Math.cos(2 * Math.PI * uniform());
}
function trace(facts: SectionFacts, course: (s: number) => number, seconds: number, n = 120): Sample[] {
  const noise = scatter(n + seconds + 5);
  return Array.from({ length: n }, (_, i) => {
    const s = (seconds * i) / (n - 1);
    const shown = Math.round((facts.pressure + course(s)) / facts.step + 0.4 * noise()) * facts.step;
    return { t: 1_000_000 + s * 1000, p: shown };
  });
}
const litres = (m3s: number) => m3s * 3.6e6;

describe('the cause', () => {
  const supplied = { ...gas, pressure: 850, supply: 2100 };
  const cases: readonly (readonly [string, SectionFacts, (s: number) => number, number, Cause])[] = [
    ['nothing moves', gas, () => 0, 300, 'steady'],
    ['a leak of 1 l/h', gas, (s) => -2050 * -Math.expm1(-s * 6.9e-4), 300, 'leak'],
    ['a fill that cools', gas, (s) => 120 * Math.expm1(-s / 60), 300, 'temperature'],
    [
      'a fill that cools, and a leak',
      gas,
      (s) => 120 * Math.expm1(-s / 40) - 2000 * -Math.expm1(-s * 1e-3),
      300,
      'temperature+leak',
    ],
    ['a valve that passes', supplied, (s) => 1250 * -Math.expm1(-s / 400), 600, 'let-by'],
    ['somebody draws', gas, (s) => (s > 140 ? -60 : 0), 300, 'step'],
    ['pipe that stretches', water, (s) => -5000 * Math.log1p(s / 40), 3600, 'stretch'],
    [
      'pipe that stretches, and a leak',
      water,
      (s) => -4000 * Math.log1p(s / 40) - 6e5 * -Math.expm1(-s * 3e-5),
      3600,
      'stretch+leak',
    ],
    ['a drain that leaks', level, (s) => -s * 3e-5, 900, 'leak'],
    ['air that leaves a drain', level, (s) => 0.008 * Math.expm1(-s / 90), 900, 'air'],
    ['air into a vacuum', vacuum, (s) => 0.3 * s, 900, 'leak'],
    ['moisture in a vacuum', vacuum, (s) => 200 * -Math.expm1(-s / 150), 900, 'moisture'],
    ['moisture and a leak', vacuum, (s) => 200 * -Math.expm1(-s / 60) + 0.4 * s, 900, 'moisture+leak'],
  ];
  test.each(cases)('%s', (_, facts, course, seconds, cause) => {
    expect(analyse(trace(facts, course, seconds), facts)?.told).toBe(cause);
  });
  test('a gauge that follows no more', () => {
    const noise = scatter(3);
    const samples = Array.from({ length: 120 }, (_, i) => ({
      t: i * 1000,
      p: i < 60 ? 2050 - 2 * i + Math.round(1.2 * noise()) : 1930,
    }));
    expect(analyse(samples, gas)?.causes[0]!.cause).toBe('stuck');
  });
  test('a straight fall that nobody read a temperature for is never called warmth', () => {
    for (const slope of [0.02, 0.05, 0.1, 0.2, 0.3]) {
      const a = analyse(
        trace(gas, (s) => -slope * s, 120),
        gas,
      )!;
      expect(a.told === 'temperature').toBe(false);
    }
  });
  test('the same fall with the temperature read: warmth where the pipe cooled by it, a leak where it did not', () => {
    const cooled = { ...gas, warmth: [0, 150, 300].map((t) => ({ t, k: -t / 1000 })) };
    const course = (s: number) => (-352 * s) / 1000;
    expect(analyse(trace(gas, course, 300), cooled)!.told).toBe('temperature');
    const still = { ...gas, warmth: [0, 150, 300].map((t) => ({ t, k: 0 })) };
    expect(analyse(trace(gas, course, 300), still)!.leaks).toBeGreaterThan(STANDS_OUT);
  });
  test('three readings name no cause, one says nothing', () => {
    const few = trace(gas, (s) => -2 * s, 120, 3);
    expect(analyse(few.slice(0, 1), gas)).toBeNull();
    for (const n of [2, 3]) {
      const a = analyse(few.slice(0, n), gas)!;
      expect([a.told, a.causes.length > 1]).toEqual([null, true]);
      expect(ahead(a, few[2]!.t + 60_000).value).toBeLessThan(2050 - 240);
    }
    expect(analyse([], gas)).toBeNull();
    expect(
      analyse(
        [1, 2, 3].map((p) => ({ t: 5, p })),
        gas,
      ),
    ).toBeNull();
  });
});
describe('the rate', () => {
  test('of a leak that stands out from what nobody read', () => {
    // 4 l/h at 20.5 mbar from 20 l: Q P_atm / V = 5.63 Pa/s at first
    const k = (4e-3 / 3600) * (101_325 / 0.02) * (1 / 2050);
    const { rate } = analyse(
      trace(gas, (s) => 2050 * Math.expm1(-k * s), 120),
      gas,
    )!;
    expect(litres(rate!.value)).toBeGreaterThan(3.6);
    expect(litres(rate!.value)).toBeLessThan(4.4);
    expect(litres(rate!.low)).toBeLessThan(4);
    expect(litres(rate!.high)).toBeGreaterThan(4);
  });
  test('carries the uncertainty of volume and warmth', () => {
    const samples = trace(gas, (s) => -1.4 * s, 120);
    const wide = (facts: SectionFacts) => {
      const { rate } = analyse(samples, facts)!;
      return (rate!.high - rate!.low) / rate!.value;
    };
    expect(wide({ ...gas, giveUncertainty: 0.2 })).toBeGreaterThan(wide(gas));
    expect(wide({ ...gas, drift: { perMinute: 0.01, most: 0.02 } })).toBeLessThan(wide(gas));
  });
  test('twice the volume, twice the rate', () => {
    const samples = trace(gas, (s) => -3 * s, 120);
    const one = analyse(samples, gas)!.rate!.value;
    const two = analyse(samples, { ...gas, give: 2 * gas.give, matters: 2 * gas.matters })!.rate!.value;
    expect(two / one).toBeCloseTo(2, 1);
  });
});
describe('carried on', () => {
  test('a fall that fades is not carried on as a line', () => {
    const course = (s: number) => 120 * Math.expm1(-s / 60);
    const a = analyse(trace(gas, course, 150), gas)!;
    const there = ahead(a, 1_000_000 + 600_000);
    expect(there.value).toBeGreaterThan(2050 - 150);
    expect(there.low).toBeLessThan(2050 - 118);
    expect(there.high).toBeGreaterThan(2050 - 121);
  });
  test('further ahead is less certain, and the display is a probability', () => {
    const a = analyse(
      trace(gas, (s) => -0.5 * s, 60, 30),
      gas,
    )!;
    const [near, far] = [90, 600].map((s) => ahead(a, 1_000_000 + s * 1000));
    expect(far!.high - far!.low).toBeGreaterThan(near!.high - near!.low);
    expect(near!.below(near!.value)).toBeCloseTo(0.5, 3);
    expect(near!.below(near!.low)).toBeCloseTo(0.025, 3);
    expect(near!.below(-1e9)).toBeLessThan(1e-9);
  });
  test('the curve passes through the readings', () => {
    const samples = trace(gas, (s) => -1 * s, 120);
    const curve = curveOf(
      analyse(samples, gas)!,
      samples.map((s) => s.t),
    );
    const off = curve.map((c, i) => Math.abs(c.p - samples[i]!.p));
    expect(Math.max(...off)).toBeLessThan(3);
  });
});
test('many readings are put together without a change of their number', () => {
  const samples = trace(gas, (s) => -0.1 * s, 3600, 5000);
  const r = readingsOf(samples, 1);
  expect(r.t.length).toBeLessThan(700);
  expect(r.weight.reduce((a, w) => a + w, 0)).toBe(5000);
});
test('whatever is shown: no error, probabilities that are some, an order of the interval', () => {
  const figure = fc.oneof(
    fc.double({ min: -1e6, max: 1e6, noNaN: true }),
    fc.constantFrom(0, NaN, Infinity, -Infinity, 1e300),
  );
  const samples = fc.array(fc.record({ t: fc.double({ min: 0, max: 1e8 }), p: figure }), { maxLength: 40 });
  fc.assert(
    fc.property(
      samples,
      fc.constantFrom(gas, water, level, vacuum, { ...gas, supply: 9000 }),
      (list, facts) => {
        const a = analyse(list, facts);
        if (!a) return;
        const sum = a.causes.reduce((s, c) => s + c.probability, 0);
        expect(sum).toBeGreaterThan(0.999);
        expect(sum).toBeLessThan(1.001);
        if (a.rate) {
          expect(a.rate.low).toBeLessThanOrEqual(a.rate.value);
          expect(a.rate.high).toBeGreaterThanOrEqual(a.rate.value);
        }
        if (a.told === 'steady') expect(LEAKS.has(a.told)).toBe(false);
      },
    ),
    { numRuns: 150 },
  );
});
