/** Energy that a test pressure stores, gas beside water, and what it means to a person. Source: adiabatic expansion beside elastic water */
import { STANDARD_ATMOSPHERE } from '@/core/quantity/unit';
import { absolute } from './leak';

const G = 9.80665;
/** Ratio of specific heats of air and nitrogen. */
export const GAMMA = 1.4;

/**
 * Energy set free when a gas expands to the atmosphere without heat: E = P V/(g-1) (1 - (P_atm/P)^((g-1)/g)).
 * @param volume m3  @param gauge Pa  @returns J. @throws RangeError below a vacuum or on a volume below zero
 */
export function gasEnergy(volume: number, gauge: number, atmosphere = STANDARD_ATMOSPHERE): number {
  if (!(volume >= 0)) throw new RangeError('The volume must not be below zero.');
  const p = absolute(gauge, atmosphere);
  return ((p * volume) / (GAMMA - 1)) * (1 - (atmosphere / p) ** ((GAMMA - 1) / GAMMA));
}
/** Energy in a full liquid section: p2 C / 2. @param gauge Pa  @param c stiffness, m3/Pa  @returns J */
export const liquidEnergy = (gauge: number, c: number): number => (gauge * gauge * c) / 2;
/** The mass that falls one metre with this energy, kg: a plain comparison. */
export const fallingMass = (joules: number): number => joules / G;

/** How much care an energy asks for. House figures: a person is hurt by tens of joules of a thrown plug. */
export const ENERGY_LEVELS = [
  {
    key: 'low',
    below: 50,
    words: 'low stored energy',
    exclusion: 'Keep face and hands out of line with plugs, caps and the hose.',
  },
  {
    key: 'raised',
    below: 2000,
    words: 'raised stored energy',
    exclusion:
      'Nobody over plugs or caps or in line with them; only those who test stay in the room while the pressure is raised.',
  },
  {
    key: 'high',
    below: Infinity,
    words: 'high stored energy',
    exclusion:
      'Clear the area while the pressure is raised and held: everyone who does not test stays out of the rooms the pipe runs through. A barrier or a person at each entrance. Use water where the pipe allows it.',
  },
] as const;
export type EnergyLevel = (typeof ENERGY_LEVELS)[number];
export const energyLevel = (joules: number): EnergyLevel =>
  ENERGY_LEVELS.find((l) => joules < l.below) ?? ENERGY_LEVELS[ENERGY_LEVELS.length - 1]!;
