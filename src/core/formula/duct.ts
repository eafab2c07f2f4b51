/** Named formulas of duct systems. */
import type { System } from '@/core/installation/section';
import { SURFACE_CLASS, surfaceLimit } from '@/core/limit/duct';
import { showExact, toNumber } from '@/core/quantity/exact';
import { convert } from '@/core/quantity/unit';
import { type Formula, FormulaError, q, wanted } from './formula';

const FACTS = {
  floorServed: 'The floor area served by this system is not entered: the limit follows from it.',
  ductSurface:
    'The surface of the ducts is not entered: the limit of the duct-surface school follows from it.',
  ductPressure:
    'The test pressure of the duct’s class is not entered: the specification or the drawings name it.',
} as const;
function fact(system: System, key: keyof typeof FACTS) {
  const figure = system[key];
  if (!figure) throw new FormulaError(`${FACTS[key]} Enter it on the system page.`);
  return figure;
}
const squareFeet = (m2: number): string => `${convert(m2, 'm2', 'ft2').toFixed(0)} ft²`;
/** A flow in both units of the trade. */
const both = (m3s: number): string =>
  `${convert(m3s, 'm3/s', 'CFM').toFixed(1)} CFM (${convert(m3s, 'm3/s', 'l/s').toFixed(1)} l/s)`;

export const DUCT_FORMULAS: Readonly<Record<string, Formula>> = {
  'duct-floor@1': {
    args: ['per', 'least'],
    says: (a) =>
      `${a.per} of the floor served by this system${toNumber(q(a.least!)) > 0 ? `, at least ${a.least}` : ''}`,
    flow: ({ system }, a) => {
      const floor = fact(system, 'floorServed');
      const area = convert(toNumber(floor), floor.unit, 'm2');
      const per = q(a.per!);
      const least = q(a.least!);
      const byFloor = area * convert(toNumber(per), per.unit, 'l/s/m2') * 0.001;
      const floored = convert(toNumber(least), least.unit, 'm3/s');
      return {
        flow: Math.max(byFloor, floored),
        working: {
          formula: floored > 0 ? 'max(rate × floor served, least)' : 'rate × floor served',
          inputs: [
            { name: 'floor served by this system', value: `${showExact(floor)} (${squareFeet(area)})` },
            { name: 'rate', value: showExact(per) },
            { name: 'rate × floor', value: both(byFloor) },
            ...(floored > 0 ? [{ name: 'least, for small systems', value: showExact(least) }] : []),
          ],
          text: floored > byFloor ? 'The system is small: the least figure stands.' : '',
        },
      };
    },
  },
  'duct-surface@1': {
    args: ['class'],
    says: (a) =>
      `class ${a.class}: ${SURFACE_CLASS[a.class as keyof typeof SURFACE_CLASS]} × p^0.65 l/s for a square metre of duct`,
    flow: ({ system }, a) => {
      const surface = fact(system, 'ductSurface');
      const pressure = fact(system, 'ductPressure');
      const m2 = convert(toNumber(surface), surface.unit, 'm2');
      const pa = convert(toNumber(pressure), pressure.unit, 'Pa');
      const key = a.class as keyof typeof SURFACE_CLASS;
      if (!Object.hasOwn(SURFACE_CLASS, key)) throw new RangeError(`There is no duct class "${a.class}".`);
      return {
        flow: surfaceLimit(m2, pa, key),
        working: {
          formula: 'f = c × p^0.65 × surface',
          inputs: [
            { name: `c, class ${key}`, value: `${SURFACE_CLASS[key]} l/s per m² at 1 Pa` },
            { name: 'test pressure', value: showExact(pressure) },
            { name: 'surface of the ducts', value: showExact(surface) },
          ],
          text: '',
        },
      };
    },
  },
  'duct-pressure@1': {
    args: [],
    says: () => 'the test pressure of the duct’s class, as specified',
    pressure: (c) => {
      const pressure = wanted(fact(c.system, 'ductPressure'), c.unit, 'up');
      return {
        low: pressure,
        high: pressure,
        working: { formula: 'as specified for the class', inputs: [], text: '' },
      };
    },
  },
};
