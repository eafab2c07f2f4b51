import { hold, plan as bakeryPlan, play, upTo } from '@/core/testing/bakery';
import { reduce } from './reduce';
import { medianTimes, stepTimes } from './step-times';

test('time per step: from entering to leaving, the hold within it told apart', () => {
  const plan = bakeryPlan();
  const state = reduce(plan, play(plan, [...upTo(['9.10', '9.10']), ...hold(200, '20.50', '20.48')]));
  const steps = stepTimes(state);
  const letBy = steps.find((s) => /let-by/i.test(s.title) && s.held > 0)!;
  expect(letBy.held).toBeGreaterThanOrEqual(1);
  expect(letBy.minutes).toBeGreaterThanOrEqual(letBy.held);
  expect(steps.every((s) => s.times === 1 && s.minutes >= 0)).toBe(true);
});
test('the middle of several runs, odd and even; none gives none', () => {
  const run = (minutes: number) => [{ stage: 'a', title: 'a', minutes, held: 0, times: 1 }];
  expect(medianTimes([run(1), run(9), run(4)])).toEqual({ a: 4 });
  expect(medianTimes([run(1), run(4)])).toEqual({ a: 2.5 });
  expect(medianTimes([])).toEqual({});
});
