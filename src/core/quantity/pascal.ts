import { type Exact, toNumber } from './exact';
import { convert } from './unit';

/** A pressure as a number of Pa, for physics. @throws RangeError where the unit is of another quantity */
export const pascal = (e: Exact): number => convert(toNumber(e), e.unit, 'Pa');
