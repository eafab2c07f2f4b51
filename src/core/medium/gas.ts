import type { Figure } from '@/core/quantity/figure';
import { decimalsFor } from '@/core/quantity/figure';
import { STANDARD_ATMOSPHERE } from '@/core/quantity/unit';

const SOURCE = 'Ideal gas in a closed section (Boyle and Charles)';

/**
 * Leak rate at atmospheric conditions from a closed gas section:
 * Q = (V / P_atm) x (P0 T1/T0 - P1) / t, absolute pressures P = p + P_atm.
 * @param volume m3 of the section
 * @param start gauge pressure, Pa  @param end gauge pressure, Pa  @param seconds elapsed, s
 * @param options.temperature start and end, K; without it the ratio is 1 and the note says so
 * @param options.atmosphere start and end barometer, Pa; without it the standard atmosphere, equal at both ends
 * @returns l/h of the test gas at atmospheric pressure; positive = loss. @throws RangeError on seconds <= 0 or volume <= 0.
 */
export function leakRate(
  volume: number,
  start: number,
  end: number,
  seconds: number,
  options: { temperature?: readonly [number, number]; atmosphere?: readonly [number, number] } = {},
): Figure {
  if (!(seconds > 0)) throw new RangeError('A leak rate needs an elapsed time above zero.');
  if (!(volume > 0)) throw new RangeError('A leak rate needs a volume above zero.');
  const [a0, a1] = options.atmosphere ?? [STANDARD_ATMOSPHERE, STANDARD_ATMOSPHERE];
  const ratio = options.temperature ? options.temperature[1] / options.temperature[0] : 1;
  const value = ((volume / a0) * ((start + a0) * ratio - (end + a1)) * 3600 * 1000) / seconds;
  const notes = [
    options.temperature ? null : 'no temperatures logged: T1/T0 taken as 1',
    options.atmosphere ? null : 'no barometer logged: 1013.25 mbar at both ends',
  ].filter(Boolean);
  return {
    name: 'leak rate at atmospheric conditions',
    value,
    unit: 'l/h',
    decimals: decimalsFor(value),
    formula: 'Q = (V / P_atm) × (P0 × T1/T0 − P1) / t',
    inputs: [
      { name: 'V, volume of the section', value: `${(volume * 1000).toFixed(2)} l` },
      { name: 'P0, start, absolute', value: `${((start + a0) / 100).toFixed(2)} mbar` },
      { name: 'P1, end, absolute', value: `${((end + a1) / 100).toFixed(2)} mbar` },
      { name: 'T1/T0', value: ratio.toFixed(5) },
      { name: 'P_atm', value: `${(a0 / 100).toFixed(2)} mbar` },
      { name: 't, elapsed', value: `${seconds.toFixed(0)} s` },
    ],
    source: SOURCE,
    ...(notes.length ? { note: notes.join('; ') } : {}),
  };
}

/** Pressure change per kelvin of a closed gas section: dP/dT = P / T, absolute. @returns Pa/K */
export const pressurePerKelvin = (
  gaugePa: number,
  kelvin: number,
  atmosphere = STANDARD_ATMOSPHERE,
): number => (gaugePa + atmosphere) / kelvin;
