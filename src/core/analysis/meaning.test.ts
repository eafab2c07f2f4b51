import { parseWithUnit as q } from '@/core/quantity/exact';
import { reduce } from '@/core/run/reduce';
import { gaugeOfHold } from '@/core/run/read';
import { hold, plan, play, upTo } from '@/core/testing/bakery';
import { dyeHouse, gauges, planOf } from '@/core/testing/quarter';
import { gasFacts } from '@/core/testing/traces';
import { meaningOf, type MeaningRequest } from './meaning';
import { holdRequest, meaningOfHold } from './of-hold';
import { CAUSE_WORDS } from './words';

const facts = gasFacts;
/** Displays of a course in mbar, each 5 s, up to a moment of a hold of five minutes. */
const asked = (
  course: (s: number) => number,
  until: number,
  over: Partial<MeaningRequest> = {},
): MeaningRequest => ({
  samples: Array.from({ length: until / 5 + 1 }, (_, i) => ({
    t: i * 5000,
    p: Math.round((20.5 + course(5 * i)) * 100 + Math.sin(i * 7.3) * 0.45) / 100,
  })),
  facts,
  unit: 'mbar',
  decimals: 2,
  begin: 0,
  end: 300_000,
  limits: { low: 20.25, high: 20.75 },
  ...over,
});
describe('while it runs', () => {
  test('a leak is warned of long before the end, with its cause; never before a tenth of the hold', () => {
    const leak = (s: number) => 20.5 * Math.expm1(-s * 0.0015);
    expect(meaningOf(asked(leak, 25))!.warning).toBeNull();
    const seen = meaningOf(asked(leak, 100))!;
    expect(seen.warning!.way).toBe('falls');
    expect(seen.warning!.words).toMatch(/^It falls beyond the limit before the end\./);
    expect(seen.headline).toMatch(/^Falls like a leak of [\d.]+ l\/h \([\d.]+ to [\d.]+\)\.$/);
    expect(seen.next!.text).toMatch(/own kit first/);
    expect(seen.ahead!.value).toBeCloseTo(20.5 * Math.exp(-0.45), 0);
  });
  test('a rise beyond the limit is warned of too', () => {
    const supplied = { ...facts, pressure: 850, supply: 2100 };
    const rises = (s: number) => 12.5 * -Math.expm1(-s / 400);
    const seen = meaningOf(
      asked((s) => rises(s) - 12, 150, { facts: supplied, limits: { low: null, high: 8.75 } }),
    )!;
    expect(seen.warning!.way).toBe('rises');
    expect(seen.told).toBe('let-by');
  });
  test('what stands still, or only cools to within the limit, is not warned of', () => {
    for (const course of [() => 0, (s: number) => 0.15 * Math.expm1(-s / 30)])
      for (const until of [40, 100, 200, 290]) expect(meaningOf(asked(course, until))!.warning).toBeNull();
  });
  test('when the hold is over there is nothing ahead and nothing to warn of', () => {
    const over = meaningOf(asked((s) => 20.5 * Math.expm1(-s * 0.0015), 300))!;
    expect([over.ahead, over.warning]).toEqual([null, null]);
  });
});
test('temperatures that were read are drawn: what they do, and what is left without it', () => {
  const warmth = [0, 150, 300].map((t) => ({ t, k: -t / 600 }));
  const m = meaningOf(asked((s) => (-3.52 * s) / 600, 300, { facts: { ...facts, warmth } }))!;
  expect(m.expected.map((p) => Number(p.p.toFixed(2)))).toEqual([20.5, 19.62, 18.74]);
  expect(Math.max(...m.corrected.map((p) => Math.abs(p.p - 20.5)))).toBeLessThan(0.03);
  expect(m.told).toBe('temperature');
  expect(m.fors.join()).toMatch(/temperatures that were read explain −1.76 mbar of/);
});
test('warmth that nobody read is named by the kelvins it would need', () => {
  const m = meaningOf(asked((s) => 20.5 * Math.expm1(-s * 0.0015), 300))!;
  expect(m.fors.join()).toMatch(/Warmth alone would have needed 2\.\d K colder in 5\.0 min\./);
  expect(m.causes.map((c) => c.words)).toContain(CAUSE_WORDS.leak);
  expect(m.causes.reduce((s, c) => s + c.percent, 0)).toBeLessThanOrEqual(101);
});
describe('of a hold of a run', () => {
  const runTo = (letBy: readonly [string, string]) => {
    const p = plan();
    const state = reduce(
      p,
      play(p, [
        ...upTo([letBy[0], letBy[1]]),
        ...hold(200, '20.50', '18.50').slice(0, -1),
        [310, 'read', '19.80'],
        [350, 'read', '19.20'],
        [391, 'end', '18.50'],
      ]),
    );
    const visit = state.visits.find((v) => v.holds.some((h) => h.role === 'tightness'))!;
    return { p, state, visit, judged: visit.holds[0]! };
  };
  test('its section by its pipes, the supply behind its valve, the leak that matters at its pressure', () => {
    const { p, state, visit, judged } = runTo(['9.10', '9.10']);
    const request = holdRequest(p, state, visit, judged, gaugeOfHold(p, judged)!)!;
    expect(request.facts.give * 101_325).toBeCloseTo(0.01903, 4);
    expect(request.facts.supply).toBe(2100);
    expect(request.facts.pressure).toBe(2050);
    expect(request.facts.matters * 3.6e6).toBeCloseTo(2050 / 2100, 2);
    expect(request.samples.map((s) => s.p)).toEqual([20.5, 19.8, 19.2, 18.5]);
    const m = meaningOfHold(p, state, visit, judged)!;
    expect(m.enough).toBe(true);
    expect(m.leaks).toBeGreaterThan(0.5);
  });
  test('of water: stiff, and stretching where its pipes do', () => {
    const p = planOf('water-hydraulic', { system: dyeHouse(), gauges: [gauges.wide], case: 'rigid' });
    const { visit, judged, state } = runTo(['9.10', '9.10']);
    const start = { ...judged.start, figure: q('6.20 bar') };
    const bar = { ...judged, gauge: gauges.wide.id, start, end: { ...judged.end!, figure: q('6.10 bar') } };
    const copper = holdRequest(p, state, { ...visit, readings: [] }, bar, gauges.wide)!.facts;
    expect(copper.filling).toBe('liquid');
    expect(copper.stretches).toBe(false);
    expect(copper.perKelvin).toBeGreaterThan(0);
    expect(copper.step).toBe(1000);
  });
});
