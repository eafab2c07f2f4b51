import { seeded } from '@/core/testing/pools';
import { coverage } from '@/core/testing/walks';
import fc from 'fast-check';
import { fitOf, nextSpot, type Spot } from './listen';

const spot = (along: number, loud: number, clear: Spot['clear'] = 'clear'): Spot => ({ along, loud, clear });

test('loudest between two that fade on both sides: the place is there, and a clear one is narrower', () => {
  const walk = (clear: Spot['clear']) =>
    fitOf(
      [spot(1, 1, clear), spot(3, 5, clear), spot(4, 8, clear), spot(5, 4, clear), spot(8, 0, clear)],
      10,
    )!;
  const clear = walk('clear');
  expect(clear.best).toBeGreaterThan(3.5);
  expect(clear.best).toBeLessThan(4.5);
  expect([clear.from, clear.to].every((x) => Math.abs(x - 4) < 1)).toBe(true);
  const murmur = walk('murmur');
  expect(murmur.to - murmur.from).toBeGreaterThan(clear.to - clear.from);
  expect(clear.course.find(([x]) => x === clear.best)![1]).toBe(1);
});
test('silence has no place; one loud spot leaves a wide one and says where to go on', () => {
  expect(fitOf([], 10)).toBeNull();
  expect(fitOf([spot(2, 0), spot(8, 0)], 10)).toBeNull();
  const one = fitOf([spot(2, 6)], 10)!;
  expect(one.to - one.from).toBeGreaterThan(1.5);
  const next = nextSpot([spot(2, 6)], 10)!;
  expect(Math.abs(next - 2)).toBeGreaterThanOrEqual(0.3);
  // louder on the right than on the left: the next spot is not on the far left
  expect(nextSpot([spot(2, 2), spot(6, 7)], 12)!).toBeGreaterThan(2);
  // heard all along, every half metre: another spot tells hardly anything
  const all = Array.from({ length: 21 }, (_, i) =>
    spot(i / 2, Math.max(0, 8 - Math.round(Math.abs(i / 2 - 4) * 4))),
  );
  expect(nextSpot(all, 10)).toBeNull();
});
test('what cannot be is refused with what to do', () => {
  expect(() => fitOf([], 0)).toThrow(/measure it along the pipe/);
  expect(() => fitOf([spot(11, 3)], 10)).toThrow('A spot at 11 m does not lie on a run of 10 m.');
  expect(() => fitOf([spot(-1, 3)], 10)).toThrow(/does not lie/);
  expect(() => fitOf([spot(1, 3.5)], 10)).toThrow(/whole steps/);
  expect(() => fitOf([spot(1, 11)], 10)).toThrow(/whole steps/);
});
test('whatever was heard, the stretch lies on the run, holds the best place and no figure is lost', () => {
  fc.assert(
    fc.property(
      fc.array(
        fc.record({
          along: fc.double({ min: 0, max: 30, noNaN: true }),
          loud: fc.integer({ min: 0, max: 10 }),
          clear: fc.constantFrom('clear' as const, 'fair' as const, 'murmur' as const),
        }),
        { minLength: 1, maxLength: 25 },
      ),
      (spots) => {
        const fit = fitOf(spots, 30);
        if (!fit) return spots.every((s) => s.loud === 0);
        return fit.from >= 0 && fit.to <= 30 && fit.from <= fit.best && fit.best <= fit.to;
      },
    ),
    { numRuns: 60, seed: 16 },
  );
});
test('the true place lies in the stretch in nine of ten walks', () => {
  const share = coverage(seeded(16), 120);
  expect(share).toBeGreaterThan(0.84);
  expect(share).toBeLessThan(0.96);
});
