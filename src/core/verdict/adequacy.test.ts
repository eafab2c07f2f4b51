/** What a hold could have seen, and what it lost: by hand, and exactly at what matters. */
import { parseWithUnit as q, toNumber } from '@/core/quantity/exact';
import { leakThatMatters } from '@/core/run/hold-spec';
import { reduce } from '@/core/run/reduce';
import type { DialWatch, Hold, RunState } from '@/core/run/state';
import { plan as bakeryPlan, hold, play, upTo } from '@/core/testing/bakery';
import { planOf } from '@/core/testing/quarter';
import { adequacyOf, classBound, dialAdequacy, measuredRate } from './adequacy';
import { decidingHold } from './holds';

const bakery = bakeryPlan();
const gas = reduce(bakery, play(bakery, [...upTo(['9.10', '9.10']), ...hold(200, '20.50', '20.50')]));
const gasHold = decidingHold(bakery, gas, null)!.hold;
const of = (over: Partial<Hold>, state: RunState = gas, plan = bakery) =>
  adequacyOf(plan, state, { ...gasHold, ...over }, null);

test('nothing is said of a hold that was not judged, of strength, of settling, and of one without pressure', () => {
  const { judgement: _j, ...bare } = gasHold;
  expect(adequacyOf(bakery, gas, bare, null)).toBeNull();
  expect(adequacyOf(bakery, gas, null, null)).toBeNull();
  expect(of({ role: 'strength' })).toBeNull();
  expect(of({ role: 'settle' })).toBeNull();
  expect(of({ start: { ...gasHold.start, figure: q('0.00 mbar') } })).toBeNull();
  expect(of({})!.figure.value).toBeGreaterThan(0);
  // a hold twice as long shows less than half as much again, never more
  const longer = of({ judgement: { ...gasHold.judgement!, elapsedMs: 2 * gasHold.judgement!.elapsedMs } })!;
  expect(longer.figure.value).toBeLessThan(of({})!.figure.value);
});
test('enough is as much as matters, exactly; a hair more is not, and then the minutes it needs are said', () => {
  const seen = of({})!;
  const matters = toNumber(leakThatMatters(bakery, null));
  expect(seen.enough).toBe(seen.figure.value <= matters);
  const times = [0.02, 0.1, 0.5, 1, 4, 16, 64, 512].map((by) =>
    of({ judgement: { ...gasHold.judgement!, elapsedMs: by * gasHold.judgement!.elapsedMs } })!,
  );
  for (const t of times) {
    expect(t.enough).toBe(t.figure.value <= matters);
    expect(/For it this gauge and volume need|A day would not be enough/.test(t.text)).toBe(!t.enough);
  }
  expect(new Set(times.map((t) => t.enough)).size).toBe(2);
});

describe('a watched dial', () => {
  const plan = planOf('gas-meter-turn-on');
  const key = Object.entries(plan.procedure.stages).find(([, s]) => s.kind === 'dial')![0];
  const stage = plan.procedure.stages[key]!;
  const part = stage.part ?? null;
  const visit = { stage: key } as RunState['visits'][number];
  const at = (watch: Partial<DialWatch>, p = plan) =>
    dialAdequacy(p, visit, { startedAt: 1_000, endedAt: 601_000, ...watch } as DialWatch, part);
  // 0.02 turn of 0.5 ft3, by hand: 0.283168 l in so many hours
  const LITRES = 0.02 * 0.5 * 28.316846592;
  test('part of a turn over the time: of the watch, else from its start to its end', () => {
    expect(at({})!.figure.value).toBeCloseTo(LITRES / (10 / 60), 9);
    expect(at({ watched: 1_200_000 })!.figure.value).toBeCloseTo(LITRES / (20 / 60), 9);
  });
  test('exactly what matters is enough', () => {
    const matters = toNumber(leakThatMatters(plan, part));
    const just = (LITRES / matters) * 3_600_000;
    expect(at({ watched: just * (1 + 1e-9) })!.enough).toBe(true);
    expect(at({ watched: just * (1 - 1e-6) })!.enough).toBe(false);
    expect(at({})!.neededMinutes).toBe(Math.ceil((LITRES / matters) * 60));
    expect(at({ watched: just / 2 })!.text).toMatch(/could not have seen/);
  });
  test('nothing where it was not ended, has no dial, or is no dial stage', () => {
    expect(at({ endedAt: undefined })).toBeNull();
    const { testDial: _t, ...meter } = plan.system.meter;
    expect(at({}, { ...plan, system: { ...plan.system, meter } })).toBeNull();
    const other = Object.keys(plan.procedure.stages).find((k) => plan.procedure.stages[k]!.kind === 'hold')!;
    expect(
      dialAdequacy(plan, { ...visit, stage: other }, { startedAt: 0, endedAt: 1 } as DialWatch, part),
    ).toBeNull();
  });
});

test('a rise names no loss; what was put back is one', () => {
  const rate = (over: Partial<Hold>) => measuredRate(bakery, gas, { ...gasHold, ...over }, null);
  const judgement = gasHold.judgement!;
  expect(rate({ judgement: { ...judgement, direction: 'rise' } })).toBeNull();
  expect(rate({ judgement: { ...judgement, elapsedMs: 0 } })).toBeNull();
  expect(rate({ role: 'strength' })).toBeNull();
  expect(rate({})!.value).toBeCloseTo(0, 9);
  const fell = rate({ end: { ...gasHold.end!, figure: q('20.40 mbar') } })!;
  expect(fell.value).toBeGreaterThan(0);
  const back = rate({
    topUps: [{ before: q('20.40 mbar'), after: q('20.50 mbar') } as Hold['topUps'][number]],
  })!;
  expect(back.value).toBeCloseTo(fell.value, 1);
  expect(back.note).toMatch(/^95 %: 0\.\d+ to \d/);
});
test('the bound of a class in words', () => {
  expect([classBound(undefined), classBound('1 l/h')]).toEqual(['no upper bound', 'below 1 l/h']);
});
