import fc from 'fast-check';
import { dueNow, progressOf, type Result, scenarioOfDay } from './progress';
import { ENDS, type End, TRAPS, type Trap, type Way } from './words';

const DAY = 86_400_000;
const result = (at: number, end: End, traps: Trap[] = ['balance'], way: Way = 'free'): Result => ({
  at,
  body: {
    kind: 'scenario',
    run: 'r',
    scenario: 's',
    title: 'S',
    trade: 'gas',
    traps,
    way,
    end,
    minutes: 10,
    missed: [],
  },
});
const of = (results: Result[], trap: Trap = 'balance') => progressOf(results).find((p) => p.trap === trap)!;

test('nothing met: nothing mastered, nothing due, and every trap is there', () => {
  expect(progressOf([])).toHaveLength(Object.keys(TRAPS).length);
  expect(of([])).toEqual({ trap: 'balance', met: 0, mastered: false, last: null, due: null });
});
test('mastered once comes again later than missed once; mastered again later still', () => {
  const once = of([result(0, 'mastered')]);
  const missed = of([result(0, 'wrong')]);
  expect([once.mastered, missed.mastered]).toEqual([true, false]);
  expect(once.due! > missed.due!).toBe(true);
  const twice = of([result(0, 'mastered'), result(once.due!, 'mastered')]);
  expect(twice.due! - once.due!).toBeGreaterThan(once.due!);
});
test('what was mastered and is missed later is mastered no more; a guided run never masters', () => {
  expect(of([result(0, 'mastered'), result(DAY, 'lucky')]).mastered).toBe(false);
  expect(of([result(0, 'mastered', ['balance'], 'guided')])).toMatchObject({ met: 1, mastered: false });
});
test('what was left unfinished says nothing of what is remembered', () => {
  expect(of([result(0, 'unfinished')])).toMatchObject({ met: 1, due: null });
});
test('the order in which results come does not matter, only their moments', () => {
  const ends = fc.constantFrom(...(Object.keys(ENDS) as End[]));
  fc.assert(
    fc.property(fc.array(fc.tuple(fc.integer({ min: 0, max: 400 }), ends), { maxLength: 12 }), (list) => {
      const results = list.map(([day, end], i) => result(day * DAY + i, end));
      expect(progressOf([...results].reverse())).toEqual(progressOf(results));
      for (const p of progressOf(results)) expect(p.due === null || p.due > 0).toBe(true);
    }),
    { numRuns: 60 },
  );
});
test('due is what is longest over, then what was never met', () => {
  const results = [result(0, 'wrong', ['air']), result(DAY, 'wrong', ['gauge'])];
  const order = dueNow(progressOf(results), 400 * DAY);
  expect(order.slice(0, 2)).toEqual(['air', 'gauge']);
  expect(order).toHaveLength(Object.keys(TRAPS).length);
});
test('the case of a day is short, trains what is due, and is the same all day', () => {
  const cards = [
    { id: 'long', traps: ['air'] as Trap[], minutes: 90 },
    { id: 'air', traps: ['air'] as Trap[], minutes: 10 },
    { id: 'gauge', traps: ['gauge'] as Trap[], minutes: 10 },
  ];
  const progress = progressOf([result(0, 'wrong', ['air']), result(399 * DAY, 'mastered', ['gauge'])]);
  expect(scenarioOfDay(cards, progress, 400)?.id).toBe('air');
  expect(scenarioOfDay(cards, progress, 400)).toBe(scenarioOfDay(cards, progress, 400));
  expect(scenarioOfDay([], progress, 400)).toBeNull();
});
