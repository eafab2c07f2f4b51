/** The air we stand in. */
const SEA_TEMPERATURE = 288.15;
const LAPSE = 0.0065;
/** g M / (R L) of the standard atmosphere. */
const EXPONENT = 5.25588;
const TROPOPAUSE = 11_000;
/** The lowest land lies 430 m below the sea; mines go deeper, and the same law with them. */
const DEEPEST = -5_000;

/**
 * Pressure of the atmosphere at an altitude. Source: standard atmosphere, ISO 2533, troposphere.
 * @param altitude m above the sea  @param sea pressure at the sea, Pa
 * @returns Pa
 * @throws RangeError above 11 km, where another law holds, or deeper than 5 km
 */
export function atmosphereAt(altitude: number, sea: number): number {
  if (!(altitude >= DEEPEST && altitude <= TROPOPAUSE))
    throw new RangeError('an altitude lies between 5 km below the sea and 11 km above it.');
  return sea * (1 - (LAPSE * altitude) / SEA_TEMPERATURE) ** EXPONENT;
}
