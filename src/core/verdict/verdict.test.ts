import { loadPack } from '@/core/pack/load';
import { allowanceOf } from '@/core/plan/limits';
import type { Plan } from '@/core/plan/plan';
import { makePlan } from '@/core/plan/plan';
import { parseWithUnit as q } from '@/core/quantity/exact';
import { reduce } from '@/core/run/reduce';
import type { ScriptLine } from '@/core/run/script';
import { bakery, coarse, gauge, hold, pack, plan, play, upTo } from '@/core/testing/bakery';
import { verdictOf } from './verdict';

const judge = (p: Plan, lines: ScriptLine[]) => verdictOf(p, reduce(p, play(p, lines)))!;
const proved = upTo(['9.10', '9.10']);
const afterZero = (at: number): ScriptLine => [at, 'zero', '0.00'];
/** Pipework alone from `from`, then the naming of the appliance skipped, then the zero. */
const pipework = (from: number, start: string, end: string): ScriptLine[] => [
  [from, 'checks'],
  ...hold(from + 5, start, end),
];

describe('worked examples', () => {
  test('20.35 to 20.35 mbar with let-by proved is Tight, and the sentence says what would have counted', () => {
    const v = judge(plan(), [...proved, ...hold(200, '20.35', '20.35'), afterZero(500)]);
    expect(v.word).toBe('tight');
    expect(v.sentence).toContain('20.35 mbar to 20.35 mbar');
    expect(v.sentence).toContain('0.25 mbar or more');
    expect(v.reasons[0]!.source).toMatch(/Perceptible movement/);
    expect(v.adequacy!.figure.value).toBeGreaterThan(0);
  });
  test.each([
    ['28.0 mm', '4 mbar'],
    ['28.1 mm', '2.5 mbar'],
    ['35 mm', '2.5 mbar'],
  ])('largest pipe %s permits %s on a G4', (size, drop) => {
    const pipes = [{ ...bakery().pipes[0]!, size: q(size) }];
    expect(allowanceOf(plan({ system: { pipes } })).limit!.value).toEqual(q(drop));
  });
  test('a drop of exactly 4.00 mbar meets the table, and pipework nil makes it Tight within allowance', () => {
    const v = judge(plan(), [
      ...proved,
      ...hold(200, '20.50', '16.50'),
      ...pipework(400, '20.50', '20.50'),
      [700, 'skip', '', 'customer in a hurry'],
      afterZero(710),
    ]);
    expect(v.word).toBe('within-allowance');
    expect(v.sentence).toContain('4.00 mbar');
    expect(v.sentence).toContain('diaphragm U6 / G4');
    expect(v.sentence).toContain('appliances connected');
    expect(v.leakRate!.value).toBeGreaterThan(0);
  });
  test('bubbles on a joint are said before the drop that led to them', () => {
    const v = judge(plan(), [
      ...proved,
      ...hold(200, '20.50', '12.00'),
      [400, 'observe', 'joint'],
      afterZero(410),
    ]);
    expect(v.reasons.map((r) => r.code)).toEqual(['not-tight-joint', 'beyond']);
    expect(v.sentence).toMatch(/^Leak fluid showed bubbles .* Drop of 8.50 mbar/);
  });
  test('4.01 mbar breaks it: Not tight', () => {
    const v = judge(plan(), [
      ...proved,
      ...hold(200, '20.50', '16.49'),
      [400, 'observe', 'accept', 'customer waits'],
      afterZero(410),
    ]);
    expect(v.word).toBe('not-tight');
    expect(v.sentence).toContain('permits 4 mbar');
  });
  test('drop within the allowance but the pipework moves: Not tight; pipework never tested: Void', () => {
    const within = [...proved, ...hold(200, '20.50', '18.50')];
    expect(
      judge(plan(), [
        ...within,
        ...pipework(400, '20.50', '20.25'),
        [700, 'observe', 'accept', 'customer waits'],
        afterZero(710),
      ]).word,
    ).toBe('not-tight');
    expect(judge(plan(), [...within, [400, 'stop'], [405, 'reason', 'abandoned', 'called away']]).word).toBe(
      'void',
    );
  });
});

describe('let-by', () => {
  const outcome = (p: Plan, from: string, to: string, g = 'G-02') =>
    reduce(p, play(p, upTo([from, to], g))).visits.find((v) => v.holds.length)!.outcome;
  test.each([
    ['9.00', '9.24', 'proved'],
    ['9.00', '9.25', 'suspected'],
    ['9.25', '9.00', 'fell'],
    ['9.24', '9.00', 'proved'],
  ])('%s to %s is %s on a two-decimal gauge', (from, to, word) =>
    expect(outcome(plan(), from, to)).toBe(word),
  );
  test('10.1 - 9.9 on a one-decimal gauge is suspected: exact, not 0.19999', () => {
    expect(10.1 - 9.9 >= 0.2).toBe(false);
    expect(outcome(plan({ gauges: [coarse] }), '9.9', '10.1', 'G-01')).toBe('suspected');
  });
  test('the other reading of equality is selectable and stated', () => {
    expect(outcome(plan({ choices: { 'letby-equality': 'above' } }), '9.00', '9.25')).toBe('proved');
  });
  test('a fall leaves only Not tight possible', () => {
    const fell: ScriptLine[] = [...upTo(['9.50', '9.00']), [140, 'observe', 'go-on']];
    const v = judge(plan(), [...fell, ...hold(200, '20.35', '20.35'), afterZero(500)]);
    expect([v.word, v.reasons[0]!.code]).toEqual(['void', 'let-by-not-proved']);
    expect(
      judge(plan(), [
        ...fell,
        ...hold(200, '20.50', '12.00'),
        [400, 'observe', 'accept', 'customer waits'],
        afterZero(410),
      ]).word,
    ).toBe('not-tight');
  });
  test('bubbles in the valve confirm it: Void, and no tightness follows', () => {
    const v = judge(plan(), [
      ...upTo(['9.00', '9.60']),
      [140, 'checks'],
      [200, 'observe', 'bubbles'],
      [260, 'checks'],
    ]);
    expect(v.word).toBe('void');
    expect(v.sentence).toContain('Report it');
  });
  test('missing let-by is Void unless the section is physically separated', () => {
    const start: ScriptLine[] = [
      [10, 'checks'],
      [20, 'gauge', 'G-02'],
      [30, 'zero', '0'],
      [60, 'fill', '9'],
    ];
    const rest = [...hold(200, '20.35', '20.35'), afterZero(500)];
    expect(judge(plan(), [...start, [70, 'skip', 'other', 'no time'], ...rest]).reasons[0]!.code).toBe(
      'let-by-missing',
    );
    expect(judge(plan(), [...start, [70, 'skip', 'separated', 'cut and capped'], ...rest]).word).toBe(
      'tight',
    );
  });
});

describe('general rules', () => {
  test('nil for new work: 0.25 down is Not tight, 0.24 is none', () => {
    const p = plan({ case: 'new' });
    // below what 0.2 K does (0.71 mbar here) a first fall is repeated with the temperature logged; the second stands
    const logged: ScriptLine[] = hold(400, '20.50', '20.25').flatMap((l): ScriptLine[] =>
      l[1] === 'end' && l[2] === '20.25'
        ? [[l[0] - 2, 'temperature', 'start', '15.0'], [l[0] - 1, 'temperature', 'end', '15.1'], l]
        : [l],
    );
    const once = [...proved, ...hold(200, '20.50', '20.25')];
    expect(reduce(p, play(p, once)).claims['']).toMatchObject({ finding: 'inconclusive' });
    expect(
      judge(p, [...once, ...logged, [700, 'observe', 'accept', 'customer waits'], afterZero(710)]).word,
    ).toBe('not-tight');
    // as much as 0.2 K does, or more, is condemned at once
    expect(
      judge(p, [
        ...proved,
        ...hold(200, '20.50', '19.79'),
        [400, 'observe', 'accept', 'customer waits'],
        afterZero(410),
      ]).word,
    ).toBe('not-tight');
    expect(judge(p, [...proved, ...hold(200, '20.50', '20.26'), afterZero(410)]).word).toBe('tight');
  });
  test('a reported smell takes the allowance away; smell now stops the run as Not tight', () => {
    const reported = judge(plan(), [
      ...upTo(['9', '9'], 'G-02', ['smell-reported=yes']),
      ...hold(200, '20.50', '19.50'),
      [400, 'observe', 'accept', 'customer waits'],
      afterZero(410),
    ]);
    expect(reported.word).toBe('not-tight');
    expect(reported.sentence).toContain('no smell reported');
    expect(judge(plan(), [[10, 'checks', 'smell-now=yes']]).word).toBe('not-tight');
    expect(judge(plan(), [...proved, [140, 'stop'], [150, 'reason', 'smell', '']]).word).toBe('not-tight');
  });
  const logged = (lines: ScriptLine[], start: string, end: string): ScriptLine[] => {
    const at = lines[3]![0];
    return [
      ...lines.slice(0, 4),
      [at + 1, 'temperature', 'start', start],
      [at + 2, 'temperature', 'end', end],
      ...lines.slice(4),
    ];
  };
  test('a rise is never proof: repeated once with the temperature logged, then Inconclusive; a cause found is Void', () => {
    const rose: ScriptLine[] = [...proved, ...hold(200, '20.30', '20.55')];
    const again: ScriptLine[] = [...rose, [400, 'observe', 'none']];
    expect(() => judge(plan(), [...again, ...hold(410, '20.30', '20.30')])).toThrow(
      /log the pipe temperature/,
    );
    const v = judge(plan(), [
      ...again,
      ...logged(hold(410, '20.30', '20.60'), '18.0', '18.0'),
      [620, 'observe', 'none'],
      afterZero(630),
    ]);
    expect([v.word, v.reasons[0]!.text.includes('prove every live boundary')]).toEqual([
      'inconclusive',
      true,
    ]);
    expect(
      judge(plan(), [...again, ...logged(hold(410, '20.30', '20.30'), '18.0', '18.0'), afterZero(630)]).word,
    ).toBe('tight');
    expect(judge(plan(), [...rose, [400, 'observe', 'found'], afterZero(410)]).word).toBe('void');
  });
  test('raw and corrected in disagreement: settle and repeat, then Inconclusive', () => {
    const warm = (from: number) => logged(hold(from, '20.30', '20.30'), '18.0', '18.5');
    expect(judge(plan(), [...proved, ...warm(200), ...warm(420), afterZero(700)]).word).toBe('inconclusive');
  });
  test('abandoning the run gives no result, but does not take back a hold that was beyond the limit', () => {
    const given: ScriptLine[] = [
      [400, 'stop'],
      [405, 'reason', 'abandoned', 'called away'],
    ];
    expect(judge(plan(), [...proved, ...hold(200, '20.50', '20.50').slice(0, 4), ...given]).word).toBe(
      'void',
    );
    const v = judge(plan(), [...proved, ...hold(200, '20.50', '12.00'), ...given]);
    expect([v.word, v.sentence.includes('then abandoned')]).toEqual(['not-tight', true]);
  });
  test('a let-by that fell, repeated with the appliances isolated and proved, brings them back into the test', () => {
    const v = judge(plan(), [
      ...upTo(['9.50', '9.00']),
      [140, 'observe', 'isolate'],
      [150, 'checks'],
      [170, 'fill', '9.10'],
      [175, 'start', '9.10'],
      [236, 'end', '9.10'],
      [240, 'checks'],
      ...hold(260, '20.35', '20.35'),
      afterZero(500),
    ]);
    expect(v.word).toBe('tight');
    expect(v.stages.map((s) => s.word)).toContain('not proved');
  });
  test('one pass after a fail needs a second; three repeats at most; a leak on own kit resets', () => {
    const fail = hold(200, '20.50', '12.00');
    const once = [
      ...proved,
      ...fail,
      [400, 'observe', 'no-bubbles'] as ScriptLine,
      ...hold(410, '20.50', '20.50'),
    ];
    expect(reduce(plan(), play(plan(), once)).visits.some((v) => v.outcome === 'confirm')).toBe(true);
    expect(judge(plan(), [...once, ...hold(620, '20.50', '20.50'), afterZero(900)]).word).toBe('tight');
    const lines: ScriptLine[] = [...proved, ...fail];
    for (let i = 1; i <= 3; i++)
      lines.push([200 + 210 * i - 5, 'observe', 'no-bubbles'], ...hold(200 + 210 * i, '20.50', '12.00'));
    const state = reduce(plan(), play(plan(), [...lines, [1100, 'observe', 'no-bubbles']]));
    expect(state.visits.filter((v) => v.outcome === 'beyond')).toHaveLength(4);
    expect(state.visits[state.visits.length - 1]!.kind).toBe('zero');
    const own = reduce(plan(), play(plan(), [...proved, ...fail, [400, 'observe', 'own-leak']]));
    expect([own.fails, own.repeats]).toEqual([0, 0]);
  });
  test('a permitted drop read late is accepted inside and repeated outside', () => {
    const at = (end: string, elapsed: number) =>
      reduce(plan(), play(plan(), [...proved, ...hold(200, '20.50', end, elapsed)])).visits.find(
        (v) => v.title === 'Tightness',
      )!.outcome;
    expect(at('17.00', 200)).toBe('allowance');
    expect(at('16.00', 125)).toBe('beyond');
    expect(at('16.00', 125.001)).toBe('late');
  });
  test('outside the domain is Refer, however good the reading', () => {
    const p = plan({ system: { meter: { kind: 'other', name: 'U40', volume: q('20 l') } } });
    expect(judge(p, [...proved, ...hold(200, '20.35', '20.35'), afterZero(500)]).word).toBe('refer');
  });
  test('a gauge off zero afterwards judged nothing: Void', () => {
    expect(judge(plan(), [...proved, ...hold(200, '20.35', '20.35'), [500, 'zero', '0.25']]).word).toBe(
      'void',
    );
    expect(judge(plan(), [...proved, ...hold(200, '20.35', '20.35'), [500, 'zero', '-0.24']]).word).toBe(
      'tight',
    );
  });
  test('binding adequacy takes Tight away; advice only prints it', () => {
    const big = { pipes: [{ ...bakery().pipes[0]!, bore: q('34 mm'), length: q('20 m') }] };
    const lines = [...proved, ...hold(200, '20.35', '20.35'), afterZero(500)];
    const p = plan({ case: 'new', system: big });
    expect(judge(p, lines).label).toBe('Tight');
    expect(judge(p, lines).adequacy!.text).toMatch(/^This test could show leaks from/);
    const procedure = { ...p.procedure, adequacy: { ...p.procedure.adequacy, binding: true } };
    expect(judge({ ...p, procedure }, lines).word).toBe('inconclusive');
  });
});

describe('what decides a limit is asked for, never defaulted', () => {
  test('unknown meter, no pipes, unknown answer', () => {
    expect(() => plan({ system: { meter: { kind: 'unknown', name: '?', volume: q('0 l') } } })).toThrow(
      /meter is not known/,
    );
    expect(() => plan({ system: { pipes: [] } })).toThrow(/No pipe/);
    expect(() => plan({ choices: { 'u16-drop': '9' } })).toThrow(/not an answer/);
  });
  test('a U16 meter permits 1 mbar, or 1.5 where that school is chosen', () => {
    const meter = { kind: 'diaphragm-U16-G10', name: 'U16', volume: q('12 l') };
    expect(allowanceOf(plan({ system: { meter } })).limit!.value).toEqual(q('1 mbar'));
    expect(allowanceOf(plan({ system: { meter }, choices: { 'u16-drop': '1.5' } })).limit!.value).toEqual(
      q('1.5 mbar'),
    );
  });
  test('a pack that claims Tight anywhere but at a hold without movement is refused, with the path', () => {
    const broken = structuredClone(JSON.parse(JSON.stringify(pack)));
    broken.procedures[0].stages.spray.on.none = { to: 'zero-after', finds: 'tight' };
    expect(() => loadPack(broken)).toThrow(/Only a hold without movement/);
    const dangling = structuredClone(JSON.parse(JSON.stringify(pack)));
    delete dangling.procedures[0].stages.tightness.on.rose;
    expect(() => loadPack(dangling)).toThrow(/Nothing follows "rose"/);
    const unknownKey = { ...JSON.parse(JSON.stringify(pack)), extra: 1 };
    expect(() => loadPack(unknownKey)).toThrow(/extra/);
    expect(() => makePlan({ ...plan(), pack, packHash: 'x', procedureId: 'nope' })).toThrow(/no procedure/);
  });
});
void gauge;

describe('joints disturbed during the test', () => {
  const p = plan();
  const good = [...upTo(['9.10', '9.10']), ...hold(200, '20.50', '20.50')];
  const word = (lines: ScriptLine[], q = p) => judge(q, [...good, ...lines]).word;
  test('one that was not looked at since, or not cleared, takes a good result away; leak fluid gives it back, after the hold too', () => {
    expect(word([afterZero(450)])).toBe('tight');
    expect(word([[440, 'joint', 'Union', 'foam'], afterZero(450)])).toBe('inconclusive');
    expect(word([[440, 'joint', 'Union', 'foam'], afterZero(450), [460, 'joint', 'Union', 'none']])).toBe(
      'tight',
    );
    expect(word([[440, 'joint', 'Union', 'none'], afterZero(450)])).toBe('tight');
  });
  test('one that bubbles at the put-back is a leak, whatever the hold showed', () => {
    expect(word([afterZero(450), [460, 'joint', 'Union', 'growing', 'pea']])).toBe('not-tight');
  });
  test('under a signature nothing of it changes any more', () => {
    const signed: ScriptLine[] = [afterZero(450), [460, 'putback'], [470, 'sign', 'Imre']];
    const late = play(
      p,
      [...good, ...signed, [480, 'joint', 'Union', 'growing', 'pea']],
      {},
      { allowRefused: true },
    );
    expect(verdictOf(p, reduce(p, late))!.word).toBe('tight');
    expect(reduce(p, late).withoutEffect.map((w) => w.code)).toEqual(['overtaken', 'overtaken']);
  });
  test('a record of the first format keeps its word', () => {
    expect(word([[440, 'joint', 'Union', 'foam'], afterZero(450)], { ...p, format: 1 })).toBe('tight');
  });
});
