import { flowGeometry, type FlowRequest } from './flow';

const request = (over: Partial<FlowRequest> = {}): FlowRequest => ({
  width: 400,
  height: 240,
  unit: 'CFM',
  points: [
    { id: 'a', pressure: 25, flow: 60, bound: false },
    { id: 'b', pressure: 12.5, flow: 60 * 0.5 ** 0.6, bound: false },
  ],
  reference: 25,
  limit: 46,
  law: { from: { pressure: 25, flow: 60 }, n: 0.6, low: 0.54, high: 0.66 },
  ...over,
});
const places = (d: string): [number, number][] =>
  [...d.matchAll(/[ML]?(-?[\d.]+),(-?[\d.]+)/g)].map((m) => [Number(m[1]), Number(m[2])]);

test('a power law is a straight line through what was read', () => {
  const g = flowGeometry(request());
  const line = places(g.law);
  const slope = ([a, b]: [number, number], [c, d]: [number, number]) => (d - b) / (c - a);
  const whole = slope(line[0]!, line[line.length - 1]!);
  for (const p of line.slice(1)) expect(slope(line[0]!, p)).toBeCloseTo(whole, 1);
  for (const p of g.points) {
    const nearest = line[0]![1] + whole * (p.x - line[0]![0]);
    expect(p.y).toBeCloseTo(nearest, 0);
  }
});
test('more flow stands higher, more pressure further right; the limit and the place it is judged stand inside', () => {
  const { points, plot, limitY, referenceX, at } = flowGeometry(request());
  const [a, b] = points;
  expect([a!.x > b!.x, a!.y < b!.y, limitY! > a!.y]).toEqual([true, true, true]);
  for (const y of [limitY!, at!.y]) expect(y).toBeGreaterThan(plot.top);
  for (const y of [limitY!, at!.y]) expect(y).toBeLessThan(plot.bottom);
  expect([referenceX, at!.x, at!.y]).toEqual([a!.x, a!.x, a!.y]);
});
test('what the ends of the law come to is not cut where it is judged; without a law there is none; nothing stands alone', () => {
  const far = flowGeometry(
    request({
      points: [{ id: 'a', pressure: 250, flow: 195, bound: true }],
      law: { from: { pressure: 250, flow: 195 }, n: 0.6, low: 0.5, high: 1 },
    }),
  );
  const ends = places(far.band).filter(([x]) => Math.abs(x - far.referenceX) < 6);
  for (const [, y] of ends) expect(y).toBeLessThan(far.plot.bottom);
  expect(far.points[0]!.bound).toBe(true);
  const bare = flowGeometry(request({ points: [], law: null, limit: null }));
  expect([bare.law, bare.band, bare.limitY, bare.at]).toEqual(['', '', null, null]);
});
test('ticks are round, apart, and the first says the unit', () => {
  const { xTicks, yTicks } = flowGeometry(request());
  expect(xTicks[0]!.label).toMatch(/^(1|2|5)0* Pa$/);
  for (const t of [...xTicks.slice(1), ...yTicks]) expect(t.label).toMatch(/^(1|2|5)0*$/);
  for (let i = 1; i < xTicks.length; i += 1)
    expect(xTicks[i]!.x - xTicks[i - 1]!.x).toBeGreaterThanOrEqual(44);
});
