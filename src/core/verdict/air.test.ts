import { gaugeFit } from '@/core/instrument/gauge';
import { testPressure } from '@/core/plan/limits';
import { parseWithUnit as q } from '@/core/quantity/exact';
import { holdSpec } from '@/core/run/hold-spec';
import { gauges, judged, kiln, planOf, run, type Step, still } from '@/core/testing/quarter';
import { type Verdict, verdictOf } from './verdict';

/* ---- air test of pipework, imperial ---- */
const toHold = (test = '3', gauge = 'D-15'): Step[] => [
  ['checks'],
  ['gauge', gauge],
  ['zero', '0'],
  ['fill', '1'],
  ['observe', 'quiet'],
  ['fill', test],
  ['checks'],
  ['start', test],
  [6.1, 'end', test],
  ['start', test],
  ['barometer', 'none'],
];
/** A barometer that stood still over the hold: long gas holds ask for it. */
const airEnd: Step[] = [['checks'], ['zero', '0']];
const air = (...rest: Step[]) => judged(planOf('gas-air-pipework'), [...toHold(), ...rest]);

describe('air test of pipework (psi)', () => {
  test('standing still over the longest of code, house and need is Tight', () => {
    const v = air([116, 'end', '3'], ['proceed'], ...airEnd);
    expect([v.word, v.label]).toEqual(['tight', 'Tight']);
    expect(v.sentence).toContain('the section was physically separated from the supply');
  });
  test.each([
    ['2.95', 'not-tight'], // exactly half a division: the smallest movement a dial can show counts at equality
    ['3', 'tight'],
  ])('3 psi to %s psi is %s', (end, word) => {
    const fails: Step[] = [['observe', 'accept', 'customer waits'], ['proceed'], ...airEnd];
    const passes: Step[] = [['proceed'], ...airEnd];
    const { state, verdict } = run(planOf('gas-air-pipework'), [
      ...toHold(),
      [116, 'end', end],
      ...(word === 'tight' ? passes : fails),
    ]);
    expect(verdict!.word).toBe(word);
    // a dial within a step of its limit is tapped and read again; both readings are kept
    expect(state.withoutEffect.map((w) => w.code)).toEqual(end === '3' ? [] : ['tap']);
  });
  test('code, house and need: the longest is planned; a hold of the rule’s own minutes by the book is simply Tight', () => {
    const plan = planOf('gas-air-pipework');
    const before = toHold().slice(0, -2);
    const { times } = holdSpec(plan, run(plan, before).state)!;
    expect([times.rule, times.house]).toEqual([10, 60]);
    expect(times.planned).toBe(times.needed);
    expect(() => run(plan, [...toHold(), [9.9, 'end', '3']])).toThrow(/too early/);
    const v = air([30, 'end', '3'], ['proceed'], ...airEnd);
    expect(v.label).toBe('Tight');
    expect(v.reasons.map((r) => r.code)).toEqual(['nil', 'adequacy-printed']);
    expect(v.adequacy!.text).toMatch(/^This test could show leaks from .* upward/);
  });
  test.each([
    ['dwelling', undefined, '60 ft', 10],
    ['building', undefined, '60 ft', 10], // below 10 ft3 of pipe
    ['building', undefined, '2000 ft', 30], // one part of 500 ft3
    ['building', 'local-15', '60 ft', 15],
  ])('rule minutes: %s, %s, %s of pipe: %s min', (kind, minutes, length, expected) => {
    const pipes = [{ ...kiln().pipes[0]!, length: q(length) }];
    const meter = { ...kiln().meter, volume: q('0 l') };
    const plan = planOf('gas-air-pipework', {
      case: kind,
      system: kiln({ pipes, meter }),
      ...(minutes ? { choices: { 'code-minutes': minutes } } : {}),
    });
    expect(holdSpec(plan, run(plan, toHold().slice(0, -2)).state)!.times.rule).toBe(expected);
  });
  test.each([
    ['7 inWC', '3.00'], // 1.5 times is less than the least
    ['0.99 psi', '3.00'],
    ['1 psi', '10.00'], // at exactly 1 psi the whole system counts as medium pressure
    ['2 psi', '10.00'],
    ['5 psi', '10.00'],
  ])('working at %s the test pressure is %s psi', (working, psi) => {
    const plan = planOf('gas-air-pipework', { system: kiln({ workingPressure: q(working) }) });
    expect(Number(testPressure(plan).digits) / 10 ** testPressure(plan).scale).toBe(Number(psi));
  });
  test('a dial ending above five times the test pressure is refused, exactly five times is not', () => {
    const plan = planOf('gas-air-pipework');
    expect(() => run(plan, [['checks'], ['gauge', 'D-60']])).toThrow(/more than 5 times/);
    const day = '2026-11-20';
    const target = { pressure: q('3 psi'), dialScaleMost: 5, dialScaleSource: 's' };
    expect(gaugeFit(gauges.psiDial, target, day)).toEqual([]);
  });
  test('a closed valve as only boundary is refused, and the run stands where it was', () => {
    expect(() => run(planOf('gas-air-pipework'), [['checks', 'valve-only=yes']])).toThrow(/no boundary/);
  });
  test('growing bubbles on a joint are Not tight although the gauge stood still', () => {
    const v = air([116, 'end', '3'], ['joint', 'Union', 'growing', 'pea'], ...airEnd);
    expect([v.word, v.reasons[0]!.code]).toEqual(['not-tight', 'not-tight-bubbles']);
  });
  test('the list does not close while a joint is not cleared: fine foam is looked at again', () => {
    const plan = planOf('gas-air-pipework');
    const held: Step[] = [...toHold(), [116, 'end', '3'], ['joint', 'Union', 'foam']];
    expect(() => run(plan, [...held, ['proceed']])).toThrow(/not cleared: Union/);
    expect(judged(plan, [...held, ['joint', 'Union', 'none'], ['proceed'], ...airEnd]).word).toBe('tight');
  });
  test('a long hold asks for the barometer, and a falling one that hides a leak is Not tight by what is left', () => {
    const plan = planOf('gas-air-pipework', { gauges: [gauges.psiHigh] });
    const start = toHold('3.0', 'P-300').slice(0, -1);
    expect(() => run(plan, [...start, [400, 'end', '3.0']])).toThrow(/barometer/);
    // 1013 to 990 mbar lifts the gauge by 0.33 psi: a still reading means that air is lost
    const v = judged(plan, [
      ...start,
      ['barometer', 'start', '1013.00'],
      ['barometer', 'end', '990.00'],
      [1441, 'end', '3.0'],
      ['observe', 'accept', 'night falls'],
      ['proceed'],
      ...airEnd,
    ]);
    expect(v.word).toBe('not-tight');
    // unread it can never be Tight
    const unread = judged(plan, [
      ...start,
      ['barometer', 'none'],
      [1441, 'end', '3.0'],
      ['fill', '3.0'],
      ['checks'],
      ['start', '3.0'],
      [6.1, 'end', '3.0'],
      ['start', '3.0'],
      ['barometer', 'none'],
      [1441, 'end', '3.0'],
      ['proceed'],
      ...airEnd,
    ]);
    expect(unread.word).toBe('inconclusive');
    expect(unread.sentence).toMatch(/barometer was not read/);
  });
  test('an early end that was refused leaves no reason on a hold that then ran its full time', () => {
    const plan = planOf('gas-air-pipework');
    const { state } = run(
      plan,
      [...toHold().slice(0, -1), [31, 'short', '3', 'in haste'], ['barometer', 'none'], [90, 'end', '3']],
      { allowRefused: true },
    );
    const held = state.visits.find((v) => v.stage === 'hold')!.holds[0]!;
    expect([held.judgement!.outcome, held.short]).toEqual(['nil', undefined]);
    expect(state.withoutEffect.map((w) => w.code)).toEqual(['barometer-needed']);
  });
  test('off zero afterwards, or stopped: Void', () => {
    expect(air([116, 'end', '3'], ['proceed'], ['checks'], ['zero', '0.2']).word).toBe('void');
    expect(air(['stop'], ['reason', 'mistake', 'hose burst']).word).toBe('void');
  });
});

/* ---- through the appliances, and the sequence ---- */
const after = {
  run: 'r',
  number: 'VS-1',
  word: 'tight',
  procedure: 'p',
  sealedAt: '2026-11-01T00:00:00.000Z',
};
describe('through the appliances', () => {
  const steps = (fill: string): Step[] => [
    ['checks'],
    ['gauge', 'I-1'],
    ['zero', '0'],
    ['fill', fill],
    ['start', fill],
    [6.1, 'end', fill],
    ['start', fill],
    ...still,
  ];
  const tail: Step[] = [['proceed'], ['checks'], ['zero', '0']];
  test('does not start before the pipework has passed', () => {
    expect(() => planOf('gas-air-appliances')).toThrow(/comes last/);
  });
  test.each([
    [undefined, '10.50', true], // lowest plate 10.5 inWC
    [undefined, '10.51', false],
    [undefined, '9.44', false], // more than 10 % below the cap
    ['unknown', '14.00', true], // no plate read: 14 inWC
    ['unknown', '14.01', false],
  ])('%s plates: raised to %s inWC accepted: %s', (plates, fill, good) => {
    const system = plates
      ? kiln({ appliances: kiln().appliances.map(({ maxInlet: _, ...a }) => a) })
      : kiln();
    const plan = planOf('gas-air-appliances', { after, system });
    const raise = () => run(plan, steps(fill).slice(0, 4));
    if (good) expect(raise().state.visits).toHaveLength(4);
    else expect(raise).toThrow(/the band/);
  });
  test('still for the planned hold: Tight, appliances inside', () => {
    const plan = planOf('gas-air-appliances', { after });
    expect(judged(plan, [...steps('10.50'), [200, 'end', '10.50'], ...tail]).word).toBe('tight');
  });
  const both = (first: string, second: string): Step[] => [
    ...toHold(),
    [116, 'end', first],
    ...(first === '3' ? ([['proceed'], ...airEnd] as Step[]) : []),
    ...(first === '3' ? [...steps('10.50'), [200, 'end', second] as Step] : []),
  ];
  test('as one sequence: each part has its own gauge and result, the second only after the first', () => {
    const plan = planOf('gas-air-rough-and-final');
    const v = judged(plan, [...both('3', '10.50'), ...tail]);
    expect(v.word).toBe('tight');
    expect(v.parts!.map((p) => [p.title, p.word])).toEqual([
      ['Air test of pipework', 'tight'],
      ['Through the appliances', 'tight'],
    ]);
    const failed = judged(plan, [
      ...both('2.9', ''),
      ['observe', 'accept', 'customer waits'],
      ['proceed'],
      ...airEnd,
    ]);
    expect(failed.word).toBe('not-tight');
    expect(failed.parts![1]!.label).toBe('Not tested');
    const second = judged(plan, [
      ...both('3', '10.00'),
      ['observe', 'accept', 'customer waits'],
      ['skip', '', 'customer waits'],
      ...tail,
    ]);
    expect(second.parts!.map((p) => p.word)).toEqual(['tight', 'not-tight']);
    expect(second.word).toBe('not-tight');
  });
  test('an earlier part that is void leaves the later ones untested, and the whole void', () => {
    const v = judged(planOf('gas-air-rough-and-final'), [
      ...toHold(),
      [116, 'end', '3'],
      ['proceed'],
      ['checks'],
      ['zero', '0.2'],
    ]);
    expect([v.word, v.parts!.map((p) => p.label)]).toEqual(['void', ['Void', 'Not tested']]);
  });
  test('a part that is void takes no leak away: what was lost, smelt or seen in a later one stands', () => {
    const plan = planOf('gas-air-rough-and-final');
    const { state } = run(plan, [...toHold(), [116, 'end', '3'], ['proceed'], ...airEnd, ['checks']]);
    const [first, second] = plan.procedure.parts!.map((p) => p.key) as [string, string];
    const claim = (finding: 'void' | 'not-tight' | 'tight', because: string) => ({
      ...state.claims[first]!,
      finding,
      because,
    });
    const judge = (over: object, after: 'not-tight' | 'tight', format: 1 | 2 = 2) =>
      verdictOf(
        { ...plan, format },
        {
          ...state,
          claims: { [first]: claim('void', 'A hand was on it.'), [second]: claim(after, 'It fell.') },
          ending: { at: 0, by: 'graph' },
          ...over,
        },
      )!;
    const words = (v: Verdict) => [v.word, ...v.parts!.map((p) => p.word)];
    expect(words(judge({}, 'not-tight'))).toEqual(['not-tight', 'void', 'not-tight']);
    expect(words(judge({}, 'not-tight', 1))).toEqual(['void', 'void', 'void']);
    expect(words(judge({}, 'tight'))).toEqual(['void', 'void', 'void']);
    const observations = [{ what: 'smell', text: '', at: 0, byName: 'I' }];
    const smelt = judge({ observations }, 'tight');
    expect(words(smelt)).toEqual(['not-tight', 'void', 'void']);
    expect(smelt.sentence).toMatch(/^Gas was smelt/);
    expect(smelt.reasons[0]).toMatchObject({ code: 'smell' });
    // the gravest of the parts is the whole's; a good one stands only where every part was gone through
    const of = (a: string, b: string, over: object = {}) =>
      judge(
        {
          claims: { [first]: claim(a as 'tight', 'Because.'), [second]: claim(b as 'tight', 'Because.') },
          ...over,
        },
        'tight',
      );
    expect(of('tight', 'inconclusive').word).toBe('inconclusive');
    expect(of('refer', 'inconclusive').word).toBe('refer');
    const alone = state.visits.filter((v) => plan.procedure.stages[v.stage]!.part !== second);
    const half = of('tight', 'tight', { visits: alone });
    expect([half.word, half.parts!.map((p) => p.label)]).toEqual(['void', ['Tight', 'Not tested']]);
    expect(half.sentence).toMatch(/: Not tested\.$/);
    const lostFirst = of('not-tight', 'tight', { visits: alone });
    expect(lostFirst.word).toBe('not-tight');
    // a broken stage that belongs to no part breaks the whole, and is said first
    const whole = of('tight', 'tight', {
      claims: {
        '': claim('void', 'The rig came off.'),
        [first]: claim('tight', 'x'),
        [second]: claim('tight', 'x'),
      },
    });
    expect([whole.word, whole.reasons[0]!.text]).toEqual(['void', 'The rig came off.']);
    expect(whole.sentence).toMatch(/^The rig came off\. /);
    expect(
      judge(
        { ...{ claims: { '': claim('void', 'x'), [first]: claim('tight', 'x') } }, observations },
        'tight',
      ).word,
    ).toBe('not-tight');
    // what a part void before takes along is named in its words
    expect(of('void', 'tight').parts![1]!.sentence).toBe(
      `Void, because ${plan.procedure.parts![0]!.title.toLowerCase()} before it has no result.`,
    );
    // stopped for smell in the second part, with nothing claimed there
    const stopped = judge(
      { claims: { [first]: claim('void', 'x') }, ending: { at: 0, by: 'stop', reason: 'smell' } },
      'tight',
    );
    expect(stopped.word).toBe('not-tight');
    expect(stopped.reasons.map((r) => r.code)).toContain('smell');
  });
});
