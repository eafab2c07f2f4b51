import fc from 'fast-check';
import { projectEnd, settling, suddenStep, type Sample } from './live';

const line = (n: number, slope: number, start = 20, every = 10_000): Sample[] =>
  Array.from({ length: n }, (_, i) => ({ t: i * every, p: start + (slope * i * every) / 60_000 }));

test('a straight fall is carried to the end; more readings narrow the band', () => {
  const few = projectEnd(line(4, -0.1), 600_000, 0.01)!;
  expect(few).toBeNull(); // 30 s of 10 min are too little
  const some = projectEnd(line(8, -0.1), 600_000, 0.01)!;
  const more = projectEnd(line(31, -0.1), 600_000, 0.01)!;
  expect(some.value).toBeCloseTo(19, 9);
  expect(some.slope).toBeCloseTo(-0.1, 9);
  expect(more.high - more.low).toBeLessThan(some.high - some.low);
});
test('two readings a few seconds apart claim little: the band is far wider than their steps', () => {
  const p = projectEnd(
    [
      { t: 0, p: 9.1 },
      { t: 6000, p: 9.12 },
    ],
    60_000,
    0.01,
  )!;
  expect(p.value).toBeCloseTo(9.3, 6);
  expect(p.high - p.low).toBeGreaterThan(0.5);
});
test('too little says nothing: one reading, none, a hold that is over before it began', () => {
  expect(projectEnd([], 1000, 0.01)).toBeNull();
  expect(projectEnd([{ t: 0, p: 1 }], 1000, 0.01)).toBeNull();
  expect(projectEnd(line(10, 0), -1, 0.01)).toBeNull();
});
test('the band covers where a noisy, displayed fall ends, nominally in 95 of 100, here in more than 92', () => {
  let inside = 0;
  let rounds = 0;
  fc.assert(
    fc.property(fc.integer(), fc.double({ min: -0.05, max: 0.05, noNaN: true }), (seed, slope) => {
      // a small generator of its own, so that the noise is normal and the same each time
      let s = seed | 0;
      const uniform = () => {
        s = (s + 0x6d2b79f5) | 0;
        let t = Math.imul(s ^ (s >>> 15), 1 | s);
        t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
        return (((t ^ (t >>> 14)) >>> 0) + 0.5) / 2 ** 32;
      };
      const normal = () => Math.sqrt(-2 * Math.log(uniform())) * Math.cos(2 * Math.PI * uniform());
      const shown = (t: number) => Math.round((20 + (slope * t) / 60_000 + 0.02 * normal()) / 0.01) * 0.01;
      const p = projectEnd(
        Array.from({ length: 30 }, (_, i) => ({ t: i * 10_000, p: shown(i * 10_000) })),
        600_000,
        0.01,
      )!;
      const end = shown(600_000);
      rounds += 1;
      if (end >= p.low && end <= p.high) inside += 1;
    }),
    { numRuns: 400, seed: 11 },
  );
  expect(inside / rounds).toBeGreaterThan(0.92);
});
test('settled only when the whole window stood still and nothing was re-adjusted in it; exactly perceptible is movement', () => {
  const still = line(13, 0); // 2 min
  expect(settling(still, 120_000, 60_000, 0.02, null)).toEqual({ steady: true, moved: 0, windowMs: 60_000 });
  expect(settling(still, 120_000, 60_000, 0.02, 61_000).steady).toBe(false);
  expect(settling(still, 120_000, 60_000, 0.02, 60_000).steady).toBe(true);
  const moved = [...still, { t: 121_000, p: 20.02 }];
  expect(settling(moved, 122_000, 60_000, 0.02, null).steady).toBe(false);
  expect(settling(moved, 122_000, 60_000, 0.03, null).steady).toBe(true);
  expect(settling(line(4, 0), 30_000, 60_000, 0.02, null)).toMatchObject({ steady: false, moved: null }); // not covered yet
  expect(settling([], 30_000, 60_000, 0.02, null).moved).toBeNull();
});

describe('a sudden step', () => {
  const at = (list: readonly (readonly [number, number])[]) => list.map(([s, p]) => ({ t: s * 1000, p }));
  test.each([
    [
      'a draw between two readings 8 s apart',
      at([
        [0, 62.2],
        [600, 62.2],
        [608, 55],
      ]),
      -7.2,
    ],
    [
      'the same fall in a minute may be a leak',
      at([
        [0, 62.2],
        [600, 62.2],
        [660, 55],
      ]),
      null,
    ],
    [
      'just under three perceptible movements',
      at([
        [0, 62.2],
        [600, 62.2],
        [608, 61.4],
      ]),
      null,
    ],
    [
      'a hand that raises it',
      at([
        [0, 10],
        [5, 10],
        [10, 12],
      ]),
      2,
    ],
    [
      'a large leak that falls evenly',
      at([
        [0, 60],
        [10, 58],
        [20, 56],
        [30, 54],
        [40, 52],
      ]),
      null,
    ],
    ['one reading', at([[0, 60]]), null],
  ])('%s', (_name, samples, change) => {
    const found = suddenStep(samples, 0.3);
    if (change === null) expect(found).toBeNull();
    else expect(found!.change).toBeCloseTo(change, 9);
  });
});
