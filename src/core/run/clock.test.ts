import fc from 'fast-check';
import { BEGAN, hold, plan, play, upTo } from '@/core/testing/bakery';
import { verdictOf } from '@/core/verdict/verdict';
import { CLOCK_TOLERANCE_MS, clockPoint, elapsedBetween, type ClockPoint } from './clock';
import { reduce } from './reduce';

const at = (device: number, mono: number, over: Partial<ClockPoint> = {}): ClockPoint => ({
  device,
  offset: 0,
  mono,
  pageLoad: 'a',
  by: 'phone',
  ...over,
});

describe('time between two entries', () => {
  test('clocks that agree within the tolerance count by the office; one ms more and the page’s own count stands', () => {
    const jump = (ms: number) => elapsedBetween(at(0, 0), at(60_000 + ms, 60_000));
    expect(jump(CLOCK_TOLERANCE_MS)).toEqual({ ms: 62_000, apart: 0 });
    expect(jump(CLOCK_TOLERANCE_MS + 1)).toEqual({ ms: 60_000, apart: 2001 });
    expect(jump(-CLOCK_TOLERANCE_MS - 1)).toEqual({ ms: 60_000, apart: 2001 });
  });
  test('within one page load nobody’s clock makes a hold longer than the page counted', () => {
    const ms = fc.integer({ min: 0, max: 7_200_000 });
    const shift = fc.integer({ min: -9e9, max: 9e9 });
    fc.assert(
      fc.property(ms, shift, shift, (passed, device, offset) => {
        const e = elapsedBetween(at(1e12, 1000), at(1e12 + passed + device, 1000 + passed, { offset }));
        expect(Math.abs(e.ms - passed)).toBeLessThanOrEqual(CLOCK_TOLERANCE_MS);
        expect(e.apart > 0).toBe(Math.abs(device + offset) > CLOCK_TOLERANCE_MS);
      }),
    );
  });
  test('across page loads of one device the smaller time counts, and the difference is said', () => {
    const after = (device: number, offset: number) =>
      elapsedBetween(at(0, 500_000), at(device, 10, { pageLoad: 'b', offset }));
    expect(after(120_000, 0)).toEqual({ ms: 120_000, apart: 0 });
    expect(after(120_000, 116_000)).toEqual({ ms: 120_000, apart: 116_000 }); // the office was set forwards
    expect(after(236_000, -116_000)).toEqual({ ms: 120_000, apart: 116_000 }); // the device was
    // the device was set back below the start: it measures nothing, the office does
    expect(after(-3_000_000, 3_120_000)).toEqual({ ms: 120_000, apart: 3_120_000 });
  });
  test('from one device to another the office’s line is all there is', () => {
    expect(
      elapsedBetween(at(0, 0), at(5e9, 77, { pageLoad: 'b', by: 'tablet', offset: 120_000 - 5e9 })),
    ).toEqual({
      ms: 120_000,
      apart: 0,
    });
  });
  test('a reading made before its entry stands earlier on every clock', () => {
    const event = { at: 100_000, offset: 7, mono: 90_000, pageLoad: 'a', device: 'phone' };
    expect(clockPoint(event, 97_000)).toEqual({
      device: 97_000,
      offset: 7,
      mono: 87_000,
      pageLoad: 'a',
      by: 'phone',
    });
  });
});

test('a server clock that jumps makes no hold: five seconds stay five', () => {
  const p = plan();
  const log = play(p, [...upTo(['9.10', '9.10']), ...hold(200, '20.50', '20.50')]);
  const last = log[log.length - 1]!;
  // the hold of 121 s: its end entered after 5 s while the office's clock had been moved by 116 s
  const early = {
    ...last,
    at: last.at - 116_000,
    readAt: BEGAN + 275_000,
    mono: last.mono - 116_000,
    offset: 116_000,
  };
  const state = reduce(p, [...log.slice(0, -1), early]);
  expect(state.withoutEffect.map((w) => w.code)).toEqual(['too-early']);
  expect(verdictOf(p, state)).toBeNull();
});
