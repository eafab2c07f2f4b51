/** A closed gas section: the gas law, and a leak as a falling pressure in a known volume. */
import {
  BAROMETER_DRIFT,
  defaultTemperatureUncertainty,
  gasHoldOf,
  gasHoldSees,
  neededMinutes,
  smallestVisibleLeak,
} from '@/core/adequacy/gas';
import { LOGGED_KELVIN, steadyRate } from '@/core/adequacy/rate';
import { leakRate, pressurePerKelvin } from '@/core/medium/gas';
import { type Plan, ruleOf } from '@/core/plan/plan';
import { type Exact, toNumber } from '@/core/quantity/exact';
import { decimalsFor, type Figure, figureNumber } from '@/core/quantity/figure';
import { kelvin, pascal } from '@/core/quantity/pascal';
import { convert, STANDARD_ATMOSPHERE } from '@/core/quantity/unit';
import { holdSetting, volumeOf, volumeUnsure } from '@/core/run/hold-setting';
import { gaugeOfHold } from '@/core/run/read';
import type { Hold, RunState } from '@/core/run/state';
import type { AloneOf, HoldSees, Looking, Moves } from '../filling';

/**
 * A closed gas section: P1 = P0 T1/T0 absolute, and the gauge reads above the barometer of the moment. Source: Boyle and
 * Charles in a closed section.
 */
export const gasAlone: AloneOf = (start, { temperature, barometer }) => {
  if (!temperature && !barometer) return null;
  const [b0, b1] = barometer?.map(pascal) ?? [STANDARD_ATMOSPHERE, STANDARD_ATMOSPHERE];
  const [t0, t1] = temperature?.map(kelvin) ?? [1, 1];
  return ((start + b0!) * t1!) / t0! - b1! - start;
};
function sees({ plan, state, part, gauge, pressure }: Looking): HoldSees | null {
  const setting = holdSetting(plan, state, 1, part, pressure, gauge);
  if (!setting || !(setting.pressure > 0)) return null;
  const hold = gasHoldOf(setting);
  const d = ruleOf(plan, part).temperatureDefault;
  return {
    leak: (minutes) => gasHoldSees({ ...hold, minutes }, d).leak,
    figure: (minutes) => smallestVisibleLeak({ ...setting, minutes }, d),
    needed: (leak) => neededMinutes(setting, leak, d),
  };
}

/** The rate as records of the first format carry it. */
function firstRate(plan: Plan, state: RunState, hold: Hold, part: string | null): Figure {
  const judgement = hold.judgement!;
  const pa = (figure: Exact) => convert(toNumber(figure), figure.unit, 'Pa');
  const start = pa(hold.start.figure);
  const atTest = leakRate(
    volumeOf(plan, state, part).value,
    start,
    pa(hold.end!.figure),
    judgement.elapsedMs / 1000,
  );
  const working = pa(plan.system.workingPressure);
  const value = start > 0 ? atTest.value * (working / start) : atTest.value;
  return {
    ...atTest,
    name: 'leak rate at working pressure',
    value,
    decimals: decimalsFor(value),
    formula: `${atTest.formula} × p_working/p_test`,
    inputs: [...atTest.inputs, { name: 'p_working / p_test', value: (working / start).toFixed(3) }],
  };
}
/**
 * What a gas hold lost, at working pressure with its 95 % interval; a re-adjusted settling period counts what was put back.
 * Null after a rise, and for a hold that began without pressure: there is no loss to name.
 */
function gasRate(plan: Plan, state: RunState, hold: Hold, part: string | null): Figure | null {
  const { judgement, end } = hold;
  const gauge = gaugeOfHold(plan, hold);
  if (!judgement || !end || !gauge || judgement.direction === 'rise') return null;
  const pa = (figure: Exact) => convert(toNumber(figure), figure.unit, 'Pa');
  const start = pa(hold.start.figure);
  const back = hold.topUps.reduce((sum, t) => sum + pa(t.after) - pa(t.before), 0);
  const seconds = judgement.elapsedMs / 1000;
  if (!(start > 0) || pa(end.figure) - back > start) return null;
  const { start: t0, end: t1 } = hold.temperature;
  const { start: b0, end: b1 } = hold.barometer;
  const atTest = leakRate(volumeOf(plan, state, part).value, start, pa(end.figure) - back, seconds, {
    ...(t0 && t1 ? { temperature: [kelvin(t0), kelvin(t1)] as const } : {}),
    ...(b0 && b1 ? { atmosphere: [pa(b0), pa(b1)] as const } : {}),
  });
  const d = ruleOf(plan, part).temperatureDefault;
  const { rate, low, high } = steadyRate(
    atTest,
    Math.max((start + Math.max(0, pa(end.figure))) / 2, pa(gauge.resolution)),
    pa(plan.system.workingPressure),
    volumeUnsure(plan, state, part),
    {
      volume: volumeOf(plan, state, part).value,
      resolution: pa(gauge.resolution),
      temperature: t0 && t1 ? LOGGED_KELVIN : defaultTemperatureUncertainty(seconds / 60, d),
      barometer: b0 && b1 ? 0 : BAROMETER_DRIFT * seconds,
      seconds,
    },
  );
  const printed = (value: number) => figureNumber({ value, decimals: rate.decimals });
  return { ...rate, note: `95 %: ${printed(Math.max(0, low))} to ${printed(high)} l/h` };
}
/** K at which a pressure's change per kelvin is named. */
const ROOM = 293.15;
export const gasMoves: Moves = {
  alone: () => gasAlone,
  sees,
  rate: (plan, state, hold, part) =>
    plan.format > 1 ? gasRate(plan, state, hold, part) : firstRate(plan, state, hold, part),
  weather: (_system, pressure) => ({ perKelvin: pressurePerKelvin(pressure, ROOM) }),
};
