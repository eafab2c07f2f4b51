/** One-sided 95 % factor of a normal distribution. */
export const ONE_SIDED_95 = 1.65;

/** What blurs the difference of two displayed readings; all pressures in Pa. */
export interface Blur {
  readonly resolution: number;
  /** pressure per kelvin of the section, Pa/K (its size counts) */ readonly perKelvin: number;
  /** standard uncertainty of the temperature difference, K */ readonly temperature: number;
  readonly barometer?: number;
  /** standard deviation of one reading beyond its display step */ readonly noise?: number;
  /** drift of the gauge over the hold */ readonly drift?: number;
}
/** u of the difference: sqrt(2 r2/12 + 2 noise2 + (dp/dT u_dT)2 + barometer2 + drift2). Source: sum of independent uncertainties; 1.65 is the one-sided 95 % factor */
export const differenceUncertainty = (b: Blur): number =>
  Math.sqrt(
    (2 * b.resolution * b.resolution) / 12 +
      2 * (b.noise ?? 0) ** 2 +
      (b.perKelvin * b.temperature) ** 2 +
      (b.barometer ?? 0) ** 2 +
      (b.drift ?? 0) ** 2,
  );
/**
 * Smallest change a hold shows with 95 % probability: dp_min = pm + 1.65 u.
 * @param perceptible pm, Pa  @returns Pa. Source: sum of independent uncertainties; 1.65 is the one-sided 95 % factor
 */
export const visibleChange = (perceptible: number, blur: Blur): number =>
  perceptible + ONE_SIDED_95 * differenceUncertainty(blur);
