import { settling, suddenStep } from './live';
import type { Sample } from './section';

const line = (n: number, slope: number, start = 20, every = 10_000): Sample[] =>
  Array.from({ length: n }, (_, i) => ({ t: i * every, p: start + (slope * i * every) / 60_000 }));

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
