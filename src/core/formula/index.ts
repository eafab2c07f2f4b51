/** The table of named formulas of every trade, and how they are called. */
import {
  type Args,
  type FlowResult,
  type Formula,
  type FormulaContext,
  type MinutesResult,
  type PressureResult,
  type VolumeResult,
} from './formula';
import { DUCT_FORMULAS } from './duct';
import { GAS_FORMULAS } from './gas';
import { MINUTES_FORMULAS } from './minutes';
import { POOL_FORMULAS } from './pool';
import { REFRIGERANT_FORMULAS } from './refrigerant';
import { WATER_FORMULAS } from './water';

export * from './formula';

export const FORMULAS: Readonly<Record<string, Formula>> = {
  ...GAS_FORMULAS,
  ...MINUTES_FORMULAS,
  ...WATER_FORMULAS,
  ...POOL_FORMULAS,
  ...REFRIGERANT_FORMULAS,
  ...DUCT_FORMULAS,
};

/** @throws RangeError naming the formula when it is unknown or of the other kind; FormulaError when something is missing */
export function pressureOf(call: { formula: string; args?: Args }, context: FormulaContext): PressureResult {
  const formula = FORMULAS[call.formula];
  if (!formula?.pressure) throw new RangeError(`"${call.formula}" is not a pressure formula.`);
  return formula.pressure(context, call.args ?? {});
}
/** @throws RangeError, FormulaError as pressureOf */
export function minutesOf(call: { formula: string; args?: Args }, context: FormulaContext): MinutesResult {
  const formula = FORMULAS[call.formula];
  if (!formula?.minutes) throw new RangeError(`"${call.formula}" is not a minutes formula.`);
  return formula.minutes(context, call.args ?? {});
}
/** @throws RangeError, FormulaError as pressureOf */
export function volumeOfCall(call: { formula: string; args?: Args }, context: FormulaContext): VolumeResult {
  const formula = FORMULAS[call.formula];
  if (!formula?.volume) throw new RangeError(`"${call.formula}" is not a formula of a volume.`);
  return formula.volume(context, call.args ?? {});
}
/** @throws RangeError, FormulaError as pressureOf */
export function flowOfCall(call: { formula: string; args?: Args }, context: FormulaContext): FlowResult {
  const formula = FORMULAS[call.formula];
  if (!formula?.flow) throw new RangeError(`"${call.formula}" is not a formula of a flow.`);
  return formula.flow(context, call.args ?? {});
}
