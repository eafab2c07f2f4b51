import fc from 'fast-check';
import { task } from '@/core/testing/visit';
import { arrange, planVisit } from './planner';
import { VisitError, type VisitPlan, type VisitTask } from './types';

const slot = (plan: VisitPlan, id: string) => plan.slots.find((s) => s.task === id)!;

/** What must hold of any plan, whoever made it. */
function expectKept(tasks: readonly VisitTask[], plan: VisitPlan, crew: number): void {
  const at = (id: string) => slot(plan, id);
  const hands: { from: number; to: number; who: number }[] = [];
  for (const t of tasks) {
    const s = at(t.id);
    expect(s.handsEnd).toBeCloseTo(s.start + t.hands, 9);
    expect(s.end - s.closeStart).toBeCloseTo(t.wait || t.close ? t.close : 0, 9);
    expect(s.closeStart).toBeGreaterThanOrEqual(s.handsEnd + t.wait - 1e-9);
    expect(s.start).toBeGreaterThanOrEqual((t.notBefore ?? 0) - 1e-9);
    for (const a of t.after) expect(s.start).toBeGreaterThanOrEqual(at(a).end - 1e-9);
    if (t.during) {
      expect(s.start).toBeGreaterThanOrEqual(at(t.during).handsEnd - 1e-9);
      expect(at(t.during).closeStart).toBeGreaterThanOrEqual(s.end - 1e-9);
    }
    if (t.hands) hands.push({ from: s.start, to: s.handsEnd, who: s.person });
    if (t.close) hands.push({ from: s.closeStart, to: s.end, who: s.closer });
  }
  for (let who = 0; who < crew; who++) {
    const own = hands.filter((h) => h.who === who).sort((a, b) => a.from - b.from);
    own.slice(1).forEach((h, i) => expect(h.from).toBeGreaterThanOrEqual(own[i]!.to - 1e-9));
  }
  for (const thing of new Set(tasks.flatMap((t) => t.takes))) {
    const uses = tasks
      .filter((t) => t.takes.includes(thing) && t.frees.includes(thing))
      .map((t) => at(t.id))
      .sort((a, b) => a.start - b.start);
    uses.slice(1).forEach((u, i) => expect(u.start).toBeGreaterThanOrEqual(uses[i]!.end - 1e-9));
  }
  expect(plan.length).toBeCloseTo(Math.max(...plan.slots.map((s) => s.end)), 9);
  expect(plan.bound).toBeLessThanOrEqual(plan.length + 1e-9);
}

/**
 * The oracle: every order of hands, no bound but the best so far, no memory, written apart from the planner.
 */
function everyOrder(tasks: readonly VisitTask[], crew: number): number {
  let best = Infinity;
  const waits = (t: VisitTask) => t.wait > 0 || t.close > 0;
  const go = (
    begun: Map<string, number>,
    ended: Map<string, number>,
    free: number[],
    held: Map<string, number>,
  ): void => {
    if (ended.size === tasks.length) {
      best = Math.min(best, Math.max(...ended.values()));
      return;
    }
    if (Math.max(0, ...ended.values()) >= best) return;
    for (const t of tasks) {
      if (ended.has(t.id)) continue;
      for (let who = 0; who < crew; who++) {
        const nextFree = (to: number) => free.map((f, i) => (i === who ? to : f));
        if (!begun.has(t.id)) {
          if (t.after.some((a) => !ended.has(a)) || t.takes.some((r) => held.get(r) === Infinity)) continue;
          if (t.during && (!begun.has(t.during) || ended.has(t.during))) continue;
          const from = Math.max(
            free[who]!,
            t.notBefore ?? 0,
            ...t.after.map((a) => ended.get(a)!),
            ...(t.during ? [begun.get(t.during)!] : []),
            ...t.takes.map((r) => held.get(r) ?? 0),
          );
          const to = from + t.hands;
          const after = new Map(held);
          for (const r of t.takes) after.set(r, Infinity);
          if (waits(t)) go(new Map(begun).set(t.id, to), ended, nextFree(to), after);
          else {
            for (const r of t.frees) after.set(r, to);
            go(new Map(begun).set(t.id, to), new Map(ended).set(t.id, to), nextFree(to), after);
          }
        } else {
          const inside = tasks.filter((x) => x.during === t.id);
          if (inside.some((x) => !ended.has(x.id))) continue;
          const from = Math.max(
            free[who]!,
            begun.get(t.id)! + t.wait,
            ...inside.map((x) => ended.get(x.id)!),
          );
          const to = from + t.close;
          const after = new Map(held);
          for (const r of t.frees) after.set(r, to);
          go(begun, new Map(ended).set(t.id, to), nextFree(to), after);
        }
      }
    }
  };
  go(new Map(), new Map(), new Array<number>(crew).fill(0), new Map());
  return best;
}

/** Random visits: up to 7 tasks, at most 2 or 3 that wait, an order without circles, two things taken in turn. */
const visits = (most: number, waiting: number) =>
  fc
    .array(
      fc.record({
        hands: fc.integer({ min: 1, max: 6 }),
        wait: fc.integer({ min: 1, max: 15 }),
        close: fc.integer({ min: 1, max: 3 }),
        waits: fc.boolean(),
        thing: fc.constantFrom('', 'gauge', 'section'),
        before: fc.array(fc.integer({ min: 0, max: most }), { maxLength: 2 }),
        inside: fc.integer({ min: 0, max: 2 * most }),
        notBefore: fc.option(fc.integer({ min: 0, max: 12 }), { freq: 5, nil: undefined }),
      }),
      { minLength: 1, maxLength: most },
    )
    .map((rows) => {
      let left = waiting;
      const tasks: VisitTask[] = [];
      rows.forEach((r, i) => {
        const waits = r.waits && left-- > 0;
        const things: string[] = r.thing ? [r.thing] : [];
        const host = tasks[r.inside];
        const inside =
          host && host.wait > 0 && !waits && !host.takes.some((t) => things.includes(t))
            ? host.id
            : undefined;
        tasks.push(
          task(`t${i}`, r.hands, {
            wait: waits ? r.wait : 0,
            close: waits ? r.close : 0,
            after: inside ? [] : [...new Set(r.before.filter((b) => b < i).map((b) => `t${b}`))],
            takes: things,
            frees: things,
            ...(inside ? { during: inside } : {}),
            ...(r.notBefore === undefined ? {} : { notBefore: r.notBefore }),
          }),
        );
      });
      return tasks;
    });

test('equals every order tried, on 200 random visits of at most 7 tasks', () => {
  fc.assert(
    fc.property(visits(7, 2), (tasks) => {
      let plan: VisitPlan;
      try {
        plan = planVisit(tasks);
      } catch (error) {
        expect(error).toBeInstanceOf(VisitError); // a task inside another that needs what blocks it
        expect(everyOrder(tasks, 1)).toBe(Infinity);
        return;
      }
      expectKept(tasks, plan, 1);
      expect(plan.proved).toBe(true);
      expect(plan.length).toBeCloseTo(everyOrder(tasks, 1), 9);
    }),
    { numRuns: 200, seed: 20261124 },
  );
});
test('two people: also the best of every order', () => {
  fc.assert(
    fc.property(visits(5, 2), (tasks) => {
      const best = everyOrder(tasks, 2);
      if (best === Infinity) return;
      const plan = planVisit(tasks, { crew: 2 });
      expectKept(tasks, plan, 2);
      expect(plan.length).toBeCloseTo(best, 9);
    }),
    { numRuns: 60, seed: 7 },
  );
});
test('an order by hand never breaks what must come before, nor uses a thing or a person twice', () => {
  fc.assert(
    fc.property(
      visits(7, 3),
      fc.array(fc.integer({ min: 0, max: 60 }), { minLength: 7, maxLength: 7 }),
      (tasks, wishes) => {
        const wished = Object.fromEntries(tasks.map((t, i) => [t.id, wishes[i]!]));
        let plan: VisitPlan;
        try {
          plan = arrange(tasks, wished, new Set(['t0']));
        } catch (error) {
          return void expect(error).toBeInstanceOf(VisitError);
        }
        expectKept(tasks, plan, 1);
        expect(slot(plan, 't0').start).toBeGreaterThanOrEqual(wished.t0! - 1e-9);
      },
    ),
    { numRuns: 200 },
  );
});

describe('a visit worked by hand', () => {
  const drain = task('drain', 8, { wait: 30, close: 2, takes: ['gauge:level'], frees: ['gauge:level'] });
  const water = task('water', 6, { wait: 20, close: 2 });
  const soap = task('soap', 9, { during: 'water' });
  const photos = task('photos', 4);
  const home = task('home', 3, { after: ['drain', 'water', 'photos'] });
  test('holds stand side by side and waits are filled: as long as the longest chain', () => {
    const plan = planVisit([drain, water, soap, photos, home]);
    expectKept([drain, water, soap, photos, home], plan, 1);
    expect([plan.length, plan.bound, plan.proved]).toEqual([43, 43, true]); // 8 + 30 + 2 + 3
    expect(slot(plan, 'soap').start).toBeGreaterThanOrEqual(slot(plan, 'water').handsEnd);
  });
  test('one gauge for both: one after the other', () => {
    const both = [drain, { ...water, takes: ['gauge:level'], frees: ['gauge:level'] }];
    expect(planVisit(both).length).toBe(68); // 40 + 28
  });
  test('a chain keeps its gauge from its first task to its last', () => {
    const chain = (n: string) => [
      task(`${n}1`, 5, { wait: 10, close: 1, takes: ['gauge'] }),
      task(`${n}2`, 3, { after: [`${n}1`], frees: ['gauge'] }),
    ];
    const plan = planVisit([...chain('a'), ...chain('b')]);
    expect(plan.length).toBe(38);
    expect(plan.proved).toBe(true);
  });
  test('a promise is kept though the order without it would be another; where none keeps it, it is named', () => {
    const on = task('water on', 2, { after: ['water'], finishBy: 30 });
    const promised = planVisit([drain, water, on]);
    expect([promised.late, slot(promised, 'water on').end]).toEqual([[], 30]);
    const impossible = planVisit([drain, water, { ...on, finishBy: 29 }]);
    expect(impossible.late).toEqual(['water on']);
  });
  test('planned again from what has happened: a hold that runs longer moves what follows', () => {
    const again = planVisit([drain, water, home, photos, soap], {
      now: 20,
      progress: {
        drain: { state: 'waiting', start: 0, handsEnd: 8, ready: 55 },
        photos: { state: 'done', start: 8, end: 12 },
      },
    });
    expect(slot(again, 'drain')).toMatchObject({ start: 0, closeStart: 55, end: 57 });
    expect(slot(again, 'water').start).toBeGreaterThanOrEqual(20);
    expect(again.length).toBe(60);
  });
  test('what cannot be is said: unknown, circular, doubled, negative, nothing given back', () => {
    const said = (tasks: VisitTask[], crew = 1) => expect(() => planVisit(tasks, { crew }));
    said([task('a', 1, { after: ['b'] })]).toThrow(/not on this visit/);
    said([task('a', 1, { after: ['b'] }), task('b', 1, { after: ['a'] })]).toThrow(/waits for itself/);
    said([task('a', 1), task('a', 1)]).toThrow(/same name/);
    said([task('a', -1)]).toThrow(/zero or more/);
    said([task('a', NaN)]).toThrow(/zero or more/);
    said([task('a', 1, { during: 'b' }), task('b', 1)]).toThrow(/has no wait/);
    said([task('a', 1, { takes: ['x'] }), task('b', 1, { takes: ['x'] })]).toThrow(/no task gives back/);
    said([task('a', 1)], 0).toThrow(/one to 4 people/);
    expect(planVisit([]).length).toBe(0);
  });
});
