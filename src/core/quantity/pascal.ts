import { type Exact, toNumber } from './exact';
import { convert, toKelvin, UNITS } from './unit';

/** A pressure as a number of Pa, for physics. @throws RangeError where the unit is of another quantity */
export const pascal = (e: Exact): number => convert(toNumber(e), e.unit, 'Pa');
/** A gauge pressure in Pa; null for what is none: a vacuum read absolutely, a level. */
export const gaugePascal = (e: Exact): number | null =>
  UNITS[e.unit].dimension === 'pressure' ? pascal(e) : null;
/** A temperature in K, for physics. */
export const kelvin = (e: Exact): number => toKelvin(toNumber(e), e.unit);
