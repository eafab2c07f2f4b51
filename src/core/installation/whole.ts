/** What is known of an installation as a whole, as a form asks it: the figures of the section and the heights it is read against. */
import type { Dimension } from '@/core/quantity/unit';

export interface WholeRule {
  readonly label: string;
  readonly hint?: string;
  readonly dimension: Dimension;
  /** Absent: it may be below zero, as a height is. */
  readonly least?: 'above zero' | 'zero';
}
export const WHOLE_FACTS = {
  setPressure: {
    label: 'Regulator set',
    hint: 'empty: the working pressure',
    dimension: 'pressure',
    least: 'above zero',
  },
  ventSetting: {
    label: 'Regulator vents at',
    hint: 'empty: not read',
    dimension: 'pressure',
    least: 'above zero',
  },
  heatingValue: {
    label: 'Heating value of the gas',
    hint: 'from the supplier; for the dial and input',
    dimension: 'heating-value',
    least: 'above zero',
  },
  designPressure: {
    label: 'Design pressure',
    hint: 'from the drawings; empty: not known',
    dimension: 'pressure',
    least: 'above zero',
  },
  surface: {
    label: 'Surface of the pool',
    hint: 'length × width; makes litres of millimetres',
    dimension: 'area',
    least: 'above zero',
  },
  gasInside: {
    label: 'Gas inside',
    hint: 'vessel and arrestors, at test pressure',
    dimension: 'volume',
    least: 'zero',
  },
  floorServed: {
    label: 'Floor area served',
    hint: 'by this system alone; the limit follows from it',
    dimension: 'area',
    least: 'above zero',
  },
  ductSurface: {
    label: 'Surface of the ducts',
    hint: 'from the drawings; for the duct-surface school',
    dimension: 'area',
    least: 'above zero',
  },
  ductPressure: {
    label: 'Test pressure of its class',
    hint: 'from the specification; for the duct-surface school',
    dimension: 'pressure',
    least: 'above zero',
  },
} as const satisfies Record<string, WholeRule>;
export type WholeFact = keyof typeof WHOLE_FACTS;
export const WHOLE_KEYS = Object.keys(WHOLE_FACTS) as WholeFact[];

/** Heights over a mark that stays. */
export const HEIGHT_FACTS = {
  slab: { label: 'Slab level', hint: 'below the mark: minus', dimension: 'length' },
  rim: { label: 'Rim of the opening', dimension: 'length' },
  fixture: {
    label: 'Lowest fixture inside',
    hint: 'floor drain, shower tray: water over it comes up',
    dimension: 'length',
  },
  testPoint: { label: 'Test point', dimension: 'length' },
  highest: { label: 'Highest point', dimension: 'length' },
  lowest: { label: 'Lowest point', dimension: 'length' },
} as const satisfies Record<string, WholeRule>;
export type HeightFact = keyof typeof HEIGHT_FACTS;
export const HEIGHT_KEYS = Object.keys(HEIGHT_FACTS) as HeightFact[];
