import { planOf } from '@/core/testing/quarter';
import { plan as staged } from '@/core/testing/bakery';
import { changeOf, type Hidden, hiddenSchema, withHidden } from './hidden';
import { simulationOf } from './setup';
import { scenarioSchema } from './scenario';

const gas = simulationOf(staged(), { seed: 3, began: 0, fault: 'none' });
const water = simulationOf(planOf('water-hydraulic', { practice: true }), {
  seed: 3,
  began: 0,
  fault: 'none',
});
const duct = simulationOf(planOf('duct-tightness', { practice: true }), { seed: 3, began: 0, fault: 'none' });
const circuit = simulationOf(planOf('refrigerant-strength', { practice: true }), {
  seed: 3,
  began: 0,
  fault: 'none',
});

test('figures with their unit become what the model reckons with', () => {
  expect(
    changeOf(
      {
        leaks: [{ at: 'oven', rate: '3.6 l/h', under: '20 mbar', buried: true }],
        passes: [{ valve: 'supply', rate: '3.6 l/h', under: '20 mbar' }],
        warms: { by: '1.5 K', within: '10 min' },
        gauge: { sticks: '0.5 mbar' },
      } as Hidden,
      gas,
    ),
  ).toEqual({
    leaks: [
      { at: 'oven', rate: expect.closeTo(1e-6, 12) as number, under: 2000, law: 'laminar', buried: true },
    ],
    passes: { supply: expect.closeTo(5e-10, 15) as number },
    warmth: { kelvin: 1.5, tau: 600, from: 0 },
    gauge: { zero: 0, sticks: 50, drift: 0 },
  });
  expect(
    changeOf(
      {
        air: '2 l',
        letBy: { rate: '3.6 l/h', under: '1 bar' },
        leak: { rate: '3.6 l/h', under: '1 bar', at: 'vat' },
        shut: ['v'],
      } as Hidden,
      water,
    ),
  ).toEqual({
    air: expect.closeTo(0.002, 9) as number,
    letBy: expect.closeTo(1e-11, 15) as number,
    leak: expect.closeTo(1e-11, 15) as number,
    at: 'vat',
    shut: ['v'],
  });
  expect(changeOf({ leak: '1 %', letsIn: '6 Pa(abs)' } as Hidden, circuit)).toMatchObject({
    leak: expect.closeTo(2.79e-6, 8) as number,
  });
  const { seams } = changeOf({ seams: '100 CFM' } as Hidden, duct) as { seams: number };
  expect(seams * 25 ** 0.6).toBeCloseTo(0.0471947443, 9);
});
test('what such an installation does not have is refused, with its name; so is a figure that is none', () => {
  expect(() => changeOf({ moisture: { rises: '300 Pa(abs)', within: '3 min' } } as Hidden, gas)).toThrow(
    /moisture/,
  );
  expect(() => changeOf({ air: 'a lot' } as Hidden, water)).toThrow(/figure with its unit/);
  expect(() => changeOf({ as: 'dragon' } as unknown as Hidden, duct)).toThrow(/one of/);
});
test('only what is written differs from what was there', () => {
  const hidden = withHidden(gas, { voltage: true } as Hidden);
  expect(hidden.truth).toEqual({ ...gas.truth, voltage: true });
  expect(Object.keys(hiddenSchema)).toEqual(['gas', 'liquid', 'circuit', 'duct']);
});
test('a scenario that is written wrongly says where', () => {
  const wrong = (over: object) => {
    try {
      scenarioSchema.validateSync({ format: 1, id: 'x', ...over }, { strict: true, abortEarly: false });
    } catch (e) {
      return (e as { errors: string[] }).errors.join(' ');
    }
    return '';
  };
  expect(wrong({ id: 'Not A Name' })).toMatch(/plain name/);
  expect(wrong({ traps: ['dragons'] })).toMatch(/traps\[0\]|one of/);
  expect(wrong({ surprise: 1 })).toMatch(/surprise|unspecified/);
});
