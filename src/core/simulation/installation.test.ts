import fc from 'fast-check';
import { leakRate } from '@/core/medium/gas';
import {
  display,
  normal,
  simulate,
  truthOf,
  type Fault,
  type SimulatedAction,
  type SimulatedInstallation,
} from './installation';

import { shownTemperature } from './simulation';

const began = 1_000_000;
const pipe = (fault: Fault, over: Partial<SimulatedInstallation> = {}): SimulatedInstallation => ({
  seed: 7,
  fault,
  volume: 0.02,
  supply: 2100,
  appliances: ['oven', 'hob'],
  step: 1,
  noise: 0,
  began,
  ...over,
});
const s = (n: number) => began + n * 1000;
const shut: SimulatedAction = { at: s(1), act: 'supply', open: 'shut' };
const gaugeOn: SimulatedAction = { at: s(1), act: 'gauge', connected: true };

/** Oracle: the same equation by small Euler steps, written without the closed form. */
function euler(
  i: SimulatedInstallation,
  from: number,
  to: number,
  p0: number,
  kOut: number,
  kIn: number,
): number {
  let p = p0;
  const dt = 0.002;
  const t = truthOf(i);
  for (let at = from; at < to; at += dt) {
    const dT = (t.warmth / t.tau) * Math.exp(-at / t.tau);
    p += dt * ((101325 / i.volume) * (kIn * (i.supply - p) - kOut * p) + ((101325 + p0) / 293.15) * dT);
  }
  return p;
}

test('law: the state depends on time only through the actions before it, however often it is asked', () => {
  fc.assert(
    fc.property(
      fc.constantFrom<Fault>('none', 'leak', 'let-by', 'both', 'warming'),
      fc.integer({ min: 2, max: 500 }),
      fc.integer({ min: 2, max: 500 }),
      (fault, a, b) => {
        const i = pipe(fault);
        const [early, late] = [Math.min(a, b), Math.max(a, b)];
        const idle: SimulatedAction = { at: s(early), act: 'fluid', place: 'pipework' };
        const direct = simulate(i, [shut], s(late)).pressure;
        expect(Math.abs(simulate(i, [shut, idle], s(late)).pressure - direct)).toBeLessThan(
          fault === 'warming' ? 0.5 : 1e-6,
        );
      },
    ),
  );
});
test.each<Fault>(['leak', 'let-by', 'warming'])(
  'the closed form of %s agrees with a step-by-step integration',
  (fault) => {
    const i = pipe(fault);
    const t = truthOf(i);
    const a = simulate(i, [shut], s(1));
    const b = simulate(i, [shut], s(121));
    expect(b.pressure).toBeCloseTo(euler(i, 1, 121, a.pressure, t.pipe, t.letBy), 0);
  },
);
test('a sound pipe holds to the last step; a leak shows the rate it was made with', () => {
  expect(simulate(pipe('none'), [shut], s(600)).pressure).toBeCloseTo(2100, 6);
  const i = pipe('leak');
  const [a, b] = [simulate(i, [shut], s(10)).pressure, simulate(i, [shut], s(12)).pressure];
  const made = truthOf(i).pipe * a * 3600 * 1000;
  expect(leakRate(0.02, a, b, 2).value / made).toBeCloseTo(1, 1);
});
test('leak and let-by in balance: nothing moves at the let-by pressure, yet at test pressure it falls', () => {
  const i = pipe('both');
  const bleed: SimulatedAction[] = [shut, { at: s(2), act: 'bleed', open: true }];
  let at = 2;
  while (simulate(i, bleed, s(at)).pressure > 850) at += 0.05;
  const held: SimulatedAction[] = [...bleed, { at: s(at), act: 'bleed', open: false }];
  expect(
    Math.abs(simulate(i, held, s(at + 61)).pressure - simulate(i, held, s(at + 1)).pressure),
  ).toBeLessThan(2);
  expect(simulate(i, [shut], s(121)).pressure).toBeLessThan(2100 - 25);
});
test('isolating the faulty appliance stops its leak, and fluid finds what leaks and only that', () => {
  const i = pipe('appliance-leak');
  const faulty = truthOf(i).faulty!;
  const off: SimulatedAction = { at: s(2), act: 'appliance', id: faulty, open: false };
  expect(simulate(i, [shut], s(122)).pressure).toBeLessThan(2100 - 25);
  expect(simulate(i, [shut, off], s(600)).pressure).toBeCloseTo(simulate(i, [shut], s(2)).pressure, 6);
  const fluid = (place: string, n: number): SimulatedAction => ({ at: s(n), act: 'fluid', place });
  expect(
    simulate(i, [shut, fluid(faulty, 5), fluid('pipework', 6), fluid('valve', 7)], s(9)).fluid.map(
      (f) => f.bubbles,
    ),
  ).toEqual([true, false, false]);
});
test('zeroing open to air mends an off-zero gauge; zeroing under pressure hides the pressure', () => {
  const i = pipe('off-zero');
  expect(Math.abs(display(i, simulate(i, [shut], s(5))))).toBeGreaterThan(50);
  expect(display(i, simulate(i, [shut, { at: s(3), act: 'zero' }], s(5)))).toBe(0);
  expect(display(i, simulate(i, [shut, gaugeOn, { at: s(3), act: 'zero' }], s(5)))).toBe(0);
});
test('noise is standard normal and repeats for the same seed', () => {
  const draws = Array.from({ length: 4000 }, (_, n) => normal(3, n));
  const mean = draws.reduce((a, b) => a + b, 0) / draws.length;
  const sd = Math.sqrt(draws.reduce((a, b) => a + (b - mean) ** 2, 0) / draws.length);
  expect(Math.abs(mean)).toBeLessThan(0.05);
  expect(Math.abs(sd - 1)).toBeLessThan(0.05);
  expect(normal(3, 17)).toBe(draws[17]);
});
test('the probe of the stand-in shows what warms the section, in tenths of a degree', () => {
  const shown = (fault: Fault, at: number) => shownTemperature(pipe(fault), [shut, gaugeOn], s(at));
  expect(shown('none', 0)).toBe(200);
  expect(shown('none', 3600)).toBe(200);
  expect(shown('warming', 0)).toBe(200);
  expect(shown('warming', 600)! - 200).toBe(Math.round(12 * (1 - Math.exp(-1))));
  expect(shown('warming', 7200)).toBe(212);
});
