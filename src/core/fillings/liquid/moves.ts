/** A section full of water: its stiffness, by what the water and the walls give. */
import { visibleChange } from '@/core/adequacy/change';
import { defaultTemperatureUncertainty, type HoldSetting } from '@/core/adequacy/gas';
import { neededLiquidMinutes, smallestLiquidLeak } from '@/core/adequacy/liquid';
import { type System, systemStiffness } from '@/core/installation/section';
import { type Plan, ruleOf } from '@/core/plan/plan';
import { showExact, toNumber } from '@/core/quantity/exact';
import { decimalsFor, type Figure } from '@/core/quantity/figure';
import { kelvin } from '@/core/quantity/pascal';
import { SOURCES } from '@/core/quantity/sources';
import { convert, unitLabel, UNITS } from '@/core/quantity/unit';
import { holdSetting } from '@/core/run/hold-setting';
import { sectionNow } from '@/core/run/section-now';
import type { Hold, RunState } from '@/core/run/state';
import type { AloneOf, HoldSees, Moves } from '../filling';
import { addedRate, fallInAll } from '../water';

const LITRES_PER_HOUR = 1000 * 3600;

/** The section with the air that this run found in it; records of the first format counted none. */
export const fullSection = (plan: Plan, state: RunState) =>
  plan.format < 2 ? plan.system : sectionNow(plan, state);

/** A section full of liquid: dp/dT of water and wall at the mean temperature. Unknown where a pipe's wall is. */
export const liquidAlone =
  (perKelvin: (start: number, celsius: number) => number | null): AloneOf =>
  (start, { temperature }) => {
    if (!temperature) return null;
    const [t0, t1] = temperature.map(kelvin);
    if (t0 === t1) return 0;
    const each = perKelvin(start, (t0! + t1!) / 2 - 273.15);
    return each === null ? 'unknown' : each * (t1! - t0!);
  };
/** Water between these temperatures is known; outside them its expansion is not. degrees C */
const WATER_KNOWN = [-10, 110] as const;

function liquidSees(
  plan: Plan,
  system: System,
  part: string | null | undefined,
  setting: HoldSetting,
  kelvin: number | undefined,
): HoldSees | null {
  const full = systemStiffness(system, setting.pressure);
  if (!full) return null;
  const { gauge } = setting;
  const unit = gauge.resolution.unit;
  const pa = (value: number) => convert(value, unit, 'Pa');
  const d = ruleOf(plan, part).temperatureDefault;
  const temperature = (minutes: number) => kelvin ?? defaultTemperatureUncertainty(minutes, d);
  const hold = {
    stiffness: full.c,
    perceptible: pa(toNumber(setting.perceptible.value)),
    blur: {
      resolution: pa(toNumber(gauge.resolution)),
      perKelvin: full.perKelvin,
      temperature: 0,
      barometer: 0,
    },
  };
  const at = (minutes: number) => ({ ...hold.blur, temperature: temperature(minutes) });
  const leak = (minutes: number) =>
    smallestLiquidLeak({ ...hold, seconds: minutes * 60, blur: at(minutes) }) * LITRES_PER_HOUR;
  const say = (pascals: number) =>
    `${convert(pascals, 'Pa', unit).toFixed(gauge.resolution.scale + 1)} ${unitLabel(unit)}`;
  return {
    leak,
    needed: (wanted) => neededLiquidMinutes(hold, wanted / LITRES_PER_HOUR, temperature),
    figure: (minutes) => {
      const value = leak(minutes);
      return {
        name: 'smallest leak this hold can show',
        value,
        unit: 'l/h',
        decimals: decimalsFor(value),
        formula: 'q_min = C × Δp_min / t, with Δp_min = pm + 1.65 × √(2 r²/12 + (dp/dT × u_dT)²)',
        inputs: [
          { name: 'C, stiffness of the full section', value: `${(full.c / 1e-11).toPrecision(3)} ml/bar` },
          { name: 'pm, perceptible movement', value: say(hold.perceptible) },
          { name: 'r, resolution', value: say(hold.blur.resolution) },
          { name: 'dp/dT', value: `${say(full.perKelvin)}/K` },
          {
            name: `u_dT, temperature ${kelvin === undefined ? 'not logged' : 'logged'}`,
            value: `${temperature(minutes).toFixed(3)} K`,
          },
          { name: 'Δp_min', value: say(visibleChange(hold.perceptible, at(minutes))) },
          { name: 't, hold', value: `${Number(minutes.toFixed(3))} min` },
        ],
        source: SOURCES.liquidLeak,
        ...(kelvin === undefined ? { note: d.source } : {}),
      };
    },
  };
}

function lost(plan: Plan, state: RunState, hold: Hold): Figure | null {
  const fell = fallInAll(plan, hold);
  if (!fell || UNITS[fell.unit].dimension !== 'pressure') return null;
  const { fall, unit, seconds } = fell;
  const start = hold.start.figure;
  const full = systemStiffness(fullSection(plan, state), convert(toNumber(start), start.unit, 'Pa'));
  if (!full) return null;
  const value = ((full.c * convert(fall, unit, 'Pa')) / seconds) * 1000 * 3600;
  return {
    name: 'loss at test pressure, were the whole fall a leak',
    value,
    unit: 'l/h',
    decimals: decimalsFor(value),
    formula: 'Q = C × Δp / t',
    inputs: [
      { name: 'C, stiffness of the full section', value: `${(full.c / 1e-11).toPrecision(3)} ml/bar` },
      { name: 'Δp', value: showExact(hold.judgement!.change) },
      { name: 't', value: `${(seconds / 60).toFixed(1)} min` },
    ],
    source: SOURCES.elastic,
  };
}

export const liquidMoves: Moves = {
  alone: (plan, state) => {
    const system = sectionNow(plan, state);
    return liquidAlone((start, celsius) =>
      celsius < WATER_KNOWN[0] || celsius > WATER_KNOWN[1]
        ? null
        : (systemStiffness(system, Math.max(0, start), celsius)?.perKelvin ?? null),
    );
  },
  sees: ({ plan, state, part, gauge, pressure, kelvin }) => {
    const setting = holdSetting(plan, state, 1, part, pressure, gauge);
    if (!setting || !(setting.pressure > 0)) return null;
    return liquidSees(plan, fullSection(plan, state), part, setting, kelvin);
  },
  rate: (plan, state, hold) => addedRate(hold) ?? lost(plan, state, hold),
  weather: (system, pressure) => {
    const full = systemStiffness(system, pressure);
    return full && { perKelvin: full.perKelvin, stiffness: full.c };
  },
};
