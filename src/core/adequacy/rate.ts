import { pressurePerKelvin } from '@/core/medium/gas';
import { decimalsFor, type Figure } from '@/core/quantity/figure';
import { STANDARD_ATMOSPHERE } from '@/core/quantity/unit';

/** Two-sided 95 % factor of a normal distribution. */
const TWO_SIDED_95 = 1.96;
/** Volume uncertainty of pipe lengths as measured, when no metered draw was made (difference of two displayed readings, one-sided normal). */
export const PIPE_LIST_UNCERTAINTY = 0.1;

export interface RateSetting {
  /** m3 */ readonly volume: number;
  /** gauge pressure of the hold, Pa */ readonly pressure: number;
  /** gauge display step, Pa */ readonly resolution: number;
  /** standard uncertainty of the temperature difference, K */ readonly temperature: number;
  /** standard uncertainty of an unread barometer over the hold, Pa */ readonly barometer?: number;
  readonly seconds: number;
}
/** Standard uncertainty of a temperature difference read twice on one thermometer of 0.1 K, K. House figure. */
export const LOGGED_KELVIN = 0.1;
/**
 * 95 % half-width of a leak rate at atmospheric conditions from a timed fall: 1.96 x V/P_atm x u / t, where u is the
 * standard uncertainty of the difference of two displayed readings (resolution, r/sqrt(6)) and of the temperature
 * ((P/T) u_dT). Source: difference of two displayed readings, one-sided normal @returns m3/s
 */
export function rateHalfWidth(s: RateSetting): number {
  const perKelvin = pressurePerKelvin(s.pressure, 293.15);
  const u = Math.sqrt(
    (s.resolution * s.resolution) / 6 + (perKelvin * s.temperature) ** 2 + (s.barometer ?? 0) ** 2,
  );
  return (TWO_SIDED_95 * s.volume * u) / STANDARD_ATMOSPHERE / s.seconds;
}

/** Through which kind of leak a rate is carried to another pressure. */
export type LeakLaw = 'laminar' | 'orifice';

/**
 * A rate at test pressure turned into one at working pressure. Laminar: Q = k (P2 - P_atm2) / (2 P_atm), absolute
 * pressures squared. Orifice, unchoked: Q ~ sqrt(p). Up to 100 mbar the two differ little and the laminar law, there
 * nearly proportional, is used; above it both are shown. Source: difference of two displayed readings, one-sided normal
 * @param rate at test pressure, any unit  @param test gauge pressure, Pa  @param working gauge pressure, Pa
 */
export function convertRate(rate: number, test: number, working: number, law: LeakLaw = 'laminar'): number {
  if (!(test > 0) || !(working >= 0))
    throw new RangeError('A rate is converted between pressures above zero.');
  if (law === 'orifice') return rate * Math.sqrt(working / test);
  const squares = (p: number) => (p + STANDARD_ATMOSPHERE) ** 2 - STANDARD_ATMOSPHERE ** 2;
  return (rate * squares(working)) / squares(test);
}

/** A measured leak rate at working pressure with the ends of its 95 % interval, all l/h. */
export interface RateInterval {
  readonly rate: Figure;
  readonly low: number;
  readonly high: number;
  /** Only a bound from below: the line was empty, or too few readings lie above half the start. */
  readonly atLeast?: true;
  /** Part of it that a valve which passes may have flattered away; counted into the upper end. */
  readonly flattered?: number;
}
/**
 * The leak rate at working pressure with its 95 % interval: reading, temperature and volume uncertainty together.
 * @param atTest leak rate at test pressure, l/h (a figure with its own inputs)
 */
export function rateInterval(
  atTest: Figure,
  setting: RateSetting,
  working: number,
  volumeUncertainty: number,
  law: LeakLaw = 'laminar',
): RateInterval {
  const litresPerHour = 1000 * 3600;
  const carry = (v: number) => convertRate(v, setting.pressure, working, law);
  const reading = rateHalfWidth(setting) * litresPerHour;
  const half = carry(Math.sqrt(reading ** 2 + (TWO_SIDED_95 * (volumeUncertainty / 2) * atTest.value) ** 2));
  const value = carry(atTest.value);
  return {
    low: value - half,
    high: value + half,
    rate: {
      ...atTest,
      name: 'leak rate at working pressure',
      value,
      decimals: Math.max(2, decimalsFor(value)),
      formula: `${atTest.formula}; carried to working pressure by the ${law} law`,
      inputs: [
        ...atTest.inputs,
        { name: 'p_test, mean of the hold', value: `${(setting.pressure / 100).toFixed(2)} mbar` },
        { name: 'p_working', value: `${(working / 100).toFixed(2)} mbar` },
        { name: 'uncertainty of the volume', value: `± ${(volumeUncertainty * 100).toFixed(0)} %` },
        { name: '95 % interval', value: `${(value - half).toFixed(2)} to ${(value + half).toFixed(2)} l/h` },
      ],
    },
  };
}

/** Up to here a rate follows the pressure; above it both laws of small leaks are taken. Pa */
export const ONE_LAW_BELOW = 10_000;
/** A small fall: the straight difference at the mean pressure, carried to working pressure; above 100 mbar by both laws. */
export function steadyRate(
  atTest: Figure,
  pressure: number,
  working: number,
  volumeUncertainty: number,
  blur: Omit<RateSetting, 'pressure'>,
): RateInterval {
  const laminar = rateInterval(atTest, { ...blur, pressure }, working, volumeUncertainty);
  const both = Math.max(pressure, working) > ONE_LAW_BELOW;
  const factor = both ? convertRate(1, pressure, working, 'orifice') / convertRate(1, pressure, working) : 1;
  return {
    rate: laminar.rate,
    low: Math.min(laminar.low, laminar.low * factor),
    high: Math.max(laminar.high, laminar.high * factor),
  };
}
