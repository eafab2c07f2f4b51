/** Each judging function at its bounds: exactly at, one step under, one step over; the order in which its rules decide. */
import { convertRate, rateInterval, steadyRate } from '@/core/adequacy/rate';
import { leakRate } from '@/core/medium/gas';
import { type Exact, type Limit, parseWithUnit as q } from '@/core/quantity/exact';
import { judgeRate } from '@/core/verdict/judge-rate';
import {
  type HoldFacts,
  judgeDecay,
  judgeFloor,
  judgeLetBy,
  judgeLockUp,
  judgeMakeUp,
  judgeSettle,
  judgeStrength,
  judgeStretch,
  judgeTightness,
  judgeUnheld,
} from './judge';

const pm: Limit = { value: q('0.25 mbar'), broken: 'at', source: 'test' };
const limit = (text: string, broken: 'at' | 'above' = 'above'): Limit => ({
  value: q(text),
  broken,
  source: 'test',
});
const bound = (text: string) => ({ value: q(text), source: 'test' });
/** @param warmth what warmth and barometer alone did, Pa */
const held = (
  start: string,
  end: string,
  more: Partial<HoldFacts> & { warmth?: number | 'unknown' | null } = {},
): HoldFacts => {
  const { warmth = null, ...rest } = more;
  return { start: q(start), end: q(end), elapsedMs: 120_000, alone: () => warmth, ...rest };
};

describe('let-by', () => {
  const judge = (end: string, equality: 'at' | 'above' = 'at') =>
    judgeLetBy(held('9.00 mbar', end), pm, limit('0.25 mbar', equality)).outcome;
  test.each([
    ['9.24 mbar', 'at', 'proved'],
    ['9.25 mbar', 'at', 'suspected'],
    ['9.25 mbar', 'above', 'proved'],
    ['9.26 mbar', 'above', 'suspected'],
    ['8.76 mbar', 'at', 'proved'],
    ['8.75 mbar', 'at', 'fell'], // a leak and a passing valve may cancel: a fall proves nothing
  ] as const)('end %s, equality counts %s: %s', (end, equality, outcome) => {
    expect(judge(end, equality)).toBe(outcome);
  });
  test('a rise that is suspected is called one, however small a step is perceptible', () => {
    const j = judgeLetBy(held('9.00 mbar', '9.20 mbar'), pm, limit('0.2 mbar', 'at'));
    expect([j.outcome, j.direction]).toEqual(['suspected', 'rise']);
  });
});

describe('tightness', () => {
  const judge = (
    end: string,
    rule: Partial<Parameters<typeof judgeTightness>[1]> = {},
    more: Parameters<typeof held>[2] = {},
  ) =>
    judgeTightness(held('20.00 mbar', end, more), {
      perceptible: pm,
      permitted: null,
      minutes: 2,
      lateAfter: 10,
      ...rule,
    }).outcome;
  const drop = { permitted: limit('4 mbar') };
  const logged = [q('20.0 C'), q('20.0 C')] as const;
  const share = q('0.50 mbar');
  const barometer = [q('1013.0 mbar'), q('1013.0 mbar')] as const;

  test.each([
    ['19.76 mbar', 'nil'],
    ['19.75 mbar', 'beyond'],
    ['20.24 mbar', 'nil'],
    ['20.25 mbar', 'rose'],
  ])('nil rule: %s is %s', (end, outcome) => expect(judge(end)).toBe(outcome));
  test.each([
    ['16.00 mbar', 'allowance'], // exactly the permitted drop
    ['15.99 mbar', 'beyond'],
    ['20.25 mbar', 'rose'],
    ['19.80 mbar', 'nil'],
  ])('permitted drop of 4: %s is %s', (end, outcome) => expect(judge(end, drop)).toBe(outcome));
  test('a drop beyond the permitted one read late is late; within it the minute does not matter', () => {
    const late = (ms: number) => ({ elapsedMs: ms });
    expect(judge('15.00 mbar', drop, late(130_000))).toBe('beyond');
    expect(judge('15.00 mbar', drop, late(130_001))).toBe('late');
    expect(judge('16.00 mbar', drop, late(200_000))).toBe('allowance');
    expect(judge('19.00 mbar', {}, late(200_000))).toBe('beyond'); // no drop is permitted: nothing to be late for
  });
  test('temperature disagrees, it never makes tight', () => {
    // stood still while warmth lifted it by as much as would be seen: something was lost
    expect(judge('20.00 mbar', {}, { temperature: logged, warmth: 25 })).toBe('disagree');
    expect(judge('20.00 mbar', {}, { temperature: logged, warmth: 24.9 })).toBe('nil');
    // fell, and the cold explains all of it
    expect(judge('19.00 mbar', {}, { temperature: logged, warmth: -100 })).toBe('disagree');
    expect(judge('19.00 mbar', {}, { temperature: logged, warmth: -74 })).toBe('beyond');
    // within the permitted drop only because it grew warmer
    expect(judge('16.50 mbar', drop, { temperature: logged, warmth: 51 })).toBe('disagree');
    expect(judge('16.50 mbar', drop, { temperature: logged, warmth: 50 })).toBe('allowance');
    // a rise stays a rise whatever the warmth did
    expect(judge('20.25 mbar', {}, { temperature: logged, warmth: 25 })).toBe('rose');
    // what cannot be worked out is no proof, and no excuse
    expect(judge('20.00 mbar', {}, { temperature: logged, warmth: 'unknown' })).toBe('disagree');
    expect(judge('19.00 mbar', {}, { temperature: logged, warmth: 'unknown' })).toBe('beyond');
  });
  test('a small fall is repeated first where the rule asks; the second the same way stands', () => {
    const small = q('0.70 mbar');
    expect(judge('19.31 mbar', { small })).toBe('small-fall');
    expect(judge('19.30 mbar', { small })).toBe('beyond'); // exactly what 0.2 K does is no small fall
    expect(judge('19.76 mbar', { small })).toBe('nil');
    expect(judge('19.00 mbar', { again: true }, { temperature: logged, warmth: -100 })).toBe('beyond');
    expect(judge('19.31 mbar', { ...drop, small })).toBe('allowance');
  });
  test('a long hold needs its barometer: unread it can be beyond, never nil', () => {
    expect(judge('20.00 mbar', {}, { share })).toBe('disagree');
    expect(judge('19.50 mbar', {}, { share })).toBe('disagree');
    expect(judge('19.49 mbar', {}, { share })).toBe('beyond');
    expect(judge('20.00 mbar', {}, { share, barometer })).toBe('nil');
    // the barometer rose by 0.3: it took as much off the gauge
    const rose = [q('1013.00 mbar'), q('1013.30 mbar')] as const;
    expect(judge('19.70 mbar', {}, { share, barometer: rose })).toBe('nil');
    expect(judge('20.00 mbar', {}, { share, barometer: rose })).toBe('rose');
    // it fell by 0.3 and hid a loss
    const fell = [q('1013.30 mbar'), q('1013.00 mbar')] as const;
    expect(judge('20.00 mbar', {}, { share, barometer: fell })).toBe('beyond');
    // read, but in a hold too short for it to count, it takes nothing off the judged change
    expect(judge('19.70 mbar', {}, { barometer: rose })).toBe('beyond');
  });
});

test('strength and decay: falls, rises and what stands', () => {
  const outcomes = (judge: (f: HoldFacts, l: Limit) => { outcome: string }) =>
    ['19.75 mbar', '20.25 mbar', '19.76 mbar'].map((end) => judge(held('20.00 mbar', end), pm).outcome);
  expect(outcomes(judgeStrength)).toEqual(['fell', 'rose', 'withstood']);
  expect(outcomes(judgeDecay)).toEqual(['fell', 'rose', 'held']);
  expect(outcomes(judgeSettle)).toEqual(['settled', 'settled', 'settled']);
  expect(judgeUnheld(held('20.00 mbar', '5.00 mbar'), pm, 'falls-early').outcome).toBe('falls-early');
});

describe('lock-up and flow', () => {
  const rule = { low: bound('20 mbar'), high: bound('30 mbar'), vent: bound('35 mbar'), creep: true };
  const judge = (start: string, end: string, more: Partial<Parameters<typeof judgeLockUp>[2]> = {}) =>
    judgeLockUp(held(start, end), pm, { ...rule, ...more }).outcome;
  test.each([
    ['30.00 mbar', '30.00 mbar', 'holds'],
    ['30.00 mbar', '30.01 mbar', 'too-high'],
    ['34.00 mbar', '35.00 mbar', 'vents'],
    ['34.00 mbar', '34.99 mbar', 'too-high'],
    ['20.00 mbar', '20.00 mbar', 'holds'],
    ['20.00 mbar', '19.99 mbar', 'too-low'],
    ['25.00 mbar', '24.75 mbar', 'fell'],
    ['25.00 mbar', '24.76 mbar', 'holds'],
    ['25.00 mbar', '25.25 mbar', 'creeps'],
    ['25.00 mbar', '25.24 mbar', 'holds'],
    ['21.00 mbar', '19.00 mbar', 'fell'], // falling is told before low: it leaks
  ])('%s to %s %s', (start, end, outcome) => expect(judge(start, end)).toBe(outcome));
  test('flow knows no creep; a creep limit of its own counts; without bounds anything holds', () => {
    expect(judge('25.00 mbar', '28.00 mbar', { creep: false })).toBe('holds');
    expect(judge('25.00 mbar', '22.00 mbar', { creep: false })).toBe('holds');
    const creepLimit = limit('1 mbar', 'at');
    expect(judge('25.00 mbar', '25.99 mbar', { creepLimit })).toBe('holds');
    expect(judge('25.00 mbar', '26.00 mbar', { creepLimit })).toBe('creeps');
    expect(judge('25.00 mbar', '90.00 mbar', { creep: false, low: null, high: null, vent: null })).toBe(
      'holds',
    );
  });
});

describe('water', () => {
  const step: Limit = { value: q('0.02 bar'), broken: 'at', source: 'test' };
  test('a floor is met at equality by the lowest reading, a ceiling by the end', () => {
    const judge = (lowest: string, end: string) =>
      judgeFloor(held('6.00 bar', end), step, q(lowest), { low: bound('2 bar'), high: bound('7 bar') })
        .outcome;
    expect([judge('2.00 bar', '6.00 bar'), judge('1.99 bar', '6.00 bar')]).toEqual(['kept', 'below']);
    expect([judge('2.00 bar', '7.00 bar'), judge('2.00 bar', '7.01 bar')]).toEqual(['kept', 'above']);
    expect(judge('1.99 bar', '7.01 bar')).toBe('below');
  });
  test('stretch: up to the limit, over it, rising; slowing counts only where thirds were asked and read', () => {
    const judge = (end: string, thirds?: readonly [string, string] | null) =>
      judgeStretch(
        held('6.00 bar', end),
        step,
        limit('0.6 bar', 'at'),
        thirds && { first: q(thirds[0]), last: q(thirds[1]) },
      ).outcome;
    expect([judge('5.41 bar'), judge('5.40 bar'), judge('6.02 bar')]).toEqual(['within', 'beyond', 'rose']);
    expect(judge('5.00 bar', null)).toBe('unread');
    expect(judge('5.00 bar', ['0.60 bar', '0.15 bar'])).toBe('slowing');
    expect(judge('5.00 bar', ['0.30 bar', '0.30 bar'])).toBe('beyond');
    expect(judge('5.50 bar', ['0.30 bar', '0.05 bar'])).toBe('within');
    expect(judge('5.98 bar', ['0.01 bar', '0.01 bar'])).toBe('within'); // a last third below what is perceptible has slowed
    expect(judge('4.00 bar', ['1.50 bar', '0.20 bar'])).toBe('slowing'); // two thirds left, exactly
    expect(judge('3.99 bar', ['1.50 bar', '0.20 bar'])).toBe('beyond'); // a line that empties slows down too
    expect(judge('5.99 bar', null)).toBe('within');
  });
  test('make-up: met at equality, beyond before all, then too far, rise, nothing added, no limit', () => {
    const permitted = { value: q('0.50 l'), source: 'test', working: {} as never };
    const judge = (added: string, more: { end?: string; lowest?: string; limit?: null } = {}) =>
      judgeMakeUp(
        held('10.00 bar', more.end ?? '10.00 bar'),
        step,
        q(added),
        more.limit === null ? null : permitted,
        q(more.lowest ?? '9.70 bar'),
        bound('9.66 bar'),
      ).outcome;
    expect([judge('0.50 l'), judge('0.51 l'), judge('0.00 l')]).toEqual(['within', 'beyond', 'nil']);
    expect([judge('0.50 l', { lowest: '9.66 bar' }), judge('0.50 l', { lowest: '9.65 bar' })]).toEqual([
      'within',
      'too-far',
    ]);
    expect(judge('0.51 l', { lowest: '5.00 bar' })).toBe('beyond');
    expect(judge('0.10 l', { end: '10.02 bar' })).toBe('rose');
    expect([judge('0.10 l', { limit: null }), judge('0.00 l', { limit: null })]).toEqual(['no-limit', 'nil']);
    expect(judge('9.00 l', { limit: null, lowest: '9.65 bar' })).toBe('too-far');
  });
});
test('no change keeps its sign out of the record', () => {
  const j: { change: Exact } = judgeSettle(held('20.0 mbar', '20.00 mbar'), pm);
  expect(Object.is(j.change.digits, 0)).toBe(true);
});

describe('leak rate and its class', () => {
  const volume = {
    name: 'V',
    value: 0.02,
    unit: 'm3',
    decimals: 4,
    formula: '',
    inputs: [],
    source: '',
  } as const;
  const CLASSES = (bound: string) => [
    { key: 'free', title: 'unrestricted', below: bound, source: 'a' },
    { key: 'shut', title: 'not serviceable', source: 'b' },
  ];
  const judge = (
    end: string,
    over: Partial<Parameters<typeof judgeRate>[2]> = {},
    more: Parameters<typeof held>[2] = {},
  ) =>
    judgeRate(held('20.00 mbar', end, more), pm, {
      classes: CLASSES('1 l/h'),
      volume,
      volumeUncertainty: 0.05,
      resolution: q('0.01 mbar'),
      working: q('20 mbar'),
      temperature: () => 0,
      ...over,
    });
  test('0.5 mbar in 2 min from 20 l is 0.296 l/h; the interval lies around it, wider by a temperature and an unread barometer', () => {
    const plain = judge('19.50 mbar').rate!;
    expect(plain.rate.value).toBeCloseTo((0.02 / 101325) * 50 * 30 * 1000 * (20 / 19.75), 2);
    expect([plain.low < plain.rate.value, plain.rate.value < plain.high]).toEqual([true, true]);
    const width = (r: typeof plain) => r.high - r.low;
    expect(width(judge('19.50 mbar', { temperature: () => 0.1 }).rate!)).toBeGreaterThan(width(plain));
    const share = { share: q('0.10 mbar') };
    expect(width(judge('19.50 mbar', {}, share).rate!)).toBeGreaterThan(width(plain));
    const read = { ...share, barometer: [q('1013.25 hPa'), q('1013.25 hPa')] as const };
    expect(width(judge('19.50 mbar', {}, read).rate!)).toBeCloseTo(width(plain), 6);
  });
  test('the upper end decides, to a millionth of its bound', () => {
    const { high } = judge('19.50 mbar').rate!;
    const exact = Number(high.toFixed(6));
    expect(judge('19.50 mbar', { classes: CLASSES(`${(exact + 0.000001).toFixed(6)} l/h`) }).outcome).toBe(
      'free',
    );
    expect(judge('19.50 mbar', { classes: CLASSES(`${(exact - 0.000001).toFixed(6)} l/h`) }).outcome).toBe(
      'shut',
    );
    expect(judge('19.50 mbar').rate!.title).toBe('unrestricted');
  });
  test('a rise gives no rate; what is too small to perceive gives one from nothing on', () => {
    expect(judge('20.25 mbar')).toMatchObject({ outcome: 'rose', limit: null });
    expect(judge('20.25 mbar').rate).toBeUndefined();
    expect(judge('20.24 mbar').rate!.high).toBeGreaterThanOrEqual(judge('20.24 mbar').rate!.rate.value);
  });
  test('what a passing valve may have flattered away widens the upper end only', () => {
    const plain = judge('19.50 mbar').rate!;
    const half = judge('19.50 mbar', { flattered: 0.5 }).rate!;
    expect([half.low, half.rate.value, half.flattered]).toEqual([plain.low, plain.rate.value, 0.5]);
    expect(half.high).toBeCloseTo(plain.high * 2, 9);
    expect(judge('19.50 mbar', { flattered: 1 }).rate!.high).toBe(Infinity);
    expect(judge('19.50 mbar', { flattered: 1 }).outcome).toBe('shut');
  });
  test('carried to another pressure: up to 100 mbar by one law, above it by both, each end to its worse side', () => {
    const MBAR = 100;
    const atTest = leakRate(0.02, 200 * MBAR, 190 * MBAR, 600);
    const blur = { volume: 0.02, resolution: 1, temperature: 0, barometer: 0, seconds: 600 };
    const by = (pressure: number, working: number) =>
      steadyRate(atTest, pressure * MBAR, working * MBAR, 0.05, blur);
    const one = (pressure: number, working: number) =>
      rateInterval(atTest, { ...blur, pressure: pressure * MBAR }, working * MBAR, 0.05);
    expect(by(100, 21)).toEqual(expect.objectContaining({ low: one(100, 21).low, high: one(100, 21).high }));
    // test above working: the orifice law leaves more of the rate, so the upper end rises and the lower stays
    const law = (p: number, w: number) =>
      convertRate(1, p * MBAR, w * MBAR, 'orifice') / convertRate(1, p * MBAR, w * MBAR);
    expect(law(200, 21)).toBeGreaterThan(1.5);
    expect(by(200, 21).low).toBe(one(200, 21).low);
    expect(by(200, 21).high).toBeCloseTo(one(200, 21).high * law(200, 21), 9);
    // test below working: the other way round
    expect(law(21, 200)).toBeLessThan(0.7);
    expect(by(21, 200).high).toBe(one(21, 200).high);
    expect(by(21, 200).low).toBeCloseTo(one(21, 200).low * law(21, 200), 9);
    expect(by(200, 21).rate).toEqual(one(200, 21).rate);
  });
});
