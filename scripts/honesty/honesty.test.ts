// @further whole tests conducted by the thousand
import { honestyCases } from './cases';
import { tallyCase } from './tally';

/**
 * Whole tests conducted on sections of known truth, in a physics of their own. Laws first, then the counts of one fixed seed:
 * whoever changes the judgement sees here what it does to sound and leaking sections. `npm run honesty` runs thousands.
 */
const RUNS = 40;
const tallies = honestyCases().map((c) => tallyCase(c, RUNS, 1));

test('law: who follows the bench is never left standing, and no leak ends Void', () => {
  for (const t of tallies) {
    expect([t.name, t.stuck]).toEqual([t.name, {}]);
    expect([t.name, t.leaks.void ?? 0]).toEqual([t.name, 0]);
  }
});
test('law: nothing is called good over a leak larger than what its own record says it could show, or hide', () => {
  for (const t of tallies) expect([t.name, t.falseTight]).toEqual([t.name, 0]);
});
test('law: printed 95 % intervals of a rate hold the truth, and a leak as large as the printed figure is seen', () => {
  for (const t of tallies) {
    if (t.intervals) expect([t.name, t.covered / t.intervals >= 0.94]).toEqual([t.name, true]);
    // on stretching loops the figure says what could hide, not what shows
    if (t.atFigure && !t.name.includes('loops'))
      expect([t.name, t.seen / t.atFigure >= 0.94]).toEqual([t.name, true]);
  }
});
test('the counts of this seed', () => {
  const of = (pick: (t: (typeof tallies)[number]) => Record<string, number>) =>
    Object.fromEntries(tallies.map((t) => [t.name, pick(t)]));
  expect({ sound: of((t) => t.sound), leaks: of((t) => t.leaks) }).toMatchSnapshot();
});
