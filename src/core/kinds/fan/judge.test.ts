/** The judgement of a fan by itself: bounds, the exponent, own kit, and what no order of readings may change. */
import fc from 'fast-check';
import type { FanRange } from '@/core/instrument/kit';
import { parseWithUnit as q } from '@/core/quantity/exact';
import { rangesFor } from './asked';
import { atReference, decidingPressure, judgeFan, lawOf, type Point, type Question } from './judge';

const LAW = { assumed: 0.6, doubtful: 0.75 };
const point = (net: number, flow: number | null, over: Partial<Point> = {}): Point => ({
  net,
  flow,
  least: flow ?? 1,
  range: 'r',
  u: 0.015,
  ...over,
});
const asked = (over: Partial<Question>): Question => ({
  of: 'system',
  reference: 25,
  limit: 1,
  points: [],
  blank: 0.1,
  law: LAW,
  share: 25,
  noSecond: false,
  doubted: false,
  ...over,
});
const outcome = (over: Partial<Question>) => {
  const answer = judgeFan(asked(over));
  return 'outcome' in answer ? answer.outcome : answer.next;
};
/** Two readings whose exponent is n, the first at the reference pressure. */
const pair = (flow: number, n = 0.6) => [point(25, flow), point(12.5, flow * 0.5 ** n)];

test('nothing read is asked for; the limit itself passes; beyond it a second pressure, then own kit', () => {
  expect(outcome({})).toBe('read');
  expect(outcome({ points: [point(25, 1)] })).toBe('within');
  expect(outcome({ points: [point(25, 1.0001)] })).toBe('half');
  expect(outcome({ points: pair(1.1) })).toBe('unresolved');
  expect(outcome({ points: pair(1.1001) })).toBe('beyond');
  expect(outcome({ points: pair(1.2), blank: null })).toBe('blank');
  expect(outcome({ points: [point(25, 1.2)], noSecond: true })).toBe('unchecked');
  expect(outcome({ points: pair(1.2), limit: null })).toBe('no-limit');
});
test('an exponent outside 0.5 to 0.75 is looked at once, then judged; one that no opening has is void', () => {
  expect(outcome({ points: pair(1.2, 0.8) })).toBe('doubtful');
  expect(outcome({ points: pair(1.2, 0.8), doubted: true })).toBe('beyond');
  expect(outcome({ points: pair(1.2, 0.2) })).toBe('void');
  // void stands before everything, also where the flow would pass
  expect(outcome({ points: pair(0.5, 0.2) })).toBe('void');
  expect(outcome({ points: pair(0.5, 0.8) })).toBe('within');
});
test('readings of two rings, or of pressures close together, show no exponent', () => {
  const [a, b] = pair(1.2);
  expect(lawOf([a!, { ...b!, range: 'other' }])).toBeNull();
  expect(lawOf([point(25, 1.2), point(20, 1.05)])).toBeNull();
  expect(lawOf(pair(1.2))!.n).toBeCloseTo(0.6, 6);
});
test('below the range the worst exponent counts: at the deciding pressure it is within, a little less it says nothing', () => {
  const at = decidingPressure(1, 25, 2);
  expect(at).toBeCloseTo(100, 9);
  const below = (net: number) => outcome({ points: [point(net, null, { least: 2 })] });
  expect([below(at * 1.0001), below(at * 0.999)]).toEqual(['within', 'range']);
  // below the reference pressure n = 1 makes it largest
  expect(outcome({ points: [point(12.5, null, { least: 0.5 })] })).toBe('within');
  expect(outcome({ points: [point(12.4, null, { least: 0.5 })] })).toBe('range');
});
test('own kit: a quarter of the limit is the most', () => {
  const kit = (flow: number) => outcome({ of: 'hose', points: [point(25, flow)], blank: null });
  expect([kit(0.25), kit(0.2501)]).toEqual(['measured', 'large']);
});
const points = fc.array(
  fc.record({
    net: fc.double({ min: 1, max: 500, noNaN: true }),
    flow: fc.option(fc.double({ min: 1e-4, max: 3, noNaN: true }), { nil: null }),
    least: fc.double({ min: 1e-4, max: 3, noNaN: true }),
    range: fc.constantFrom('a', 'b'),
    u: fc.double({ min: 0.001, max: 0.05, noNaN: true }),
  }),
  { minLength: 1, maxLength: 6 },
);
test('whatever is read: never within above the limit, never beyond without exponent and own kit, the same in any order', () => {
  fc.assert(
    fc.property(
      points,
      fc.option(fc.double({ min: 0, max: 1, noNaN: true }), { nil: null }),
      (read, blank) => {
        const q = asked({ points: read, blank });
        const answer = judgeFan(q);
        const again = judgeFan({ ...q, points: [...read].reverse() });
        expect('outcome' in again ? again.outcome : again.next).toBe(
          'outcome' in answer ? answer.outcome : answer.next,
        );
        if (!('outcome' in answer)) return;
        const { at } = answer;
        expect(at.low).toBeLessThanOrEqual(at.high + 1e-12);
        if (answer.outcome === 'within') expect(at.short ? at.high : at.flow).toBeLessThanOrEqual(1 + 1e-9);
        if (answer.outcome === 'beyond') {
          expect([at.bound, at.measured === null, blank === null]).toEqual([false, false, false]);
          expect(at.short ? at.from.flow! : at.flow).toBeGreaterThan(1 + blank! - 1e-9);
        }
      },
    ),
    { numRuns: 400 },
  );
});
test('a larger flow never turns what did not pass into what does', () => {
  const rank = { within: 0, half: 1, unresolved: 2, beyond: 3 } as Record<string, number>;
  fc.assert(
    fc.property(
      fc.double({ min: 0.2, max: 2, noNaN: true }),
      fc.double({ min: 1, max: 1.5, noNaN: true }),
      (flow, more) => {
        const one = outcome({ points: pair(flow) });
        const other = outcome({ points: pair(flow * more) });
        expect(rank[other]!).toBeGreaterThanOrEqual(rank[one]!);
      },
    ),
  );
});
test('with no second pressure the exponent of 0.6 carries, and its ends stand beside it', () => {
  const at = atReference([point(100, 2)], 25, LAW);
  expect(at.flow).toBeCloseTo(2 * 0.25 ** 0.6, 9);
  expect([at.low, at.high].map((x) => Number(x.toFixed(6)))).toEqual([0.5, 1]);
});
const range = (name: string, least: string, greatest: string): FanRange => ({
  name,
  least: q(least),
  greatest: q(greatest),
});
test('of ranges the one with room round the limit is named first, then what reads it at all, raised ones, small ones', () => {
  const all = [
    range('open', '280 CFM', '1450 CFM'),
    range('small', '4 CFM', '20 CFM'),
    range('tight', '9 CFM', '48 CFM'),
    range('roomy', '30 CFM', '150 CFM'),
  ];
  const limit = 46 * (0.028316846592 / 60);
  const fits = rangesFor(all, limit, 25);
  expect(fits.map((f) => [f.range.name, f.fits])).toEqual([
    ['roomy', 'reads'],
    ['tight', 'reads'],
    ['open', 'raise'],
    ['small', 'small'],
  ]);
  expect(fits[2]!.pressure).toBeCloseTo(25 * (280 / 46) ** 2, 6);
  expect(rangesFor(all, null, 25)[0]!.range.name).toBe('small');
});
