/** Water, as far as a pressure test feels it. */

/** Bulk modulus of water at 20 C, Pa. Source: properties of water */
export const WATER_BULK_MODULUS = 2.2e9;
/** Weight of a metre of water, Pa: rho g at 1000 kg/m3. Source: properties of water */
export const PASCALS_PER_METRE = 9806.65;

const A = [999.83952, 16.945176, -7.9870401e-3, -46.170461e-6, 105.56302e-9, -280.54253e-12] as const;
const B = 16.87985e-3;
function polynomial(celsius: number): { value: number; slope: number } {
  let value = 0;
  let slope = 0;
  for (let i = A.length - 1; i >= 0; i--) {
    slope = slope * celsius + value;
    value = value * celsius + A[i]!;
  }
  return { value, slope };
}
function checked(celsius: number): void {
  if (!(celsius >= -10 && celsius <= 110))
    throw new RangeError('The temperature of the water must lie between −10 and 110 °C.');
}
/**
 * Density of air-free water at atmospheric pressure, kg/m3, for -10 to 110 C.
 * Source: G. S. Kell, J. Chem. Eng. Data 20 (1975) 97. @throws RangeError outside
 */
export function waterDensity(celsius: number): number {
  checked(celsius);
  return polynomial(celsius).value / (1 + B * celsius);
}
/**
 * Thermal expansion of water, 1/K: beta = -(1/rho) d rho/dT. Negative below 4 C, 2.07e-4 at 20 C.
 * Source: derivative of Kell's density. @throws RangeError outside -10 to 110 C
 */
export function waterExpansion(celsius: number): number {
  checked(celsius);
  const { value, slope } = polynomial(celsius);
  return B / (1 + B * celsius) - slope / value;
}
/** Pressure of a column of water, Pa. Source: properties of water */
export const headPressure = (metres: number): number => metres * PASCALS_PER_METRE;
