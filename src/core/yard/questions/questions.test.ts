// @further every question that the scenarios can ask
/** Questions about tests that were conducted: what counts as right follows from the rule and from the truth of the world. */
import { hold, plan as bakeryPlan, play, upTo } from '@/core/testing/bakery';
import { shelf } from '@/core/testing/yard';
import { WORDS } from '@/core/verdict/words';
import { reduce } from '@/core/run/reduce';
import { verdictOf } from '@/core/verdict/verdict';
import { conducted } from './conducted';
import { Pick } from './pick';
import { type Answer, marked, type Posed } from './question';
import { CANNOT, traceQuestion } from './trace';
import { verdictQuestion } from './verdict';

const SHELF = shelf();
const drawn = (seed: number, own: boolean) => conducted(SHELF, new Pick(seed), own);
const rightAnswer = ({ solution: s }: Posed): Answer => ({ choice: s.choice![0]!, reason: s.reason![0]! });

describe('which verdict, and why', () => {
  const asked = Array.from({ length: 30 }, (_, i) => i * 7).flatMap((seed) => {
    const c = drawn(seed, true);
    const posed = c && verdictQuestion(c.session.plan, c.session.events, seed, c.scenario.traps);
    return posed ? [{ posed, c }] : [];
  });
  test('most conducts can be asked about, by several verdicts and trades', () => {
    expect(asked.length).toBeGreaterThan(18);
    expect(new Set(asked.map(({ posed }) => posed.solution.choice![0])).size).toBeGreaterThan(3);
    expect(new Set(asked.map(({ posed }) => posed.question.trade)).size).toBeGreaterThan(3);
  });
  test('the verdict is the rule’s; its reason is among those to choose from, each text once', () => {
    for (const { posed, c } of asked) {
      const { plan, events } = c.session;
      expect(posed.solution.choice).toEqual([verdictOf(plan, reduce(plan, events))!.word]);
      const texts = posed.question.reasons!.map((r) => r.text);
      expect(new Set(texts).size).toBe(4);
      expect(posed.question.reasons!.map((r) => r.key)).toContain(posed.solution.reason![0]);
      expect(posed.question.choices!.map((x) => x.key)).toEqual(Object.keys(WORDS));
    }
  });
  test('only verdict and reason together are right: the right word for another reason is not', () => {
    for (const { posed } of asked) {
      const right = rightAnswer(posed);
      expect(marked(posed, right)).toEqual({ choice: true, reason: true, figure: true, right: true });
      const other = posed.question.reasons!.find((r) => r.key !== right.reason)!.key;
      expect(marked(posed, { ...right, reason: other }).right).toBe(false);
      expect(marked(posed, { choice: right.choice! }).right).toBe(false);
    }
  });
  test('what is asked tells nothing of the result, nor who tested what for whom', () => {
    for (const { posed, c } of asked) {
      const { lines, facts } = posed.question;
      const text = JSON.stringify([lines, facts]);
      for (const word of Object.values(WORDS)) expect(text).not.toContain(`"${word}"`);
      for (const name of [c.session.plan.site.name, c.session.plan.site.customer, 'Hollin', 'serial'])
        expect([name, text.includes(name)]).toEqual([name, false]);
    }
  });
});

describe('read this trace', () => {
  const asked = Array.from({ length: 32 }, (_, i) => i * 5).flatMap((seed) => {
    const c = drawn(seed, false);
    const posed = c && traceQuestion(c);
    return posed ? [posed] : [];
  });
  const of = (cause: string) => asked.filter((p) => p.solution.choice![0] === cause);
  test('many conducts have a trace to ask about', () => {
    expect(asked.length).toBeGreaterThan(7);
    expect(new Set(asked.map((p) => p.solution.choice![0])).size).toBeGreaterThan(2);
  });
  test('law: a leak falls, a valve that passes rises, and what stands still does not move by what counts', () => {
    const change = ({ question: { trace } }: Posed) => trace!.points.at(-1)!.p - trace!.points[0]!.p;
    for (const p of of('leak')) expect(change(p)).toBeLessThan(0);
    for (const p of of('let-by')) expect(change(p)).toBeGreaterThan(0);
    for (const p of of('steady')) {
      const counts = p.question.facts.find((f) => f.name === 'counts as movement')!;
      // the gauge adds its own scatter and step
      expect(Math.abs(change(p))).toBeLessThan(2 * Number.parseFloat(counts.value) + 1e-9);
    }
  });
  test('a drain is read by its level, in whole millimetres: what leaks there falls', () => {
    const drains = SHELF.scenarios.filter((s) => s.trade === 'drain');
    const found = Array.from({ length: 12 }, (_, seed) =>
      conducted({ ...SHELF, scenarios: drains }, new Pick(seed), false),
    ).flatMap((c) => (c?.fault === 'leak' ? (traceQuestion(c) ?? []) : []));
    expect(found.length).toBeGreaterThan(0);
    for (const { question: q, solution } of found) {
      expect(solution.choice![0]).toBe('leak');
      const { points } = q.trace!;
      expect(points.every(({ p }) => Number.isInteger(p))).toBe(true);
      expect(points.at(-1)!.p).toBeLessThan(points[0]!.p - 1);
    }
  });
  test('that nobody can tell is right only where the analysis cannot tell either', () => {
    for (const p of asked) {
      expect(p.question.choices!.map((c) => c.key)).toContain(p.solution.choice![0]);
      expect(marked(p, { choice: CANNOT }).right).toBe(p.solution.opponent!.right === null);
    }
  });
});

test('a record of the house is asked about without the names that stand in it', () => {
  const plan = bakeryPlan();
  const events = play(plan, [
    ...upTo(['10.00', '10.00']),
    ...hold(200, '20.50', '19.90'),
    [400, 'stop', 'abandoned', 'told to'],
  ]).map((e, i) => ({ ...e, position: i + 1, received: e.at }));
  const posed = verdictQuestion(plan, events, 5, [])!;
  const text = JSON.stringify(posed.question);
  for (const name of ['Bakery', 'Millrace', 'A. Baker', 'Hollin', 'Imre', 'G-02'])
    expect([name, text.includes(name)]).toEqual([name, false]);
});
