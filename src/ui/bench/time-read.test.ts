import fc from 'fast-check';
import { timeRead } from './time-read';

const at = (text: string) => new Date(text).getTime();
const typed = (t: number) => new Date(t).toTimeString().slice(0, 8);

test('the newest moment with that time of day: today, or yesterday for a run over midnight', () => {
  const began = at('2026-11-20T22:00:00');
  expect(timeRead('22:30', at('2026-11-20T22:45:00'), began)).toBe(at('2026-11-20T22:30:00'));
  expect(timeRead('23:58:07', at('2026-11-21T00:05:00'), began)).toBe(at('2026-11-20T23:58:07'));
  expect(timeRead('00:05:00', at('2026-11-21T00:05:00'), began)).toBe(at('2026-11-21T00:05:00'));
});
test('what lies ahead, or before the run, is refused with what to do; so is no time at all', () => {
  const began = at('2026-11-20T23:40:00');
  const now = at('2026-11-20T23:50:00');
  for (const ahead of ['23:50:01', '00:00:41', '08:00', '23:39:59'])
    expect(() => timeRead(ahead, now, began)).toThrow(/began at 23:40:00, and it is 23:50:00 now/);
  expect(timeRead('23:40:00', now, began)).toBe(began);
  for (const none of ['', '12', 'noon', '::'])
    expect(() => timeRead(none, now, began)).toThrow(/Type the time/);
});
test('law: any moment of the run within the last day is found again by its time of day', () => {
  fc.assert(
    fc.property(fc.integer({ min: 0, max: 86_399 }), fc.integer({ min: 0, max: 86_399 }), (ago, daytime) => {
      const now = at('2026-11-20T00:00:00') + daytime * 1000;
      const read = now - ago * 1000;
      expect(timeRead(typed(read), now, now - 30 * 3_600_000)).toBe(read);
    }),
  );
});
