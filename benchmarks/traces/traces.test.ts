// @further how well causes are named, by the hundred
/** A tenth of what the benchmark counts, by a seed that stays: a change that makes the analysis worse is seen at once. */
import { execFileSync } from 'node:child_process';
import { type figuresOf, TARGETS } from '../analysis';
import { erf } from './worlds';

test('causes, rates and warnings keep to their targets; faults of practice are called what they are, or left open', () => {
  const said = execFileSync('node', ['--import', 'tsx', 'benchmarks/traces/tenth.ts'], { encoding: 'utf8' });
  const {
    figures: f,
    own,
    fits,
    again,
  } = JSON.parse(said) as {
    figures: ReturnType<typeof figuresOf>;
    own: { name: string; wrong: number }[];
    fits: boolean;
    again: boolean[];
  };
  // else UPDATE_REFEREE=1: the referee’s code is another than the one whose answers are kept
  expect([fits, again]).toEqual([true, [true, true, true, true]]);
  expect(f.traces).toBe(500);
  // enough of them say something, or the rest of this says nothing
  expect(f.separable).toBeGreaterThan(280);
  expect(f.rates).toBeGreaterThan(50);
  expect(f.right).toBeGreaterThan(TARGETS.right);
  expect(f.wrong).toBeLessThan(4);
  expect(f.dangerous).toBeLessThanOrEqual(TARGETS.dangerous);
  expect(f.held).toBeGreaterThan(90);
  expect(f.bound).toBeLessThan(TARGETS.bound);
  expect(f.falseAlarm).toBeLessThan(TARGETS.falseAlarm);
  expect(f.cooling).toBeLessThan(TARGETS.cooling);
  expect(f.warned).toBeGreaterThan(80);
  expect(f.band).toBeGreaterThan(88);
  expect(f.unmasked).toBeGreaterThan(TARGETS.unmasked);
  expect(f.calledMasked).toBeLessThan(6);
  // stretch in decades is no logarithm: one of four may be taken for a fading fall of another kind
  expect(own.reduce((sum, o) => sum + o.wrong, 0)).toBeLessThanOrEqual(1);
}, 300_000);
test('the referee’s error function, beside its tables', () => {
  expect(erf(0.5)).toBeCloseTo(0.5204998778, 9);
  expect(erf(2.5)).toBeCloseTo(0.9995930479825551, 12);
  expect(erf(-1)).toBeCloseTo(-0.8427007929, 9);
});
