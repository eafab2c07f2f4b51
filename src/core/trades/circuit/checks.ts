/**
 * How often a charged circuit is looked over for leaks: by what its charge would do as CO2, or by its mass where the fluid is an
 * unsaturated one. Source: Regulation (EU) 2024/573, articles 5 and 6; check the edition in force
 */
import type { Condensing } from '@/core/installation/section';
import { warmingPotential } from '@/core/medium/refrigerant';
import { toNumber } from '@/core/quantity/exact';
import { convert } from '@/core/quantity/unit';

export const LEAK_CHECK_SOURCE = 'Regulation (EU) 2024/573, articles 5 and 6: check the edition in force';
export interface LeakChecks {
  /** Months from one to the next; null: none by this rule; 'unknown': a fact is missing. */
  readonly months: 3 | 6 | 12 | null | 'unknown';
  readonly text: string;
}
const UNSATURATED = ['R1234yf', 'R1234ze(E)'];
const NATURAL = ['R290', 'R600a', 'R744', 'R717'];

/** @param unit the plate of the circuit, with its charge */
export function leakChecks(unit: Pick<Condensing, 'refrigerant' | 'charge' | 'gwp'> | undefined): LeakChecks {
  const { refrigerant, charge, gwp } = unit ?? {};
  if (!charge || (gwp === undefined && !refrigerant))
    return {
      months: 'unknown',
      text: 'Charge or refrigerant is not entered: how often it is looked over for leaks follows from both. Enter them on the system page.',
    };
  const kg = convert(toNumber(charge), charge.unit, 'kg');
  const mass = `${kg.toPrecision(3)} kg`;
  if (refrigerant && NATURAL.includes(refrigerant))
    return {
      months: null,
      text: `${refrigerant}: no interval by this rule; the maker’s and the place’s own.`,
    };
  if (refrigerant && UNSATURATED.includes(refrigerant)) {
    const months = kg >= 100 ? 3 : kg >= 10 ? 6 : kg >= 1 ? 12 : null;
    return {
      months,
      text: `${mass} of ${refrigerant}: ${months ? `every ${months} months` : 'no interval below 1 kg'}.`,
    };
  }
  const factor = gwp ?? warmingPotential(refrigerant!);
  const tonnes = (kg * factor) / 1000;
  const months = tonnes >= 500 ? 3 : tonnes >= 50 ? 6 : tonnes >= 5 ? 12 : null;
  const sum = `${mass} × ${factor.toFixed(0)} = ${tonnes.toPrecision(3)} t CO2`;
  return {
    months,
    text: `${sum}: ${months ? `every ${months} months, twice as long with a leak detector that is part of the plant` : 'no interval below 5 t'}.`,
  };
}
