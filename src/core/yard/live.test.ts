/** The line of a practice run: time passed at once puts it ahead, time in which the one who trains stopped it puts it behind. */
import fc from 'fast-check';
import type { YardAct } from './acts';
import { goesOn, lineOf, passedIn, standsAt } from './live';

const paused = (at: number): YardAct => ({ kind: 'paused', at, paused: true });
test('while it is stopped it stands; let go, it goes on from there as if nothing had been', () => {
  const acts = [paused(lineOf([], 10_000))];
  expect(lineOf(acts, 10_000)).toBe(10_000);
  expect(lineOf(acts, 70_000)).toBe(10_000);
  const after = [...acts, ...goesOn(acts, 70_000)];
  expect(standsAt(after)).toBeNull();
  expect(lineOf(after, 70_000)).toBe(10_000);
  expect(lineOf(after, 71_000)).toBe(11_000);
  expect(passedIn(after)).toBe(-60_000);
  // let go twice is once
  expect(goesOn(after, 99_000)).toEqual([]);
});
test('law: whatever is passed, stopped and let go in whatever order, the line never goes back, and never jumps by itself', () => {
  const doing = fc.record({ after: fc.nat(90_000), what: fc.constantFrom('pass', 'stop', 'go', 'nothing') });
  fc.assert(
    fc.property(fc.array(doing, { maxLength: 30 }), (all) => {
      const acts: YardAct[] = [];
      let now = 1_000_000;
      let before = lineOf(acts, now);
      for (const { after, what } of all) {
        now += after;
        const line = lineOf(acts, now);
        // it goes by the clock, or stands
        expect([0, after]).toContain(line - before);
        if (what === 'pass' && standsAt(acts) === null) acts.push({ kind: 'passed', at: line, ms: 5_000 });
        if (what === 'stop' && standsAt(acts) === null) acts.push(paused(line));
        if (what === 'go') acts.push(...goesOn(acts, now));
        before = lineOf(acts, now);
        expect(before - line).toBe(what === 'pass' && standsAt(acts) === null ? 5_000 : 0);
      }
    }),
  );
});
