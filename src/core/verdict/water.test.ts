import { certificateTitle } from '@/core/plan/plan';
import { gateDrain, gauges, judged, planOf, run, type Step } from '@/core/testing/quarter';

const P300 = [gauges.psiHigh];
const release: Step[] = [['checks'], ['zero', '0']];

/* ---- house supply ---- */
const shut: Step[] = [
  ['checks'],
  ['observe', 'still'],
  ['gauge', 'P-300'],
  ['zero', '0'],
  ['fill', '60.0'],
  ['checks'],
  ['start', '60.0'],
  [1, 'read', '60.0'],
  [1.2, 'end', '60.0'],
  ['start', '60.0'],
];
const supply = (...rest: Step[]) =>
  judged(planOf('water-supply-static', { gauges: P300 }), [...shut, ...rest]);
const proof = (end: string): Step[] => [
  ['fill', '40.0'],
  ['start', '40.0'],
  [3.1, 'end', end],
];
describe('house supply at mains pressure', () => {
  test('no movement and a meter valve that closes: Tight, and the boundary is part of the sentence', () => {
    const v = supply([20.1, 'end', '60.0'], ...proof('40.0'), ...release);
    expect([v.word, v.sentence]).toEqual(['tight', expect.stringContaining('let-by proved')]);
  });
  test.each([
    ['40.1', 'tight'],
    ['40.2', 'void'], // the limit of a one-decimal gauge, broken at equality
    ['40.5', 'void'],
  ])('meter valve 40.0 to %s psi after 20 psi were drawn off: %s', (end, word) => {
    expect(supply([20.1, 'end', '60.0'], ...proof(end), ...release).word).toBe(word);
  });
  test('a fall while the valve is proved leaves no result', () => {
    expect(supply([20.1, 'end', '60.0'], ...proof('39.5'), ...release).word).toBe('void');
  });
  test.each([
    ['59.8', 'tight'],
    ['59.7', 'not-tight'], // 0.1 % of scale: 0.3 psi counts at equality
  ])('60.0 to %s psi in 20 min: %s', (end, word) => {
    const rest: Step[] = word === 'tight' ? proof('40.0') : [['observe', 'accept', 'customer waits']];
    expect(supply([20.1, 'end', end], ...rest, ...release).word).toBe(word);
  });
  test('one draw breaks the hold; nothing is sealed while the supply is off', () => {
    const plan = planOf('water-supply-static', { gauges: P300 });
    const { state } = run(plan, [...shut, ['disturb', 'water was used']]);
    expect(state.visits.find((x) => x.stage === 'hold')!.holds[0]!.broken?.reason).toBe('water was used');
    const stopped = run(plan, [...shut, ['stop'], ['reason', 'abandoned', 'called away']]).state;
    expect([stopped.phase, stopped.debts.map((d) => d.key)]).toEqual([
      'put-back',
      ['heater', 'valves', 'supply', 'flush'],
    ]);
    expect(plan.procedure.debts.supply!.urgent).toBe(5);
    expect(() =>
      run(plan, [...shut, ['stop'], ['reason', 'abandoned', 'called away'], ['sign', 'T']]),
    ).toThrow();
  });
  test('above 80 psi is a finding, exactly 80 is not; the title is one of the true ones', () => {
    const at = (psi: string) =>
      run(planOf('water-supply-static', { gauges: P300 }), [...shut.slice(0, 4), ['fill', psi]]).state
        .findings;
    expect([at('80.0').length, at('80.1').length]).toEqual([0, 1]);
    expect(certificateTitle(planOf('water-supply-static'))).toMatch(/mains pressure held/);
    expect(certificateTitle(planOf('water-supply-static', { choices: { title: 'hydrostatic' } }))).toMatch(
      /Hydrostatic.*at mains pressure/,
    );
    expect(() => planOf('water-supply-static', { choices: { title: 'pumped' } })).toThrow(/not an answer/);
  });
});

/* ---- drain ---- */
const filled: Step[] = [
  ['checks'],
  ['checks'],
  ['fill', '20'],
  ['start', '20'],
  [4, 'read', '12'],
  [6.1, 'end', '12'],
  ['checks'],
  ['start', '12'],
];
const drain = (...rest: Step[]) => judged(planOf('drain-fill-hold'), [...filled, ...rest]);
const drained: Step[] = [['checks'], ['checks'], ['checks']];
describe('drain by level', () => {
  test.each([
    ['11', 'tight'],
    ['10', 'not-tight'], // 2 mm, counted at equality
  ])('12 mm to %s mm over the slab: %s', (end, word) => {
    const after: Step[] = word === 'tight' ? drained : [['observe', 'accept', 'customer waits'], ...drained];
    const v = drain(['witness', 'start', 'same'], ['witness', 'end', 'same'], [30.1, 'end', end], ...after);
    expect(v.word).toBe(word);
    // three openings of 100 mm: 23.6 ml per mm; 2 mm and the blur of two looks (1.65 × √(2/12 + 2/4) mm) in half an hour
    const seen = 2 + 1.65 * Math.sqrt(2 / 12 + 2 / 4);
    expect(v.adequacy!.figure.value).toBeCloseTo((3 * Math.PI * 0.05 ** 2 * seen) / 0.502, 2);
  });
  test('the second place must be looked at, and its fall takes the result away', () => {
    const plan = planOf('drain-fill-hold');
    expect(() => run(plan, [...filled, [30.1, 'end', '12']])).toThrow(/second place/);
    const v = drain(
      ['witness', 'end', 'fell', 'trap lower'],
      [30.1, 'end', '12'],
      ['observe', 'accept', 'customer waits'],
      ...drained,
    );
    expect(v.word).toBe('inconclusive');
  });
  test('below the slab nothing starts; a level that rose is void; a plug that passed is not the drain', () => {
    const plan = planOf('drain-fill-hold');
    expect(() => run(plan, [['checks'], ['checks'], ['fill', '-1']])).toThrow(/below the band/);
    const rose = run(plan, [...filled, ['witness', 'end', 'same'], [30.1, 'end', '14']]).state;
    expect([rose.claims['']!.finding, rose.visits[rose.visits.length - 1]!.stage]).toEqual(['void', 'fill']);
    const plug = run(plan, [
      ...filled,
      ['witness', 'end', 'same'],
      [30.1, 'end', '2'],
      ['observe', 'plug'],
    ]).state;
    expect(plug.claims['']!.finding).toBe('void');
  });
  test('without free surfaces the smallest loss is not known, and is not invented', () => {
    const plan = planOf('drain-fill-hold', { system: gateDrain({ surfaces: [] }) });
    const v = judged(plan, [...filled, ['witness', 'end', 'same'], [30.1, 'end', '12'], ...drained]);
    expect([v.word, v.adequacy, v.leakRate]).toEqual(['tight', null, null]);
  });
});
