import fc from 'fast-check';
import { task } from '@/core/testing/visit';
import { planVisit } from '@/core/visit/planner';
import { bandGeometry } from './band';
import { curveGeometry } from './curve';

describe('leak seen against minutes', () => {
  const points = (leak: number) => [0.5, 1, 5, 20, 60, 200].map((m) => [m, leak / m] as const);
  const at = (width: number) =>
    curveGeometry({
      width,
      height: 250,
      matters: 0.1,
      lines: [
        { key: 'a', name: 'fine', points: points(2) },
        { key: 'b', name: 'coarse', points: points(30) },
      ],
    });
  test('ticks keep apart on a phone and on a desk; the first has its unit', () => {
    for (const width of [320, 390, 900]) {
      const { xTicks } = at(width);
      expect(xTicks[0]!.label).toBe('0.5 min');
      xTicks.slice(1).forEach((t, i) => expect(t.x - xTicks[i]!.x).toBeGreaterThanOrEqual(40));
    }
  });
  test('a smaller leak stands lower, a longer hold further right; reading gives back what was drawn', () => {
    const g = at(700);
    expect(g.y(0.05)).toBeGreaterThan(g.y(0.5));
    expect(g.x(60)).toBeGreaterThan(g.x(5));
    const read = g.read(g.x(20));
    expect(read.minutes).toBeCloseTo(20, 6);
    expect(read.leaks.map((l) => l.leak)).toEqual([0.1, 1.5]);
    expect(g.mattersY).toBeCloseTo(g.y(0.1), 9);
  });
});

test('the time band draws every task where it was laid, within its width', () => {
  fc.assert(
    fc.property(
      fc.array(fc.tuple(fc.integer({ min: 1, max: 20 }), fc.integer({ min: 0, max: 40 })), {
        minLength: 1,
        maxLength: 6,
      }),
      (rows) => {
        const tasks = rows.map(([hands, wait], i) =>
          task(`t${i}`, hands, wait ? { wait, close: 1, test: 'x' } : {}),
        );
        const plan = planVisit(tasks);
        const g = bandGeometry(tasks, plan.slots, ['x', ''], 600, plan.length);
        const blocks = g.rows.flatMap((r) => r.blocks);
        expect(new Set(blocks.map((b) => b.task)).size).toBe(tasks.length);
        for (const b of blocks) {
          const slot = plan.slots.find((s) => s.task === b.task)!;
          expect(b.x + b.width).toBeLessThanOrEqual(602);
          if (b.kind === 'hands') expect(g.minutes(b.x)).toBeCloseTo(slot.start, 6);
          if (b.kind === 'close') expect(g.minutes(b.x)).toBeCloseTo(slot.closeStart, 6);
        }
      },
    ),
    { numRuns: 60 },
  );
});
