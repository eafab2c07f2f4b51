/** The verdict of a run from those of its parts: the gravest counts, what was seen outlasts it, nothing untested is good. */
import type { Plan } from '@/core/plan/plan';
import type { RunState } from '@/core/run/state';
import { holdSteps, letBySteps, pipeSteps, planOf, run, type Step } from '@/core/testing/quarter';
import { verdictOf } from './verdict';

const plan = planOf('gas-lowpressure-extension');
const first = { ...plan, format: 1 } as Plan;
const { state: good } = run(plan, [
  ...[...letBySteps, ...holdSteps('18.50'), ...pipeSteps],
  ...[...letBySteps, ...holdSteps('20.50'), ['zero', '0'] as Step],
  ...[...letBySteps, ...holdSteps('18.50'), ...pipeSteps],
]);
const [A, B, C] = plan.procedure.parts!.map((p) => p.key) as [string, string, string];
const titles = plan.procedure.parts!.map((p) => p.title);
const smell = { what: 'smell' as const, text: '', at: 0, byName: 'I' };
/** The run with other claims of its parts; null: none. */
const of = (
  claims: Partial<Record<string, object | null>> = {},
  over: Partial<RunState> = {},
  p: Plan = plan,
) => {
  const all: Record<string, unknown> = { ...good.claims };
  for (const [key, claim] of Object.entries(claims))
    if (claim) all[key] = { ...good.claims[B], ...claim };
    else delete all[key];
  const v = verdictOf(p, { ...good, claims: all as RunState['claims'], ...over })!;
  return { ...v, words: v.parts!.map((x) => x.word), codes: v.reasons.map((r) => r.code) };
};
/** Stopped in the part in which it stood last, or in the first. */
const stopped = (reason: string, visits = good.visits) =>
  ({ ending: { at: 1, byName: 'I', by: 'stop', reason, text: '' }, visits }) as unknown as Partial<RunState>;
const inPart = (part: string) => good.visits.filter((v) => plan.procedure.stages[v.stage]?.part === part);

test('all good: the gravest of the good; sentence and reasons are those of every part', () => {
  const v = of();
  expect([v.word, v.words]).toEqual(['within-allowance', ['within-allowance', 'tight', 'within-allowance']]);
  for (const title of titles) expect(v.sentence).toContain(`${title}: `);
  expect(v.sentence).toMatch(/\(.*[^.]\)\./); // a part's sentence stands in brackets without its stop
  expect(v.sentence).not.toMatch(/\.\)/);
  expect(v.codes).toEqual(expect.arrayContaining(['allowance', 'nil']));
});
test('one Not tight makes the run Not tight; a Void before it takes the good ones after it along, never a loss', () => {
  expect(of({ [B]: { finding: 'not-tight', because: 'It fell.' } }).word).toBe('not-tight');
  const broken = of({ [A]: { finding: 'void', because: 'Wrong.' } });
  expect([broken.word, broken.words]).toEqual(['void', ['void', 'void', 'void']]);
  expect(broken.parts![1]!.sentence).toBe(
    `Void, because ${titles[0]!.toLowerCase()} before it has no result.`,
  );
  const lost = of({ [A]: { finding: 'void' }, [C]: { finding: 'not-tight', because: 'It fell.' } });
  expect([lost.word, lost.words]).toEqual(['not-tight', ['void', 'void', 'not-tight']]);
  // a record of the first format kept the loss out
  expect(of({ [A]: { finding: 'void' }, [C]: { finding: 'not-tight' } }, {}, first).words[2]).toBe('void');
});
test('the graver of two that are not good; an undecided one leaves no good result', () => {
  expect(of({ [B]: { finding: 'inconclusive' } }).word).toBe('inconclusive');
  expect(of({ [A]: { finding: 'refer' }, [B]: { finding: 'not-tight', because: 'x' } }).word).toBe(
    'not-tight',
  );
});
test('a part that was never entered leaves the run without a result, however good the others', () => {
  const short = of({ [C]: null }, { visits: [...inPart(A), ...inPart(B)] });
  expect(short.parts![2]).toEqual({
    key: C,
    title: titles[2],
    word: null,
    label: 'Not tested',
    sentence: '',
  });
  expect(short.word).toBe('void');
  expect(short.sentence).toContain(`${titles[2]}: Not tested.`);
  // a leak that was found is one all the same
  expect(of({ [A]: { finding: 'not-tight', because: 'x' } }, { visits: inPart(A) }).word).toBe('not-tight');
});
test('a part that claims nothing says what its last judged stage said', () => {
  const v = of({ [A]: null });
  const part = v.parts![0]!;
  expect([part.word, part.label.length > 0, part.sentence.length > 0]).toEqual([null, true, true]);
  expect(v.word).toBe('within-allowance');
});
test('the run as a whole broken: Void with its reason before the parts', () => {
  const v = of({ '': { finding: 'void', stage: 'zero-after', because: 'Off zero.' } });
  expect([v.word, v.codes[0], v.reasons[0]!.source]).toEqual([
    'void',
    'void-zero-after',
    plan.procedure.title,
  ]);
  expect(v.sentence).toMatch(/^Off zero\. /);
  const silent = of({ '': { finding: 'void', stage: 'zero-after', because: undefined } });
  expect(silent.reasons[0]!.text).toBe('No result.');
});
test('smell makes it Not tight whatever the parts came to, and says so first; the first format kept its word', () => {
  const v = of({ [A]: { finding: 'void' } }, { observations: [smell] });
  expect([v.word, v.codes[0]]).toEqual(['not-tight', 'smell']);
  expect(v.sentence).toMatch(/^Gas was smelt/);
  expect(of({ [A]: { finding: 'void' } }, { observations: [smell] }, first).word).toBe('void');
});
describe('stopped', () => {
  test('in the last part: what was judged before stands, the part it stood in has no result', () => {
    const v = of({ [C]: null }, stopped('mistake'));
    expect([v.word, v.words]).toEqual(['void', ['within-allowance', 'tight', 'void']]);
    expect(v.parts![2]!.sentence).toMatch(/mistake in the procedure: no result/);
    expect(v.codes).toContain('stopped');
  });
  test('for smell: Not tight, by the smell', () => {
    const v = of({ [C]: null }, stopped('smell'));
    expect([v.word, v.words[2]]).toEqual(['not-tight', 'not-tight']);
    expect(v.codes).toContain('smell');
  });
  test('after a part was judged Not tight: it stays so, with the measurement of that part', () => {
    const v = of(
      { [A]: { finding: 'not-tight', because: 'It fell.' }, [B]: null, [C]: null },
      {
        ...stopped('abandoned', [...inPart(A), ...inPart(B)]),
      },
    );
    expect([v.word, v.words]).toEqual(['not-tight', ['not-tight', 'not-tight', null]]);
    expect(v.sentence).toContain('It fell.');
  });
});
test('limited use and plain words are those of the part that decides', () => {
  const v = of({ [B]: { finding: 'not-tight', because: 'x', use: 'limited', plain: 'Only so.' } });
  expect([v.use, v.label]).toEqual(['limited', 'Not tight: limited use until repaired']);
  expect(v.plain).toMatch(/^Only so\./);
  const not = of({ [B]: { finding: 'tight', use: 'limited' } });
  expect(not.label).not.toMatch(/limited/);
});
test('what was lost is said with its interval, in the words of the trade', () => {
  const v = of();
  expect(v.plain).toMatch(/^The appliances let a small amount of gas by/);
  expect(v.plain).toMatch(/the loss is about [\d.]+ litres an hour \(95 %: /);
  expect(of({}, {}, first).plain).not.toMatch(/95 %/);
  const water = { ...plan, system: { ...plan.system, medium: 'water' } };
  expect(of({}, {}, water).plain).toMatch(/^It lost a little water/);
  const bad = { [B]: { finding: 'not-tight', because: 'x' } };
  expect(of(bad, {}, water).plain).toMatch(/^It loses water/);
  expect(of({ [B]: { finding: 'refer', because: 'x' } }, {}, water).plain).toMatch(/^The readings are sound/);
});
