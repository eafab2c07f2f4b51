import { ADEQUACY_LINES } from './adequacy';
import { GAS_LINES } from './gas';
import { FUEL_GAS_LINES } from './limits-gas';
import { MAIN_LINES } from './limits-main';
import { POOL_LINES } from './limits-pool';
import { WATER_LINES } from './limits-water';
import { LIQUID_LINES } from './liquid';
import { DUCT_LINES, REFRIGERANT_LINES } from './machines';
import type { DeskFormula } from './types';
import { UNIT_LINES } from './units';

/** Every line of the Desk, in the order of its groups. */
export const DESK_LINES: readonly DeskFormula[] = [
  ...GAS_LINES,
  ...LIQUID_LINES,
  ...ADEQUACY_LINES,
  ...FUEL_GAS_LINES,
  ...WATER_LINES,
  ...MAIN_LINES,
  ...POOL_LINES,
  ...REFRIGERANT_LINES,
  ...DUCT_LINES,
  ...UNIT_LINES,
];
export const deskLine = (id: string): DeskFormula | undefined => DESK_LINES.find((f) => f.id === id);
