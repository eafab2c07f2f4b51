import { goodPath } from '@/core/plan/good-path';
import { reduce } from '@/core/run/reduce';
import { hold, plan as bakeryPlan, play, upTo, BEGAN } from '@/core/testing/bakery';
import { frameTasks, ordered, testTasks, type VisitTest } from './build';
import { currentPlan } from './current';
import { planVisit } from './planner';
import { progressOf } from './progress';

const test1: VisitTest = {
  id: 't1',
  site: 's',
  siteName: 'Bakery',
  system: 'sys',
  systemName: 'gas',
  pack: 'p',
  procedure: 'first',
  title: 'Staged',
  case: 'existing',
  caseTitle: 'Existing',
  gauge: 'g',
  gaugeName: 'G-02',
  needs: [],
};
const step = (stage: string, hands: number, wait = 0, close = 0, kind: 'checks' | 'hold' = 'checks') => ({
  stage,
  title: stage,
  kind,
  part: null,
  hands,
  wait,
  close,
});
const long = [step('prepare', 6), step('Hold', 1, 60, 1, 'hold'), step('put-back', 4)];

describe('tasks of a test', () => {
  test('short holds are hands; a long one waits; section and gauge are held from first to last', () => {
    const plan = bakeryPlan();
    const short = testTasks(test1, goodPath(plan, plan.gauges[0]!.id));
    expect(short.map((t) => [t.wait, t.takes, t.frees])).toEqual([
      [0, ['section:sys', 'gauge:g'], ['section:sys', 'gauge:g']],
    ]);
    const tasks = testTasks(test1, long);
    expect(tasks.filter((t) => t.kind === 'test').map((t) => [t.hands, t.wait, t.close])).toEqual([
      [7, 60, 1],
      [4, 0, 0],
    ]);
    expect(tasks.filter((t) => t.kind === 'filler').every((t) => t.during === 't1.1')).toBe(true);
  });
  test('a test that needs another on the same system comes after it, whatever was put on first', () => {
    const second = { ...test1, id: 't2', procedure: 'second', needs: ['first'] };
    const tasks = frameTasks(
      ordered([second, test1], [...testTasks(second, long), ...testTasks(test1, long)]),
      5,
      5,
    );
    const plan = planVisit(tasks);
    const of = (id: string) => plan.slots.find((s) => s.task === id)!;
    expect(of('t2.1').start).toBeGreaterThanOrEqual(of('t1.2').end);
    expect(of('brief').start).toBe(0);
    expect(of('hand-over').end).toBe(plan.length);
  });
});

describe('what a run has done of them', () => {
  const plan = bakeryPlan();
  const tasks = testTasks(test1, goodPath(plan, plan.gauges[0]!.id));
  const at = (seconds: number) => BEGAN + seconds * 1000;
  test('hands are on it: the rest is planned from where the estimate leaves it', () => {
    const state = reduce(plan, play(plan, upTo(['9.10', '9.10'])));
    const p = progressOf(tasks, plan, state, BEGAN, at(180));
    expect(p.busy).toBeGreaterThan(3);
    expect(p.repeats).toBe(0);
    expect(Object.values(p.tasks)[0]).toMatchObject({ running: true });
    const again = currentPlan(
      {
        tasks: frameTasks(tasks, 5, 5),
        crew: 1,
        wishes: {},
        pinned: [],
        done: { brief: { start: 0, end: 0 } },
      },
      null,
      { progress: p.tasks, now: p.busy },
    );
    expect(again.length).toBeCloseTo(p.busy + 5, 6); // what is left of the test, then handing over
  });
  test('a repeated hold lengthens the plan by what it takes', () => {
    const once = [...upTo(['9.10', '9.10']), ...hold(200, '20.50', '20.48')];
    // a fall beyond the limit: own kit, then raise, settle and hold again
    const fails = [...upTo(['9.10', '9.10']), ...hold(200, '20.50', '10.00')];
    expect(progressOf(tasks, plan, reduce(plan, play(plan, once)), BEGAN, at(400)).repeats).toBe(0);
    const failed = reduce(plan, play(plan, fails));
    const later = progressOf(tasks, plan, failed, BEGAN, at(2700));
    expect(Object.values(later.tasks)[0]!.state).toBe('done');
    expect(later.busy).toBeGreaterThanOrEqual(46); // still on it after 45 min: at least a minute more
  });
});
