import { plugThrust } from '@/core/limit/pool';
import { type Exact, toNumber } from '@/core/quantity/exact';
import { convert } from '@/core/quantity/unit';
import type { PlugKind } from '@/core/kinds/plugs/entries';
import type { PoolEnd } from '@/core/trades/pool/ends';

/** Thrust on a plug in both units, as a person compares it. @param pressure of the test  @param size pipe size at the plug */
export function thrustWords(pressure: Exact, size: Exact): string {
  const n = plugThrust(
    convert(toNumber(pressure), pressure.unit, 'Pa'),
    convert(toNumber(size), size.unit, 'm'),
  );
  return `${n.toFixed(0)} N (${convert(n, 'N', 'lbf').toFixed(0)} lbf)`;
}
/** The kind of plug that usually sits at an end: by its place. House figures. */
export function usualPlug(end: PoolEnd, round: boolean | undefined): PlugKind {
  if (round === false) return 'inflatable';
  switch (end.type) {
    case 'pump':
    case 'heater':
    case 'blower':
      return 'cap';
    case 'skimmer':
      return 'long-stem';
    case 'drain':
      return 'inflatable';
    case 'return':
      return 'hooked';
    default:
      return 'short';
  }
}
/** Where a plug is put in by diving. */
export const DIVE: Readonly<Partial<Record<PoolEnd['type'], string>>> = {
  drain: 'dive for it: pump power locked out first',
  cleaner: 'may need diving: pump power locked out first',
  'jet-lower': 'may need diving: pump power locked out first',
};
/** What is at risk at the equipment. */
export const RISK: Readonly<Partial<Record<PoolEnd['type'], string>>> = {
  blower: 'keep water out of the blower’s motor',
  pump: 'pump pot, its lid and o-ring take no pressure',
  heater: 'heater takes no pressure: press after it',
};
