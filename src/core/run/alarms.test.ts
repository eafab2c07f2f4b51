import * as fc from 'fast-check';
import { gauge } from '@/core/testing/bakery';
import { planOf, run } from '@/core/testing/quarter';
import { alarmsOf } from './alarms';
import { begin } from './reduce';
import { waitOf } from './waits';

const plan = planOf('gas-lowpressure-staged', { case: 'existing', gauges: [gauge()] });
const began = Date.parse(plan.made.at);
/** As far as the let-by that runs. */
const { state } = run(plan, [
  ['checks'],
  ['gauge', 'G-02'],
  ['zero', '0'],
  ['fill', '9.10'],
  ['start', '9.10'],
]);
const wait = waitOf(plan, state);

test('nothing rings where nothing waits and nothing is owed', () => {
  expect(alarmsOf(plan, begin(plan), [5, 1, 0], began)).toEqual([]);
});
test('a wait rings when it was chosen, and at its end; a warning that would come before it began does not', () => {
  const ends = wait!.ends;
  expect(
    alarmsOf(plan, state, [5, 1, 0], ends - 120_000).map((a) => [(ends - a.at) / 60_000, a.text]),
  ).toEqual([
    [1, expect.stringMatching(/^.+: a minute to go, then read the gauge\.$/)],
    [0, expect.stringMatching(/^.+: now read the gauge\.$/)],
  ]);
  expect(alarmsOf(plan, state, [], ends - 120_000)).toEqual([]);
  // exactly a minute: the warning is the beginning itself
  expect(alarmsOf(plan, state, [1], ends - 60_000)).toEqual([]);
});
test('an hour and more says so in good time, whatever was chosen; a minute less does not', () => {
  const ends = wait!.ends;
  const at = (last: number) => alarmsOf(plan, state, [0], last).map((a) => (ends - a.at) / 60_000);
  expect([at(ends - 3_600_000), at(ends - 3_599_999)]).toEqual([[15, 0], [0]]);
});
test('what is owed is called to mind from the last entry on, and no more once it is signed', () => {
  const owed = run(plan, [['checks'], ['gauge', 'G-02'], ['stop', 'smell']]).state;
  const all = alarmsOf(plan, owed, [5, 1, 0], began + 120_000);
  expect(all.map((a) => (a.at - began) / 60_000)).toEqual([32, 242]);
  expect(all[0]!.text).toMatch(/still owed: .+/);
  expect(alarmsOf(plan, { ...owed, phase: 'signed' }, [5, 1, 0], began)).toEqual([]);
});
test('whatever was chosen: no tag twice, in the order of time, none after the end', () => {
  fc.assert(
    fc.property(
      fc.array(fc.integer({ min: 0, max: 600 })),
      fc.integer({ min: 0, max: 1e7 }),
      (minutes, ago) => {
        const all = alarmsOf(plan, state, minutes, wait!.ends - ago);
        expect(new Set(all.map((a) => a.tag)).size).toBe(all.length);
        expect(all.map((a) => a.at)).toEqual(all.map((a) => a.at).sort((a, b) => a - b));
        expect(all.every((a) => a.at <= wait!.ends)).toBe(true);
      },
    ),
  );
});
