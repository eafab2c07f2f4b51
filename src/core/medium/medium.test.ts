import fc from 'fast-check';
import { neededLiquidMinutes, smallestLiquidLeak } from '@/core/adequacy/liquid';
import { energyLevel, gasEnergy, liquidEnergy } from './energy';
import {
  balancePressure,
  drawnVolume,
  laminarConductance,
  laminarRate,
  leakedPressure,
  orificeRateAt,
  twoSlopes,
} from './leak';
import {
  decayFactors,
  liquidPerKelvin,
  stiffness,
  stretchedPressure,
  stretchFadesAt,
  trappedAir,
} from './liquid';
import { SATURATION } from '@/core/testing/saturation';
import { PURE, REFRIGERANTS } from './fluids';
import { bubblePressure, criticalTemperature, molarMass, nitrogenAt } from './refrigerant';
import { waterDensity, waterExpansion } from './water';

const ATM = 101325;
const pa = (min: number, max: number) => fc.double({ min, max, noNaN: true });

describe('laws of small leaks', () => {
  test('conductance and rate undo each other; a leak only lowers, and never below the atmosphere', () => {
    fc.assert(
      fc.property(pa(10, 5e5), pa(1e-12, 1e-5), pa(0.001, 2), pa(1, 1e5), (p, q, volume, seconds) => {
        const k = laminarConductance(q, p);
        expect(laminarRate(k, p) / q).toBeCloseTo(1, 9);
        const later = leakedPressure(p, k, volume, seconds);
        expect(later).toBeLessThanOrEqual(p);
        expect(later).toBeGreaterThanOrEqual(0);
      }),
    );
  });
  test('two slopes give back the let-by and the leak they were made from, and where both cancel', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(0, 1e-10, 1e-9),
        pa(1e-12, 1e-9),
        pa(200, 900),
        pa(1100, 1900),
        (letBy, leak, a, b) => {
          const [supply, volume] = [2100, 0.02];
          // both ways through the same law as everywhere: squares of the absolute pressures
          const squares = (from: number, to: number) => ((ATM + from) ** 2 - (ATM + to) ** 2) / (2 * ATM);
          const slope = (p: number) => ((letBy * squares(supply, p) - leak * squares(p, 0)) * ATM) / volume;
          const found = twoSlopes(
            volume,
            supply,
            { pressure: a, slope: slope(a) },
            { pressure: b, slope: slope(b) },
          );
          expect(Math.abs(found.letBy - letBy)).toBeLessThanOrEqual(1e-7 * (letBy + leak));
          expect(found.leak / leak).toBeCloseTo(1, 6);
          expect(found.letBy === 0 || letBy > 0).toBe(true); // a pure leak is said to be one
          expect(Math.abs(slope(balancePressure(letBy, leak, supply)))).toBeLessThan(1e-6);
        },
      ),
    );
  });
  test('an orifice follows the root while small and the absolute pressure once choked, without a step between', () => {
    expect(orificeRateAt(1, 100, 400)).toBeCloseTo(2, 12);
    expect(orificeRateAt(1, 200_000, 401_325) / 1).toBeCloseTo((401_325 + ATM) / (200_000 + ATM), 12);
    expect(orificeRateAt(1, 89_999, 90_001)).toBeCloseTo(1, 4);
  });
  test('a draw without a fall, a leak at no pressure: refused', () => {
    expect(() => drawnVolume(0.001, 2000, 2000)).toThrow(/below the one before/);
    expect(() => laminarConductance(1e-6, 0)).toThrow(/above zero/);
    expect(() => laminarRate(1e-10, -200_000)).toThrow(/vacuum/);
  });
});

describe('a full section', () => {
  const pipe = { volume: 0.2, diameter: 0.022, wall: 0.001, modulus: 120e9 };
  test('stiffness adds up over pipes, and gas only softens it', () => {
    fc.assert(
      fc.property(pa(0.001, 1), pa(0, 0.01), pa(1e5, 2e6), (volume, air, p) => {
        const other = { ...pipe, volume };
        expect(stiffness([pipe, other])).toBeCloseTo(stiffness([pipe]) + stiffness([other]), 18);
        expect(stiffness([pipe], air, p)).toBeGreaterThanOrEqual(stiffness([pipe]));
      }),
    );
    expect(() => stiffness([{ ...pipe, wall: 0 }])).toThrow(/wall thickness/);
    expect(() => stiffness([pipe], 0.001, 0)).toThrow(/absolute pressure/);
  });
  test('trapped air: what was in there comes back out of the strokes it took', () => {
    fc.assert(
      fc.property(pa(1e-6, 0.02), pa(1.1e5, 5e5), pa(1.2, 4), (air, before, times) => {
        const after = before * times;
        const c = stiffness([pipe]);
        const added = c * (after - before) + air * (1 - before / after);
        const found = trappedAir(added, before, after, c, ATM);
        expect(found.before / air).toBeCloseTo(1, 6);
        expect(found.after).toBeLessThan(found.before);
      }),
    );
    // less water than the pipe alone takes: no air shows, and none is invented
    expect(trappedAir(1e-9, 2e5, 4e5, stiffness([pipe]), ATM).before).toBe(0);
    expect(() => trappedAir(1e-4, 3e5, 3e5, 1e-11, ATM)).toThrow(/above the one before/);
  });
  test('steel rises with warmth, PE-X falls, water below 4 °C shrinks when warmed', () => {
    const c = stiffness([pipe]);
    expect(liquidPerKelvin(0.2, 20, 12e-6, c)).toBeGreaterThan(0);
    expect(liquidPerKelvin(0.2, 20, 175e-6, c)).toBeLessThan(0);
    expect(waterExpansion(2)).toBeLessThan(0);
    expect(Math.abs(waterExpansion(3.98))).toBeLessThan(2e-6);
    expect(waterDensity(3.98)).toBeCloseTo(999.97, 1);
    expect(() => waterDensity(140)).toThrow(/between/);
  });
  test('stretch fades: before that a leak hides in it, after it the leak is steeper', () => {
    const [a, tc, slope] = [35_000, 300, 20];
    const fades = stretchFadesAt(a, tc, slope);
    const rate = (t: number) => stretchedPressure(9e5, a, tc, t) - stretchedPressure(9e5, a, tc, t + 1);
    expect(rate(fades - 60)).toBeGreaterThan(slope);
    expect(rate(fades + 60)).toBeLessThan(slope);
  });
  test('a decay loss is understated: both factors are at least one, the laminar one the larger', () => {
    fc.assert(
      fc.property(pa(1e4, 2e6), pa(0.05, 0.99), (p0, part) => {
        const { laminar, orifice } = decayFactors(p0, p0 * part);
        expect(orifice).toBeGreaterThanOrEqual(1);
        expect(laminar).toBeGreaterThanOrEqual(orifice - 1e-12);
      }),
    );
    expect(() => decayFactors(1e5, 1e5)).toThrow(/must have fallen/);
  });
  test('the needed hold is the first half minute that sees the leak', () => {
    fc.assert(
      fc.property(pa(1e-11, 1e-8), pa(1e-9, 1e-6), (c, leak) => {
        const hold = {
          stiffness: c,
          perceptible: 2000,
          blur: { resolution: 1000, perKelvin: 50_000, temperature: 0.1 },
        };
        const needed = neededLiquidMinutes(hold, leak, () => 0.1);
        if (needed === null || needed >= 60) return;
        expect(smallestLiquidLeak({ ...hold, seconds: needed * 60 })).toBeLessThanOrEqual(leak);
        if (needed > 0.5)
          expect(smallestLiquidLeak({ ...hold, seconds: (needed - 0.5) * 60 })).toBeGreaterThan(leak);
      }),
    );
  });
});

describe('stored energy', () => {
  test('gas stores more than water at any test pressure, and both grow with it; care follows', () => {
    fc.assert(
      fc.property(pa(0.001, 2), pa(1000, 3e6), (volume, p) => {
        expect(gasEnergy(volume, p)).toBeGreaterThan(liquidEnergy(p, volume / 2.2e9));
        expect(gasEnergy(volume, p * 1.1)).toBeGreaterThan(gasEnergy(volume, p));
      }),
    );
    expect([0, 49.9, 50, 1999, 2000].map((j) => energyLevel(j).key)).toEqual([
      'low',
      'low',
      'raised',
      'raised',
      'high',
    ]);
    expect(() => gasEnergy(1, -2e5)).toThrow(/vacuum/);
  });
});

describe('refrigerants', () => {
  test('each has a bubble point that rises with temperature, up to its critical point and no further', () => {
    for (const name of REFRIGERANTS) {
      const [cold, warm] = [bubblePressure(name, 273.15), bubblePressure(name, 298.15)];
      expect([name, warm > cold]).toEqual([name, true]);
      expect(molarMass(name)).toBeGreaterThan(0.016);
      expect(() => bubblePressure(name, 420)).toThrow(/nameplate/);
    }
    expect(() => bubblePressure('R999', 290)).toThrow(/not a refrigerant/);
  });
  test('near the critical point too: the whole way up, no jump and no fall', () => {
    for (const [name, celsius, bar] of SATURATION)
      expect([
        name,
        celsius,
        Math.abs(bubblePressure(name, celsius + 273.15) / 1e5 / bar - 1) < 0.015,
      ]).toEqual([name, celsius, true]);
    expect(bubblePressure('R744', 30.97 + 273.15) / PURE.R744!.pc).toBeCloseTo(1, 3);
    for (const name of ['R744', 'R507A', 'R404A', 'R410A']) {
      let last = 0;
      for (let t = 260; t < criticalTemperature(name) * (name === 'R744' ? 1 : 0.99); t += 0.5) {
        const p = bubblePressure(name, t);
        expect(last === 0 || (p > last && p < last * 1.03)).toBe(true);
        last = p;
      }
    }
  });
  test('at its critical temperature less a little a pure one nears its critical pressure', () => {
    for (const [name, c] of Object.entries(PURE))
      expect([name, Math.abs(bubblePressure(name, c.tc * 0.99) / c.pc - 1) < 0.12]).toEqual([name, true]);
  });
  test('nitrogen warmed and cooled again stands where it stood, and moves more than an ideal gas', () => {
    fc.assert(
      fc.property(pa(2e5, 5e6), pa(270, 320), pa(270, 320), (p, a, b) => {
        expect(nitrogenAt(nitrogenAt(p, a, b), b, a) / p).toBeCloseTo(1, 9);
      }),
    );
    const relative = (p: number) => (nitrogenAt(p, 293, 294) - p) / p / (1 / 293);
    expect(relative(1.7e6)).toBeCloseTo(1.04, 1); // about 4 % more at 16 bar
    expect(relative(4.7e6)).toBeCloseTo(1.12, 1);
  });
});
