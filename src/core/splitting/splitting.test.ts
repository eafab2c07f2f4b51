import fc from 'fast-check';
import { networkOf } from '@/core/network/enter';
import { plan } from '@/core/testing/bakery';
import { halving, oneByOne } from '@/core/testing/searches';
import { type Isolation, orderOf, type Splitting, type Step } from './order';
import { found } from './results';
import { splittingOf } from './sections';

/** Random trees of valves: each isolation holds a subtree, or what is left without it. */
const splitting = (most: number): fc.Arbitrary<Splitting> =>
  fc
    .tuple(
      fc.integer({ min: 2, max: most }),
      fc.array(fc.double({ min: 0.1, max: 9, noNaN: true }), { minLength: most, maxLength: most }),
      fc.array(fc.tuple(fc.nat(2 ** most), fc.double({ min: 1, max: 20, noNaN: true })), {
        minLength: 1,
        maxLength: 7,
      }),
    )
    .map(([n, suspicion, tests]) => ({
      suspicion: suspicion.slice(0, n),
      isolations: [
        ...suspicion.slice(0, n).map((_, i): Isolation => ({ key: `one ${i}`, holds: 1 << i, minutes: 5 })),
        ...tests.map(([holds, minutes], i): Isolation => ({
          key: `some ${i}`,
          holds: holds & (2 ** n - 1),
          minutes,
        })),
      ],
    }));
/** Every way there is, tried: the least expected minutes until one part is left. */
function tried(s: Splitting, mask: number): number {
  const parts = s.suspicion.map((_, i) => i).filter((i) => mask & (1 << i));
  if (parts.length <= 1) return 0;
  const weight = (m: number) => parts.reduce((sum, i) => (m & (1 << i) ? sum + s.suspicion[i]! : sum), 0);
  let least = Infinity;
  for (const { holds, minutes } of s.isolations) {
    const [inside, outside] = [holds & mask, mask & ~holds];
    if (!inside || !outside) continue;
    const share = weight(inside) / weight(mask);
    least = Math.min(least, minutes + share * tried(s, inside) + (1 - share) * tried(s, outside));
  }
  return least;
}
test('no order of all there are is shorter, on 500 random sections', () => {
  fc.assert(
    fc.property(splitting(5), (s) => {
      const { step, exact } = orderOf(s);
      expect(exact).toBe(true);
      expect(step.minutes).toBeCloseTo(tried(s, 2 ** s.suspicion.length - 1), 6);
    }),
    { numRuns: 500 },
  );
});
test('never longer than one by one, nor than halving; on average much shorter', () => {
  let [own, single, halves] = [0, 0, 0];
  fc.assert(
    fc.property(splitting(10), (s) => {
      const least = orderOf(s).step.minutes;
      const [one, half] = [oneByOne(s), halving(s)];
      expect(least).toBeLessThanOrEqual(one + 1e-6);
      expect(least).toBeLessThanOrEqual(half + 1e-6);
      own += least;
      single += one;
      halves += half;
    }),
    { numRuns: 200, seed: 5 },
  );
  expect(own / single).toBeLessThan(0.85);
  expect(own / halves).toBeLessThan(0.95);
});
test('more than twelve parts are looked at one step ahead, and it says so', () => {
  const n = 16;
  const s: Splitting = {
    suspicion: Array.from({ length: n }, (_, i) => 1 + (i % 3)),
    isolations: [
      ...Array.from({ length: n }, (_, i) => ({ key: `${i}`, holds: 1 << i, minutes: 4 })),
      { key: 'half', holds: 0xff, minutes: 5 },
    ],
  };
  const { step, exact } = orderOf(s);
  expect([exact, step.isolation!.key]).toEqual([false, 'half']);
  const ends = (x: Step): Step[] => (x.isolation ? [...ends(x.leaks!), ...ends(x.sound!)] : [x]);
  expect(ends(step).length).toBe(n);
});
test('what no isolation tells apart is left together', () => {
  const { step } = orderOf({ suspicion: [1, 1, 1], isolations: [{ key: 'a', holds: 1, minutes: 3 }] });
  expect(step.isolation!.key).toBe('a');
  expect(step.sound).toEqual({ among: 6, isolation: null, minutes: 0 });
  expect(() => orderOf({ suspicion: [1, 0], isolations: [] })).toThrow(/suspicion above nothing/);
});
describe('results', () => {
  const hold = (holds: number): Isolation => ({ key: `${holds}`, holds, minutes: 5 });
  const names = ['Oven', 'Range', 'Heater'];
  const whole = { rate: 2, error: 0.1 };
  test('the part that loses what the whole lost is found, with its confidence', () => {
    const r = found(
      [1, 1, 1],
      whole,
      [
        { isolation: hold(0b011), rate: 2.1, error: 0.1 },
        { isolation: hold(0b001), rate: 0.02, error: 0.1 },
      ],
      names,
    );
    expect(names[r.part]).toBe('Range');
    expect(r.confidence).toBeGreaterThan(0.95);
    expect(r.doubts).toEqual([]);
  });
  test('one hold alone is never certain: a valve may have passed', () => {
    const r = found([1, 1, 1], whole, [{ isolation: hold(0b001), rate: 2, error: 0.05 }], names);
    expect(r.confidence).toBeLessThan(0.99);
  });
  test('rates that do not add up are said', () => {
    const half = found([1, 1, 1], whole, [{ isolation: hold(0b001), rate: 0.9, error: 0.05 }], names);
    expect(half.doubts.join()).toMatch(/Oven: a part of the whole only/);
    const more = found([1, 1, 1], whole, [{ isolation: hold(0b001), rate: 5, error: 0.05 }], names);
    expect(more.doubts.join()).toMatch(/more than the whole/);
    const none = found(
      [1, 1, 1],
      whole,
      [
        { isolation: hold(0b001), rate: 0, error: 0.05 },
        { isolation: hold(0b110), rate: 0, error: 0.05 },
      ],
      names,
    );
    expect(none.doubts.join()).toMatch(/do not lose what the whole lost/);
  });
});
test('of the bakery: pipework and appliances, each behind its own valve', () => {
  const s = splittingOf(networkOf(plan().system), { supply: 'closed' }, 4)!;
  expect(s.sections.map((x) => x.name)).toEqual(['the pipework by Meter outlet', 'Deck oven', 'Hob']);
  expect(Object.values(s.closed)[0]).toEqual(['the valve of Deck oven']);
  // a part that was worked on today is looked at sooner
  const oven = splittingOf(
    networkOf(plan().system),
    { supply: 'closed' },
    4,
    new Set(['oven', 'valve-oven']),
  )!;
  expect(oven.suspicion[1]!).toBeGreaterThan(2 * s.suspicion[1]!);
  expect(oven.suspicion[2]).toBe(s.suspicion[2]);
  const { step, exact } = orderOf(s);
  expect(exact).toBe(true);
  expect(s.closed[step.isolation!.key]!.length).toBeGreaterThan(0);
  const ends = (x: Step): Step[] => (x.isolation ? [...ends(x.leaks!), ...ends(x.sound!)] : [x]);
  expect(ends(step).every((e) => Math.log2(e.among) % 1 === 0)).toBe(true);
});
test('loops of a manifold are shut each by its own valve, which is not drawn', () => {
  const part = (id: string, kind: string) => ({ id, kind, name: id, place: '', x: 0, y: 0, facts: {} });
  const network = {
    parts: [
      part('point', 'point'),
      part('manifold', 'fitting'),
      ...['a', 'b', 'c'].map((l) => part(l, 'loop')),
    ],
    links: ['manifold', 'a', 'b', 'c'].map((to, i) => ({ id: `l${i}`, from: i ? 'manifold' : 'point', to })),
  } as never;
  const s = splittingOf(network, {}, 10)!;
  expect(s.sections.map((x) => x.name)).toEqual(['the pipework by point', 'a', 'b', 'c']);
  expect(s.closed[s.isolations[0]!.key]).toEqual(['the valve of a']);
  expect(orderOf(s).exact).toBe(true);
});
