import { around, ranges, stacked } from './shares';

const columns = [
  {
    name: 'Jan',
    counts: new Map([
      ['tight', 3],
      ['not-tight', 1],
    ]),
  },
  { name: 'Feb', counts: new Map([['not-tight', 2]]) },
  { name: 'Mar', counts: new Map<string, number>() },
];
test('columns stand on one foot, their pieces on each other, as high as they count', () => {
  const g = stacked(columns, ['tight', 'not-tight'], 400, 200);
  expect(g.pieces.map((p) => [p.column, p.key])).toEqual([
    ['Jan', 'tight'],
    ['Jan', 'not-tight'],
    ['Feb', 'not-tight'],
  ]);
  const [tight, not, feb] = g.pieces as [Piece, Piece, Piece];
  expect(tight.y + tight.height).toBeCloseTo(g.foot, 9);
  expect(not.y + not.height).toBeCloseTo(tight.y, 9);
  expect(tight.height / not.height).toBeCloseTo(3, 9);
  expect(feb.height).toBeCloseTo(2 * not.height, 9);
  expect(g.columns.map((c) => c.name)).toEqual(['Jan', 'Feb', 'Mar']);
  expect(g.yTicks.every((t) => /^\d+$/.test(t.label))).toBe(true);
  for (const p of g.pieces) expect([p.x >= g.left, p.x + p.width <= g.right]).toEqual([true, true]);
});
type Piece = ReturnType<typeof stacked>['pieces'][number];
test('nothing counted is drawn empty, not wrong', () => {
  expect(stacked([], ['tight'], 400, 200).pieces).toEqual([]);
  expect(ranges([], 0, 100).lines).toEqual([]);
  expect(around([], 0.01, 100, 50).points).toEqual([]);
});
test('a range lies between its ends with its middle in it, and is seen where its ends meet', () => {
  const { lines, ticks } = ranges(
    [
      { low: 1, middle: 2, high: 4 },
      { low: 3, middle: 3, high: 3 },
    ],
    100,
    300,
  );
  expect(lines[0]!.x).toBeLessThan(lines[0]!.middle);
  expect(lines[0]!.middle).toBeLessThan(lines[0]!.x + lines[0]!.width);
  expect(lines[1]!.width).toBe(2);
  expect(ticks[0]).toEqual({ x: 100, label: '0' });
});
test('zero lies in the middle of its drift; one reading, and readings that never moved, are drawn too', () => {
  const g = around(
    [
      { at: 0, value: 0.02 },
      { at: 10, value: -0.02 },
    ],
    0.01,
    100,
    50,
  );
  expect(g.zero).toBeCloseTo(25, 9);
  expect(g.points[0]!.y).toBeCloseTo(6, 9);
  expect(g.points[1]!.y).toBeCloseTo(44, 9);
  const still = around([{ at: 5, value: 0 }], 0.01, 100, 50);
  expect(still.points[0]!.y).toBe(still.zero);
  expect(Number.isFinite(still.points[0]!.x)).toBe(true);
});
