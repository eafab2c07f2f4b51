import { FigureError, parseWithUnit, toNumber } from '@/core/quantity/exact';
import { type Dimension, unitLabel, UNITS } from '@/core/quantity/unit';

/** What is wrong with a figure written with its unit ("21 mbar"), in words; '' when it is right. */
export function figureTrouble(value: string, dimension: Dimension, least?: 'above zero' | 'zero'): string {
  try {
    const figure = parseWithUnit(value);
    if (UNITS[figure.unit].dimension !== dimension)
      return `${unitLabel(figure.unit)} does not measure a ${dimension}. Choose another unit.`;
    if (least === 'above zero' && toNumber(figure) <= 0) return 'must be above zero';
    if (least === 'zero' && toNumber(figure) < 0) return 'must not be below zero';
    return '';
  } catch (error) {
    if (error instanceof FigureError) return error.message;
    throw error;
  }
}
