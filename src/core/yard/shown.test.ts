import { deskLine } from '@/core/desk';
import { deskResult } from '@/core/desk/work';
import { balance, halving, sensitivity, warmed } from './shown';

describe('half the pressure', () => {
  test('a hole lets 71 % through, a crack 50 %, and the exponent says which', () => {
    expect(halving(0, 25)).toMatchObject({ ratio: expect.closeTo(Math.SQRT1_2, 6) as number });
    expect(halving(0, 25).exponent).toBeCloseTo(0.5, 9);
    expect(halving(1, 25).ratio).toBeCloseTo(0.5, 9);
    expect(halving(1, 25).exponent).toBeCloseTo(1, 9);
    // openings of houses and ducts: about 0.66, n about 0.6
    expect(halving(0.23, 25).ratio).toBeCloseTo(0.66, 2);
    expect(halving(0.23, 25).exponent).toBeCloseTo(0.6, 2);
  });
  test('the more cracks, the less flows at half; outside it is refused', () => {
    const ratios = [0, 0.2, 0.4, 0.6, 0.8, 1].map((c) => halving(c, 50).ratio);
    expect([...ratios].sort((a, b) => b - a)).toEqual(ratios);
    expect(() => halving(1.01, 25)).toThrow(/between/);
  });
});
test('sensitivity is the Desk’s own, gets better with time, worse with volume and step', () => {
  const desk = deskResult(deskLine('smallest-leak-gas')!, {
    V: { text: '20', unit: 'l' },
    p: { text: '20', unit: 'mbar' },
    r: { text: '0.01', unit: 'mbar' },
    pm: { text: '0.25', unit: 'mbar' },
    t: { text: '2', unit: 'min' },
  });
  expect(sensitivity(20, 0.01, 20, 60).at(2)).toBeCloseTo(desk.outputs[0]!.value!, 9);
  const at = (v: number, s: number, t: number) => sensitivity(v, s, 20, 60).at(t);
  expect(at(20, 0.01, 10)).toBeLessThan(at(20, 0.01, 2));
  expect(at(40, 0.01, 2)).toBeCloseTo(2 * at(20, 0.01, 2), 9);
  expect(at(20, 1, 2)).toBeGreaterThan(at(20, 0.01, 2));
});
test('a kelvin: 3.5 mbar at working pressure, and thousands in a full copper pipe; none does nothing', () => {
  const one = Object.fromEntries(warmed(1).map((w) => [w.name, w.change]));
  expect(one['gas at working pressure']! / 100).toBeCloseTo(3.52, 1);
  expect(one['nitrogen at 40 bar']! / 1e5).toBeCloseTo(0.14, 2);
  const desk = deskResult(deskLine('gas-temperature')!, { p: { text: '20', unit: 'mbar' } }).outputs[0]!;
  expect(one['gas at working pressure']! / 100).toBeCloseTo(desk.value!, 6);
  // water: thousandfold, but for the pipe that grows with it
  expect(one['20 m of copper full of water']! / 1e5).toBeGreaterThan(1);
  expect(warmed(0).every((w) => w.change === 0)).toBe(true);
});
describe('let-by and leak', () => {
  test('stand still where both cancel; below it rises, above it falls', () => {
    const b = balance(1.2, 0.8, 21, 20);
    expect(b.slope(b.stands)).toBeCloseTo(0, 9);
    expect(b.slope(b.stands - 2)).toBeGreaterThan(0);
    expect(b.slope(b.stands + 2)).toBeLessThan(0);
    // twice as much comes in as goes out where the pressures are alike: about 60 % of the supply
    expect(Math.abs(b.stands - 0.6 * 21)).toBeLessThan(0.1);
    const desk = deskResult(deskLine('balance-pressure')!, {
      ps: { text: '21', unit: 'mbar' },
      in: { text: '1.2', unit: 'l/h' },
      out: { text: '0.8', unit: 'l/h' },
    });
    expect(b.stands).toBeCloseTo(desk.outputs[0]!.value!, 6);
  });
  test('without a leak it rises to the supply; without let-by it only falls', () => {
    expect(balance(1, 0, 21, 20).stands).toBeCloseTo(21, 9);
    expect(balance(0, 1, 21, 20).stands).toBeCloseTo(0, 9);
    expect(balance(0, 1, 21, 20).curve.every((p) => p.y <= 0)).toBe(true);
  });
});
