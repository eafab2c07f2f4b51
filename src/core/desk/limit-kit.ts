/** What Desk lines of limits share: figures, and formulas called as packs call them. */
import { defaultTemperatureUncertainty } from '@/core/adequacy/gas';
import { HOUSE_TEMPERATURE } from '@/core/adequacy/house';
import { type FormulaContext, FormulaError } from '@/core/formula';
import type { System } from '@/core/installation/section';
import { exact, type Exact, toNumber } from '@/core/quantity/exact';
import { convert, type Unit, UNITS } from '@/core/quantity/unit';
import { DeskError, input } from './types';

/** An SI value as an exact figure of a unit, six decimals: rounded to what floats hold. */
export const figure = (si: number, unit: Unit): Exact =>
  exact(Math.round((si / UNITS[unit].si) * 1e6), 6, unit);
export const si = (e: Exact): number => convert(toNumber(e), e.unit, unitOf(e.unit));
export const unitOf = (unit: Unit): Unit => (UNITS[unit].dimension === 'pressure' ? 'Pa' : unit);
/** A context that holds just what the named formulas ask for. */
export const context = (
  system: Partial<Pick<System, 'workingPressure' | 'setPressure' | 'meter'>>,
  more: Partial<FormulaContext> = {},
): FormulaContext => ({
  system: { appliances: [], pipes: [], ...system } as unknown as System,
  caseKey: '',
  unit: null,
  gauge: null,
  kept: {},
  volume: 0,
  temperature: (m) => defaultTemperatureUncertainty(m, HOUSE_TEMPERATURE),
  ...more,
});
/** What a formula still lacks, said of an input. */
export const asked = <T>(field: string, work: () => T): T => {
  try {
    return work();
  } catch (error) {
    if (error instanceof FormulaError) throw new DeskError(field, error.message);
    throw error;
  }
};
export const volume = (value: string, unit: Unit = 'l') =>
  input('V', 'V, volume of the section', unit, 'positive', value);
