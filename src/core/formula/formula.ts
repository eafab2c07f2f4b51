/** What a named formula is: what it is given, what it gives, how it says so. The formulas themselves: formulas.ts. */
import type { Gauge } from '@/core/instrument/gauge';
import type { System } from '@/core/installation/section';
import { compare, inUnit, parseWithUnit, type Exact } from '@/core/quantity/exact';
import type { FigureInput } from '@/core/quantity/figure';
import type { Unit } from '@/core/quantity/unit';

/**
 * The named formulas a rule pack may call, versioned: a formula that has judged a record is never changed, a new
 * version is added beside it. Pressure formulas give a band in exact figures, minutes formulas a time.
 */
export interface FormulaContext {
  readonly system: System;
  readonly caseKey: string;
  /** The unit the figures are wanted in: the judging gauge's, or the formula's own where none is chosen yet. */
  readonly unit: Unit | null;
  readonly gauge: Gauge | null;
  /** Readings of this run that a stage kept by name. */
  readonly kept: Readonly<Record<string, Exact>>;
  /** Volume under test, m3. */
  readonly volume: number;
  /** Standard uncertainty of an unlogged temperature over so many minutes, K. */
  readonly temperature: (minutes: number) => number;
  /** Moments of those readings, ms. */
  readonly keptAt?: Readonly<Record<string, number>>;
  /** Mean gauge pressure of the hold that is judged, Pa, and its minutes. */
  readonly hold?: { readonly mean: number; readonly minutes: number };
}
/** A flow that a duct may lose, m3/s. */
export interface FlowResult {
  readonly flow: number;
  readonly working: Working;
}
export interface PressureResult {
  readonly low: Exact;
  readonly high: Exact;
  readonly working: Working;
}
export interface MinutesResult {
  readonly minutes: number;
  readonly working: Working;
}
/** Water a hold may lose: a volume over the hold. */
export interface VolumeResult {
  readonly litres: number;
  readonly working: Working;
}
/** How a result came about: shown when it is asked "why". */
export interface Working {
  /** A part in scope permits less than the rule's multiple. */
  readonly capped?: {
    readonly by: string;
    readonly used: Exact;
    readonly asked: Exact;
    /** What was used as a multiple of working pressure, and the rule's own, in words. */
    readonly times: string;
    readonly multiple: string;
  };
  readonly formula: string;
  readonly inputs: readonly FigureInput[];
  readonly text: string;
}
/** Why a formula has no result yet: something must be entered or read first. */
export class FormulaError extends Error {
  constructor(text: string) {
    super(text);
    this.name = 'FormulaError';
  }
}
/** What a formula gives, or in words what is still missing. Other errors are faults and pass through. */
export function known<T>(work: () => T): { readonly value: T } | { readonly missing: string } {
  try {
    return { value: work() };
  } catch (error) {
    if (error instanceof FormulaError) return { missing: error.message };
    throw error;
  }
}
export type Args = Readonly<Record<string, string>>;
export interface Formula {
  /** Names of its arguments. */
  readonly args: readonly string[];
  /** The formula with its arguments, as a person reads it. */
  readonly says: (args: Args) => string;
  readonly pressure?: (context: FormulaContext, args: Args) => PressureResult;
  readonly minutes?: (context: FormulaContext, args: Args) => MinutesResult;
  readonly volume?: (context: FormulaContext, args: Args) => VolumeResult;
  readonly flow?: (context: FormulaContext, args: Args) => FlowResult;
}

/** Decimals a computed band is rounded to in each unit of the trade: finer than any gauge that reads it. */
const DECIMALS: Partial<Record<Unit, number>> = {
  psi: 2,
  inWC: 2,
  mbar: 2,
  bar: 4,
  kPa: 3,
  Pa: 0,
  micron: 0,
};
export const q = parseWithUnit;
/** A figure in the wanted unit, rounded towards the stated side; unchanged when it is in that unit. */
export const wanted = (a: Exact, unit: Unit | null, round: 'down' | 'up'): Exact =>
  unit === null || a.unit === unit ? a : inUnit(a, unit, DECIMALS[unit] ?? 3, round);

export const kept = (c: FormulaContext, name: string): Exact => {
  const figure = c.kept[name];
  if (!figure) throw new FormulaError(`The reading "${name}" has not been taken yet.`);
  return figure;
};
/** The larger of figures that may be in different units, in the unit of the first. */
export const larger = (a: Exact, b: Exact): Exact =>
  compare(wanted(b, a.unit, 'up'), a) > 0 ? wanted(b, a.unit, 'up') : a;
