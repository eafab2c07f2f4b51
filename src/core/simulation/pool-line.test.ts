import { exact } from '@/core/quantity/exact';
import { lido, LIDO_LINES, LIDO_LOOKS } from '@/core/testing/lido';
import { fitOf, type Spot } from '@/core/trades/pool/listen';
import { withinSection } from '@/core/trades/sections';
import { liquidAt } from '@/core/testing/worlds';
import type { LiquidAction } from './liquid';
import { liquidTruth, POOL_FAULTS, type PoolFault, type SimulatedLiquid } from './liquid-truth';
import { poolLineOf } from './pool-line';
import { asked, HIDDEN, shown } from './simulation';

const PSI = 6894.757;
const began = Date.parse('2026-06-01T08:00:00.000Z');
const s = (seconds: number) => began + seconds * 1000;
const line = withinSection(lido({ looks: LIDO_LOOKS }), [...LIDO_LINES.returns].sort().join('+'))!;
type Hides = keyof typeof POOL_FAULTS;
const world = (fault: Hides, seed = 7): SimulatedLiquid => {
  const sizes = { seed, volume: 0.03, stiffness: 3e-10, stretch: 0, surface: 0 };
  return {
    kind: 'liquid',
    ...sizes,
    truth: liquidTruth(fault, sizes),
    pool: poolLineOf(line, seed)!,
    perKelvin: 0,
    supply: 0,
    stroke: 5e-7,
    step: 100,
    noise: 0,
    began,
  };
};
/** Pumped up stroke by stroke to so many psi, the gauge on. */
function pumped(w: SimulatedLiquid, psi: number, from = 1): { actions: LiquidAction[]; at: number } {
  const actions: LiquidAction[] = [{ at: s(0), act: 'gauge', connected: true }];
  let at = from;
  for (; at < from + 90 && liquidAt(w, actions, s(at)).pressure < psi * PSI; at++)
    actions.push({ at: s(at), act: 'pump', strokes: 5 });
  return { actions, at };
}
const lossIn = (w: SimulatedLiquid, psi: number, minutes: number): number => {
  const { actions, at } = pumped(w, psi);
  const [a, b] = [0, minutes * 60].map((t) => liquidAt(w, actions, s(at + t)).pressure);
  return (a! - b!) / PSI;
};

test('a line has its own ends, a run and a place for a leak on it, the same for the same seed', () => {
  const made = poolLineOf(line, 3)!;
  expect(made.ends.map((e) => e.id).sort()).toEqual([...LIDO_LINES.returns].sort());
  expect(made.length).toBeCloseTo(14, 6);
  expect(made.at > 0 && made.at < made.length).toBe(true);
  expect(poolLineOf(line, 3)).toEqual(made);
  expect(poolLineOf({ ...line, network: undefined } as never, 3)).toBeUndefined();
});
test('what can be hidden is what the model knows', () => {
  expect(HIDDEN['pool-line']).toBe(POOL_FAULTS);
  expect(Object.keys(HIDDEN['pool-joins'])).toEqual([]);
});
test.each([
  ['none', 0],
  ['under-water', 1],
  ['above-water', 1],
  ['bad-plug', 1],
] as const)('%s: falls by a leak’s measure in ten minutes, or not at all', (fault, falls) => {
  const lost = lossIn(world(fault), 14, 10);
  expect(lost > 0.5).toBe(falls === 1);
  if (!falls) expect(Math.abs(lost)).toBeLessThan(0.05);
});
test.each([1, 2, 3, 4, 5])(
  'a leak that opens under pressure is shut below it and runs above it (seed %i)',
  (seed) => {
    const w = world('under-pump', seed);
    expect(lossIn(w, 2.5, 10)).toBeLessThan(0.05);
    expect(lossIn(w, 14, 10)).toBeGreaterThan(0.5);
    // it comes to rest where it shuts again
    const { actions, at } = pumped(w, 14);
    const rest = liquidAt(w, actions, s(at + 6 * 3600)).pressure / PSI;
    expect(rest).toBeGreaterThan(2.9);
    expect(rest).toBeLessThan(6.1);
  },
);
describe('a plug of one’s own', () => {
  const bad = (w: SimulatedLiquid) => w.pool!.bad;
  const said = (w: SimulatedLiquid, actions: LiquidAction[], at: number) => liquidAt(w, actions, s(at)).said;
  test('weeps until it is seated anew, without pressure; another one seated changes nothing', () => {
    const w = world('bad-plug');
    const { actions, at } = pumped(w, 14);
    const other = w.pool!.ends.find((e) => e.id !== bad(w))!.id;
    const look = (t: number, place: string): LiquidAction => ({ at: s(t), act: 'look', place });
    actions.push(look(at + 1, bad(w)), look(at + 2, other));
    actions.push({ at: s(at + 3), act: 'reseat', end: bad(w) });
    expect(said(w, actions, at + 4)).toEqual([
      expect.stringMatching(/drops at the rim/),
      expect.stringMatching(/dry at the plug/),
      expect.stringMatching(/cannot be seated under pressure/),
    ]);
    expect(liquidAt(w, actions, s(at + 4)).plug).toBe('weeps');
    actions.push(
      { at: s(at + 10), act: 'bleed', open: true },
      { at: s(at + 100), act: 'bleed', open: false },
    );
    actions.push({ at: s(at + 101), act: 'reseat', end: other });
    expect(liquidAt(w, actions, s(at + 102)).plug).toBe('weeps');
    actions.push({ at: s(at + 103), act: 'reseat', end: bad(w) });
    expect(said(w, actions, at + 104).at(-1)).toMatch(/seated anew/);
    expect(liquidAt(w, actions, s(at + 104)).plug).toBe('holds');
  });
  test('slips off on the way up: the pressure is gone at once, and a look says which', () => {
    const w = world('plug-slips');
    const { actions, at } = pumped(w, 14);
    expect(liquidAt(w, actions, s(at)).plug).toBe('off');
    actions.push({ at: s(at + 30), act: 'look', place: bad(w) });
    expect(said(w, actions, at + 31).at(-1)).toMatch(/has come off/);
    expect(shown(w, actions, s(at + 31)) * w.step).toBeLessThan(0.2 * PSI);
    actions.push({ at: s(at + 60), act: 'reseat', end: bad(w) });
    const up: LiquidAction[] = Array.from({ length: 60 }, (_, i) => ({
      at: s(at + 61 + i),
      act: 'pump',
      strokes: 5,
    }));
    expect(liquidAt(w, [...actions, ...up], s(at + 125)).pressure).toBeGreaterThan(8 * PSI);
  });
});
test('the ground grows wet by a leak above the water alone, and only under pressure', () => {
  const ground = (fault: Hides, psi: number) => {
    const w = world(fault);
    const { actions, at } = pumped(w, psi);
    actions.push({ at: s(at), act: 'look', place: 'ground' });
    return liquidAt(w, actions, s(at + 1)).said[0];
  };
  expect(ground('above-water', 14)).toMatch(/grows wet near \d+ m/);
  expect(ground('above-water', 0)).toMatch(/nothing to see/);
  expect(ground('under-water', 14)).toMatch(/nothing to see/);
});
test('dye is drawn by a leak below the water alone: not drawn is no proof', () => {
  for (const fault of ['none', ...Object.keys(POOL_FAULTS)] as Hides[]) {
    const { said } = liquidAt(world(fault), [{ at: s(5), act: 'dye' }], s(6));
    expect([fault, said[0]!.includes('is drawn')]).toEqual([fault, fault === 'under-water']);
  }
});
test.each([...Array(12).keys()])(
  'an ear along the run finds the leak; without one there is nothing (seed %i)',
  (seed) => {
    const walk = (fault: Hides): Spot[] => {
      const w = world(fault, seed);
      const actions = Array.from({ length: 15 }, (_, i): LiquidAction => ({
        at: s(i),
        act: 'listen',
        along: Math.min(i, w.pool!.length),
      }));
      return liquidAt(w, actions, s(60)).said.map((words) => {
        const [, along, loud] = /^At (\S+) m: loudness (\d+)/.exec(words)!;
        return { along: Number(along), loud: Number(loud), clear: 'fair' };
      });
    };
    const { at, length } = world('under-water', seed).pool!;
    const fit = fitOf(walk('under-water'), length)!;
    expect(Math.abs(fit.best - at)).toBeLessThan(1.2);
    expect(walk('none').every((x) => x.loud === 0)).toBe(true);
    expect(walk('bad-plug' satisfies PoolFault).every((x) => x.loud === 0)).toBe(true);
  },
);
test('what is seen is what was done until then: nothing of later, nothing of the pressure or the fault', () => {
  const w = world('under-water');
  const actions: LiquidAction[] = [{ at: s(50), act: 'dye' }];
  const view = asked(w, actions, [s(10)], (x) => x.view())[0]!;
  expect(view).toMatchObject({ said: [] });
  expect(JSON.stringify(view)).not.toMatch(/under-water|fault|"at"|leak/);
  expect(exact(Math.round(shown(w, actions, s(10))), 0, 'Pa').digits).toBe(0);
});
