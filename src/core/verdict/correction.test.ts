import { gasAlone } from '@/core/fillings/gas/moves';
import { type Exact, parseWithUnit as q } from '@/core/quantity/exact';
import { reduce } from '@/core/run/reduce';
import { dyeHouse, gateDrain, gauges, planOf, run, type Step } from '@/core/testing/quarter';
import { aloneIn } from './correction';
import { verdictOf } from './verdict';

const C = (a: string, b: string) => ({ temperature: [q(a), q(b)] as [Exact, Exact] });
describe('what warmth and barometer alone do', () => {
  test('gas: 1 K at 20 mbar and 20 C is 3.52 mbar, worked by hand: 1033.25 / 293.15', () => {
    expect((gasAlone(2000, C('20.0 C', '21.0 C')) as number) / 100).toBeCloseTo(1033.25 / 293.15, 6);
  });
  test('Fahrenheit and Celsius say the same', () => {
    const c = gasAlone(2000, C('20.0 C', '25.0 C')) as number;
    expect(gasAlone(2000, C('68.0 F', '77.0 F'))).toBeCloseTo(c, 6);
  });
  test('a barometer that rises by 1 mbar takes 1 mbar off the gauge', () => {
    expect(gasAlone(2000, { barometer: [q('1000.0 mbar'), q('1001.0 mbar')] })).toBeCloseTo(-100, 9);
  });
  test('nothing logged: nothing to take out', () => expect(gasAlone(2000, {})).toBeNull());
  test('a full copper section rises by its own dp/dT, not by the gas law; PE-X falls when it warms', () => {
    const copper = planOf('water-hydraulic', { gauges: [gauges.wide], case: 'rigid' });
    const state = reduce(copper, []);
    const perKelvin = aloneIn(copper, state)(610_000, C('14.5 C', '15.5 C')) as number;
    // V (β − 3α) / C with β(15) = 1.51e-4, α = 17e-6: 30 m of 22 × 1 copper, by hand
    const stiffness = 1 / 2.2e9 + 0.022 / (120e9 * 0.001);
    expect(perKelvin / ((1.509e-4 - 3 * 17e-6) / stiffness)).toBeCloseTo(1, 2);
    const pex = planOf('water-hydraulic', {
      gauges: [gauges.wide],
      case: 'plastic',
      system: dyeHouse({
        pipes: [
          {
            ...dyeHouse().pipes[0]!,
            size: q('20 mm'),
            bore: q('16 mm'),
            table: 'pex',
            nominal: '20 × 2.0',
          },
        ],
      }),
    });
    expect(aloneIn(pex, state)(600_000, C('15.0 C', '16.0 C'))).toBeLessThan(0);
  });
  test('a level is never corrected; a pipe whose wall is not known cannot be', () => {
    const drain = planOf('drain-fill-hold', { system: gateDrain() });
    expect(aloneIn(drain, reduce(drain, []))(0, C('10.0 C', '30.0 C'))).toBeNull();
    const bare = planOf('water-hydraulic', {
      gauges: [gauges.wide],
      system: dyeHouse({
        pipes: [{ ...dyeHouse().pipes[0]!, table: undefined, nominal: undefined }],
      }),
    });
    const alone = aloneIn(bare, reduce(bare, []));
    expect(alone(600_000, C('15.0 C', '16.0 C'))).toBe('unknown');
    expect(alone(600_000, C('15.0 C', '15.0 C'))).toBe(0);
  });
});

describe('raw and corrected in a water hold', () => {
  const before: Step[] = [
    ['checks'],
    ['gauge', 'W-16'],
    ['zero', '0'],
    ['checks'],
    ['pump', '1.80'],
    [2.1, 'look', '1.80', 'dry'],
    ['pump', '3.90'],
    [2.1, 'look', '3.90', 'dry'],
    ['pump', '6.10'],
    [1.1, 'look', '6.10', 'dry'],
    ['start', '6.10'],
    [8, 'read', '6.10'],
    [10.1, 'end', '6.10'],
    ['start', '6.10'],
  ];
  const plan = planOf('water-hydraulic', {
    gauges: [gauges.wide],
    case: 'rigid',
    choices: { witness: 'none', leave: 'release' },
  });
  const held = (end: string, from: string, to: string): Step[] => [
    ['temperature', 'start', from],
    ['temperature', 'end', to],
    [60.1, 'end', end],
  ];
  const word = (steps: readonly Step[]) =>
    run(plan, [...before, ...steps])
      .state.visits.flatMap((v) => v.holds)
      .pop()!.judgement!.outcome;
  test.each([
    // standing still while it warmed by 0.7 K hides what a copper section would have risen by
    ['6.10', '15.0', '15.7', 'disagree'],
    // a fall of 1.46 bar is about what 1 K of cooling does to it: nothing can be said
    ['4.64', '15.0', '14.0', 'disagree'],
    ['6.10', '15.0', '15.0', 'nil'],
    ['5.00', '15.0', '15.0', 'beyond'],
    ['6.30', '15.0', '16.0', 'rose'],
  ])('6.10 to %s bar from %s to %s C: %s', (end, from, to, outcome) =>
    expect(word(held(end, from, to))).toBe(outcome),
  );
  test('the record says why', () => {
    const twice = [
      ...held('6.10', '15.0', '15.7'),
      ['start', '6.10'],
      [10.1, 'end', '6.10'],
      ['start', '6.10'],
      ...held('6.10', '15.0', '15.7'),
      ['checks'],
      ['zero', '0'],
    ] as Step[];
    const { state } = run(plan, [...before, ...twice]);
    const v = verdictOf(plan, state)!;
    expect([v.word, v.sentence]).toEqual([
      'inconclusive',
      expect.stringMatching(/The gauge showed 0.00 bar; without .* the two disagree/),
    ]);
  });
});
test('a drain with temperatures logged is judged by its level, and ends', () => {
  const plan = planOf('drain-fill-hold', { system: gateDrain() });
  const { verdict } = run(plan, [
    ['checks'],
    ['checks'],
    ['fill', '20'],
    ['start', '20'],
    [4, 'read', '12'],
    [6.1, 'end', '12'],
    ['checks'],
    ['start', '12'],
    ['temperature', 'start', '10.0'],
    ['temperature', 'end', '20.0'],
    ['witness', 'end', 'same'],
    [30.1, 'end', '12'],
    ['checks'],
    ['checks'],
    ['checks'],
  ]);
  expect(verdict!.word).toBe('tight');
});
