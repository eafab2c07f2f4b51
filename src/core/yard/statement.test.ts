import type { Result } from './progress';
import { IS_NOT, statementLines, statementNumber, statementOf } from './statement';

const WHO = { organisation: 'Hollin & Daughters', name: 'Bea', by: 'Imre' };
const scenario = (at: number, id: string, end: string, way = 'free', traps = ['balance']): Result =>
  ({
    at,
    body: {
      kind: 'scenario',
      run: 'r',
      scenario: id,
      title: `T ${id}`,
      trade: 'gas',
      traps,
      way,
      end,
      minutes: 5,
      missed: [],
    },
  }) as unknown as Result;
const question = (at: number, right: boolean): Result =>
  ({
    at,
    body: { kind: 'question', about: 'figure', question: 'q', trade: 'gas', traps: [], right },
  }) as unknown as Result;
const day = (ms: number) => `day ${ms}`;

test('nobody has practised: nothing is stated, and what it is not stands all the same', () => {
  const s = statementOf(WHO, [], 10);
  expect(s).toMatchObject({ from: null, traps: [], scenarios: [] });
  expect(statementLines(s, day)).toEqual([]);
  expect(IS_NOT).toMatch(/no certificate, no licence/);
});
test('the last of each scenario counts, in whatever order results come; what is later than its day is left out', () => {
  const results = [
    scenario(3, 'a', 'mastered'),
    scenario(1, 'a', 'wrong'),
    scenario(2, 'b', 'lucky'),
    scenario(9, 'a', 'wrong'),
  ];
  const s = statementOf(WHO, results, 5);
  expect(s.from).toBe(1);
  expect(s.scenarios.map((x) => [x.title, x.end, x.times])).toEqual([
    ['T a', 'mastered', 2],
    ['T b', 'lucky', 1],
  ]);
  expect(statementOf(WHO, results.reverse(), 5)).toEqual(s);
});
test('guided, or taken up half way, masters nothing, and the paper says which it was', () => {
  for (const way of ['guided', 'replay']) {
    const s = statementOf(WHO, [scenario(1, 'a', 'mastered', way)], 5);
    expect(s.traps).toEqual([{ trap: 'balance', met: 1, mastered: false }]);
    const text = JSON.stringify(statementLines(s, day));
    expect(text).toMatch(/Met, not mastered/);
    expect(text).toMatch(way === 'guided' ? /, guided/ : /taken up half way/);
  }
});
test('questions stand with how many were right; its numbers are a series of their own', () => {
  const s = statementOf(WHO, [question(1, true), question(2, false)], 5);
  expect(statementLines(s, day)).toEqual([
    { heading: 'Short questions', lines: ['Figures and units: 1 of 2 right'] },
  ]);
  expect(statementNumber(7)).toBe('SP-00007');
});
