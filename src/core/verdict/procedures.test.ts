import { gaugeFit } from '@/core/instrument/gauge';
import { testPressure } from '@/core/plan/limits';
import { outsideDomain } from '@/core/plan/plan';
import { parseWithUnit as q } from '@/core/quantity/exact';
import { holdSpec } from '@/core/run/hold-spec';
import { expectedItems, inventoryChanges } from '@/core/run/inventory';
import { bakery } from '@/core/testing/bakery';
import { gauges, judged, kiln, planOf, run, type Step, trailer } from '@/core/testing/quarter';
import { type Verdict, verdictOf } from './verdict';

/* ---- 2.2 air test of pipework, imperial ---- */
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
const still: Step[] = [
  ['barometer', 'start', '1013.00'],
  ['barometer', 'end', '1013.00'],
];
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

/* ---- 2.3 through the appliances, and the sequence ---- */
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

/* ---- 2.4 meter turn-on ---- */
const lockUp = (end: string): Step[] => [
  ['checks'],
  ['gauge', 'I-1'],
  ['zero', '0'],
  ['checks'],
  ['start', '7.20'],
  [3.05, 'end', end],
];
const seepage = (start: string, end: string): Step[] => [
  ['checks'],
  ['fill', start],
  ['start', start],
  [3.05, 'end', end],
];
const gaugeTest = (end: string): Step[] => [
  ['checks'],
  ['fill', '7.20'],
  ['start', '7.20'],
  [1.05, 'end', '7.20'],
  ['start', '7.20'],
  ...still,
  [60, 'end', end],
];
const dial: Step[] = [['checks'], ['checks'], ['mark', 'just past 3']];
const turnOn = (...steps: Step[]) => judged(planOf('gas-meter-turn-on'), steps);
describe('meter turn-on (inWC, ft3)', () => {
  const good: Step[] = [
    ...lockUp('7.20'),
    ...seepage('5.20', '5.20'),
    ...gaugeTest('7.20'),
    ['joint', 'always-gauge-port', 'none'],
    ['proceed'],
    ['zero', '0'],
    ...dial,
  ];
  const tail: Step[] = [['checks'], ['input', 'kiln', '2', '60'], ['proceed']];
  test('all four parts: Tight, the dial’s own limits printed', () => {
    const v = turnOn(...good, [10.1, 'still'], ...tail);
    expect(v.word).toBe('tight');
    expect(v.parts!.map((p) => p.label)).toEqual(['holds', 'proved', 'Tight', 'Tight']);
    expect(v.adequacy!.enough).toBe(false); // 0.02 turn of 0.5 ft3 in 10 min is about 1.7 l/h
    expect(v.adequacy!.figure.value).toBeCloseTo((0.02 * 0.5 * 28.316846592) / (10.1 / 60), 1);
    // 2 turns of 0.5 ft3 in 60 s at 38.5 MJ/m3, by hand: 0.0283168 m3 / 60 s x 38.5 MJ = 18.17 kW
    expect(v.stages.find((s) => s.word === 'measured')!.text).toBe('Kiln: 18.17 kW');
  });
  test.each([
    ['7.69', 'holds'],
    ['7.70', 'creeps'], // 0.5 inWC in the 3 min counts at equality
    ['9.00', 'creeps'], // set + 2 inWC is met at equality, but it crept
    ['9.01', 'too high'],
    ['14.00', 'reaches the vent setting'],
    ['7.15', 'fell'],
  ])('lock-up 7.20 to %s inWC: %s', (end, word) => {
    const plan = planOf('gas-meter-turn-on');
    const { state } = run(plan, lockUp(end));
    const visit = state.visits.find((v) => v.stage === 'lock-up')!;
    expect(visit.outcome!.replace('too-high', 'too high').replace('vents', 'reaches the vent setting')).toBe(
      word,
    );
  });
  test('creep is Not tight with the likely causes; the vent is Refer with a report; both end the run', () => {
    const crept = turnOn(...lockUp('7.80'), ['checks']);
    expect(crept).toMatchObject({ word: 'not-tight', use: 'shut-off' });
    expect(crept.plain).toMatch(/^The regulator does not shut off/);
    const plan = planOf('gas-meter-turn-on');
    const vented = run(plan, [...lockUp('14.00'), ['checks']]);
    expect(vented.verdict!.word).toBe('refer');
    expect(vented.state.reports[0]!.to).toBe('gas supplier');
  });
  test('seepage: bled outside 70 to 75 % of static is refused; a rise is the supplier’s, reported, all behind it void', () => {
    const plan = planOf('gas-meter-turn-on');
    expect(() => run(plan, [...lockUp('7.20'), ['checks'], ['fill', '5.41']])).toThrow(/the band/);
    expect(() => run(plan, [...lockUp('7.20'), ['checks'], ['fill', '5.03']])).toThrow(/Bled too far/);
    const { state, verdict } = run(plan, [...lockUp('7.20'), ...seepage('5.04', '5.54')]);
    expect(verdict!.word).toBe('void');
    expect(verdict!.parts!.map((p) => p.label)).toEqual(['holds', 'Void', 'Not tested', 'Not tested']);
    expect(state.reports[0]!.text).toContain('Not repaired by the tester');
  });
  test('a seepage test that fell leaves only Not tight possible', () => {
    const v = turnOn(
      ...lockUp('7.20'),
      ...seepage('5.20', '5.10'),
      ['fill', '5.20'],
      ['start', '5.20'],
      [3.05, 'end', '5.10'],
      ...gaugeTest('7.20'),
      ['joint', 'always-gauge-port', 'none'],
      ['proceed'],
      ['zero', '0'],
      ...dial,
      [10.1, 'still'],
      ...tail,
    );
    expect([v.word, v.reasons.some((r) => r.code === 'let-by-not-proved')]).toEqual(['void', true]);
  });
  test('the dial: shut meter valve refused, too early refused, any movement Not tight with its rate', () => {
    const plan = planOf('gas-meter-turn-on');
    const toDial = good.slice(0, -3);
    expect(() => run(plan, [...toDial, ['checks'], ['checks', 'meter-on=no']])).toThrow(
      /cannot move: open it/,
    );
    expect(() => run(plan, [...toDial, ['checks'], ['checks', 'turns=no']])).toThrow(/does not register/);
    expect(() => run(plan, [...good, [4.9, 'still']])).toThrow(/too early/);
    expect(() => run(plan, [...good, [5.1, 'still']])).toThrow(/planned time has not/);
    const v = turnOn(...good, [6, 'moved', '0.1'], ...tail);
    expect([v.word, v.parts![3]!.word]).toEqual(['not-tight', 'not-tight']);
    // 0.1 x 0.5 ft3 in 6 min, by hand: 1.41584 l x 10 = 14.16 l/h
    expect(v.leakRate!.value).toBeCloseTo(14.158, 2);
  });
});

/* ---- 2.5 serviceability ---- */
const service = (drop: string, minutes = 120, volume: Step = ['volume', '1', '20.00', '10.00']): Step[] => [
  ['checks'],
  ['gauge', 'M-1'],
  ['zero', '0'],
  ['fill', '9.00'],
  ['start', '9.00'],
  [3.05, 'end', '9.00'],
  volume,
  ['fill', '21.00'],
  ['start', '21.00'],
  [110, 'end', '21.00'],
  ['start', '21.00'],
  ...still,
  [minutes, 'end', drop],
];
describe('serviceability by leak rate', () => {
  const plan = planOf('gas-serviceability');
  // V = 1 l x 1013.25 / 10 mbar = 101.3 l; 1 mbar in an hour is 0.1 l/h
  const end: Step[] = [['joint', 'always-test-point', 'none'], ['proceed'], ['zero', '0']];
  test('volume by metered draw, worked by hand; a fall of under ten steps is refused', () => {
    const { state } = run(plan, service('21.00').slice(0, 7));
    expect(state.volume!.figure.value).toBeCloseTo(0.101325, 6);
    expect(() => run(plan, service('21.00', 45, ['volume', '1', '20.00', '19.91']).slice(0, 7))).toThrow(
      /fell too little/,
    );
  });
  test('below 1 l/h with its interval: unrestricted, Tight within allowance', () => {
    const v = judged(plan, [...service('20.00', 120), ...end]);
    expect([v.word, v.use]).toEqual(['within-allowance', 'in-use']);
    expect(v.leakRate!.value).toBeGreaterThan(0.03);
    expect(v.leakRate!.value).toBeLessThan(0.1);
    expect(v.sentence).toMatch(/unrestricted/);
  });
  test('an interval that touches 1 l/h falls into the worse class: limited use, repair due in 28 days', () => {
    const { verdict, state } = run(plan, [
      ...service('9.00', 30).slice(0, -1),
      [40, 'read', '15.50'],
      [40, 'read', '11.40'],
      [30, 'end', '9.00'],
      ['observe', 'accept', 'customer waits'],
      ...end,
    ]);
    const hold = state.visits.flatMap((v) => v.holds).find((h) => h.role === 'leak-rate')!;
    const rate = hold.judgement!.rate!;
    expect(rate.low).toBeLessThan(1);
    expect(rate.high).toBeGreaterThanOrEqual(1);
    expect([verdict!.word, verdict!.use, verdict!.label]).toEqual([
      'not-tight',
      'limited',
      'Not tight: limited use until repaired',
    ]);
    expect(state.followUps).toEqual([{ days: 28, text: expect.stringContaining('Repair') }]);
  });
  test('5 l/h or more is shut off; so are smell and damage, whatever the rate', () => {
    // 20 l or so: 10 mbar in 5 min is about 2.4 l/h at half pressure and far above the bound's time; 3 min is too
    const steps = (end: string, minutes: number): Step[] => service(end, minutes, ['volume']);
    expect(() => run(plan, steps('20.00', 5))).toThrow(/too early/);
    const worst = judged(plan, [...steps('2.00', 2), ['observe', 'accept', 'customer waits'], ...end]);
    expect(worst.leakRate!.value).toBeGreaterThan(5);
    expect([worst.word, worst.use]).toEqual(['not-tight', 'shut-off']);
    for (const sign of ['smell-now=yes', 'damaged=yes'])
      expect(judged(plan, [['checks', sign]])).toMatchObject({ word: 'not-tight', use: 'shut-off' });
  });
  test('the let-by comes first; skipped for no sound reason nothing good follows', () => {
    const steps = service('20.00', 120);
    const skipped = [...steps.slice(0, 4), ['skip', 'other', 'no time'] as Step, ...steps.slice(6)];
    expect(judged(plan, [...skipped, ...end]).reasons[0]!.code).toBe('let-by-missing');
  });
  test('measuring and settling times grow with volume', () => {
    const minutes = (length: string) => {
      const p = planOf('gas-serviceability', {
        system: bakery({ pipes: [{ ...bakery().pipes[0]!, length: q(length) }] }),
      });
      const { state } = run(p, service('21.00', 1, ['volume']).slice(0, 8));
      return holdSpec(p, state)!.minutes;
    };
    expect(minutes('5 m')).toBeGreaterThanOrEqual(10);
    expect(minutes('500 m')).toBeGreaterThan(minutes('50 m'));
  });
});
describe('new line of that school: load, then tightness', () => {
  const plan = planOf('gas-new-line');
  const load = (end: string): Step[] => [
    ['checks'],
    ['gauge', 'B-2'],
    ['zero', '0'],
    ['fill', '1.000'],
    ['start', '1.000'],
    [10.05, 'end', end],
  ];
  const tight: Step[] = [
    ['checks'],
    ['gauge', 'M-1'],
    ['zero', '0'],
    ['fill', '150.00'],
    ['start', '150.00'],
    [10.05, 'end', '150.00'],
    ['start', '150.00'],
  ];
  test('withstood and tight, each with its own gauge; the barometer is asked for at any length', () => {
    const steps: Step[] = [...load('1.000'), ['checks'], ['zero', '0'], ...tight];
    expect(() => run(plan, [...steps, [600, 'end', '150.00']])).toThrow(/barometer/);
    const v = judged(plan, [
      ...steps,
      ['barometer', 'start', '1013.0'],
      ['barometer', 'end', '1013.0'],
      [600, 'end', '150.00'],
      ['proceed'],
      ['zero', '0'],
    ]);
    expect(v.parts!.map((p) => p.label)).toEqual(['withstood', 'Tight']);
    expect(v.word).toBe('tight');
  });
  test('a load test that falls twice ends it: the tightness is not tested', () => {
    const v = judged(plan, [
      ...load('0.990'),
      ['fill', '1.000'],
      ['start', '1.000'],
      [10.05, 'end', '0.990'],
      ['checks'],
      ['zero', '0'],
    ]);
    expect([v.word, v.parts!.map((p) => p.label)]).toEqual(['not-tight', ['Not tight', 'Not tested']]);
  });
  test('volume sets the minutes: exactly 100 l takes the longer row', () => {
    // 28 mm bore 26.2: 185.5 m hold about 100 l; the meter's own litres are taken out here
    const at = (litres: string) => {
      const meter = { ...bakery().meter, volume: q(litres) };
      const p = planOf('gas-new-line', {
        system: bakery({ meter, pipes: [{ ...bakery().pipes[0]!, length: q('0 m') }] }),
      });
      const { state } = run(p, [...load('1.000'), ['checks'], ['zero', '0'], ...tight.slice(0, 4)]);
      return holdSpec(p, state)!.minutes;
    };
    expect([at('99.99 l'), at('100 l'), at('200 l')]).toEqual([10, 30, 60]);
  });
});

/* ---- 2.6 propane in a vehicle ---- */
const locked = (end: string): Step[] => [
  ['checks'],
  ['gauge', 'I-1'],
  ['zero', '0'],
  ['checks'],
  ['start', '12.50'],
  [3.05, 'end', end],
];
const valve = (end: string): Step[] => [
  ['checks'],
  ['fill', '0.10'],
  ['start', '0.10'],
  [3.05, 'end', end],
  ['checks'],
];
const drop = (end: string): Step[] => [
  ['checks'],
  ['fill', '8.00'],
  ['start', '8.00'],
  [1.05, 'end', '8.00'],
  ['start', '8.00'],
  ...still,
  [60, 'end', end],
];
describe('propane in a vehicle', () => {
  const plan = planOf('lpg-vehicle');
  const soaped: Step = ['joint', 'always-gauge-connection', 'none'];
  const tail: Step[] = [soaped, ['proceed'], ['observe', 'no'], ['zero', '0']];
  test('lock-up, cylinder valve and drop: Tight', () => {
    expect(judged(plan, [...locked('12.50'), ...valve('0.10'), ...drop('8.00'), ...tail]).word).toBe('tight');
  });
  test.each([
    ['10.99', undefined, 'fell'],
    ['14.00', undefined, 'creeps'],
    ['14.01', undefined, 'too-high'],
    ['14.30', '14.3', 'creeps'],
    ['14.31', '14.3', 'too-high'],
  ])('lock-up ending at %s inWC (school %s): %s', (end, school, outcome) => {
    const p = planOf('lpg-vehicle', school ? { choices: { 'lock-up-limit': school } } : {});
    expect(run(p, locked(end)).state.visits.find((v) => v.stage === 'lock-up')!.outcome).toBe(outcome);
  });
  test.each([
    ['11.00', 'holds'],
    ['10.99', 'too-low'],
    ['14.00', 'holds'],
  ])('standing still at %s inWC: %s', (at, outcome) => {
    const steps = locked(at).map((s) => (s[0] === 'start' ? (['start', at] as Step) : s));
    expect(run(plan, steps).state.visits.find((v) => v.stage === 'lock-up')!.outcome).toBe(outcome);
  });
  test.each([
    ['I-1', '0.10', '0.59', 'proved'],
    ['I-1', '0.10', '0.60', 'suspected'], // 0.5 inWC on a gauge of 0.1 or finer
    ['I-D', '0', '0.75', 'proved'],
    ['I-D', '0', '1', 'suspected'], // 1 inWC on a dial
  ])('cylinder valve with %s: %s to %s inWC is %s', (gauge, from, to, outcome) => {
    const dialled = gauge === 'I-D';
    const steps: Step[] = locked('12.50').map((s) =>
      s[0] === 'gauge'
        ? ['gauge', gauge]
        : dialled && s[1] === '12.50'
          ? ['start', '12.5']
          : dialled && s[2] === '12.50'
            ? [3.05, 'end', '12.5']
            : s,
    );
    const { state } = run(plan, [...steps, ['checks'], ['fill', from], ['start', from], [3.05, 'end', to]]);
    expect(state.visits.find((v) => v.stage === 'valve')!.outcome).toBe(outcome);
  });
  test('a passing cylinder valve is Refer and reported to the supplier', () => {
    const { verdict, state } = run(plan, [
      ...locked('12.50'),
      ['checks'],
      ['fill', '0.10'],
      ['start', '0.10'],
      [3.05, 'end', '0.80'],
      ['zero', '0'],
    ]);
    expect(verdict!.word).toBe('refer');
    expect(state.reports[0]!.to).toBe('cylinder supplier');
  });
  test('gas left in the pigtail: it recovers, is bled again (logged), and only a still pressure starts the drop', () => {
    const settling: Step[] = [
      ...locked('12.50'),
      ...valve('0.10'),
      ['checks'],
      ['fill', '8.00'],
      ['start', '8.00'],
    ];
    expect(() => run(plan, [...settling, [1.05, 'end', '8.30']])).toThrow(/still moves/);
    const { state } = run(plan, [...settling, ['topup', '9.00', '8.00'], [1.05, 'end', '8.00']]);
    expect(state.visits.find((v) => v.stage === 'recover')!.holds[0]!.topUps).toHaveLength(1);
    expect(() => run(plan, [...settling, [0.9, 'topup', '9.00', '8.00'], [0.2, 'end', '8.00']])).toThrow(
      /60 s apart/,
    );
  });
  test('the drop: exactly the perceptible movement is Not tight; the check after needs its let-by too', () => {
    const start: Step[] = [...locked('12.50'), ...valve('0.10')];
    const fail: Step[] = [
      // a first fall below what 0.2 K does is repeated, with the temperature logged; a second one stands
      ...drop('7.96').flatMap((s): Step[] =>
        s[1] === 'end' && s[0] === 60
          ? [['temperature', 'start', '15.0'], ['temperature', 'end', '15.0'], s]
          : [s],
      ),
      ['observe', 'accept', 'customer waits'],
      ['joint', 'Hose tail', 'growing', 'pea'],
      ['observe', 'no'],
      ['zero', '0'],
    ];
    // pm of this gauge by the general rule: 0.1 % of 40 inWC is 0.04 inWC
    expect(judged(plan, [...start, ...drop('7.96'), ...fail]).word).toBe('not-tight');
    expect(judged(plan, [...start, ...drop('7.97'), ...tail]).word).toBe('tight');
    const later = planOf('lpg-vehicle', { choices: { 'valve-check': 'after' } });
    const first: Step[] = [...locked('12.50'), ...drop('8.00')];
    expect(judged(later, [...first, ...valve('0.10'), ...tail]).word).toBe('tight');
    expect(judged(later, [...first, ['stop'], ['reason', 'abandoned', 'rain']]).word).toBe('void');
  });
  test('after a joint was mended the boundary is proved again', () => {
    const { state } = run(plan, [
      ...locked('12.50'),
      ...valve('0.10'),
      ...drop('7.00'),
      ['observe', 'mended'],
    ]);
    expect(state.visits[state.visits.length - 1]!.stage).toBe('valve-shut');
  });
  test('the burner jet is not offered where a test port exists', () => {
    const system = trailer({ access: ['port'] });
    expect(() => planOf('lpg-vehicle', { system, choices: { access: 'jet' } })).toThrow(/has a test port/);
  });
  test('flow test: running pressure below the bound is Refer', () => {
    const v = judged(plan, [
      ...locked('12.50'),
      ...valve('0.10'),
      ...drop('8.00'),
      soaped,
      ['proceed'],
      ['observe', 'yes'],
      ['start', '11.00'],
      [1.05, 'end', '10.49'],
      ['zero', '0'],
    ]);
    expect(v.word).toBe('refer');
  });
});

/* ---- 2.7 propane from the tank ---- */
describe('tank inspection', () => {
  const low = planOf('lpg-tank-inspection', { case: 'low' });
  const begin: Step[] = [
    ['checks'],
    ['gauge', 'I-1'],
    ['zero', '0'],
    ['fill', '0'],
    ['start', '0'],
    [3.05, 'end', '0'],
    ['checks'],
  ];
  const held = (end: string): Step[] => [
    ['fill', '9.00'],
    ['start', '9.00'],
    [1.05, 'end', '9.00'],
    ['start', '9.00'],
    ...still,
    [60, 'end', end],
  ];
  const soaped: Step = ['joint', 'always-gauge-point', 'none'];
  test('low way: neither rise nor fall, then the inventory, all of it, before it ends', () => {
    const steps: Step[] = [...begin, ...held('9.00'), soaped, ['proceed']];
    expect(() => run(low, [...steps, ['proceed']])).toThrow(/Still to be written down: Tank, First stage/);
    const v = judged(low, [...steps, ['inventory', 'all'], ['proceed'], ['zero', '0']]);
    expect(v.word).toBe('tight');
  });
  test.each(['8.49', '9.51'])('released to %s inWC: outside 9 ± 0.5, refused', (fill) => {
    expect(() => run(low, [...begin, ['fill', fill]])).toThrow(/the band/);
  });
  test('high way: 10 psi below the full pressure, on a psi gauge', () => {
    const high = planOf('lpg-tank-inspection', { case: 'high' });
    const steps: Step[] = [
      ['checks'],
      ['gauge', 'P-300'],
      ['zero', '0'],
      ['fill', '0'],
      ['skip', 'same-hold', 'published way'],
      ['checks'],
      ['fill', '110.0'],
    ];
    expect(() => run(high, [...steps, ['fill', '100.1']])).toThrow(/the band 98.0 psi to 100.0 psi/);
    const v = judged(high, [
      ...steps,
      ['fill', '100.0'],
      ['start', '100.0'],
      [1.05, 'end', '100.0'],
      ['start', '100.0'],
      ...still,
      [1500, 'end', '100.0'],
      soaped,
      ['proceed'],
      ['inventory', 'all'],
      ['proceed'],
      ['zero', '0'],
    ]);
    expect(v.word).toBe('tight');
    expect(v.sentence).toContain('the container valve is watched in the same hold');
  });
  test('a second rise is the container valve: Refer, never Tight', () => {
    const v = run(low, [
      ...begin,
      ...held('9.60'),
      ...held('9.60').map((s): Step => (s[0] === 60 ? [60, 'temperature', 'start', '10.0'] : s)),
      ['temperature', 'end', '10.0'],
      [60, 'end', '9.60'],
      soaped,
      ['proceed'],
      ['inventory', 'all'],
      ['proceed'],
      ['zero', '0'],
    ]);
    expect(v.verdict!.word).toBe('refer');
  });
  test('a fault found, or a flame that is not right, must be classed before anyone signs', () => {
    const steps: Step[] = [
      ...begin,
      ...held('9.00'),
      soaped,
      ['proceed'],
      ['inventory', 'all'],
      ['inventory', 't1', 'relief=fault'],
      ['proceed'],
      ['zero', '0'],
      ['putback'],
    ];
    expect(() => run(low, [...steps, ['sign', 'Imre']])).toThrow(/how dangerous/);
    const classed = run(low, [
      ...steps,
      ['unsafe', 'at-risk', 'labelled', 'Relief valve uncapped', 'A. Customer'],
      ['sign', 'Imre'],
      ['customer', 'A. Customer'],
    ]);
    expect(classed.state.phase).toBe('signed');
    const flame: Step[] = [
      ...begin,
      ...held('9.00'),
      soaped,
      ['proceed'],
      ['inventory', 'all'],
      ['proceed'],
      ['zero', '0'],
      ['putback', 'urn=poor'],
    ];
    expect(() => run(low, [...flame, ['sign', 'Imre']])).toThrow(/how dangerous/);
  });
  test('another serial than last time is another appliance', () => {
    const [before] = expectedItems(trailer(), 'appliance');
    expect(inventoryChanges({ ...before!, serial: 'A1' }, { ...before!, serial: 'a1 ' })).toEqual([]);
    expect(inventoryChanges({ ...before!, serial: 'A1' }, { ...before!, serial: 'B2' })).toEqual([
      'Water boiler: serial was A1, is B2',
    ]);
  });
});

describe('extension of an old installation', () => {
  const letBy: Step[] = [
    ['checks'],
    ['gauge', 'M-1'],
    ['zero', '0'],
    ['fill', '9.00'],
    ['start', '9.00'],
    [1.05, 'end', '9.00'],
  ];
  const hold = (end: string): Step[] => [
    ['fill', '20.50'],
    ['start', '20.50'],
    [1.05, 'end', '20.50'],
    ['start', '20.50'],
    [2.02, 'end', end],
  ];
  const pipe: Step[] = [['checks'], ...hold('20.50'), ['skip', '', 'known'], ['zero', '0']];
  const plan = planOf('gas-lowpressure-extension');
  const before: Step[] = [...letBy, ...hold('18.50'), ...pipe];
  const part: Step[] = [...letBy, ...hold('20.50'), ['zero', '0']];
  test.each([
    ['18.50', 'within-allowance'], // exactly as before: no worse
    ['18.49', 'not-tight'],
  ])('2.00 mbar before, the whole to %s: %s', (end, word) => {
    const tail: Step[] =
      word === 'not-tight'
        ? [
            ['observe', 'accept', 'customer waits'],
            ['zero', '0'],
          ]
        : pipe;
    const v = judged(plan, [...before, ...part, ...letBy, ...hold(end), ...tail]);
    expect([v.word, v.parts!.map((p) => p.word)]).toEqual([word, ['within-allowance', 'tight', word]]);
  });
});

test('outside its domain a good reading is referred, never passed', () => {
  const plan = planOf('gas-meter-turn-on', {
    system: kiln({ workingPressure: q('14.1 inWC'), setPressure: q('7 inWC') }),
  });
  expect(outsideDomain(plan)).toEqual([expect.stringContaining('the procedure ends at 14 inWC')]);
});
test('a procedure for another medium does not start', () => {
  expect(() => planOf('lpg-vehicle', { system: kiln() })).toThrow(/not for natural gas/);
});
