import { deskLine } from '@/core/desk';
import { convert, UNITS } from '@/core/quantity/unit';
import { figureQuestion, PAIRS, WORKED } from './figure';
import { marked } from './question';

const many = Array.from({ length: 400 }, (_, seed) => figureQuestion(seed));
test('every line there is to work is asked, and units too; each with its source and a figure that is one', () => {
  const titles = new Set(many.map((p) => p.question.title));
  for (const id of WORKED) expect([id, titles.has(deskLine(id)!.title)]).toEqual([id, true]);
  expect(titles).toContain('The same in another unit');
  for (const { question: q, solution: s } of many) {
    expect(Number.isFinite(s.figure!.value)).toBe(true);
    expect(s.source).not.toBe('');
    expect(q.unit).not.toBeUndefined();
  }
});
test('the same seed asks the same, another something else', () => {
  expect(figureQuestion(7)).toEqual(figureQuestion(7));
  expect(new Set(many.map((p) => JSON.stringify(p.question))).size).toBeGreaterThan(360);
});
test('a worked example by hand: 20 mbar are 8.03 inWC; within 3 % counts, beyond it does not, nothing does not', () => {
  const posed = {
    ...many[0]!,
    solution: { ...many[0]!.solution, figure: { value: 8.029, text: '8.03 inWC' } },
  };
  expect(marked(posed, { figure: 8.03 }).right).toBe(true);
  expect(marked(posed, { figure: 8.029 * 1.03 }).right).toBe(true);
  expect(marked(posed, { figure: 8.029 * 1.031 }).right).toBe(false);
  expect(marked(posed, {}).right).toBe(false);
  // a minus that was forgotten is another figure
  expect(marked(posed, { figure: -8.03 }).right).toBe(false);
});
test('each pair of units measures the same, and there is a way back', () => {
  for (const [from, to, size] of PAIRS) {
    expect([from, UNITS[to].dimension]).toEqual([from, UNITS[from].dimension]);
    expect(convert(convert(size, from, to), to, from)).toBeCloseTo(size, 9);
  }
  // handbook figures: 1 psi is 27.7 inWC, 500 micron are 66.7 Pa
  expect(convert(1, 'psi', 'inWC')).toBeCloseTo(27.68, 2);
  expect(convert(500, 'micron', 'Pa(abs)')).toBeCloseTo(66.66, 2);
});
