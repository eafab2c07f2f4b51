import { unitLabel, type Unit } from './unit';

/** One named input of a calculated figure. */
export interface FigureInput {
  readonly name: string;
  readonly value: string;
}
/**
 * A calculated number that can answer "why": its formula, inputs and source go with it to the screen and to the
 * record. `value` is a float (physics); `decimals` is how many of its digits mean something.
 */
export interface Figure {
  readonly name: string;
  readonly value: number;
  readonly unit: Unit;
  readonly decimals: number;
  readonly formula: string;
  readonly inputs: readonly FigureInput[];
  readonly source: string;
  readonly note?: string;
}
/** The figure's number as printed: fixed decimals, true minus, no "-0". */
export function figureNumber(figure: Pick<Figure, 'value' | 'decimals'>): string {
  const text = figure.value.toFixed(figure.decimals);
  return Number(text) === 0 ? text.replace('-', '') : text.replace('-', '−');
}
/** The figure with its unit. What is above nothing but below its last printed digit is said so, never printed as nothing. */
export function showFigure(figure: Figure): string {
  const number = figureNumber(figure);
  const nothing = figure.value !== 0 && Number(number.replace('−', '-')) === 0;
  const least = (10 ** -figure.decimals).toFixed(figure.decimals);
  return `${nothing ? `below ${least}` : number} ${unitLabel(figure.unit)}`.trim();
}
/** Decimals that leave about three significant digits, for rates and volumes. */
export const decimalsFor = (value: number): number => {
  const size = Math.abs(value);
  return size === 0 ? 2 : Math.max(0, Math.min(4, 2 - Math.floor(Math.log10(size))));
};
/** A number with so many significant digits, true minus; never as a power of ten between a millionth and a billion. */
export function significantText(value: number, digits = 4): string {
  if (value === 0) return '0';
  const size = Math.abs(value);
  const text =
    size >= 1e9 || size < 1e-6
      ? value.toExponential(digits - 1)
      : value.toFixed(Math.max(0, Math.min(12, digits - 1 - Math.floor(Math.log10(size)))));
  return text.replace('-', '−').replace('e−', 'e-');
}
