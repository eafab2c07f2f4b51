import type { Gauge } from '@/core/instrument/gauge';
import { pressurePerKelvin } from '@/core/medium/gas';
import { toNumber, type Limit } from '@/core/quantity/exact';
import { SOURCES } from '@/core/quantity/sources';
import { visibleChange } from './change';
import { convertRate, ONE_LAW_BELOW } from './rate';
import { decimalsFor, type Figure } from '@/core/quantity/figure';
import { convert, STANDARD_ATMOSPHERE, unitLabel, type Unit } from '@/core/quantity/unit';

/** Standard uncertainty of a gas temperature nobody logged: kelvins per minute of hold, with a bound for short ones and for any. */
export interface UnloggedTemperature {
  readonly perMinute: number;
  readonly shortHoldMinutes: number;
  readonly shortHoldMost: number;
  readonly most: number;
  readonly source: string;
}

/** Barometric drift assumed when none is logged: 1 mbar per hour (house figure). Pa/s. */
export const BAROMETER_DRIFT = 100 / 3600;
const SOURCE = SOURCES.gasLeak;

export interface HoldSetting {
  /** m3 */ readonly volume: number;
  /** gauge pressure of the hold, Pa */ readonly pressure: number;
  /** working pressure to which the leak is referred, Pa */ readonly workingPressure: number;
  readonly minutes: number;
  readonly gauge: Gauge;
  readonly perceptible: Limit;
  /** Standard uncertainty of the logged temperature difference, K; absent = not logged, the pack's default. */
  readonly loggedTemperature?: number;
}

/** Unlogged temperature uncertainty of a hold, K: so much per minute, capped. Pack figures, marked house choice. */
export const defaultTemperatureUncertainty = (minutes: number, d: UnloggedTemperature): number =>
  Math.min(minutes * d.perMinute, minutes <= d.shortHoldMinutes ? d.shortHoldMost : d.most);

/** A hold in plain numbers: resolution and perceptible movement in `unit`, everything else in SI and minutes. */
export interface GasHold {
  readonly volume: number;
  readonly pressure: number;
  readonly workingPressure: number;
  readonly minutes: number;
  readonly unit: Unit;
  readonly resolution: number;
  readonly perceptible: number;
  readonly loggedTemperature?: number;
}
/** A hold of a run in plain numbers. */
export const gasHoldOf = (hold: HoldSetting): GasHold => ({
  ...hold,
  unit: hold.gauge.resolution.unit,
  resolution: toNumber(hold.gauge.resolution),
  perceptible: toNumber(hold.perceptible.value),
});

/** The parts of the smallest visible change: nothing but arithmetic, so that it can be asked for many lengths. */
function visibleParts(hold: GasHold, d: UnloggedTemperature) {
  const { unit } = hold;
  const temperature = hold.loggedTemperature ?? defaultTemperatureUncertainty(hold.minutes, d);
  const resolution = convert(hold.resolution, unit, 'Pa');
  const perKelvin = pressurePerKelvin(hold.pressure, 293.15);
  const barometer = BAROMETER_DRIFT * hold.minutes * 60;
  const seen = visibleChange(0, { resolution, perKelvin, temperature, barometer });
  const change = hold.perceptible + convert(seen, 'Pa', unit);
  return { unit, temperature, resolution, perKelvin, barometer, change };
}
/** How a leak at test pressure is carried to working pressure: by its share, or above 100 mbar by both laws. */
export function carried(test: number, working: number): { least: number; most: number; law: string } {
  if (Math.max(test, working) <= ONE_LAW_BELOW)
    return { least: working / test, most: working / test, law: 'p_working/p_test' };
  const factors = [convertRate(1, test, working), convertRate(1, test, working, 'orifice')];
  return {
    least: Math.min(...factors),
    most: Math.max(...factors),
    law: 'the larger of the laminar and the orifice law from p_test to p_working',
  };
}
/** Smallest visible leak at working pressure, l/h, from the smallest visible change. */
const leakOf = (hold: GasHold, change: number): number =>
  (((hold.volume / STANDARD_ATMOSPHERE) * convert(change, hold.unit, 'Pa') * 3600 * 1000) /
    (hold.minutes * 60)) *
  carried(hold.pressure, hold.workingPressure).most;

/** Smallest visible change (in the hold's unit) and leak (l/h) of a hold in plain numbers. */
export function gasHoldSees(hold: GasHold, d: UnloggedTemperature): { change: number; leak: number } {
  if (!(hold.volume > 0) || !(hold.minutes > 0) || !(hold.pressure > 0))
    throw new RangeError('Volume, hold and test pressure must be above zero.');
  const { change } = visibleParts(hold, d);
  return { change, leak: leakOf(hold, change) };
}

/**
 * The smallest change a hold shows with 95 % probability: dp_min = pm + 1.65 u, with u the standard uncertainty of
 * the difference of two displayed readings (resolution, temperature, barometer).
 * @returns figure in the gauge's unit
 */
export function smallestVisibleChange(hold: HoldSetting, d: UnloggedTemperature): Figure {
  const { unit, temperature, resolution, perKelvin, barometer, change } = visibleParts(gasHoldOf(hold), d);
  const show = (pa: number) => `${convert(pa, 'Pa', unit).toFixed(3)} ${unitLabel(unit)}`;
  return {
    name: 'smallest visible change',
    value: change,
    unit,
    decimals: 2,
    formula: 'Δp_min = pm + 1.65 × √(2 r²/12 + (P/T × u_dT)² + u_bar²)',
    inputs: [
      { name: 'pm, perceptible movement', value: `${toNumber(hold.perceptible.value)} ${unitLabel(unit)}` },
      { name: 'r, resolution', value: show(resolution) },
      { name: 'P/T, change per kelvin', value: `${show(perKelvin)}/K` },
      {
        name: `u_dT, temperature ${hold.loggedTemperature === undefined ? 'not logged' : 'logged'}`,
        value: `${temperature.toFixed(3)} K`,
      },
      { name: 'u_bar, barometer over the hold', value: show(barometer) },
    ],
    source: SOURCE,
    ...(hold.loggedTemperature === undefined ? { note: d.source } : {}),
  };
}

/**
 * The smallest leak a hold can show: q_min = V/P_atm x dp_min / t, referred to working pressure by the laminar law
 * (q proportional to p, for p much below the atmosphere).
 * @returns l/h
 */
export function smallestVisibleLeak(hold: HoldSetting, d: UnloggedTemperature): Figure {
  const change = smallestVisibleChange(hold, d);
  const value = leakOf(gasHoldOf(hold), change.value);
  const law = carried(hold.pressure, hold.workingPressure);
  return {
    name: 'smallest leak this hold can show',
    value,
    unit: 'l/h',
    decimals: decimalsFor(value),
    formula: `q_min = V/P_atm × Δp_min / t × ${law.law}`,
    inputs: [
      { name: 'V, volume of the section', value: `${(hold.volume * 1000).toFixed(2)} l` },
      {
        name: 'Δp_min, smallest visible change',
        value: `${change.value.toFixed(2)} ${unitLabel(change.unit)}`,
      },
      { name: 't, hold', value: `${Number(hold.minutes.toFixed(3))} min` },
      { name: 'P_atm', value: '1013.25 mbar' },
      { name: 'p_working / p_test', value: (hold.workingPressure / hold.pressure).toFixed(3) },
      ...(law.least === law.most
        ? []
        : [
            {
              name: 'by one law to the other',
              value: `× ${law.least.toFixed(3)} to × ${law.most.toFixed(3)}`,
            },
          ]),
      ...change.inputs,
    ],
    source: SOURCE,
    ...(change.note ? { note: change.note } : {}),
  };
}

/**
 * How long this gauge and volume need to show the leak that matters, minutes, rounded up to half a minute; null when
 * a day is not enough (then: a finer gauge or a smaller section).
 * @param leak l/h at working pressure
 */
export const neededMinutes = (
  hold: Omit<HoldSetting, 'minutes'>,
  leak: number,
  d: UnloggedTemperature,
): number | null => neededGasMinutes(gasHoldOf({ ...hold, minutes: 1 }), leak, d);

/** The same for a hold in plain numbers. */
export function neededGasMinutes(
  hold: Omit<GasHold, 'minutes'>,
  leak: number,
  d: UnloggedTemperature,
): number | null {
  for (let minutes = 0.5; minutes <= 24 * 60; minutes += minutes < 60 ? 0.5 : 5) {
    const setting = { ...hold, minutes };
    if (leakOf(setting, visibleParts(setting, d).change) <= leak) return minutes;
  }
  return null;
}
