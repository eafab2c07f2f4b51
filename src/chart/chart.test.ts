import fc from 'fast-check';
import { trendGeometry } from './trend';
import { hold, plan, play, upTo } from '@/core/testing/bakery';
import { reduce } from '@/core/run/reduce';
import { wallCourses, wallGlyph } from './wall';
import { courseHeight, plumbShift } from '@/chart/courses';
import { holdTrace } from './run-trace';
import { traceGeometry } from './trace';

const p = plan();
const fall = reduce(p, play(p, [...upTo(['9.10', '9.10']), ...hold(200, '20.50', '18.50')]));

test('height of a course: clamp(8, 8 + 5 log2(1 + minutes), 64)', () => {
  expect([0, 1, 3, 1e9].map(courseHeight)).toEqual([8, 13, 18, 64]);
});
test('a course stands off plumb by movement over limit: a fall to the left, beyond the limit out of plumb', () => {
  const course = wallCourses(p, fall, fall.lastAt).find((c) => c.title === 'Tightness')!;
  expect([course.plumb, course.out]).toEqual([-0.5, false]);
  const beyond = reduce(p, play(p, [...upTo(['9.10', '9.10']), ...hold(200, '20.50', '12.00')]));
  expect(wallCourses(p, beyond, 0).find((c) => c.title === 'Tightness')).toMatchObject({ out: true });
  expect(plumbShift(-9, 10)).toBe(-15);
});
test('the wall shows what is still to be laid, and the glyph stores as integers', () => {
  expect(wallCourses(p, reduce(p, []), 0).map((c) => c.state)).toEqual([
    'running',
    ...Array<string>(7).fill('waiting'), // zero, raise, let-by, raise, stabilise, tightness, zero again
  ]);
  for (const c of wallGlyph(p, fall)) expect(Number.isInteger(c.p)).toBe(true);
});
test('the trace keeps every mark inside its plot and the permitted band where the limits are', () => {
  const visit = fall.visits.find((v) => v.title === 'Tightness')!;
  const request = holdTrace(p, fall, visit, visit.holds[0]!, 0)!;
  const g = traceGeometry({ ...request, width: 600, height: 200 });
  expect(request.permitted).toEqual([16.5, 20.75]);
  for (const m of g.marks)
    expect(m.x >= g.plot.left && m.x <= g.plot.right && m.y >= g.plot.top && m.y <= g.plot.bottom).toBe(true);
  expect(g.nearest(g.plot.right)!.p).toBe(18.5);
});
test('labels of a trace stand apart on whatever there is of a screen', () => {
  const visit = fall.visits.find((v) => v.title === 'Let-by')!;
  const request = holdTrace(p, fall, visit, visit.holds[0]!, 0)!;
  for (const [width, height] of [
    [960, 300],
    [336, 120],
    [266, 118],
  ] as const) {
    const g = traceGeometry({ ...request, width, height });
    const apart = (at: number[]) => Math.min(...at.slice(1).map((v, i) => Math.abs(v - at[i]!)));
    expect(apart(g.xTicks.map((t) => t.x))).toBeGreaterThanOrEqual(36);
    expect(apart(g.yTicks.map((t) => t.y))).toBeGreaterThanOrEqual(16);
    expect(Math.min(g.xTicks.length, g.yTicks.length)).toBeGreaterThanOrEqual(2);
  }
});
test('a void result is a crack through the last course, also as a glyph', () => {
  const confirmed = reduce(
    p,
    play(p, [...upTo(['9.00', '9.60']), [140, 'checks'], [200, 'observe', 'bubbles'], [260, 'checks']]),
  );
  const courses = wallCourses(p, confirmed, 0);
  expect(courses[courses.length - 1]!.state).toBe('split');
  expect(wallGlyph(p, confirmed).map((c) => c.s)).toEqual(['out', 'split']);
});

test('figures over the years lie in their plot, zero stands below what is above it, and no label stands twice', () => {
  const day = 86_400_000;
  fc.assert(
    fc.property(
      fc.array(
        fc.tuple(
          fc.integer({ min: 1, max: 900 }),
          fc.integer({ min: 0, max: 50_000_000 }).map((n) => n / 10_000),
        ),
        {
          minLength: 2,
          maxLength: 30,
        },
      ),
      (steps) => {
        let at = Date.UTC(2019, 3, 12);
        const points = steps.map(([days, value]) => ({ at: (at += days * day), value }));
        const g = trendGeometry(points, 560, 130);
        for (const p of g.points) {
          expect(p.x).toBeGreaterThanOrEqual(g.left);
          expect(p.x).toBeLessThanOrEqual(g.right);
          expect(p.y).toBeGreaterThanOrEqual(0);
          expect(p.y).toBeLessThanOrEqual(130);
        }
        expect(g.yTicks.some((t) => Number(t.label) === 0)).toBe(true);
        for (const ticks of [g.xTicks, g.yTicks])
          expect(new Set(ticks.map((t) => t.label)).size).toBe(ticks.length);
      },
    ),
  );
});
