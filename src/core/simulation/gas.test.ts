import fc from 'fast-check';
import { leakRate } from '@/core/medium/gas';
import { leakedPressure, laminarConductance } from '@/core/medium/leak';
import { bakery, plan as staged } from '@/core/testing/bakery';
import { gasAt } from '@/core/testing/worlds';
import { cellsOf } from './cells';
import { leakAt, type GasAction, type SimulatedGas } from './gas';
import {
  FAULTS,
  type Fault,
  gasTruth,
  type GasTruth,
  litresPerHourAt20,
  perHourAt20,
  SOUND_GAS,
} from './gas-truth';
import { normal } from './noise';
import { simulationOf } from '@/core/yard/setup';

const began = 1_000_000;
const A = 101_325;
/** A source, its valve, a pipe, and two appliances behind valves of their own. */
const pipe = (truth: Partial<GasTruth> = {}, over: Partial<SimulatedGas> = {}): SimulatedGas => ({
  kind: 'gas',
  seed: 7,
  truth: { ...SOUND_GAS, ...truth },
  cells: [
    { holds: ['source'], volume: 0, fed: true },
    { holds: ['point', 'carcass'], volume: 0.014, fed: false },
    { holds: ['oven'], volume: 0.004, fed: false },
    { holds: ['hob'], volume: 0.002, fed: false },
  ],
  valves: [
    { key: 'supply', name: 'supply valve', joins: [0, 1] },
    { key: 'oven', name: 'lever', joins: [1, 2] },
    { key: 'hob', name: 'lever', joins: [1, 3] },
  ],
  point: 1,
  pipes: [{ id: 'carcass', name: 'Carcass' }],
  places: [
    { id: 'oven', name: 'Oven' },
    { id: 'hob', name: 'Hob' },
  ],
  supply: 2100,
  stroke: 0,
  step: 1,
  noise: 0,
  began,
  ...over,
});
const s = (n: number) => began + n * 1000;
const shut: GasAction = { at: s(1), act: 'supply', open: 'shut' };
const on: GasAction = { at: s(1), act: 'gauge', connected: true };
const turn = (n: number, id: string, open: boolean): GasAction => ({ at: s(n), act: 'valve', id, open });
const leak = perHourAt20('carcass', 5);

test('law: the state depends on time only through the actions before it, however often it is asked', () => {
  fc.assert(
    fc.property(
      fc.constantFrom<Partial<GasTruth>>(
        {},
        { leaks: [leak] },
        { passes: { supply: litresPerHourAt20(3) } },
        { warmth: { kelvin: 1, tau: 600, from: 50 } },
      ),
      fc.integer({ min: 2, max: 500 }),
      fc.integer({ min: 2, max: 500 }),
      (truth, a, b) => {
        const [early, late] = [Math.min(a, b), Math.max(a, b)];
        const idle: GasAction = { at: s(early), act: 'fluid', place: 'pipework' };
        const direct = gasAt(pipe(truth), [shut], s(late)).pressure;
        expect(Math.abs(gasAt(pipe(truth), [shut, idle], s(late)).pressure - direct)).toBeLessThan(0.01);
      },
    ),
  );
});
test('warmth that begins at a moment is there from that moment on, however the time before and after is asked', () => {
  const i = pipe({ warmth: { kelvin: 1, tau: 600, from: 50 } });
  const expected = ((A + 2100) / 293.15) * (1 - Math.exp(-2 / 600));
  for (const early of [20, 49.9, 50, 50.001, 51]) {
    const idle: GasAction = { at: s(early), act: 'fluid', place: 'pipework' };
    expect(gasAt(i, [shut, idle], s(52)).pressure - 2100).toBeCloseTo(expected, 1);
  }
});
test.each([0.5, 2, 6])('a leak of %f l/h falls by the closed form of the square law', (rate) => {
  const i = pipe({ leaks: [perHourAt20('oven', rate)] });
  const k = laminarConductance(rate / 3.6e6, 2000);
  expect(gasAt(i, [shut], s(601)).pressure).toBeCloseTo(
    leakedPressure(gasAt(i, [shut], s(1)).pressure, k, 0.02, 600),
    0,
  );
});
test('let-by against leak comes to rest where what passes equals what is lost, by a small-step model of its own', () => {
  const kIn = litresPerHourAt20(3);
  const i = pipe({ passes: { supply: kIn }, leaks: [{ ...leak, law: 'orifice' }] });
  let p = gasAt(i, [shut], s(1)).pressure;
  for (let t = 0; t < 900; t += 0.01)
    p += (0.01 * A * (kIn * (2100 - p) - (5 / 3.6e6) * Math.sqrt(Math.max(0, p) / 2000))) / 0.02;
  expect(gasAt(i, [shut], s(901)).pressure).toBeCloseTo(p, 0);
});
test('gas is conserved: what is pumped in stands in the cells that are joined, and evens out when a valve opens', () => {
  const i = pipe({}, { supply: 0, stroke: 0.0005 });
  const acts: GasAction[] = [turn(1, 'oven', false), { at: s(2), act: 'pump', strokes: 4 }];
  const risen = (4 * 0.0005 * A) / 0.016;
  expect(gasAt(i, acts, s(3)).pressure).toBeCloseTo(risen, 6);
  expect(gasAt(i, [...acts, turn(5, 'oven', true)], s(6)).pressure).toBeCloseTo((risen * 0.016) / 0.02, 6);
});
test('what a shut valve parts leaks by itself: closed off, the section holds; opened, it falls again', () => {
  const i = pipe({ leaks: [perHourAt20('oven', 3)] });
  const [before, held, again] = [
    gasAt(i, [shut, turn(2, 'oven', false)], s(3)),
    gasAt(i, [shut, turn(2, 'oven', false)], s(900)),
    gasAt(i, [shut, turn(2, 'oven', false), turn(900, 'oven', true)], s(901)),
  ];
  expect(held.pressure).toBeCloseTo(before.pressure, 6);
  expect(again.pressure).toBeLessThan(before.pressure - 200);
});
test('a valve that stands shut unseen hides what lies behind it, until somebody looks or turns it', () => {
  const i = pipe({ leaks: [perHourAt20('oven', 3)], shut: ['oven'] });
  expect(gasAt(i, [shut], s(900)).pressure).toBeCloseTo(2100, 3);
  expect(gasAt(i, [shut], s(5)).closed).toEqual([]);
  const looked = gasAt(i, [shut, { at: s(3), act: 'look', place: 'oven' }], s(5));
  expect([looked.closed, looked.said]).toEqual([['oven'], ['Oven: stands shut.']]);
  expect(gasAt(i, [shut, turn(3, 'oven', true)], s(900)).pressure).toBeLessThan(1600);
});
test('own kit loses while it is connected, and only then; it bubbles, and made again it holds', () => {
  const i = pipe({ leaks: [perHourAt20('kit', 3)] });
  expect(gasAt(i, [shut], s(300)).pressure).toBeCloseTo(2100, 3);
  const fell = gasAt(i, [shut, on, { at: s(9), act: 'fluid', place: 'kit' }], s(300));
  expect(fell.pressure).toBeLessThan(1800);
  expect(fell.said).toEqual(['Own kit: large growing bubbles']);
  const mended = gasAt(i, [shut, on, { at: s(9), act: 'mend', place: 'kit' }], s(300));
  expect(mended.pressure).toBeGreaterThan(2050);
});
test('leak fluid shows what it is on: nothing behind a wall, the joints of the pipe together, a valve that passes', () => {
  const said = (truth: Partial<GasTruth>, place: string, act: 'fluid' | 'smell' = 'fluid') =>
    gasAt(
      pipe(truth),
      [
        shut,
        { at: s(2), act: 'bleed', open: true },
        { at: s(4), act: 'bleed', open: false },
        { at: s(5), act, place },
      ],
      s(6),
    ).said[0];
  expect(said({ leaks: [leak] }, 'pipework')).toMatch(/growing bubbles/);
  expect(said({ leaks: [{ ...leak, buried: true }] }, 'pipework')).toMatch(/no bubbles/);
  expect(said({ leaks: [{ ...leak, buried: true }] }, 'pipework', 'smell')).toMatch(/smells of gas/);
  expect(said({ leaks: [perHourAt20('oven', 1)] }, 'oven')).toBe('Oven: large growing bubbles');
  expect(said({ leaks: [perHourAt20('oven', 0.1)] }, 'oven')).toBe('Oven: no bubbles');
  expect(said({ passes: { supply: litresPerHourAt20(4) } }, 'valve')).toMatch(/growing bubbles/);
  expect(said({ smells: ['hob'] }, 'hob', 'smell')).toBe('Hob: smells of gas.');
});
test('isolated by fault: sound holds to the last step; a leak shows the rate it was made with', () => {
  expect(gasAt(pipe(), [shut], s(600)).pressure).toBeCloseTo(2100, 6);
  const i = pipe({ leaks: [leak] });
  const [a, b] = [gasAt(i, [shut], s(10)).pressure, gasAt(i, [shut], s(12)).pressure];
  expect(leakRate(0.02, a, b, 2).value / (leakAt(leak, a) * 3.6e6)).toBeCloseTo(1, 1);
  expect(gasAt(i, [shut], s(10)).leaking! / leakAt(leak, a)).toBeCloseTo(1, 6);
});
test('leak and let-by in balance: nothing moves at the let-by pressure, yet at test pressure it falls', () => {
  const sizes = { volume: 0.02, supply: 2100, appliances: ['oven'], pipes: ['carcass'], valves: [] };
  const i = pipe(gasTruth('both', 7, sizes));
  const bleed: GasAction[] = [shut, { at: s(2), act: 'bleed', open: true }];
  let at = 2;
  while (gasAt(i, bleed, s(at)).pressure > 850) at += 0.05;
  const held: GasAction[] = [...bleed, { at: s(at), act: 'bleed', open: false }];
  expect(Math.abs(gasAt(i, held, s(at + 61)).pressure - gasAt(i, held, s(at + 1)).pressure)).toBeLessThan(2);
  expect(gasAt(i, [shut], s(121)).pressure).toBeLessThan(2100 - 25);
});
test('a jet for another gas is read by whoever looks, and moves no gauge', () => {
  const look: GasAction = { at: s(5), act: 'look', place: 'oven' };
  const wrong = gasAt(pipe({ jets: ['oven'] }), [shut, on, look], s(10));
  expect(wrong.said.at(-1)).toMatch(/its jet is for another gas/);
  const right = gasAt(pipe(), [shut, on, look], s(10));
  expect(right.said.at(-1)).toMatch(/stands open\.$/);
  expect(wrong.display).toBe(right.display);
});
test('a column that leans is longer than its pressure is high; hung plumb it shows what is so, and zero looks right at any angle', () => {
  const gauge = { zero: 0, sticks: 0, drift: 0 };
  const leans = (tilt: number) => pipe({ gauge: { ...gauge, tilt } });
  const plumb = gasAt(pipe({ gauge }), [shut, on], s(5)).display;
  expect(gasAt(leans(60), [shut, on], s(5)).display / plumb).toBeCloseTo(2, 2);
  expect(gasAt(leans(30), [shut, on], s(5)).display / plumb).toBeCloseTo(1.1547, 2);
  expect(gasAt(leans(30), [shut, on, { at: s(3), act: 'level-gauge' }], s(5)).display).toBe(plumb);
  expect(gasAt(leans(60), [shut], s(5)).display).toBe(0);
});
test('the gauge: zeroed open to air it is right, under pressure it hides it; a needle sticks until it is tapped; it walks', () => {
  const off = pipe({ gauge: { zero: 80, sticks: 0, drift: 0 } });
  expect(gasAt(off, [shut], s(5)).display).toBe(80);
  expect(gasAt(off, [shut, { at: s(3), act: 'zero' }], s(5)).display).toBe(0);
  expect(gasAt(off, [shut, on, { at: s(3), act: 'zero' }], s(5)).display).toBe(0);
  const stuck = pipe({ gauge: { zero: 0, sticks: 60, drift: 0 }, leaks: [perHourAt20('oven', 0.5)] });
  expect(gasAt(stuck, [shut, on], s(121)).display - gasAt(stuck, [shut, on], s(11)).display).toBe(0);
  const tapped = gasAt(stuck, [shut, on, { at: s(120), act: 'tap-gauge' }], s(121));
  expect(tapped.display).toBe(Math.round(tapped.pressure));
  const walks = pipe({ gauge: { zero: 0, sticks: 0, drift: 120 } });
  expect(gasAt(walks, [shut, on], s(1801)).display).toBe(2100 + 60);
});
test('a regulator that creeps climbs; somebody who draws shows as a step; a meter counts what passes', () => {
  const creeps = pipe({ creep: { perMinute: 30, most: 200 } });
  // it follows its regulator a second or two behind
  expect(Math.abs(gasAt(creeps, [on], s(120)).pressure - 2160)).toBeLessThan(2);
  expect(gasAt(creeps, [on], s(3600)).pressure).toBeCloseTo(2300, 0);
  const drawn = pipe({ draws: [{ from: 60, to: 62, k: litresPerHourAt20(90) }] });
  const p = (t: number) => gasAt(drawn, [shut, on], s(t)).pressure;
  expect(p(59)).toBeCloseTo(2100, 3);
  expect(p(63)).toBeLessThan(2000);
  expect(p(200)).toBeCloseTo(p(63), 6);
  const open = gasAt(pipe({ leaks: [leak] }), [], s(3600));
  expect(open.metered).toBeCloseTo(leakAt(leak, open.pressure) * 3600 * 1000, 2);
});
test('the probe shows what warms the pipe, with its lag, in tenths of a degree', () => {
  const i = pipe({ warmth: { kelvin: 1.2, tau: 600, from: 0 }, lag: 100 });
  expect(gasAt(i, [on], s(0)).probe).toBe(200);
  expect(gasAt(i, [on], s(700)).probe! - 200).toBe(Math.round(12 * (1 - Math.exp(-1))));
});
test('whatever is done in whatever order: a pressure that is a number, never below nothing, and the same again', () => {
  const when = fc.integer({ min: 0, max: 2000 }).map(s);
  const act = fc.oneof(
    fc.record({
      at: when,
      act: fc.constant('supply' as const),
      open: fc.constantFrom('shut', 'crack', 'open'),
    }),
    fc.record({ at: when, act: fc.constant('bleed' as const), open: fc.boolean() }),
    fc.record({
      at: when,
      act: fc.constant('valve' as const),
      id: fc.constantFrom('oven', 'hob', 'nothing'),
      open: fc.boolean(),
    }),
    fc.record({ at: when, act: fc.constant('gauge' as const), connected: fc.boolean() }),
    fc.record({ at: when, act: fc.constantFrom('zero' as const, 'tap-gauge' as const, 'detector' as const) }),
    fc.record({
      at: when,
      act: fc.constantFrom('fluid' as const, 'smell' as const, 'look' as const, 'mend' as const),
      place: fc.constantFrom('oven', 'kit', 'pipework', 'supply', ''),
    }),
    fc.record({ at: when, act: fc.constant('pump' as const), strokes: fc.integer({ min: 0, max: 30 }) }),
  ) as fc.Arbitrary<GasAction>;
  const sizes = {
    volume: 0.02,
    supply: 2100,
    appliances: ['oven'],
    pipes: ['carcass'],
    valves: pipe().valves,
  };
  fc.assert(
    fc.property(
      fc.array(act, { maxLength: 15 }),
      fc.constantFrom(...(Object.keys(FAULTS) as Fault[])),
      (actions, fault) => {
        const i = pipe(gasTruth(fault, 3, sizes), { stroke: 1e-4 });
        const state = gasAt(i, actions, s(2500));
        expect(state.pressure).toBeGreaterThanOrEqual(0);
        expect(state.pressure).toBeLessThan(1e6);
        expect(gasAt(i, actions, s(2500)).display).toBe(state.display);
      },
    ),
    { numRuns: 60 },
  );
});
test('an installation is parted by its own drawing: volumes as the plan has them, one cell behind each valve', () => {
  const plan = staged();
  const { cells, valves, point } = cellsOf(plan.system, 0.019);
  const open = cells.filter((c) => !c.fed);
  expect(open.reduce((sum, c) => sum + c.volume, 0)).toBeCloseTo(0.019, 9);
  expect(cells[point]!.fed).toBe(false);
  expect(valves.map((v) => v.key).sort()).toEqual(expect.arrayContaining(['hob', 'oven', 'supply']));
  expect(cells.find((c) => c.holds.includes('oven'))).not.toBe(cells.find((c) => c.holds.includes('hob')));
  expect(bakery().appliances).toHaveLength(2);
  const made = simulationOf(plan, { seed: 3, began, fault: 'appliance-leak' }) as SimulatedGas;
  expect(['oven', 'hob']).toContain(made.truth.leaks[0]!.at);
  expect(() => simulationOf(plan, { seed: 3, began, fault: 'moisture' })).toThrow(/moisture/);
});
test('noise is standard normal and repeats for the same seed', () => {
  const draws = Array.from({ length: 4000 }, (_, n) => normal(3, n));
  const mean = draws.reduce((a, b) => a + b, 0) / draws.length;
  const sd = Math.sqrt(draws.reduce((a, b) => a + (b - mean) ** 2, 0) / draws.length);
  expect(Math.abs(mean)).toBeLessThan(0.05);
  expect(Math.abs(sd - 1)).toBeLessThan(0.05);
  expect(normal(3, 17)).toBe(draws[17]);
});
