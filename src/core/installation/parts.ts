import type { Ambient, Cooled } from '@/core/limit/refrigerant';

export type { Ambient, Cooled };
/** The kinds of things an installation is made of, as far as rules name them. */
export const VALVE_KINDS = [
  'supply',
  'meter',
  'appliance',
  'drop',
  'selector',
  'container',
  'hidden',
  'liquid',
  'suction',
  'solenoid',
  'damper',
] as const;
export type ValveKind = (typeof VALVE_KINDS)[number];
/** What a closing part is, in words. */
export const VALVE_WORDS: Readonly<Record<ValveKind, string>> = {
  supply: 'supply valve',
  meter: 'meter valve',
  appliance: 'appliance valve',
  drop: 'drop valve',
  selector: 'selector',
  container: 'container valve',
  hidden: 'hidden valve',
  liquid: 'service valve of the liquid line',
  suction: 'service valve of the suction line',
  solenoid: 'solenoid valve',
  damper: 'damper',
};
/** What is looked at and written down as a line of the inventory. */
export const THING_KINDS = ['meter', 'appliance', 'regulator', 'tank', 'connector', 'other'] as const;
export type ThingKind = (typeof THING_KINDS)[number];

/** Where a line of a pool ends in the water. */
export const OUTLET_WORDS = {
  return: 'return',
  skimmer: 'skimmer',
  drain: 'main drain',
  cleaner: 'cleaner',
  'jet-upper': 'spa jet, upper',
  'jet-lower': 'spa jet, lower',
  other: 'another outlet',
} as const;
export type OutletType = keyof typeof OUTLET_WORDS;
export const OUTLET_TYPES = Object.keys(OUTLET_WORDS) as OutletType[];
/** What stands at its other end. */
export const EQUIPMENT_WORDS = {
  pump: 'pump inlet',
  heater: 'after the heater',
  cleaner: 'cleaner pump',
  blower: 'air blower',
} as const;
export type EquipmentType = keyof typeof EQUIPMENT_WORDS;

/** What air comes out of, or goes back through. */
export const REGISTER_WORDS = { supply: 'supply register', return: 'return grille' } as const;
export type RegisterType = keyof typeof REGISTER_WORDS;
/** What makes the heat or cold in an air handler: a flame is put out and kept out before a fan blows through it. */
export const HEATS_WORDS = {
  burner: 'a burner',
  electric: 'electric',
  none: 'nothing that burns',
} as const;
export type Heats = keyof typeof HEATS_WORDS;

/** How the condenser of a circuit is cooled, and the warmest the place gets: from both follows the design temperature. */
export const COOLED_WORDS: Readonly<Record<Cooled, string>> = { air: 'by air', water: 'by water' };
export const AMBIENT_WORDS: Readonly<Record<Ambient, string>> = {
  '32': 'up to 32 °C',
  '38': 'up to 38 °C',
  '43': 'up to 43 °C',
  '55': 'up to 55 °C',
};
