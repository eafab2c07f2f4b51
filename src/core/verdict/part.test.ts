import { SEPARATED } from '@/core/roles/fields';
/** The general rules over a claim: each may refuse what is good, in their order; none makes anything good. */
import { allowanceOf } from '@/core/plan/limits';
import { type Plan } from '@/core/plan/plan';
import { parseWithUnit as q } from '@/core/quantity/exact';
import { reduce } from '@/core/run/reduce';
import type { JointState, RunState, Unheld } from '@/core/run/state';
import { hold, plan, play, upTo } from '@/core/testing/bakery';
import { decidingHold, footing, pipeworkHold, separationWords } from './holds';
import { judgePart, signOfLeak } from './part';
import { notTightSentence, unheldSentence } from './sentences';
import { verdictOf } from './verdict';

const p = plan();
const good = reduce(
  p,
  play(p, [...upTo(['9.10', '9.10']), ...hold(200, '20.50', '20.50'), [450, 'zero', '0.00']]),
);
const joint = (
  name: string,
  found: 'none' | 'foam' | 'growing' | null,
  over: Partial<JointState> = {},
): JointState => ({
  id: name,
  name,
  place: '',
  looks: found ? [{ found, at: 0, byName: 'I' }] : [],
  ...over,
});
const smell = { what: 'smell' as const, text: '', at: 0, byName: 'I' };
const judge = (over: Partial<RunState>, q: Plan = p) => {
  const v = judgePart(q, { ...good, ...over }, null);
  return [v.word, v.reasons.map((r) => r.code).join(' '), v.sentence] as const;
};
const claim = (over: object) => ({ claims: { '': { ...good.claims['']!, ...over } } });

test('as it was run it is Tight by what can be seen', () => {
  expect(judge({}).slice(0, 2)).toEqual(['tight', 'nil']);
});
describe('signs of a leak', () => {
  const sign = (over: Partial<RunState>) => signOfLeak({ ...good, ...over });
  test('smell before bubbles before drips; a sound or a flame is none; own kit, a boundary and foam are none', () => {
    expect(sign({})).toBeNull();
    expect(sign({ observations: [{ ...smell, what: 'sound' }] })).toBeNull();
    expect(
      sign({ joints: [joint('A', 'growing', { whose: 'own' }), joint('B', 'foam'), joint('C', null)] }),
    ).toBeNull();
    const bubbling = { joints: [joint('A', 'growing'), joint('B', 'none'), joint('C', 'growing')] };
    expect(sign(bubbling)).toEqual({ code: 'bubbles', text: 'Leak fluid showed growing bubbles: A, C.' });
    expect(sign({ ...bubbling, observations: [smell] })?.code).toBe('smell');
    const dripping = [
      { ...good.visits[0]!, pumped: [{ look: { joints: 'drips', where: 'the elbow' } }] },
    ] as never;
    expect(sign({ visits: dripping })).toEqual({ code: 'drips', text: 'It drips: the elbow.' });
    expect(sign({ visits: dripping, ...bubbling })?.code).toBe('bubbles');
  });
  test('one that was mended is none any more: the newest look counts', () => {
    const looks = [
      { found: 'growing' as const, at: 0, byName: 'I' },
      { found: 'none' as const, at: 1, byName: 'I' },
    ];
    expect(sign({ joints: [joint('A', null, { looks })] })).toBeNull();
    expect(sign({ joints: [joint('A', null, { looks: [...looks].reverse() })] })?.code).toBe('bubbles');
  });
  test('any sign makes Not tight of whatever was claimed, Void too: a broken procedure does not unsmell gas', () => {
    for (const finding of ['tight', 'within-allowance', 'inconclusive', 'refer', 'void', 'pending'] as const)
      expect(judge({ observations: [smell], ...claim({ finding }) }).slice(0, 2)).toEqual([
        'not-tight',
        'smell',
      ]);
    expect(judge({ observations: [smell], claims: {} }).slice(0, 2)).toEqual(['not-tight', 'smell']);
    // what was measured to be lost says more than the smell alone
    expect(
      judge({ observations: [smell], ...claim({ finding: 'not-tight', because: 'It fell.' }) })[1],
    ).not.toMatch(/smell/);
    // a record of the first format keeps its word
    const first = { ...p, format: 1 } as Plan;
    expect(judge({ observations: [smell], ...claim({ finding: 'void' }) }, first)[0]).toBe('void');
  });
});
describe('what refuses a good claim', () => {
  test('bubbles on own kit or a boundary: no result, and the names are said', () => {
    const [word, code, text] = judge({
      joints: [joint('Hose', 'growing', { whose: 'own' }), joint('Valve', 'growing', { whose: 'boundary' })],
    });
    expect([word, code]).toEqual(['void', 'own-kit-bubbles']);
    expect(text).toContain('Hose, Valve');
  });
  test('no claim, a pending one, one that was broken: no result', () => {
    expect(judge({ claims: {} }).slice(0, 2)).toEqual(['void', 'nothing-judged']);
    expect(judge(claim({ finding: 'pending' })).slice(0, 2)).toEqual(['void', 'pipework-not-tested']);
    const broken = judge(claim({ finding: 'void', because: 'A hand was on it.', stage: 'hold' }));
    expect(broken).toEqual(['void', 'void-hold', 'A hand was on it.']);
    expect(judge(claim({ finding: 'void', because: undefined }))[2]).toMatch(/procedure was broken/);
  });
  test('refer says who and why', () => {
    expect(judge(claim({ finding: 'refer', because: 'The supplier decides.', outcome: 'x' }))).toEqual([
      'refer',
      'refer-x',
      'The supplier decides.',
    ]);
    expect(judge(claim({ finding: 'refer', because: undefined }))[2]).toMatch(/Somebody else/);
  });
  test('the let-by: missing, skipped, fell, suspected; separated is named by its reason', () => {
    const letBy = good.visits.find((v) => v.holds[0]?.role === 'let-by')!;
    const rest = good.visits.filter((v) => v !== letBy);
    const outcome = (o: string) =>
      [
        ...rest,
        {
          ...letBy,
          holds: [{ ...letBy.holds[0]!, judgement: { ...letBy.holds[0]!.judgement!, outcome: o } }],
        },
      ].sort((a, b) => a.ordinal - b.ordinal);
    const skipped = (sound: boolean) =>
      [
        ...rest,
        { ...letBy, holds: [], outcome: 'skipped', skipped: { reason: 'Blank flange in', text: 't', sound } },
      ].sort((a, b) => a.ordinal - b.ordinal);
    const claimAt = (visits: RunState['visits']) => ({
      visits,
      claims: {
        '': { ...good.claims['']!, visit: visits.findIndex((v) => v.holds[0]?.role === 'tightness') + 1 },
      },
    });
    const at = (visits: RunState['visits']) => judge(claimAt(visits));
    expect(at(rest).slice(0, 2)).toEqual(['void', 'let-by-missing']);
    expect(at(rest)[2]).not.toContain('skipped');
    expect(at(skipped(false)).slice(0, 2)).toEqual(['void', 'let-by-missing']);
    expect(at(skipped(false))[2]).toContain('skipped for another reason');
    expect(at(outcome('fell')).slice(0, 2)).toEqual(['void', 'let-by-not-proved']);
    expect(at(outcome('suspected')).slice(0, 2)).toEqual(['void', 'let-by-suspected']);
    expect(at(outcome('proved'))[0]).toBe('tight');
    expect(at(skipped(true))[0]).toBe('tight');
    expect(at(skipped(true))[2]).toContain('blank flange in');
    expect([footing(p, { ...good, visits: rest }), footing(p, { ...good, visits: skipped(true) })]).toEqual([
      'missing',
      'separated',
    ]);
    const cut = 'the section was physically separated from the supply';
    expect(separationWords(p, { ...good, visits: skipped(true) })).toBe('blank flange in');
    const keyed = skipped(true).map((v) =>
      v.skipped ? { ...v, skipped: { ...v.skipped, key: SEPARATED } } : v,
    );
    expect(separationWords(p, { ...good, visits: keyed })).toBe(cut);
    expect(separationWords(p, { ...good, visits: skipped(false) })).toBe(cut);
    expect(separationWords(p, good)).toBe(cut);
    // what was kept but answers nothing stays undecided where the let-by is merely missing, not where it was skipped
    const inconclusive = (visits: RunState['visits']) =>
      judge({
        ...claimAt(visits),
        claims: { '': { ...claimAt(visits).claims[''], finding: 'inconclusive' } },
      } as never)[0];
    expect([inconclusive(rest), inconclusive(skipped(false))]).toEqual(['inconclusive', 'void']);
  });
  test('what spoiled it, and a joint not cleared: undecided; a shortened hold is said', () => {
    expect(judge({ spoiled: ['One.', 'Two.'] })).toEqual(['inconclusive', 'nil spoiled', 'One. Two.']);
    expect(judge({ joints: [joint('A', null), joint('B', 'foam'), joint('C', 'none')] }).slice(0, 2)).toEqual(
      ['inconclusive', 'nil joints-open'],
    );
    expect(judge({ joints: [joint('A', null), joint('B', 'foam')] })[2]).toContain('A, B');
    const first = { ...p, format: 1 as const };
    expect(judge({ joints: [joint('A', null)], spoiled: ['One.'] }, first).slice(0, 2)).toEqual([
      'tight',
      'nil joints-open',
    ]);
    const visits = good.visits.map((v) =>
      v.holds[0]?.role === 'tightness'
        ? { ...v, holds: [{ ...v.holds[0], short: 'rain', minutes: 9, rule: 2 }] }
        : v,
    );
    const [word, codes] = judge({ visits });
    expect([word, codes]).toEqual(['tight', 'nil shortened']);
  });
});
describe('what goes with a verdict', () => {
  const said = { finding: 'tight' as const, use: 'limited' as const, plain: 'Words of the rule.' };
  const whole = (over: Partial<RunState>, plan: Plan = p) => judgePart(plan, { ...good, ...over }, null);
  test('how it may be left, and the words for the customer, go with a claim that stands and leave with one refused', () => {
    expect(whole(claim(said))).toMatchObject({ word: 'tight', use: 'limited', plain: 'Words of the rule.' });
    const refused = whole({ ...claim(said), spoiled: ['x'] });
    expect([refused.word, refused.use, refused.plain]).toEqual(['inconclusive', undefined, undefined]);
    // records of the first format kept the use
    const first = whole(
      { ...claim(said), claims: claim(said).claims, observations: [smell] },
      { ...p, format: 1 },
    );
    expect([first.word, first.use, first.plain]).toEqual(['not-tight', 'limited', undefined]);
  });
  test('a dial that stood still is Tight by its watch, for as long as it was watched', () => {
    const dial = { startedAt: 60_000, endedAt: 660_000, moved: false, mark: '3' };
    const visits = (over: object) =>
      good.visits.map((v, i) => ({
        ...v,
        holds: [],
        ...(i === 4 ? { dial: { ...dial, ...over } } : {}),
      })) as never;
    const proved = { ...p, procedure: { ...p.procedure, boundary: 'separated' as const } };
    const watch = (over: object, finding: 'tight' | 'within-allowance' = 'tight', plan: Plan = proved) =>
      judge({ visits: visits(over), ...claim({ finding }) }, plan);
    expect(watch({})[2]).toMatch(/stood still at its mark for 10 min 00 s/);
    expect(watch({ watched: 300_000 })[2]).toMatch(/for 5 min 00 s/);
    expect(watch({ moved: true })[0]).toBe('void');
    expect(watch({}, 'within-allowance')[0]).toBe('void');
    expect(watch({}, 'tight', p)[0]).toBe('void'); // no let-by was made
  });
  test('within the allowance only where the pipework alone was shown nil', () => {
    const within = { ...claim({ finding: 'within-allowance', outcome: 'within' }) };
    expect(judge(within).slice(0, 2)).toEqual(['void', 'pipework-not-tested']);
  });
  test('too much trapped air, and a pressure a part capped, leave no good result', () => {
    const pumped = (percents: number[]) =>
      good.visits.map((v, i) =>
        i === 1 ? { ...v, outcome: 'air', pumped: percents.map((percent) => ({ air: { percent } })) } : v,
      ) as never;
    expect(judge({ visits: pumped([4, 14.2, 6]) })).toEqual([
      'inconclusive',
      'nil air',
      expect.stringContaining('trapped air is 14 % of its volume'),
    ]);
    expect(judge({ visits: pumped([9.96]) })[2]).toContain('trapped air is 10.0 %');
    expect(judge({ visits: pumped([10]) })[2]).toContain('trapped air is 10 %');
    const fine = good.visits.map((v, i) =>
      i === 1 ? { ...v, outcome: 'done', pumped: [{ air: { percent: 3 } }] } : v,
    );
    expect(judge({ visits: fine as never })[0]).toBe('tight');
    expect(judge({ visits: pumped([14]) }, { ...p, format: 1 })[0]).toBe('tight');
  });
});
describe('sentences', () => {
  const stood = (over: Partial<Unheld>): Unheld => ({
    way: 'falls',
    reading: { figure: q('15.00 mbar') } as never,
    low: q('20 mbar'),
    high: q('21 mbar'),
    minutes: 2,
    explained: 0,
    ...over,
  });
  test('a pressure that would not stand, each way', () => {
    expect(unheldSentence(stood({}))).toBe(
      'It kept falling with the source closed: it stood at 15.00 mbar (band 20 mbar to 21 mbar) after 2 min 00 s.',
    );
    expect(unheldSentence(stood({ explained: 15 }))).toContain(
      'could explain a fall here for 15 min at most',
    );
    expect(unheldSentence(stood({ minutes: 0 }))).toBe(
      'The band could not be reached or held with the source closed: it stood at 15.00 mbar (band 20 mbar to 21 mbar).',
    );
    expect(unheldSentence(stood({ way: 'rises', low: null }))).toBe(
      'It kept rising: it stood at 15.00 mbar after 2 min 00 s.',
    );
    expect(unheldSentence(stood({ way: 'rises', minutes: 0 }))).not.toContain('after');
    expect(unheldSentence(stood({ way: 'low', high: null }))).toBe(
      'It stayed low with the source open: it stood at 15.00 mbar.',
    );
  });
  test('a drop: against the table, against a condition that was not met, against nothing', () => {
    const fell = reduce(p, play(p, [...upTo(['9.10', '9.10']), ...hold(200, '20.50', '19.50')]));
    const at = decidingHold(p, fell)!.hold;
    const say = (state: RunState, permitted: Parameters<typeof notTightSentence>[3]) =>
      notTightSentence(p, state, at, permitted, null);
    expect(say(fell, { value: q('4 mbar'), broken: 'above', source: '' })).toMatch(
      /^Drop of 1\.00 mbar in 2 min 01 s; the table permits 4 mbar \(row: .+\)\.$/,
    );
    expect(say({ ...fell, denied: [allowanceOf(p).conditions[0]!.key] }, null)).toMatch(/condition not met/);
    expect(say(fell, null)).toMatch(/no drop is permitted \(.+\); 0\.25 mbar or more counts as movement/);
    expect(notTightSentence(p, fell, null, null, null)).toBe('The hold moved beyond what the rule permits.');
    expect(pipeworkHold(p, fell, null)).toBeNull();
  });
});
describe('stopped', () => {
  const stop = (
    reason: 'smell' | 'voltage' | 'movement' | 'mistake' | 'abandoned',
    over: Partial<RunState> = {},
    text = '',
  ) => verdictOf(p, { ...good, claims: {}, ending: { at: 0, by: 'stop', reason, text }, ...over })!;
  test('for smell it is Not tight, for anything else no result, and the reason is said', () => {
    expect(stop('smell')).toMatchObject({ word: 'not-tight' });
    for (const [reason, words] of [
      ['voltage', /voltage/],
      ['movement', /moved/],
      ['mistake', /mistake/],
      ['abandoned', /abandoned/],
    ] as const) {
      expect(stop(reason).word).toBe('void');
      expect(stop(reason).sentence).toMatch(words);
    }
    expect(stop('mistake', {}, 'wrong hose').sentence).toContain('(wrong hose)');
  });
  test('a sign of a leak, or a Not tight that was judged before, stands whoever stops it and why', () => {
    for (const reason of ['voltage', 'mistake', 'abandoned'] as const) {
      expect(stop(reason, { joints: [joint('A', 'growing')] }).word).toBe('not-tight');
      const claims = { '': { ...good.claims['']!, finding: 'not-tight' as const, because: 'It fell.' } };
      expect(stop(reason, { claims }).sentence).toMatch(/^It fell\. The run was then/);
    }
  });
});
