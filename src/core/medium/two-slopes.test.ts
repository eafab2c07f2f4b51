import fc from 'fast-check';
import { twoHolds, valveAndLeak } from './two-slopes';

const A = 101_325;
const drive = (p: number) => p + (p * p) / (2 * A);
const volume = { value: 0.02, unsure: 0.05 };
/** Slope at a pressure by the balance of what comes in and goes out. */
const slope = (kIn: number, kOut: number, supply: number, p: number) =>
  (A / volume.value) * (kIn * (drive(supply) - drive(p)) - kOut * drive(p));
const litresAt = (litres: number, p: number) => litres / 3.6e6 / drive(p);

test('in balance at one pressure, told apart by a second', () => {
  const [supply, first] = [2100, 850];
  const kOut = litresAt(2, 2000);
  const kIn = (kOut * drive(first)) / (drive(supply) - drive(first));
  const at = (p: number) => ({ pressure: p, slope: slope(kIn, kOut, supply, p), error: 0.05 });
  expect(at(first).slope).toBeCloseTo(0, 9);
  const found = valveAndLeak(volume, supply, at(first), at(425), 2000)!;
  expect(found.leak.value * 3.6e6).toBeCloseTo(2, 1);
  expect(found.leak.low).toBeGreaterThan(0);
  expect(found.letBy.value * 3.6e6).toBeCloseTo(kIn * drive(supply) * 3.6e6, 1);
});
test('one pressure twice tells nothing; no supply behind the valve neither', () => {
  const at = { pressure: 850, slope: 0, error: 0.1 };
  expect(valveAndLeak(volume, 2100, at, { ...at, pressure: 852 }, 2000)).toBeNull();
  expect(valveAndLeak(volume, 0, at, { ...at, pressure: 400 }, 2000)).toBeNull();
});
test('neither is ever below nothing, and the truth lies within the interval', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 0, max: 5, noNaN: true }),
      fc.double({ min: 0, max: 5, noNaN: true }),
      fc.double({ min: 0.001, max: 0.5, noNaN: true }),
      (leak, letBy, error) => {
        const kOut = litresAt(leak, 2000);
        const kIn = letBy / 3.6e6 / drive(2100);
        const at = (p: number) => ({ pressure: p, slope: slope(kIn, kOut, 2100, p), error });
        const found = valveAndLeak(volume, 2100, at(900), at(400), 2000)!;
        for (const x of [found.leak, found.letBy]) {
          expect(x.low).toBeGreaterThanOrEqual(0);
          expect(x.value).toBeGreaterThanOrEqual(x.low);
          expect(x.high).toBeGreaterThanOrEqual(x.value);
        }
        expect(found.leak.low * 3.6e6).toBeLessThanOrEqual(leak + 0.03);
        expect(found.leak.high * 3.6e6).toBeGreaterThanOrEqual(leak - 0.03);
      },
    ),
  );
});
test('holds are proposed as long as the leak that matters needs, or not at all', () => {
  const propose = (error: number, leak: number) =>
    twoHolds(volume, 2100, 850, (minutes) => error / minutes, 2000, leak / 3.6e6);
  const fine = propose(0.3, 2)!;
  expect(fine.pressures).toEqual([850, 425]);
  expect(propose(1, 2)!.minutes).toBeGreaterThan(fine.minutes);
  expect(propose(0.3, 4)!.minutes).toBeLessThanOrEqual(fine.minutes);
  expect(propose(300, 0.1)).toBeNull();
});
