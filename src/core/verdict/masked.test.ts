import { parseWithUnit as q } from '@/core/quantity/exact';
import { reduce } from '@/core/run/reduce';
import type { Hold, RunState } from '@/core/run/state';
import { hold, plan, play, upTo } from '@/core/testing/bakery';
import { maskedIn, maskedWords } from './masked';
import { verdictOf } from './verdict';

/** The staged test ended Tight, then a second let-by hold at a lower pressure put beside the first. */
function run(
  second: { start: string; end: string; minutes?: number },
  warmth: readonly [string, string] | null,
) {
  const p = plan();
  const state = reduce(
    p,
    play(p, [...upTo(['9.10', '9.10']), ...hold(200, '20.50', '20.50'), [500, 'zero', '0.00']]),
  );
  const visit = state.visits.find((v) => v.holds.some((h) => h.role === 'let-by'))!;
  const first = visit.holds[0]!;
  const temperature = warmth ? { start: q(warmth[0]), end: q(warmth[1]) } : {};
  const minutes = second.minutes ?? 5;
  const beside = {
    ...first,
    temperature,
    start: { ...first.start, figure: q(second.start) },
    end: { ...first.end!, figure: q(second.end) },
    judgement: { ...first.judgement!, elapsedMs: minutes * 60_000 },
  } as Hold;
  const longer = {
    ...first,
    temperature,
    judgement: { ...first.judgement!, elapsedMs: minutes * 60_000 },
  } as Hold;
  const changed: RunState = {
    ...state,
    visits: state.visits.map((v) => (v === visit ? { ...v, holds: [longer, beside] } : v)),
  };
  return { p, state: changed, word: verdictOf(p, changed)!.word };
}
// 19.8 l: at 9.10 mbar what comes in goes out, at 4.50 mbar it rises by 1.8 mbar in 5 min
const HIDES = { start: '4.50 mbar', end: '6.30 mbar' };

test('two let-by slopes that show a leak above the one that matters take the Tight away', () => {
  const { p, state, word } = run(HIDES, ['19.0 C', '19.0 C']);
  const found = maskedIn(p, state, null)!;
  expect(found.counts).toBe(true);
  expect(found.leak.value).toBeGreaterThan(found.matters);
  // 0.25 mbar in a minute in 19.0 l, from 5.4 mbar, where the newest was held, to the full 21
  expect(found.passes! * 3.6e6).toBeCloseTo(((19.0 * 0.25 * 60) / 1013.25) * (21 / (21 - 5.4)), 2);
  expect(word).toBe('inconclusive');
  expect(verdictOf(p, state)!.sentence).toMatch(/hides; the leak that matters here is 1(\.0+)? l\/h/);
});
test('not where nobody read the temperature, or it drifted by more than 0.02 K a minute', () => {
  expect(run(HIDES, null).word).toBe('tight');
  expect(run(HIDES, ['19.0 C', '19.2 C']).word).toBe('tight');
  expect(run(HIDES, ['19.0 C', '19.05 C']).word).toBe('inconclusive');
});
test('not where the second let-by stood still too: neither passes', () => {
  const { p, state, word } = run({ start: '4.50 mbar', end: '4.50 mbar' }, ['19.0 C', '19.0 C']);
  expect(word).toBe('tight');
  expect(maskedWords(maskedIn(p, state, null))).toBeNull();
});
test('let-by and tightness together are told, and take nothing away', () => {
  const p = plan();
  const state = reduce(
    p,
    play(p, [...upTo(['9.10', '9.10']), ...hold(200, '20.50', '20.50'), [500, 'zero', '0.00']]),
  );
  const found = maskedIn(p, state, null)!;
  expect(found.counts).toBe(false);
  expect(found.pressures.map((x) => Math.round(x / 100))).toEqual([9, 21]);
  expect(maskedWords(found)).toBeNull();
});
test('records of the first format are judged as they were', () => {
  const { p, state } = run(HIDES, ['19.0 C', '19.0 C']);
  expect(verdictOf({ ...p, format: 1 as const }, state)!.word).toBe('tight');
});
