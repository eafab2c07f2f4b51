import fc from 'fast-check';
import {
  CIRCUIT_FAULTS,
  type CircuitAction,
  type CircuitFault,
  circuitTruth,
  type SimulatedCircuit,
} from './circuit';
import type { Parted } from './parted';
import { circuitAt } from '@/core/testing/worlds';
import { vacuumFit } from '@/core/medium/vacuum';

const ATM = 101_325;
const circuit = (fault: CircuitFault, over: Partial<SimulatedCircuit> = {}): SimulatedCircuit => {
  const made = {
    kind: 'circuit' as const,
    seed: 7,
    vacuum: false,
    set: 35e5,
    left: 0,
    solenoids: ['s1', 's2'],
    places: ['Cooler 1', 'Cooler 2', 'tee'],
    step: 1000,
    noise: 0,
    began: 0,
    ...over,
  };
  return { truth: circuitTruth(fault, made), ...made };
};
const s = (n: number) => n * 1000;
const RAISE: readonly CircuitAction[] = [
  { at: 0, act: 'gauge', connected: true },
  { at: s(10), act: 'solenoid', id: 's1' },
  { at: s(11), act: 'solenoid', id: 's2' },
  { at: s(20), act: 'cylinder', open: true },
  { at: s(95), act: 'cylinder', open: false },
];
const gauge = (c: SimulatedCircuit, actions: readonly CircuitAction[], at: number) =>
  circuitAt(c, actions, at).pressure;

test('raised through the manifold, never beyond what the regulator gives; vented it empties', () => {
  const sound = circuit('none');
  expect(gauge(sound, RAISE, s(95)) / 1e5).toBeCloseTo(30, 0);
  const open = RAISE.slice(0, 4);
  expect(gauge(sound, open, s(2000)) / 1e5).toBeLessThan(35.7);
  expect(gauge(sound, [...RAISE, { at: s(200), act: 'vent', open: true }], s(400))).toBeLessThan(1000);
});
test('a fill cools, the room cools: a sound circuit falls and loses nothing', () => {
  const sound = circuit('none');
  const [now, later, night] = [100, 700, 40_000].map((t) => circuitAt(sound, RAISE, s(t)));
  expect(now!.pressure).toBeGreaterThan(later!.pressure);
  expect(later!.pressure).toBeGreaterThan(night!.pressure);
  expect(night!.warmth).toBeLessThan(later!.warmth - 1.5);
});
test('a leak shows at its own joint and nowhere else, and only under pressure', () => {
  const leaky = circuit('leak');
  const { place } = leaky.truth;
  const looks = (at: number): CircuitAction[] =>
    leaky.places.map((p, i) => ({ at: at + i, act: 'fluid', place: p }) as const);
  const said = circuitAt(leaky, [...RAISE, ...looks(s(200))], s(300)).said.filter((x) =>
    x.includes('bubbles'),
  );
  expect(said.filter((x) => x.includes('growing'))).toEqual([`${place}: large growing bubbles`]);
  const before = circuitAt(leaky, looks(s(5)), s(6)).said;
  expect(before.some((x) => x.includes('growing'))).toBe(false);
  expect(gauge(leaky, RAISE, s(1600))).toBeLessThan(gauge(circuit('none'), RAISE, s(1600)) - 20_000);
});
describe('parted by its valves', () => {
  const parted: Parted = {
    cells: [
      { holds: ['main'], share: 0.75 },
      { holds: ['stub'], share: 0.25 },
    ],
    valves: [{ key: 's1', name: 'solenoid valve 1', joins: [0, 1] }],
    point: 0,
  };
  const drawn = { parted, lies: { 'Cooler 1': 1, 'Cooler 2': 0, tee: 0 } };
  const from = (n: number, ...more: CircuitAction[]): CircuitAction[] => [
    ...RAISE.slice(0, 1),
    ...more,
    ...RAISE.slice(n),
  ];
  test('behind a solenoid valve that stays shut a leak is hidden until it is opened', () => {
    const stuck = circuit('solenoid', drawn);
    expect([stuck.truth.stuck, stuck.truth.place]).toEqual(['s1', 'Cooler 1']);
    const held = gauge(stuck, RAISE, s(1600));
    expect(held).toBeCloseTo(gauge(circuit('none', drawn), from(2), s(1600)), -2);
    const fluid = (at: number): CircuitAction => ({ at: s(at), act: 'fluid', place: 'Cooler 1' });
    expect(circuitAt(stuck, [...RAISE, fluid(300)], s(301)).said.at(-1)).toMatch(/no bubbles/);
    const opened = [
      ...RAISE.slice(0, 3),
      { at: s(15), act: 'solenoid', id: 's1' } as const,
      ...RAISE.slice(3),
    ];
    expect(circuitAt(stuck, opened, s(16)).said.join()).toMatch(/hums.*A click: it is open/);
    expect(gauge(stuck, opened, s(1600))).toBeLessThan(held - 20_000);
    expect(circuitAt(stuck, [...opened, fluid(300)], s(301)).said.at(-1)).toMatch(/growing/);
  });
  test('a quarter shut off: the rest is full a quarter sooner, and both come to what both held', () => {
    const sound = circuit('none', drawn);
    const shut = from(3);
    const early = [gauge(sound, RAISE, s(40)), gauge(sound, shut, s(40))];
    expect(early[1]! / early[0]!).toBeCloseTo(4 / 3, 2);
    const before = gauge(sound, shut, s(4000));
    const after = gauge(sound, [...shut, { at: s(4000), act: 'solenoid', id: 's1' }], s(4000));
    expect((after + ATM) / (0.75 * (before + ATM) + 0.25 * ATM)).toBeCloseTo(1, 2);
  });
  test('what is shut off keeps what it holds, and leaks on by itself', () => {
    const leaky = circuit('leak', { ...drawn, places: ['Cooler 1'] });
    const acts: CircuitAction[] = [...RAISE, { at: s(200), act: 'solenoid', id: 's1' }];
    const [held, later] = [gauge(leaky, acts, s(200)), gauge(leaky, acts, s(3000))];
    // what cools is no leak
    expect(later / held).toBeGreaterThan(0.975);
    const again = gauge(leaky, [...acts, { at: s(3000), act: 'solenoid', id: 's1' }], s(3000));
    expect(again).toBeLessThan(later - 100_000);
  });
  test('a vacuum behind a valve that is shut stays there; opened to air beside it, it is gone', () => {
    const dry = circuit('none', { ...drawn, vacuum: true, step: 1 });
    const pumped: CircuitAction[] = [
      { at: 0, act: 'gauge', connected: true },
      { at: s(1), act: 'vacuum-pump', on: true },
      { at: s(1800), act: 'vacuum-pump', on: false },
    ];
    expect(gauge(dry, pumped, s(1800))).toBeLessThan(67);
    const opened: CircuitAction[] = [...pumped, { at: s(1801), act: 'solenoid', id: 's1' }];
    expect(gauge(dry, opened, s(1801))).toBeCloseTo(0.25 * ATM, -3);
  });
  test('a valve turned by hand parts what its drawing says; nothing is made or lost by turning', () => {
    const hand: Parted = { ...parted, valves: [{ key: 'ball', name: 'ball valve', joins: [0, 1] }] };
    const c = circuit('none', { ...drawn, parted: hand, solenoids: [] });
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.integer({ min: 200, max: 2000 }), fc.boolean())), (turns) => {
        const acts = turns.map(([at, open]): CircuitAction => ({
          at: s(at),
          act: 'valve',
          id: 'ball',
          open,
        }));
        const all = [...acts, { at: s(2000), act: 'valve', id: 'ball', open: true } as const].sort(
          (x, y) => x.at - y.at,
        );
        expect(gauge(c, [...RAISE, ...all], s(2100))).toBeCloseTo(gauge(c, RAISE, s(2100)), 3);
      }),
    );
  });
});
test('the label says what is in the cylinder; sun warms the pipe and not the room', () => {
  const label = (fault: CircuitFault) => circuitAt(circuit(fault), [{ at: 1, act: 'label' }], 2).said[0];
  expect(label('none')).toMatch(/NITROGEN/);
  expect(label('wrong-gas')).toMatch(/OXYGEN/);
  const felt = (place: 'pipe' | 'room') =>
    circuitAt(circuit('sun'), [{ at: s(3600), act: 'thermometer', place }], s(3601)).said[0]!;
  const celsius = (words: string) => Number(/([\d.]+) °C/.exec(words)![1]);
  expect(celsius(felt('pipe')) - celsius(felt('room'))).toBeGreaterThan(5);
});
describe('evacuated', () => {
  const pumped: readonly CircuitAction[] = [
    { at: 0, act: 'gauge', connected: true },
    { at: s(1), act: 'solenoid', id: 's1' },
    { at: s(1), act: 'solenoid', id: 's2' },
    { at: s(5), act: 'vacuum-pump', on: true },
    { at: s(1800), act: 'vacuum-pump', on: false },
  ];
  const stood = (fault: CircuitFault, actions = pumped, from = 1800) =>
    vacuumFit(
      Array.from({ length: 11 }, (_, m) => ({
        seconds: m * 60,
        pa: Math.round(
          circuitAt(circuit(fault, { vacuum: true, step: 1 }), actions, s(from + m * 60)).pressure,
        ),
      })),
      1,
      2,
    );
  test('it comes below 67 Pa whatever is hidden, and what comes back has the shape of its cause', () => {
    for (const fault of ['none', 'leak', 'moisture'] as const)
      expect(circuitAt(circuit(fault, { vacuum: true }), pumped, s(1800)).pressure).toBeLessThan(67);
    expect(stood('leak').cause).toBe('leak');
    expect(stood('leak').rise).toBeGreaterThan(67);
    expect(stood('moisture').cause).toBe('moisture');
    expect(stood('moisture').rise).toBeGreaterThan(100);
    expect(stood('none').rise).toBeLessThan(30);
  });
  test('nitrogen takes up the water: broken twice it comes back less', () => {
    const again = (from: number): CircuitAction[] => [
      { at: s(from), act: 'cylinder', open: true },
      { at: s(from + 10), act: 'cylinder', open: false },
      { at: s(from + 300), act: 'vent', open: true },
      { at: s(from + 500), act: 'vent', open: false },
      { at: s(from + 510), act: 'vacuum-pump', on: true },
      { at: s(from + 2300), act: 'vacuum-pump', on: false },
    ];
    const twice = [...pumped, ...again(2500), ...again(5500)];
    expect(stood('moisture', twice, 7800).rise).toBeLessThan(stood('moisture').rise / 4);
  });
  test('a pump is not started over a pressure', () => {
    const pressed: readonly CircuitAction[] = [
      { at: 1, act: 'cylinder', open: true },
      { at: s(1), act: 'cylinder', open: false },
      { at: s(2), act: 'vacuum-pump', on: true },
    ];
    const state = circuitAt(circuit('none', { vacuum: true }), pressed, s(5));
    expect([state.pumping, state.said.at(-1)]).toEqual([false, expect.stringMatching(/vent first/)]);
  });
  test('open to air the vacuum gauge is over its range', () => {
    const c = circuit('none', { vacuum: true, step: 1 });
    expect(circuitAt(c, [], s(10)).display).toBe(2500);
  });
});
test('whatever is done, in whatever order: a pressure that is a number, and the same again', () => {
  const action = fc.oneof(
    fc.record({
      at: fc.integer({ min: 0, max: 1e7 }),
      act: fc.constantFrom('cylinder', 'vent'),
      open: fc.boolean(),
    }),
    fc.record({ at: fc.integer({ min: 0, max: 1e7 }), act: fc.constant('vacuum-pump'), on: fc.boolean() }),
    fc.record({
      at: fc.integer({ min: 0, max: 1e7 }),
      act: fc.constant('solenoid'),
      id: fc.constantFrom('s1', 's2'),
    }),
    fc.record({ at: fc.integer({ min: 0, max: 1e7 }), act: fc.constantFrom('zero', 'label') }),
  ) as fc.Arbitrary<CircuitAction>;
  fc.assert(
    fc.property(
      fc.array(action, { maxLength: 20 }),
      fc.constantFrom(...(Object.keys(CIRCUIT_FAULTS) as CircuitFault[])),
      fc.boolean(),
      (actions, fault, vacuum) => {
        const c = circuit(fault, { vacuum });
        const state = circuitAt(c, actions, 2e7);
        expect(state.pressure + (vacuum ? 0 : ATM)).toBeGreaterThan(0);
        expect(state.pressure).toBeLessThan(60e5);
        const again = circuitAt(c, actions, 2e7);
        expect([again.steps, again.display, again.said]).toEqual([state.steps, state.display, state.said]);
      },
    ),
    { numRuns: 200 },
  );
});
