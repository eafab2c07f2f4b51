import type { Unit } from '@/core/quantity/unit';

/**
 * What an input may be. `gauge`: above the atmosphere, not below a vacuum. `absolute`, `positive`: above zero.
 * `temperature`: on its absolute scale; `difference`: a difference of temperatures. `count`: a whole number.
 */
export type InputKind =
  | 'gauge'
  | 'absolute'
  | 'positive'
  | 'not-negative'
  | 'any'
  | 'temperature'
  | 'difference'
  | 'count';
export interface DeskInput {
  readonly key: string;
  readonly name: string;
  readonly unit: Unit;
  readonly kind: InputKind;
  /** What stands there until another figure is entered, in `unit`; '' for an input that may stay empty. */
  readonly value: string;
  readonly hint?: string;
}
export interface DeskChoice {
  readonly key: string;
  readonly name: string;
  readonly options: readonly { readonly key: string; readonly label: string }[];
  readonly value: string;
}
export interface DeskOutput {
  readonly key: string;
  readonly name: string;
  /** Absent: the result is words. */
  readonly unit?: Unit;
  readonly absolute?: true;
}
/** SI values of the inputs (kelvin for temperatures); an empty optional one is missing. */
export type Numbers = Readonly<Record<string, number>>;
/** What a list of formulas says of one. */
export type DeskTitle = Pick<DeskFormula, 'id' | 'group' | 'title' | 'answers' | 'formula'>;
export interface DeskFormula {
  readonly id: string;
  readonly group: DeskGroup;
  readonly title: string;
  /** What it answers, in a sentence. */
  readonly answers: string;
  readonly formula: string;
  readonly source: string;
  readonly note?: string;
  readonly inputs: readonly DeskInput[];
  readonly choices?: readonly DeskChoice[];
  readonly outputs: readonly DeskOutput[];
  /** Its results are one figure in many units: no other unit beside, no sensitivity. */
  readonly table?: true;
  /** SI results by output key, or words. @throws RangeError saying what is wrong; a core function of the bench does the work */
  readonly work: (
    n: Numbers,
    c: Readonly<Record<string, string>>,
  ) => Readonly<Record<string, number | string>>;
}
export const DESK_GROUPS = {
  gas: 'Gas in a closed section',
  liquid: 'Liquid in a closed section',
  adequacy: 'Is the test good enough',
  'fuel-gas': 'Fuel gas and propane',
  water: 'Water, drain and heating',
  main: 'Buried mains',
  pool: 'Pools',
  refrigerant: 'Refrigerant circuits',
  duct: 'Ducts',
  units: 'Units and barometer',
} as const;
export type DeskGroup = keyof typeof DESK_GROUPS;

/** What is wrong with an input, and what to do; `field` names it. */
export class DeskError extends Error {
  constructor(
    readonly field: string,
    text: string,
  ) {
    super(text);
    this.name = 'DeskError';
  }
}

export const input = (
  key: string,
  name: string,
  unit: Unit,
  kind: InputKind,
  value: string,
  hint?: string,
): DeskInput => ({ key, name, unit, kind, value, ...(hint ? { hint } : {}) });
/** The barometer: the standard atmosphere until another figure is entered. */
export const barometer = (): DeskInput =>
  input('atm', 'P_atm, barometer', 'mbar', 'absolute', '1013.25', 'standard atmosphere until read');
