import { systemStiffness } from '@/core/installation/section';
import type { HoldStage } from '@/core/kinds';
import { planVolume, type Plan } from '@/core/plan/plan';
import { exact, parseWithUnit as q, showExact, toNumber } from '@/core/quantity/exact';
import { gauge, plan, play, upTo } from '@/core/testing/bakery';
import { dyeHouse, gateDrain, gauges, planOf } from '@/core/testing/quarter';
import { LEVEL_MARK } from '@/core/instrument/gauge';
import { holdLimits } from './hold-limits';
import { holdSees } from './hold-sees';
import { perceptibleOf, runningHold } from './read';
import { reduce } from './reduce';
import type { Hold, RunState } from './state';
import { fallLimit, lowestOf, madeUp, makeUpLimit } from './water-limits';

const fresh = (p: Plan) => reduce(p, []);
const MBAR = 100;
const LITRES_PER_HOUR = 3.6e6;

describe('what a hold can show', () => {
  test('gas: V / P_atm x (pm + 1.65 u) / t, with the temperature the pack assumes', () => {
    const p = plan();
    const sees = holdSees(p, fresh(p), null, gauge(), 21 * MBAR)!;
    const pm = toNumber(perceptibleOf(p, gauge()).value) * MBAR;
    const V = planVolume(p).value;
    // 2 min: at most 0.1 K is assumed; dp/dT = P / 293.15; r = 0.01 mbar; barometer 1 mbar an hour as a uniform drift
    const u = (minutes: number, kelvin: number) =>
      Math.sqrt(
        (2 * 1 ** 2) / 12 + (((101325 + 2100) / 293.15) * kelvin) ** 2 + ((minutes / 60) * 100) ** 2 / 3,
      );
    const by = (minutes: number, kelvin: number) =>
      ((V / 101325) * (pm + 1.65 * u(minutes, kelvin)) * LITRES_PER_HOUR) / (minutes * 60);
    expect(sees.leak(2) / by(2, 0.1)).toBeCloseTo(1, 2);
    expect(sees.figure(2).value).toBeCloseTo(sees.leak(2), 9);
    expect(sees.leak(4)).toBeLessThan(sees.leak(2));
    const needed = sees.needed(sees.leak(6))!;
    expect(sees.leak(needed)).toBeLessThanOrEqual(sees.leak(6) * 1.0001);
    expect(sees.leak(needed - 1)).toBeGreaterThan(sees.leak(6));
    expect(sees.needed(1e-9)).toBeNull();
  });
  test('nothing without a gauge, without a pressure, or without walls of the pipes', () => {
    const p = plan();
    expect(holdSees(p, fresh(p), null, null, 2100)).toBeNull();
    expect(holdSees(p, fresh(p), null, gauge(), 0)).toBeNull();
    expect(holdSees(p, fresh(p), null, gauge(), -100)).toBeNull();
    const bare = planOf('water-hydraulic', {
      case: 'rigid',
      system: dyeHouse({
        pipes: [
          { id: 'x', name: 'Old', material: 'copper', size: q('22 mm'), bore: q('20 mm'), length: q('30 m') },
        ],
      }),
    });
    expect(holdSees(bare, fresh(bare), null, gauges.wide, 6e5)).toBeNull();
  });
  test('liquid: stiffness x what can be told apart / time; a logged temperature sees finer', () => {
    const p = planOf('water-hydraulic', { case: 'rigid' });
    const full = systemStiffness(p.system, 6e5)!;
    const pm = toNumber(perceptibleOf(p, gauges.wide).value) * 1e5;
    const by = (minutes: number, kelvin: number) => {
      const u = Math.sqrt((2 * 1000 ** 2) / 12 + (full.perKelvin * kelvin) ** 2);
      return (full.c * (pm + 1.65 * u) * LITRES_PER_HOUR) / (minutes * 60);
    };
    const sees = (kelvin?: number) => holdSees(p, fresh(p), null, gauges.wide, 6e5, kelvin)!;
    expect(sees(0.2).leak(60) / by(60, 0.2)).toBeCloseTo(1, 6);
    expect(sees().leak(60) / by(60, 0.5)).toBeCloseTo(1, 6);
    expect(sees(0.2).leak(60)).toBeLessThan(sees().leak(60));
    expect(sees(0.2).figure(60).value).toBeCloseTo(by(60, 0.2), 9);
    expect(sees(0.2).figure(60).note).toBeUndefined();
    expect(sees().figure(60).note).toContain('temperature');
    const needed = sees(0.2).needed(by(60, 0.2))!;
    expect([needed >= 59, needed <= 61]).toEqual([true, true]);
  });
  test('level: free surfaces x (2 mm + 1.65 u) / time; the first format counts the mark alone', () => {
    const p = planOf('drain-fill-hold');
    const surface = 3 * (Math.PI / 4) * 0.1 ** 2;
    // step 1 mm, read twice to half a step: u = sqrt(2/12 + 2 x 0.25) = 0.8165 mm
    const fall = 0.002 + 1.65 * 0.001 * Math.sqrt(2 / 12 + 0.5);
    const sees = holdSees(p, fresh(p), null, LEVEL_MARK)!;
    expect(sees.leak(30)).toBeCloseTo((surface * fall * LITRES_PER_HOUR) / 1800, 9);
    expect(sees.figure(30).value).toBeCloseTo(sees.leak(30), 12);
    const first = { ...p, format: 1 as const };
    expect(holdSees(first, fresh(first), null, LEVEL_MARK)!.leak(30)).toBeCloseTo(
      (surface * 0.002 * LITRES_PER_HOUR) / 1800,
      9,
    );
    // half minutes, rounded up; a day is the most
    expect(sees.needed(sees.leak(1))).toBe(1);
    expect(sees.needed(sees.leak(1.2))).toBe(1.5);
    expect(sees.needed(sees.leak(24 * 60))).toBe(24 * 60);
    expect(sees.needed(sees.leak(24 * 60 + 1))).toBeNull();
    const dry = planOf('drain-fill-hold', { system: gateDrain({ surfaces: [] }) });
    expect(holdSees(dry, fresh(dry), null, LEVEL_MARK)).toBeNull();
  });
});

describe('what a hold is judged against', () => {
  const stage = (p: Plan, role: HoldStage['role']) =>
    Object.values(p.procedure.stages).find((s) => s.kind === 'hold' && s.role === role) as HoldStage;
  const at = (p: Plan, role: HoldStage['role'], g = gauge(), hold: Hold | null = null, state = fresh(p)) => {
    const { fall, rise, nil } = holdLimits(p, state, stage(p, role), g, hold);
    return [showExact(fall.value), showExact(rise.value), nil] as const;
  };
  const p = plan();
  const pm = showExact(perceptibleOf(p, gauge()).value);
  test('tightness: the permitted drop for a fall, what can be seen for a rise; denied, or new work: nil', () => {
    expect(at(p, 'tightness')).toEqual(['4 mbar', pm, false]);
    expect(at(p, 'tightness', gauge(), null, { ...fresh(p), denied: ['smell'] })).toEqual([pm, pm, true]);
    expect(at(plan({ case: 'new' }), 'tightness')).toEqual([pm, pm, true]);
  });
  test('let-by: its own limit for a rise', () => {
    expect(at(p, 'let-by')).toEqual([pm, '0.25 mbar', true]);
  });
  test('what is no hold is judged by what can be seen', () => {
    const fill = Object.values(p.procedure.stages).find((s) => s.kind === 'fill')!;
    expect(holdLimits(p, fresh(p), fill, gauge(), null)).toMatchObject({ nil: true });
  });
  test('stretch: the fall the school permits, rounded to the stricter side', () => {
    const w = planOf('water-hydraulic', { case: 'plastic', choices: { 'plastic-school': 'falls' } });
    expect(at(w, 'stretch', gauges.wide)[0]).toBe('0.6 bar');
    // 0.6 bar is 8.7023 psi: a gauge of 0.1 psi permits 8.7
    expect(showExact(fallLimit(stage(w, 'stretch'), gauges.psiHigh).value)).toBe('8.70 psi');
  });
  test('floor: counted from where it began; before it began only what can be seen', () => {
    const w = planOf('water-hydraulic', { case: 'plastic' });
    expect(at(w, 'floor', gauges.wide)[2]).toBe(true);
    const started = { start: { figure: q('2.10 bar') } } as unknown as Hold;
    // a third of 6 bar is 2 bar: 0.10 bar below the start
    const state = { ...fresh(w), gauge: gauges.wide.id };
    const [fall, , nil] = at(w, 'floor', gauges.wide, started, state);
    expect([toNumber(q(fall.replace('−', '-'))), nil]).toEqual([expect.closeTo(0.1, 6), false]);
  });
});

describe('the lowest reading, and the water added', () => {
  const reading = (digits: number, moment: number, over = {}) =>
    ({ figure: exact(digits, 2, 'bar'), readMoment: moment, late: false, ...over }) as never;
  const hold = (topUps: unknown[] = []) =>
    ({ start: { figure: exact(600, 2, 'bar'), readMoment: 1000 }, topUps }) as unknown as Hold;
  const state = (readings: never[], trace: [number, number][] = []) =>
    ({ visits: [{ readings, trace }] }) as unknown as RunState;
  const lowest = (s: RunState, h = hold()) => showExact(lowestOf(s, h, exact(590, 2, 'bar')));
  test('of the end, accepted readings, the stream and what stood before each top-up', () => {
    expect(lowest(state([]))).toBe('5.90 bar');
    expect(lowest(state([reading(580, 1000)]))).toBe('5.80 bar');
    expect(lowest(state([reading(580, 999)]))).toBe('5.90 bar'); // before the hold
    expect(lowest(state([reading(580, 2000, { late: true })]))).toBe('5.90 bar');
    expect(lowest(state([reading(580, 2000, { figure: exact(580, 2, 'psi') })]))).toBe('5.90 bar');
    const corrected = { corrected: { figure: exact(595, 2, 'bar') } };
    expect(lowest(state([reading(580, 2000, corrected)]))).toBe('5.90 bar');
    expect(lowest(state([], [[1000, 570]]))).toBe('5.70 bar');
    expect(lowest(state([], [[999, 570]]))).toBe('5.90 bar');
    expect(lowest(state([]), hold([{ before: exact(560, 2, 'bar') }]))).toBe('5.60 bar');
    expect(lowest(state([reading(595, 2000)]))).toBe('5.90 bar');
  });
  test('water added is summed in litres, each rounded up, and nothing is nothing', () => {
    expect(showExact(madeUp(hold()))).toBe('0.00 l');
    expect(showExact(madeUp(hold([{ added: q('250 ml') }, {}, { added: q('0.05 l') }])))).toBe('0.30 l');
    // 1 gal = 3.785411784 l, up to a tenth of a millilitre
    expect(showExact(madeUp(hold([{ added: q('1 gal') }])))).toBe('3.7855 l');
  });
  test('a make-up permits by the mean pressure and the time, rounded down to a millilitre; without a rule nothing', () => {
    const p = planOf('main-hydrostatic');
    const stage = Object.values(p.procedure.stages).find(
      (s) => s.kind === 'hold' && s.role === 'make-up',
    ) as HoldStage;
    const state = { ...fresh(p), gauge: gauges.psiHigh.id };
    const found = makeUpLimit(p, state, stage, {
      start: q('151.0 psi'),
      end: q('149.0 psi'),
      elapsedMs: 3_600_000,
    })!;
    // L = S D sqrt(P) / 148000 gal/h: 1000 ft of nominal 6 in, mean 150 psi
    const litres = ((1000 * 6 * Math.sqrt(150)) / 148000) * 3.785411784;
    expect(toNumber(found.value)).toBe(Math.floor(litres * 1000) / 1000);
    const half = makeUpLimit(p, state, stage, {
      start: q('150.0 psi'),
      end: q('150.0 psi'),
      elapsedMs: 1_800_000,
    })!;
    expect(toNumber(half.value)).toBe(Math.floor(litres * 500) / 1000);
    expect(
      makeUpLimit(
        p,
        state,
        { ...stage, permitted: [] },
        { start: q('150.0 psi'), end: q('150.0 psi'), elapsedMs: 1 },
      ),
    ).toBeNull();
  });
  test('a running hold is found, a let-by that ended is not', () => {
    const p = plan();
    const log = play(p, upTo(['9.10', '9.10']));
    expect(runningHold(reduce(p, log.slice(0, -1)))?.role).toBe('let-by');
    expect(runningHold(reduce(p, log))).toBeNull();
  });
});
