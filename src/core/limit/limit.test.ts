import { ductReading, floorLimit, flowAt, halvingCheck, pressureToRead, surfaceLimit } from './duct';
import { mainAirCheckLimit, mainMakeUpLimit, mainVolumeLimit } from './main';
import { bucketLoss, plugsFor, plugThrust, poolBand, poolPressure, type PoolSchool } from './pool';
import { strengthPressure, vacuumResult } from './refrigerant';
import {
  cappedPressure,
  drainLossLimit,
  dryLoad,
  dryMinutes,
  headAtLowest,
  levelLeak,
  schoolABand,
  schoolB,
} from './water';

const BAR = 1e5;
const PSI = 6894.757293;
const LBF = 4.4482216152605;
/** m3/s of a cubic foot a minute: 0.3048^3 / 60. */
const CFM = 0.3048 ** 3 / 60;
/** What must be above zero, and finite, is refused by its name. @param call given the value to try */
const positive = (name: string, ...calls: ((x: number) => unknown)[]) => {
  for (const call of calls)
    for (const x of [0, -1, NaN, Infinity]) expect(() => call(x)).toThrow(new RegExp(`${name}.*above zero`));
};

describe('water', () => {
  test('the multiple, never above the weakest element; equal to it is not capped', () => {
    // 4 bar x 1.5 = 6 bar
    expect(cappedPressure(4 * BAR, 1.5, 10 * BAR)).toEqual({
      wanted: 6 * BAR,
      used: 6 * BAR,
      capped: false,
      impossible: false,
    });
    expect(cappedPressure(4 * BAR, 1.5, 6 * BAR)).toMatchObject({ used: 6 * BAR, capped: false });
    expect(cappedPressure(4 * BAR, 1.5, 5 * BAR)).toMatchObject({
      used: 5 * BAR,
      capped: true,
      impossible: false,
    });
    // a cap at the working pressure itself can still be tested, below it not
    expect(cappedPressure(4 * BAR, 1.5, 4 * BAR).impossible).toBe(false);
    expect(cappedPressure(4 * BAR, 1.5, 4 * BAR - 1).impossible).toBe(true);
    // the least the rule asks for
    expect(cappedPressure(1 * BAR, 1.5, 10 * BAR, 3 * BAR)).toMatchObject({
      wanted: 3 * BAR,
      impossible: false,
    });
    expect(cappedPressure(1 * BAR, 1.5, 3 * BAR, 3 * BAR)).toMatchObject({
      capped: false,
      impossible: false,
    });
    expect(cappedPressure(1 * BAR, 1.5, 2 * BAR, 3 * BAR)).toMatchObject({ used: 2 * BAR, impossible: true });
    positive('working pressure', (x) => cappedPressure(x, 1.5, 1));
    positive('multiple', (x) => cappedPressure(1, x, 1));
    positive('weakest', (x) => cappedPressure(1, 1, x));
  });
  test('plastic school A: a third and 90 min, the twin a half and 120 min, 0.1 bar above', () => {
    expect(schoolABand(9 * BAR)).toEqual({ low: 300_000, high: 310_000, minutes: 90 });
    expect(schoolABand(9 * BAR, 2)).toEqual({ low: 450_000, high: 460_000, minutes: 120 });
    positive('test pressure', (x) => schoolABand(x));
  });
  test('plastic school B: 0.6 and 0.2 bar are too much, a thousandth of a bar less is not', () => {
    expect(schoolB(6 * BAR, 5.4 * BAR, 5.2 * BAR)).toEqual({ first: false, second: false });
    expect(schoolB(6 * BAR, 5.401 * BAR, 5.202 * BAR)).toEqual({ first: true, second: true });
    expect(schoolB(6 * BAR, 5.401 * BAR, 5.201 * BAR)).toEqual({ first: true, second: false });
    positive(
      'Each pressure',
      (x) => schoolB(x, 1, 1),
      (x) => schoolB(1, x, 1),
      (x) => schoolB(1, 1, x),
    );
  });
  test('dry test: 120 min to 100 l, 20 more for each further 100 l or part', () => {
    expect([0.02, 0.1, 0.1001, 0.2, 0.21, 0.5].map(dryMinutes)).toEqual([120, 120, 140, 140, 160, 200]);
    expect([0.02, 0.05, 0.0501, 0.1].map(dryLoad)).toEqual([3 * BAR, 3 * BAR, BAR, BAR]);
    positive('volume', dryMinutes);
    positive('nominal size', dryLoad);
  });
  test('drains: litres by wetted surface and time; a level by its surface; a head by its height', () => {
    expect(drainLossLimit(4, 1800)).toBeCloseTo(0.0006, 12); // 0.15 l x 4 m2 in 30 min
    expect(drainLossLimit(4, 900)).toBeCloseTo(0.0003, 12);
    expect(levelLeak(0.1, 1800)).toBeCloseTo((0.1 * 0.002) / 1800, 15);
    expect(levelLeak(0.1, 1800, 0.001)).toBeCloseTo((0.1 * 0.001) / 1800, 15);
    positive('wetted', (x) => drainLossLimit(x, 1));
    positive(
      'time',
      (x) => drainLossLimit(1, x),
      (x) => levelLeak(1, x),
    );
    positive('free surface', (x) => levelLeak(x, 1));
    expect(headAtLowest(3, 3)).toBe(0);
    expect(headAtLowest(5, 2) / headAtLowest(4, 3)).toBeCloseTo(3, 9);
    expect(headAtLowest(4, 3)).toBeGreaterThan(9700);
    expect(() => headAtLowest(2, 2.01)).toThrow(/above the level/);
  });
});

describe('mains', () => {
  test('make-up: L = S D sqrt(P) / 148000, gal/h of ft, in, psi', () => {
    // 1000 ft of 6 in at 150 psi: 1000 x 6 x 12.2474 / 148000 = 0.49652 gal/h
    const found = mainMakeUpLimit(304.8, 0.1524, 150 * PSI);
    expect((found * 3600) / 0.003785411784).toBeCloseTo((1000 * 6 * Math.sqrt(150)) / 148000, 9);
    // the metric twin: l/h = m x mm x sqrt(kPa) / 794798
    expect(found * 3600 * 1000).toBeCloseTo((304.8 * 152.4 * Math.sqrt((150 * PSI) / 1000)) / 794798, 4);
    positive('length', (x) => mainMakeUpLimit(x, 1, 1));
    positive('diameter', (x) => mainMakeUpLimit(1, x, 1));
    positive('test pressure', (x) => mainMakeUpLimit(1, 1, x));
  });
  test('volume: 1.2 V dp (1/Ew + D/(e Er)); the air check takes 1.5 where that takes 1.2', () => {
    // 5 m3, 20 kPa, D 0.15 over e 0.006, 170 GPa: 1.2 x 5 x 20000 x (4.7619e-10 + 1.4706e-10) = 74.79 ml
    const args = [5, 20_000, 0.15, 0.006, 170e9] as const;
    expect(mainVolumeLimit(...args) * 1e6).toBeCloseTo(74.79, 2);
    expect(mainAirCheckLimit(...args) / mainVolumeLimit(...args)).toBeCloseTo(1.25, 12);
    const names = ['volume', 'pressure drop', 'diameter', 'wall', 'modulus'];
    names.forEach((name, i) =>
      positive(name, (x) =>
        mainVolumeLimit(...(args.map((a, j) => (i === j ? x : a)) as unknown as typeof args)),
      ),
    );
  });
});

describe('pools', () => {
  test('all ends but one are closed', () => {
    expect([1, 2, 5].map(plugsFor)).toEqual([
      { closed: 0, open: 1 },
      { closed: 1, open: 1 },
      { closed: 4, open: 1 },
    ]);
    for (const n of [0, -1, 1.5, NaN]) expect(() => plugsFor(n)).toThrow(/one end or more/);
  });
  test('bands by school and size: exactly 2 in still counts as small', () => {
    const psi = (b: { low: number; high: number }) =>
      [b.low / PSI, b.high / PSI].map((x) => Math.round(x * 1e6) / 1e6);
    expect(psi(poolBand(0.0508, 'narrow'))).toEqual([15, 20]);
    expect(psi(poolBand(0.0509, 'narrow'))).toEqual([10, 15]);
    expect(psi(poolBand(0.0508, 'wide'))).toEqual([10, 25]);
    expect(psi(poolBand(0.0509, 'wide'))).toEqual([5, 15]);
    expect(psi(poolBand(0.0508, 'air'))).toEqual([10, 15]);
    expect(psi(poolBand(0.0762, 'air'))).toEqual([5, 10]);
    expect(() => poolBand(0, 'wide')).toThrow(/pipe size/);
    expect(() => poolBand(-1, 'narrow')).toThrow(/pipe size/);
  });
  test('the weaker of pump and plug caps the band; a cap at its low end is possible, below it not', () => {
    const at = (pump: number | null, plug: number | null, school: PoolSchool = 'narrow', diameter = 0.05) => {
      const p = (x: number | null) => (x === null ? null : x * PSI);
      const { low, high, by, impossible } = poolPressure(diameter, school, p(pump), p(plug));
      return [Math.round((10 * low) / PSI) / 10, Math.round(high / PSI), by, impossible];
    };
    expect(at(50, 30)).toEqual([15, 20, 'school', false]);
    expect(at(18, 30)).toEqual([15, 18, 'pump', false]);
    expect(at(30, 15)).toEqual([13.5, 15, 'plug', false]);
    expect(at(30, 14)).toEqual([12.6, 14, 'plug', true]);
    // the pump caps narrow and air; beside wide it is only printed
    expect(at(12, 30, 'air')).toEqual([10, 12, 'pump', false]);
    expect(at(12, 30, 'wide')).toEqual([10, 25, 'school', false]);
    // not known: 15 to 2 in, 10 above, in every school, and never more than what is known
    expect([at(null, 30), at(30, null), at(null, null, 'wide')]).toEqual([
      [13.5, 15, 'unknown', false],
      [13.5, 15, 'unknown', false],
      [10, 15, 'unknown', false],
    ]);
    expect(at(null, 30, 'wide', 0.08)).toEqual([5, 10, 'unknown', false]);
    expect(at(12, null)).toEqual([10.8, 12, 'pump', true]);
    expect(() => poolPressure(0.05, 'narrow', 0, 1)).toThrow(/above zero/);
    expect(() => poolPressure(0.05, 'narrow', 1, -1)).toThrow(/above zero/);
    expect(() => poolPressure(0.05, 'wide', null, 0)).toThrow(/above zero/);
  });
  test('15 psi on 3 in is 106 lbf', () => {
    expect(plugThrust(15 * PSI, 0.0762) / LBF).toBeCloseTo(106.03, 2);
    expect(plugThrust(0, 0.05)).toBe(0);
    for (const [p, d] of [
      [-1, 1],
      [1, 0],
      [NaN, 1],
    ] as const)
      expect(() => plugThrust(p, d)).toThrow(/above zero/);
  });
  test('beside a bucket: evaporation is taken off, and 2 mm a day on 32 m² are 64 l', () => {
    const day = bucketLoss({ pool: 0.007, bucket: 0.005, hours: 24 }, 32);
    expect([day.evaporation, day.loss]).toEqual([0.005, 0.002]);
    expect(day.rate! * 86400 * 1000).toBeCloseTo(64, 9);
    // the pool rose against the bucket; no surface, no litres
    expect(bucketLoss({ pool: 0.001, bucket: 0.005, hours: 24 }, null)).toMatchObject({
      loss: -0.004,
      rate: null,
    });
    expect(() => bucketLoss({ pool: 1, bucket: 1, hours: 0 }, null)).toThrow(/time/);
    expect(() => bucketLoss({ pool: 1, bucket: 1, hours: 1 }, 0)).toThrow(/surface/);
  });
});

describe('refrigerant', () => {
  test('strength is the multiple under its cap', () => {
    expect(strengthPressure(20 * BAR, 1.43, 30 * BAR)).toEqual(cappedPressure(20 * BAR, 1.43, 30 * BAR));
  });
  test('a standing vacuum: each bound at its figure and beyond', () => {
    expect(vacuumResult(67, 90, 100)).toMatch(/^Tight/);
    expect(vacuumResult(67.1, 90, 100)).toMatch(/^The pump had not reached/);
    expect(vacuumResult(60, 110, 133)).toMatch(/^Tight/);
    expect(vacuumResult(60, 110, 133.1)).toMatch(/^Moisture/);
    // four fifths of the first half in the second is even still
    expect(vacuumResult(60, 100, 132)).toMatch(/^Not tight/);
    expect(vacuumResult(60, 100, 131.9)).toMatch(/^Tight/);
    // an even rise of 67 is a leak wherever it ends, less is not clear
    expect(vacuumResult(20, 50, 87)).toMatch(/^Not tight/);
    expect(vacuumResult(20, 50, 86.9)).toMatch(/^Not clear/);
    expect(vacuumResult(60, 60, 60)).toMatch(/^Tight/);
    // a fall in either half is no result, standing still is not a fall
    expect(vacuumResult(60, 59, 70)).toMatch(/^No result/);
    expect(vacuumResult(60, 70, 69)).toMatch(/^No result/);
    expect(vacuumResult(60, 70, 70)).toMatch(/^Tight/);
  });
});

describe('ducts', () => {
  test('by floor: 4, 3 and 8 CFM for each 100 ft2', () => {
    const ft2 = 9.290304;
    expect(floorLimit(ft2, 'after-construction') / CFM).toBeCloseTo(4, 9);
    expect(floorLimit(3 * ft2, 'rough-in') / CFM).toBeCloseTo(9, 9);
    expect(floorLimit(ft2, 'inside') / CFM).toBeCloseTo(8, 9);
    positive('floor area', (x) => floorLimit(x, 'inside'));
  });
  test('by surface: c p^0.65', () => {
    // class A: 0.027 l/s x 10 m2 x 400^0.65 = 13.26 l/s
    expect(surfaceLimit(10, 400, 'A') * 1000).toBeCloseTo(0.027 * 10 * 400 ** 0.65, 9);
    expect(surfaceLimit(10, 400, 'A') / surfaceLimit(10, 400, 'D')).toBeCloseTo(27, 9);
    expect(surfaceLimit(10, 400, 'B') / surfaceLimit(10, 400, 'C')).toBeCloseTo(3, 9);
    positive('duct surface', (x) => surfaceLimit(x, 1, 'A'));
    positive('test pressure', (x) => surfaceLimit(1, x, 'A'));
  });
  test('a flow carried to another pressure; an exponent outside 0.5 to 1 is none', () => {
    expect(flowAt(2, 25, 100, 0.5)).toBeCloseTo(4, 12);
    expect(flowAt(2, 25, 50, 1)).toBeCloseTo(4, 12);
    for (const n of [0.499, 1.001, NaN]) expect(() => flowAt(2, 25, 50, n)).toThrow(/between 0\.5 and 1/);
    positive('pressure of the reading', (x) => flowAt(1, x, 1, 0.6));
    positive('other pressure', (x) => flowAt(1, 1, x, 0.6));
    expect(pressureToRead(2, 25, 1, 0.5)).toBeCloseTo(6.25, 12);
    expect(pressureToRead(2, 25, 1, 1)).toBeCloseTo(12.5, 12);
    for (const n of [0.499, 1.001]) expect(() => pressureToRead(2, 25, 1, n)).toThrow(/between 0\.5 and 1/);
    positive('limit', (x) => pressureToRead(x, 25, 1, 0.6));
    positive('least flow', (x) => pressureToRead(1, 25, x, 0.6));
  });
  test('two points give the exponent and its interval; what lies wholly outside 0.5 to 1 is void', () => {
    const sound = halvingCheck(1, 12.5, 2 ** 0.6, 25, 0.01);
    expect([sound.ratio, sound.n, sound.result]).toEqual([
      expect.closeTo(2 ** 0.6, 12),
      expect.closeTo(0.6, 12),
      'sound',
    ]);
    // u_n = 0.01 x sqrt 2 / ln 2 = 0.020403; 1.96 of it 0.03999
    expect([sound.low, sound.high]).toEqual([expect.closeTo(0.56001, 4), expect.closeTo(0.63999, 4)]);
    const result = (n: number, u: number) => halvingCheck(1, 12.5, 2 ** n, 25, u).result;
    expect([result(0.5000001, 0), result(0.7499999, 0)]).toEqual(['sound', 'sound']);
    expect([result(0.76, 0), result(0.49, 0.01), result(1.02, 0.01)]).toEqual([
      'doubtful',
      'doubtful',
      'doubtful',
    ]);
    expect([result(0.45, 0.01), result(1.05, 0.01)]).toEqual(['void', 'void']);
    expect(() => halvingCheck(1, 25, 1, 25.5, 0)).toThrow(/clearly different/);
    expect(halvingCheck(1, 25, 1, 25 * Math.exp(0.06), 0).n).toBe(0);
    expect(halvingCheck(2 ** 0.6, 25, 1, 12.5, 0.01)).toMatchObject({
      n: expect.closeTo(0.6, 12) as number,
      result: 'sound',
    });
    expect(() => halvingCheck(1, 1, 1, 2, -0.1)).toThrow(/uncertainty/);
    positive('first flow', (x) => halvingCheck(x, 1, 1, 2, 0));
    positive('first pressure', (x) => halvingCheck(1, x, 1, 2, 0));
    positive('second flow', (x) => halvingCheck(1, 1, x, 2, 0));
    positive('second pressure', (x) => halvingCheck(1, 1, 1, x, 0));
  });
  test('own kit between limit and reading leaves it unresolved; both bounds are met at equality', () => {
    expect([10, 10.001, 12, 12.001].map((q) => ductReading(q, 10, 2))).toEqual([
      'within',
      'unresolved',
      'unresolved',
      'beyond',
    ]);
    expect(ductReading(0, 10, 0)).toBe('within');
    expect(ductReading(10.001, 10, 0)).toBe('beyond');
    expect(() => ductReading(-1, 10, 0)).toThrow(/below zero/);
    expect(() => ductReading(1, 10, -1)).toThrow(/below zero/);
    expect(() => ductReading(NaN, 10, 0)).toThrow(/below zero/);
    positive('limit', (x) => ductReading(1, x, 0));
  });
});
