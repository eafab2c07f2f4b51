import fc from 'fast-check';
import { edgeThrough } from './edge';

test('through the outermost, with room; what lies inside is no corner', () => {
  const edge = edgeThrough([
    { x: 40, y: 20 },
    { x: 100, y: 20 },
    { x: 70, y: 40 },
    { x: 100, y: 60 },
    { x: 40, y: 60 },
  ]);
  expect(edge).toEqual({
    shape: 'sketched',
    x: 37,
    y: 17,
    width: 66,
    height: 46,
    points: [
      [37, 17],
      [103, 17],
      [103, 63],
      [37, 63],
    ],
  });
  expect(() => edgeThrough([{ x: 1, y: 1 }])).toThrow(/three outlets/);
});
test('wherever outlets stand, the edge stays on the sheet and has three corners or more', () => {
  const spot = fc.record({ x: fc.integer({ min: 0, max: 480 }), y: fc.integer({ min: 0, max: 240 }) });
  fc.assert(
    fc.property(fc.array(spot, { minLength: 3, maxLength: 20 }), (spots) => {
      const { points } = edgeThrough(spots);
      return points!.length >= 3 && points!.every(([x, y]) => x >= 0 && x <= 480 && y >= 0 && y <= 240);
    }),
  );
});
