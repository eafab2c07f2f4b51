/** Buried mains: what a hydrostatic test may lose, by school; and the pressures along a slope. Source: published hydrostatic schools */

const FOOT = 0.3048;
const INCH = 0.0254;
const PSI = 6894.757293;
const GALLON = 0.003785411784;
const positive = (value: number, name: string): void => {
  if (!(value > 0) || !Number.isFinite(value)) throw new RangeError(`${name} must be above zero.`);
};

/**
 * Make-up permitted at test pressure, US school: L = S D sqrt(P) / 148000, gal/h with S in ft, D in in, P in psi (the
 * average during the test). SI in and out, by the exact units: the metric twin's divisor is about 794798 for l/h, m, mm,
 * kPa. @param length m  @param diameter m  @param pressure gauge Pa  @returns m3/s
 */
export function mainMakeUpLimit(length: number, diameter: number, pressure: number): number {
  positive(length, 'The length');
  positive(diameter, 'The diameter');
  positive(pressure, 'The test pressure');
  const gallonsPerHour = ((length / FOOT) * (diameter / INCH) * Math.sqrt(pressure / PSI)) / 148000;
  return (gallonsPerHour * GALLON) / 3600;
}
/**
 * Loss permitted by the European school: dV = 1.2 V dp (1/Ew + D/(e Er)), with Ew 2.1e6 kPa.
 * @param volume m3  @param dp pressure drop allowed, Pa  @param diameter, wall m  @param modulus Er, Pa  @returns m3
 */
export function mainVolumeLimit(
  volume: number,
  dp: number,
  diameter: number,
  wall: number,
  modulus: number,
): number {
  positive(volume, 'The volume');
  positive(dp, 'The pressure drop');
  positive(diameter, 'The diameter');
  positive(wall, 'The wall');
  positive(modulus, 'The modulus of the wall');
  return 1.2 * volume * dp * (1 / 2.1e9 + diameter / (wall * modulus));
}
/** Water needed to raise a full main, times 1.5: more means trapped air. @returns m3. Source: published hydrostatic schools */
export const mainAirCheckLimit = (
  volume: number,
  dp: number,
  diameter: number,
  wall: number,
  modulus: number,
): number => (mainVolumeLimit(volume, dp, diameter, wall, modulus) / 1.2) * 1.5;
