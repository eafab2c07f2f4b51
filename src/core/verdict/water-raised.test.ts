import { pipeFigures } from '@/core/installation/pipes';
import { systemStiffness } from '@/core/installation/section';
import { testPressure } from '@/core/plan/limits';
import { parseWithUnit as q, showExact, toNumber } from '@/core/quantity/exact';
import { pascal } from '@/core/quantity/pascal';
import { holdSpec } from '@/core/run/hold-spec';
import { sectionNow } from '@/core/run/section-now';
import type { RunState } from '@/core/run/state';
import { dyeHouse, gauges, judged, planOf, run, type Step } from '@/core/testing/quarter';
import { decidingHold } from './holds';

const BAR = [gauges.wide];
const release: Step[] = [['checks'], ['zero', '0']];

/* ---- pipework with water ---- */
const raise = (...added: string[]): Step[] => [
  ['checks'],
  ['gauge', 'W-16'],
  ['zero', '0'],
  ['checks'],
  ['pump', '1.80', ...added.slice(0, 1)],
  [2.1, 'look', '1.80', 'dry'],
  ['pump', '3.90', ...added.slice(1, 2)],
  [2.1, 'look', '3.90', 'dry'],
  ['pump', '6.10', ...added.slice(2, 3)],
  [1.1, 'look', '6.10', 'dry'],
];
const rigid = (choices: Record<string, string> = {}, kind = 'rigid') =>
  planOf('water-hydraulic', {
    gauges: BAR,
    case: kind,
    choices: { witness: 'none', leave: 'release', ...choices },
  });
const settled: Step[] = [
  ['start', '6.10'],
  [8, 'read', '6.10'],
  [10.1, 'end', '6.10'],
  ['start', '6.10'],
];
describe('pipework raised with water, rigid', () => {
  test.each([
    ['6.09', 'tight'],
    ['6.08', 'not-tight'], // two steps of 0.01 bar, at equality
  ])('6.10 to %s bar in an hour: %s', (end, word) => {
    const rest: Step[] =
      word === 'tight' ? [['checks'], ...release] : [['observe', 'accept', 'customer waits'], ...release];
    expect(judged(rigid(), [...raise(), ...settled, [60.1, 'end', end], ...rest]).word).toBe(word);
  });
  test('an hour for the whole, ten minutes for a single short section', () => {
    const minutes = (kind: string) =>
      holdSpec(rigid({}, kind), run(rigid({}, kind), [...raise(), ...settled.slice(0, 3)]).state)!.times.rule;
    expect([minutes('rigid'), minutes('short')]).toEqual([60, 10]);
  });
  test('own pass, then the witness reads a repeat; then left under watch with its figure', () => {
    const plan = rigid({ witness: 'customer', leave: 'watch' });
    const { state, verdict } = run(plan, [
      ...raise(),
      ...settled,
      [60.1, 'end', '6.10'],
      ['checks'],
      ['checks', 'absent=no'],
      ['start', '6.10'],
      [10.1, 'end', '6.10'],
      ['fill', '4.00'],
      ['checks'],
    ]);
    expect([verdict!.word, state.watch!.figure]).toEqual(['tight', q('4.00 bar')]);
  });
  test('a joint that drips at the first pass is remade and raised again; it is not a result', () => {
    const steps = raise().slice(0, 5);
    const { state } = run(rigid(), [
      ...steps,
      ['look', '1.70', 'drips', 'elbow at the vat'],
      ['checks'],
      ['checks'],
      ...raise().slice(4),
    ]);
    expect([state.claims[''], state.visits.map((v) => v.stage).slice(3)]).toEqual([
      undefined,
      ['raise', 'remake', 'bleed', 'raise', 'settle'],
    ]);
    expect(() => run(rigid(), [...steps, ['look', '1.70', 'drips']])).toThrow(/where it drips/);
    expect(() => run(rigid(), [...steps, ['look', '1.80', 'dry']])).toThrow(/too early/);
  });
  test('a warm-up check is asked for only where it was chosen, and a hot drip takes the result back', () => {
    const hot = rigid({ 'warm-up': 'yes' });
    const held: Step[] = [...raise(), ...settled, [60.1, 'end', '6.10'], ['checks'], ['checks']];
    expect(run(hot, held).state.visits.pop()!.stage).toBe('warm-up');
    expect(judged(hot, [...held, ['checks'], ['zero', '0']]).word).toBe('tight');
    expect(judged(hot, [...held, ['checks', 'drip=yes']]).word).toBe('not-tight');
  });
  test('test pressure that cannot be reached is Not tight', () => {
    expect(
      judged(rigid(), [
        ...raise().slice(0, 4),
        ['nopump', 'it runs out somewhere'],
        ['observe', 'nothing'],
        ...release,
      ]).word,
    ).toBe('not-tight');
  });
  test('trapped air by the strokes: over 4 % bleeds again, twice at most', () => {
    // 30 m of 22 mm copper hold about 9 l; 3 l of air squeezed to 1.8 bar take far more than water and wall
    const { state } = run(rigid(), raise('2.0', '0.2', '0.1'));
    expect(state.visits.map((v) => v.stage).pop()).toBe('bleed');
    expect(state.visits.find((v) => v.stage === 'raise')!.pumped[0]!.air!.litres).toBeGreaterThan(2);
    expect(run(rigid(), raise('0.005', '0.005', '0.005')).state.visits.pop()!.stage).toBe('settle');
  });
  test('never above the weakest element: it caps the pressure, and below working there is no test', () => {
    const weak = (most: string) =>
      planOf('water-hydraulic', {
        system: dyeHouse({ elements: [{ id: 'w', name: 'Mixing valve', place: 'vat', most: q(most) }] }),
      });
    expect(toNumber(testPressure(weak('6.00 bar')))).toBe(6);
    expect(toNumber(testPressure(weak('5.00 bar')))).toBe(5);
    expect(() => testPressure(weak('3.9 bar'))).toThrow(/Mixing valve permits/);
    const { state } = run(
      planOf('water-hydraulic', {
        gauges: BAR,
        system: dyeHouse({ elements: [{ id: 'w', name: 'Mixing valve', place: '', most: q('6.05 bar') }] }),
      }),
      raise().slice(0, 8),
    );
    expect(state.phase).toBe('running');
    expect(() =>
      run(
        planOf('water-hydraulic', {
          gauges: BAR,
          system: dyeHouse({ elements: [{ id: 'w', name: 'Mixing valve', place: '', most: q('6.05 bar') }] }),
        }),
        raise(),
      ),
    ).toThrow(/above what Mixing valve permits/);
  });
});

const plastic = (school: string) => rigid({ 'plastic-school': school }, 'plastic');
const pumped: Step[] = [
  ...raise(),
  ['start', '6.10'],
  [10, 'topup', '5.95', '6.10', '0.12'],
  [25, 'read', '6.02'],
];
describe('plastic pipework', () => {
  const schoolA = (low: string, ...rest: Step[]) =>
    run(plastic('third-90'), [...pumped, [30.1, 'end', '6.02'], ['checks'], ['fill', low], ...rest]);
  test.each([
    ['2.00', 'tight'], // a third of 6.00, met at equality
    ['2.35', 'tight'], // a rise is normal here
    ['1.99', 'not-tight'],
  ])('school A: bled to 2.05, %s bar after 90 min: %s', (end, word) => {
    const tail: Step[] = word === 'tight' ? [['checks'], ...release] : release;
    expect(schoolA('2.05', [90.1, 'end', end], ...tail).verdict!.word).toBe(word);
  });
  test('what a leak could hide in is said: what may recover and what is left above the floor; the fall that is permitted', () => {
    const plan = plastic('third-90');
    const a = schoolA('2.05', [90.1, 'end', '2.35'], ['checks'], ...release);
    const stiff = (state: RunState, p: string) => systemStiffness(sectionNow(plan, state), pascal(q(p)))!.c;
    // 4/3 C × ((6.10 − 2.05) / 3 + 2.35 − 2.00) bar in 90.1 min
    const hides = (4 / 3) * stiff(a.state, '2.05 bar') * 1.7e5 * 1000 * (60 / 90.1);
    expect(a.verdict!.adequacy).toMatchObject({ hides: true, neededMinutes: null });
    expect(a.verdict!.adequacy!.figure.value).toBeCloseTo(hides, 6);
    expect(a.verdict!.adequacy!.text).toMatch(/what recovers and what leaks/);
    // an end on the floor itself leaves what may recover
    const floor = schoolA('2.05', [90.1, 'end', '2.00'], ['checks'], ...release).verdict!.adequacy!.figure;
    expect(floor.value).toBeCloseTo((hides * 1.35) / 1.7, 6);
    const b = run(plastic('falls'), [
      ...pumped,
      [30.1, 'end', '6.02'],
      [30.1, 'end', '5.43'],
      [120.2, 'end', '5.24'],
      ['checks'],
      ...release,
    ]);
    // 4/3 C × 0.20 bar in the 120 min
    const start = decidingHold(plan, b.state)!.hold;
    const minutes = start.judgement!.elapsedMs / 60_000;
    const fall = (4 / 3) * stiff(b.state, showExact(start.start.figure)) * 0.2e5 * 1000 * (60 / minutes);
    expect(b.verdict!.adequacy!.figure.value).toBeCloseTo(fall, 6);
    expect(b.verdict!.adequacy!.text).toMatch(/stretch and leak/);
  });
  test('one reading below the floor is enough, although the end lies above it', () => {
    expect(schoolA('2.05', [40, 'read', '1.99'], [51, 'end', '2.05'], ...release).verdict!.word).toBe(
      'not-tight',
    );
  });
  test('bled in two minutes, or raised again; more than 0.1 bar above is refused', () => {
    expect(() => schoolA('2.11')).toThrow(/above the band/);
    const slow = run(plastic('third-90'), [
      ...pumped,
      [30.1, 'end', '6.02'],
      ['checks'],
      [2.2, 'fill', '2.05'],
    ]).state;
    expect(slow.visits.pop()!.stage).toBe('raise');
  });
  test('the twin: half the pressure, 120 min', () => {
    // the twin belongs to the design pressure, which is a fact of its own
    expect(() => plastic('half-120')).toThrow(/no school/);
    const choices = { 'plastic-school': 'half-120', multiple: 'design-1.1' };
    expect(() => rigid(choices, 'plastic')).toThrow(/DESIGN pressure/);
    const twin = planOf('water-hydraulic', {
      gauges: BAR,
      case: 'plastic',
      choices: { witness: 'none', leave: 'release', ...choices },
      // 1.1 × 5.45 bar is 6.00 bar
      system: dyeHouse({ designPressure: q('5.45 bar') }),
    });
    const { state } = run(twin, [...pumped, [30.1, 'end', '6.02'], ['checks'], ['fill', '3.05']]);
    expect(state.visits.pop()!.holds[0]!.minutes).toBe(120);
  });
  test.each([
    ['5.43', '5.24', 'tight'], // 0.59, then 0.19
    ['5.42', '5.30', 'not-tight'], // 0.60 is too much at equality
    ['5.43', '5.23', 'not-tight'], // then 0.20
    ['5.97', '5.23', 'not-tight'], // a small first fall does not lend the second hour what it left over
  ])('school B: p30 6.02, p60 %s, p180 %s bar: %s', (p60, p180, word) => {
    const first: Step[] = [...pumped, [30.1, 'end', '6.02'], [30.1, 'end', p60]];
    const later: Step[] =
      p60 === '5.42'
        ? release
        : [[120.2, 'end', p180], ...(word === 'tight' ? [['checks'] as Step] : []), ...release];
    const { verdict } = run(plastic('falls'), [...first, ...later]);
    expect(verdict!.word).toBe(word);
  });
  test('school B: the clock runs from the last pumped figure, and a top-up after it is Void', () => {
    const { state } = run(plastic('falls'), [...pumped, [30.1, 'end', '6.02']]);
    const held = state.visits.pop()!.holds[0]!;
    expect([held.start.figure, held.startedAt]).toEqual([q('6.02 bar'), held.start.readMoment]);
    const topped = run(plastic('falls'), [
      ...pumped,
      [30.1, 'end', '6.02'],
      [5, 'topup', '5.90', '6.02', '0.1'],
      ['observe', 'end'],
      ...release,
    ]);
    expect(topped.verdict!.word).toBe('void');
  });
  test('a repeat relaxes first, as long as the pipe was under pressure', () => {
    const { state } = run(plastic('falls'), [
      ...pumped,
      [30.1, 'end', '6.02'],
      [5, 'topup', '5.90', '6.02', '0.1'],
      ['observe', 'relax'],
      ['fill', '0.00'],
      ['start', '0.00'],
    ]);
    const relax = state.visits.pop()!.holds[0]!;
    // from the last step of raising to the release: 25 + 30 + 5 min and the steps between
    expect(relax.minutes).toBeGreaterThanOrEqual(66);
  });
  test('what a leak may hide in is printed beside B: the permitted fall, in l/h', () => {
    const pex = {
      ...dyeHouse().pipes[0]!,
      ...(({ nominal: size, bore }) => ({ size, bore }))(pipeFigures('pex', '20 × 2.0')),
      table: 'pex',
      nominal: '20 × 2.0',
    };
    const plan = planOf('water-hydraulic', {
      gauges: BAR,
      case: 'plastic',
      system: dyeHouse({ pipes: [pex] }),
      choices: { witness: 'none', leave: 'release', 'plastic-school': 'falls' },
    });
    const v = judged(plan, [
      ...pumped,
      [30.1, 'end', '6.02'],
      [30.1, 'end', '5.80'],
      [120.2, 'end', '5.61'],
      ['checks'],
      ...release,
    ]);
    expect([v.word, v.adequacy!.figure.name]).toEqual([
      'tight',
      'leak that would stay inside the permitted fall',
    ]);
  });
});
test('a joint check never stands for the final test, however still it stood', () => {
  const plan = planOf('water-joint-check', { gauges: BAR });
  const v = judged(plan, [
    ['checks'],
    ['gauge', 'W-16'],
    ['zero', '0'],
    ['pump', '1.80'],
    [1.1, 'look', '1.80', 'dry'],
    ['pump', '6.10'],
    ['look', '6.10', 'dry'],
    ['start', '6.10'],
    [6.1, 'end', '6.10'],
    ['start', '6.10'],
    [6.1, 'end', '6.10'],
    ...release,
  ]);
  expect([v.word, v.sentence]).toEqual(['inconclusive', expect.stringContaining('never takes the place')]);
});
test.each([
  ['30 m', 120], // 9 l
  ['318 m', 120], // just under 100 l of 20 mm bore
  ['320 m', 140],
])('dry test of %s: %s min', (length, minutes) => {
  const plan = planOf('water-dry', {
    gauges: [gauges.mbar],
    system: dyeHouse({ pipes: [{ ...dyeHouse().pipes[0]!, bore: q('20 mm'), length: q(length) }] }),
  });
  const { state } = run(plan, [
    ['checks'],
    ['gauge', 'M-1'],
    ['zero', '0'],
    ['fill', '150.00'],
    ['start', '150.00'],
    [8, 'read', '150.00'],
    [10.1, 'end', '150.00'],
  ]);
  expect(holdSpec(plan, state)!.times.rule).toBe(minutes);
});
test('loops and vehicles: what is raised, and by how much', () => {
  const loops = (working: string) =>
    toNumber(testPressure(planOf('floor-loops', { system: dyeHouse({ workingPressure: q(working) }) })));
  expect([loops('2 bar'), loops('4 bar')]).toEqual([4, 5.2]);
  const manifold = (most: string) =>
    testPressure(
      planOf('floor-loops', {
        system: dyeHouse({
          workingPressure: q('2 bar'),
          elements: [{ id: 'm', name: 'Manifold', place: '', most: q(most) }],
        }),
      }),
    );
  expect(toNumber(manifold('4 bar'))).toBe(4); // exactly the rule's least is still possible
  expect(() => manifold('3.9 bar')).toThrow(/Manifold permits 3.9 bar; the rule asks for at least 4 bar/);
  const van = (set: string, most: string) =>
    planOf('vehicle-water-air', {
      system: dyeHouse({
        setPressure: q(set),
        elements: [{ id: 'h', name: 'Heater', place: '', most: q(most) }],
      }),
    });
  expect([
    toNumber(testPressure(van('3.00 bar', '2.50 bar'))),
    toNumber(testPressure(van('3.00 bar', '6 bar'))),
  ]).toEqual([2.25, 2.7]);
  expect(() => testPressure(planOf('vehicle-water-air', { system: dyeHouse() }))).toThrow(/set pressure/);
});
