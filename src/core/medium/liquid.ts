/** A closed section full of liquid: how soft it is, what warmth, stretch and trapped air do to its pressure. */
import { WATER_BULK_MODULUS, waterExpansion } from './water';

/** One run of pipe as its stiffness needs it. */
export interface WallSegment {
  /** m3 */ readonly volume: number;
  /** mean or outside diameter, m */ readonly diameter: number;
  /** wall thickness, m */ readonly wall: number;
  /** elastic modulus of the wall, Pa */ readonly modulus: number;
}
/**
 * Stiffness of a full section as the water it takes per pascal: C = sum V (1/K + D/(E e)) + V_air / P.
 * @param air m3 of gas at the test pressure  @param pressure absolute, Pa  @returns m3/Pa. Source: elastic water and pipe wall
 * @throws RangeError on a wall or modulus of zero, or a pressure at or below a vacuum
 */
export function stiffness(segments: readonly WallSegment[], air = 0, pressure = 0): number {
  const walls = segments.reduce((sum, s) => {
    if (!(s.wall > 0) || !(s.modulus > 0) || !(s.volume >= 0))
      throw new RangeError('A pipe needs a wall thickness and an elastic modulus above zero.');
    return sum + s.volume * (1 / WATER_BULK_MODULUS + s.diameter / (s.modulus * s.wall));
  }, 0);
  if (air < 0) throw new RangeError('The gas in the section cannot be less than none.');
  if (air > 0 && !(pressure > 0))
    throw new RangeError('The absolute pressure must be above zero to know what the gas does.');
  return walls + (air > 0 ? air / pressure : 0);
}
/** Pressure change of a leak over a time: dp = -Q dt / C. @param rate m3/s  @returns Pa. Source: elastic water and pipe wall */
export function liquidFall(rate: number, seconds: number, c: number): number {
  if (!(c > 0)) throw new RangeError('The stiffness must be above zero: enter pipes first.');
  return (-rate * seconds) / c;
}
/**
 * Pressure change of a full section per kelvin: V (beta(T) - 3 alpha) / C. Negative where the pipe grows more than the
 * water: warming then lowers the pressure. @param alpha 1/K  @returns Pa/K. Source: elastic water and pipe wall
 */
export function liquidPerKelvin(volume: number, celsius: number, alpha: number, c: number): number {
  if (!(c > 0)) throw new RangeError('The stiffness must be above zero: enter pipes first.');
  return (volume * (waterExpansion(celsius) - 3 * alpha)) / c;
}

export interface TrappedAir {
  /** m3 at the pressure before the strokes */ readonly before: number;
  /** m3 at the pressure after them */ readonly after: number;
  /** m3 at atmospheric pressure */ readonly atmospheric: number;
}
/**
 * Trapped air from the first strokes: what the section took beyond the pipe's own stiffness went into squeezing air
 * (isothermal). V_air(before) = (dV - C (p2 - p1)) / (1 - P1/P2).
 * @param added m3  @param before, after absolute, Pa  @param c stiffness without air, m3/Pa
 * @throws RangeError when the pressure did not rise. Source: elastic water and pipe wall
 */
export function trappedAir(
  added: number,
  before: number,
  after: number,
  c: number,
  atmosphere: number,
): TrappedAir {
  if (!(before > 0) || !(after > before))
    throw new RangeError('The pressure after the strokes must be above the one before, both absolute.');
  const atBefore = Math.max(0, (added - c * (after - before)) / (1 - before / after));
  return {
    before: atBefore,
    after: (atBefore * before) / after,
    atmospheric: (atBefore * before) / atmosphere,
  };
}
/**
 * Pressure of a stretching plastic section: p(t) = p0 - a ln(1 + t/tc). @param a Pa  @param tc s  @returns Pa
 * Source: elastic water and pipe wall
 */
export function stretchedPressure(p0: number, a: number, tc: number, seconds: number): number {
  if (!(tc > 0)) throw new RangeError('The stretch time must be above zero.');
  if (!(seconds >= 0)) throw new RangeError('The time must not be below zero.');
  return p0 - a * Math.log(1 + seconds / tc);
}
/**
 * When a leak's straight fall becomes steeper than the stretch that fades: a/(tc + t) = Q/C. Before it the two cannot be
 * told apart by slope. @param slope of the leak, Pa/s  @returns s, 0 where the leak is steeper from the start
 */
export function stretchFadesAt(a: number, tc: number, slope: number): number {
  if (!(slope > 0)) throw new RangeError('The fall of the leak must be above zero.');
  return Math.max(0, a / slope - tc);
}
/**
 * A decay loss carried to the full test pressure: measured over p0 to p1 it averages over the fall and understates.
 * Laminar x p0 ln(p0/p1)/(p0-p1), orifice x 2 sqrt(p0)/(sqrt p0 + sqrt p1). Source: elastic water and pipe wall
 * @param p0, p1 gauge, Pa; p0 > p1 > 0
 */
export function decayFactors(p0: number, p1: number): { laminar: number; orifice: number } {
  if (!(p1 > 0) || !(p0 > p1))
    throw new RangeError('The pressure must have fallen, and not to zero: p0 above p1 above 0.');
  return {
    laminar: (p0 * Math.log(p0 / p1)) / (p0 - p1),
    orifice: (2 * Math.sqrt(p0)) / (Math.sqrt(p0) + Math.sqrt(p1)),
  };
}
