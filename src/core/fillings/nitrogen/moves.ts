/** A circuit full of nitrogen: its pressure follows the absolute temperature, and a little more than that. */
import { nitrogenAt } from '@/core/medium/refrigerant';
import { kelvin, pascal } from '@/core/quantity/pascal';
import { STANDARD_ATMOSPHERE } from '@/core/quantity/unit';
import type { AloneOf, Moves } from '../filling';
import { gasMoves } from '../gas/moves';

const ROOM = 293.15;

/** P1 as nitrogen at the end's temperature, read above the end's barometer. Source: second virial coefficient of nitrogen */
export const nitrogenAlone: AloneOf = (start, { temperature, barometer }) => {
  if (!temperature && !barometer) return null;
  const [b0, b1] = barometer?.map(pascal) ?? [STANDARD_ATMOSPHERE, STANDARD_ATMOSPHERE];
  const absolute = start + b0!;
  if (!(absolute > 0)) return 'unknown';
  const end = temperature ? nitrogenAt(absolute, kelvin(temperature[0]), kelvin(temperature[1])) : absolute;
  return end - b1! - start;
};
/** Pa for each kelvin, near room temperature. @param pressure gauge, Pa */
export const nitrogenPerKelvin = (pressure: number): number => {
  const absolute = pressure + STANDARD_ATMOSPHERE;
  return nitrogenAt(absolute, ROOM, ROOM + 1) - absolute;
};
export const nitrogenMoves: Moves = {
  ...gasMoves,
  alone: () => nitrogenAlone,
  weather: (_system, pressure) => ({ perKelvin: nitrogenPerKelvin(pressure) }),
};
