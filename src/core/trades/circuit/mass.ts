/** Refrigerant as gas and as mass: what a leak found with nitrogen means once the circuit is charged. */
import type { System } from '@/core/installation/section';
import { molarMass } from '@/core/medium/refrigerant';
import { exact, type Exact, toNumber } from '@/core/quantity/exact';
import { significantText } from '@/core/quantity/figure';
import { convert, STANDARD_ATMOSPHERE } from '@/core/quantity/unit';

const R = 8.314462618;
const ROOM = 293.15;
/** The heaviest of the listed fluids, kg/mol: of a circuit whose fluid nobody said, so little gas is the stricter. */
const HEAVIEST = 0.12002;
const molar = (system: Pick<System, 'condensing'>): number => {
  const name = system.condensing?.[0]?.refrigerant;
  return name ? molarMass(name) : HEAVIEST;
};
/** A yearly loss of mass as a flow of gas at 20 °C and the standard atmosphere, l/h. Source: ideal gas */
export function asFlow(mass: Exact, system: Pick<System, 'condensing'>): Exact {
  const kg = convert(toNumber(mass), mass.unit, 'g/year') / 1000 / 31_557_600;
  const perHour = ((kg / molar(system)) * R * ROOM * 3600 * 1000) / STANDARD_ATMOSPHERE;
  return exact(Math.round(perHour * 1e6), 6, 'l/h');
}
/** The same the other way, in words; '' where the fluid is not known. @param perHour l/h at the atmosphere */
export function asMassWords(perHour: number, system: Pick<System, 'condensing'>): string {
  const name = system.condensing?.[0]?.refrigerant;
  if (!name) return '';
  const grams =
    (perHour / 1000 / 3600) * (STANDARD_ATMOSPHERE / (R * ROOM)) * molar(system) * 31_557_600 * 1000;
  return grams >= 1000
    ? `${significantText(grams / 1000, 2)} kg of ${name} a year`
    : `${significantText(grams, 2)} g of ${name} a year`;
}
