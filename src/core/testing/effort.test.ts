import { bakery, hold, plan, play, SIGNED, upTo } from './bakery';
import { effortOf } from './effort';

const p = plan();
const whole = play(p, [
  ...upTo(['9.10', '9.10']),
  ...hold(200, '20.50', '20.48'),
  [450, 'zero', '0'],
  ...SIGNED(500),
]);

test('to the running let-by: each line that must stand alone, each appliance once, and one press for each reading', () => {
  const { taps } = effortOf(p, whole, (e) => e.kind === 'hold-end');
  // smell twice, three steps of the detector, two appliances, supply, test point; gauge, zero, the raise that begins it
  expect(taps).toBe(2 + 3 + bakery().appliances.length + 1 + 1 + 1 + 1 + 1);
});
test('a reading that is read anew costs its press and its characters; the pauses of the rule are no work', () => {
  const other = play(p, [...upTo(['9.10', '9.10']).slice(0, 4), [70, 'start', '9.00']]);
  const same = play(p, upTo(['9.10', '9.10']).slice(0, 5));
  const [a, b] = [effortOf(p, other), effortOf(p, same)];
  expect([a.taps - b.taps, a.characters - b.characters]).toEqual([1, 4]);
  const all = effortOf(p, whole);
  // 61 + 61 + 121 s of holds are not counted
  expect(all.seconds).toBeCloseTo((whole[whole.length - 1]!.at - whole[0]!.at) / 1000 - 243, 0);
  expect(all.words).toBeGreaterThan(effortOf(p, whole, (e) => e.kind === 'hold-end').words);
});
