/** The kinds of things an installation is made of, as far as rules name them. */
export const VALVE_KINDS = [
  'supply',
  'meter',
  'appliance',
  'drop',
  'selector',
  'container',
  'hidden',
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
