/** What a timed hold can show: by the gas in the section, by the liquid that fills it, or by a water level. */
import { visibleChange } from '@/core/adequacy/change';
import {
  defaultTemperatureUncertainty,
  gasHoldOf,
  gasHoldSees,
  neededMinutes,
  smallestVisibleLeak,
  type HoldSetting,
} from '@/core/adequacy/gas';
import { neededLiquidMinutes, smallestLiquidLeak } from '@/core/adequacy/liquid';
import type { Gauge } from '@/core/instrument/gauge';
import { freeSurface, metres, systemStiffness, type System } from '@/core/installation/section';
import { levelLeak } from '@/core/limit/water';
import { SOURCES } from '@/core/quantity/sources';
import { sectionNow } from './section-now';
import { ruleOf, type Plan } from '@/core/plan/plan';
import { toNumber } from '@/core/quantity/exact';
import { decimalsFor, type Figure } from '@/core/quantity/figure';
import { convert, unitLabel } from '@/core/quantity/unit';
import { holdSetting } from './hold-setting';
import { perceptibleOf } from './read';
import type { RunState } from './state';

export interface HoldSees {
  /** Smallest leak seen in so many minutes, l/h. */
  readonly leak: (minutes: number) => number;
  readonly figure: (minutes: number) => Figure;
  /** Minutes needed to see a leak of so many l/h; null when a day is not enough. */
  readonly needed: (leak: number) => number | null;
}

const LITRES_PER_HOUR = 1000 * 3600;

/**
 * What a hold with this gauge sees; null where a fact is missing (no gauge, no pressure, walls of the pipes or free
 * surfaces not entered).
 * @param pressurePa gauge pressure of the hold, Pa; absent: the planned test pressure
 * @param kelvin standard uncertainty of a logged temperature difference, K; absent: not logged, the pack's default
 */
export function holdSees(
  plan: Plan,
  state: RunState,
  part: string | null | undefined,
  gauge: Gauge | null,
  pressurePa?: number,
  kelvin?: number,
): HoldSees | null {
  const rule = ruleOf(plan, part);
  if (!gauge) return null;
  if (rule.fills === 'level') return levelSees(plan, gauge, part);
  const setting = holdSetting(plan, state, 1, part, pressurePa, gauge);
  if (!setting || !(setting.pressure > 0)) return null;
  if (rule.fills === 'liquid')
    return liquidSees(plan, plan.format < 2 ? plan.system : sectionNow(plan, state), part, setting, kelvin);
  const hold = gasHoldOf(setting);
  const d = rule.temperatureDefault;
  return {
    leak: (minutes) => gasHoldSees({ ...hold, minutes }, d).leak,
    figure: (minutes) => smallestVisibleLeak({ ...setting, minutes }, d),
    needed: (leak) => neededMinutes(setting, leak, d),
  };
}

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

/** How well an eye reads a mark, beside its step: half a step. House figure. */
const MARK_NOISE = 0.5;
function levelSees(plan: Plan, gauge: Gauge, part: string | null | undefined): HoldSees | null {
  const surface = freeSurface(plan.system);
  if (!(surface > 0)) return null;
  const mark = perceptibleOf(plan, gauge, part).value;
  const step = metres(gauge.resolution);
  // the mark is read twice: its uncertainty counts as a gauge's does; records of the first format left it out
  const fall =
    plan.format < 2
      ? metres(mark)
      : visibleChange(metres(mark), {
          resolution: step,
          noise: step * MARK_NOISE,
          perKelvin: 0,
          temperature: 0,
        });
  const leak = (minutes: number) => levelLeak(surface, minutes * 60, fall) * LITRES_PER_HOUR;
  return {
    leak,
    needed: (wanted) => {
      const minutes = Math.ceil((leak(1) / wanted) * 2) / 2;
      return minutes <= 24 * 60 ? minutes : null;
    },
    figure: (minutes) => {
      const value = leak(minutes);
      return {
        name: 'smallest loss this hold can show',
        value,
        unit: 'l/h',
        decimals: decimalsFor(value),
        formula:
          plan.format < 2
            ? 'q_min = Σ free surfaces × smallest visible fall / t'
            : 'q_min = Σ free surfaces × Δh_min / t, with Δh_min = pm + 1.65 × √(2 r²/12 + 2 u²)',
        inputs: [
          ...(plan.system.surfaces ?? []).map((s) => ({
            name: s.name,
            value: `${s.count} × ${toNumber(s.bore)} ${unitLabel(s.bore.unit)} bore`,
          })),
          { name: 'Σ free surfaces', value: `${surface.toFixed(4)} m², ${surface.toFixed(3)} l per mm` },
          ...(plan.format < 2
            ? [{ name: 'smallest visible fall', value: `${toNumber(mark)} ${unitLabel(mark.unit)}` }]
            : [
                { name: 'pm, what counts', value: `${toNumber(mark)} ${unitLabel(mark.unit)}` },
                { name: 'u, one reading of the mark', value: `${(step * MARK_NOISE * 1000).toFixed(1)} mm` },
                { name: 'Δh_min', value: `${(fall * 1000).toFixed(2)} mm` },
              ]),
          { name: 't, hold', value: `${Number(minutes.toFixed(3))} min` },
        ],
        source: SOURCES.levelLeak,
      };
    },
  };
}
