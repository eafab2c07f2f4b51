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
/** The figure with its unit. */
export const showFigure = (figure: Figure): string =>
  `${figureNumber(figure)} ${unitLabel(figure.unit)}`.trim();
/** Decimals that leave about three significant digits, for rates and volumes. */
export const decimalsFor = (value: number): number => {
  const size = Math.abs(value);
  return size === 0 ? 2 : Math.max(0, Math.min(4, 2 - Math.floor(Math.log10(size))));
};
