import fc from 'fast-check';
import { convert } from '@/core/quantity/unit';
import {
  DUCT_FAULTS,
  type DuctAction,
  type DuctFault,
  ductTruth,
  SIMULATED_RINGS,
  type SimulatedDuct,
} from './duct';
import { ductAt } from '@/core/testing/worlds';

const LIMIT = convert(46, 'CFM', 'm3/s');
const duct = (fault: DuctFault, over: Partial<SimulatedDuct> = {}): SimulatedDuct => {
  const made = {
    kind: 'duct' as const,
    seed: 7,
    limit: LIMIT,
    reference: 25,
    registers: [1, 2, 3, 4].map((n) => ({ id: `r${n}`, name: `Register ${n}` })),
    pushed: true,
    step: 0.1,
    noise: 0,
    began: 0,
    ...over,
  };
  return { truth: ductTruth(fault, made), ...made };
};
/** The fan as fast as it must be for 25 Pa, or as fast as it goes. */
function at25(s: SimulatedDuct, before: readonly DuctAction[] = []) {
  let [low, high] = [0, 100];
  for (let i = 0; i < 30; i += 1) {
    const percent = (low + high) / 2;
    const { pressure } = ductAt(s, [...before, { at: 1, act: 'speed', percent }], 2);
    if (pressure > 25) high = percent;
    else low = percent;
  }
  return ductAt(s, [...before, { at: 1, act: 'speed', percent: low }], 2);
}
const cfm = (flow: number) => convert(flow, 'm3/s', 'CFM');

test('sound ducts pass below the limit, a leaky boot and a holed hose above it, and sealing or another hose mends them', () => {
  expect(at25(duct('none')).flow).toBeLessThan(LIMIT);
  const leaky = duct('boot');
  const { boot } = leaky.truth;
  expect(at25(leaky).flow).toBeGreaterThan(LIMIT);
  expect(at25(leaky, [{ at: 0, act: 'seal', id: boot! }]).flow).toBeLessThan(LIMIT);
  const other = leaky.registers.find((r) => r.id !== boot)!.id;
  expect(at25(leaky, [{ at: 0, act: 'seal', id: other }]).flow).toBeGreaterThan(LIMIT);
  const holed = duct('hose');
  expect(at25(holed).flow).toBeGreaterThan(LIMIT);
  expect(at25(holed, [{ at: 0, act: 'new-hose' }]).flow).toBeLessThan(LIMIT);
});
test('a hose closed on itself shows its own hole and nothing of the ducts', () => {
  const closed: DuctAction[] = [{ at: 0, act: 'hose', closed: true }];
  const [sound, holed] = [at25(duct('boot'), closed).flow, at25(duct('hose'), closed).flow];
  expect(sound / LIMIT).toBeCloseTo(0.06, 3);
  expect(holed / LIMIT).toBeCloseTo(0.55, 3);
});
test('an open register passes more than all the rest, until it is found and masked', () => {
  const s = duct('unmasked');
  const { open } = s.truth;
  expect(at25(s).flow).toBeGreaterThan(3 * LIMIT);
  expect(ductAt(s, [{ at: 0, act: 'look-at', id: open! }], 1).said).toEqual([
    expect.stringMatching(/not masked/),
  ]);
  expect(at25(s, [{ at: 0, act: 'mask', id: open! }]).flow).toBeLessThan(LIMIT);
});
test('another ring than the gauge is set to shows a third of what passes: a false pass, seen only on the fan itself', () => {
  const s = duct('ring');
  const state = at25(s);
  expect(state.flow).toBeGreaterThan(LIMIT);
  expect(state.shownFlow! / 10).toBeLessThan(46);
  expect(state.shownFlow! / 10 / cfm(state.flow)).toBeCloseTo(8.8 / 27, 2);
  expect(ductAt(s, [{ at: 0, act: 'look-fan' }], 1).said).toEqual([
    'On the fan: ring 1. The gauge is set to ring 2.',
  ]);
  const right = at25(s, [{ at: 0, act: 'mount', ring: 'ring 2' }]);
  expect(right.shownFlow! / 10 / cfm(right.flow)).toBeCloseTo(1, 2);
});
test('smoke comes out where it leaks, and only under pressure', () => {
  const s = duct('boot');
  const { boot } = s.truth;
  const smoke = (id: string, percent: number) =>
    ductAt(
      s,
      [
        { at: 0, act: 'speed', percent },
        { at: 1, act: 'smoke', id },
      ],
      2,
    ).said[0];
  expect(smoke(boot!, 60)).toMatch(/a jet at the boot/);
  expect(smoke(s.registers.find((r) => r.id !== boot)!.id, 60)).toMatch(/a wisp/);
  expect(smoke(boot!, 0)).toMatch(/no pressure/);
});
describe('parted by its dampers', () => {
  const drawn = {
    parted: {
      cells: [
        { holds: ['trunk'], share: 0.8 },
        { holds: ['branch'], share: 0.2 },
      ],
      valves: [{ key: 'd1', name: 'Damper 1', joins: [0, 1] }],
      point: 0,
    },
    lies: { r1: 0, r2: 0, r3: 0, r4: 1 },
  };
  const turn = (at: number, open: boolean): DuctAction => ({ at, act: 'valve', id: 'd1', open });
  test('a blade that stands shut hides the boot behind it: below the limit until it is turned, above it then', () => {
    const s = duct('damper', drawn);
    expect([s.truth.shut, s.truth.boot]).toEqual([['d1'], 'r4']);
    expect(at25(s).flow).toBeLessThan(LIMIT);
    const opened = ductAt(s, [turn(0, true)], 1);
    expect(opened.said).toEqual(['Damper 1: the lever stood open, the blade did not. It is turned open now']);
    expect(at25(s, [turn(0, true)]).flow).toBeGreaterThan(LIMIT);
  });
  test('the mask behind it hangs slack and no smoke comes, where others bulge', () => {
    const s = duct('damper', drawn);
    const look = (id: string, ...before: DuctAction[]) =>
      ductAt(
        s,
        [
          ...before,
          { at: 2, act: 'speed', percent: 40 },
          { at: 3, act: 'look-at', id },
          { at: 4, act: 'smoke', id },
        ],
        5,
      ).said.slice(-2);
    expect(look('r4')).toEqual([
      expect.stringMatching(/hangs slack$/),
      expect.stringMatching(/no pressure comes here/),
    ]);
    expect(look('r1')).toEqual([expect.stringMatching(/bulges$/), expect.stringMatching(/a wisp/)]);
    expect(look('r4', turn(1, true))).toEqual([
      expect.stringMatching(/bulges$/),
      expect.stringMatching(/a jet at the boot/),
    ]);
  });
  test('turned shut by hand it looks shut, and the seams behind it pass nothing', () => {
    const sound = duct('none', drawn);
    const [open, shut] = [at25(sound).flow, at25(sound, [turn(0, false)]).flow];
    const hose = at25(sound, [{ at: 0, act: 'hose', closed: true }]).flow;
    expect((shut - hose) / (open - hose)).toBeCloseTo(0.8, 3);
    expect(ductAt(sound, [turn(0, false)], 1)).toMatchObject({ closed: ['d1'], said: ['Damper 1: shut'] });
    expect(ductAt(sound, [turn(0, false), turn(1, true)], 2)).toMatchObject({
      closed: [],
      said: ['Damper 1: shut', 'Damper 1: open'],
    });
    // where it is drawn shut it is known to be
    expect(ductAt(duct('none', { ...drawn, shut: ['d1'] }), [], 0).closed).toEqual(['d1']);
  });
});
test('drawn air shows below zero; zeroed on a pressure it hides it; below the range there is no flow', () => {
  const speed: DuctAction = { at: 1, act: 'speed', percent: 40 };
  const on: DuctAction = { at: 0, act: 'gauge', connected: true };
  const drawn = duct('none', { pushed: false });
  expect(ductAt(drawn, [on, speed], 2).display).toBeLessThan(-100);
  const s = duct('none');
  const wrong = ductAt(s, [on, speed, { at: 1, act: 'zero' }], 1);
  expect(Math.abs(wrong.display)).toBeLessThan(3);
  const off = ductAt(s, [on], 1);
  expect(off.shownFlow).toBeNull();
});
test('whatever is done in whatever order, fan and ducts meet: the pressure is what the flow leaves of what the fan makes', () => {
  const act = fc.oneof(
    fc.record({ act: fc.constant('speed' as const), percent: fc.integer({ min: -50, max: 200 }) }),
    fc.record({
      act: fc.constantFrom('mount' as const, 'set' as const),
      ring: fc.constantFrom(...SIMULATED_RINGS.map((r) => r.name)),
    }),
    fc.record({ act: fc.constant('hose' as const), closed: fc.boolean() }),
    fc.record({
      act: fc.constantFrom('mask' as const, 'seal' as const),
      id: fc.constantFrom('r1', 'r4', 'no'),
    }),
    fc.record({ act: fc.constantFrom('new-hose' as const, 'zero' as const) }),
  );
  fc.assert(
    fc.property(
      fc.constantFrom(...(Object.keys(DUCT_FAULTS) as DuctFault[])),
      fc.array(act),
      (fault, acts) => {
        const s = duct(fault);
        const state = ductAt(s, acts.map((a, at) => ({ ...a, at })) as DuctAction[], 99);
        expect(state.pressure + state.fan).toBeCloseTo(700 * (state.speed / 100) ** 2, 3);
        expect(state.speed).toBeGreaterThanOrEqual(0);
        expect(state.speed).toBeLessThanOrEqual(100);
        const k = Number(SIMULATED_RINGS.find((r) => r.name === state.mounted)!.k);
        expect(cfm(state.flow)).toBeCloseTo(k * Math.sqrt(state.fan), 6);
      },
    ),
  );
});
