import fc from 'fast-check';
import { pressOrder, type Standing } from './order';

const line = (key: string, ends: number, perhaps: readonly string[] = []) => ({
  key,
  ends: ['dry', ...Array.from({ length: ends - 1 }, (_, i) => `${key}-${i}`)],
  perhaps,
});
const dry = (e: string) => e === 'dry';

test('what a test left open comes first, then the fewest dives, then what waits for its repair; what held is done', () => {
  const standing: Record<string, Standing> = {
    a: 'untested',
    b: 'good',
    c: 'loses',
    d: 'open',
    e: 'untested',
  };
  const order = pressOrder(
    [line('a', 5), line('b', 2), line('c', 2), line('d', 4), line('e', 2)],
    (k) => standing[k]!,
    dry,
  );
  expect(order.map((n) => n.line.key)).toEqual(['d', 'e', 'a', 'c']);
  expect(order.map((n) => n.why)).toEqual([
    'a test did not decide, 3 plugs under water',
    'not tested, one plug under water',
    'not tested, 4 plugs under water',
    'it loses: mended and cured first, then pressed again',
  ]);
});
test('a line that is not known to its end, or has one end, is in no order', () => {
  const order = pressOrder([line('a', 3, ['b-1']), line('b', 1)], () => 'untested', dry);
  expect(order).toEqual([]);
});
test('law: the order is the same whichever way the lines come, and loses none that can be pressed', () => {
  const lines = ['a', 'b', 'c', 'd', 'e'].map((k, i) => line(k, 2 + (i % 3)));
  fc.assert(
    fc.property(
      fc.shuffledSubarray(lines, { minLength: 5 }),
      fc.array(fc.constantFrom<Standing>('untested', 'open', 'loses', 'good'), {
        minLength: 5,
        maxLength: 5,
      }),
      (shuffled, of) => {
        const standing = (k: string) => of['abcde'.indexOf(k)]!;
        const keys = (l: typeof lines) => pressOrder(l, standing, dry).map((n) => n.line.key);
        expect(keys(shuffled)).toEqual(keys(lines));
        expect(keys(lines)).toHaveLength(of.filter((s) => s !== 'good').length);
      },
    ),
  );
});
