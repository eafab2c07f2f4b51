/** Laws of small leaks: how a rate follows the pressure, another gas through the same hole, let-by against leak. */
import { STANDARD_ATMOSPHERE } from '@/core/quantity/unit';

const positive = (value: number, name: string): void => {
  if (!(value > 0) || !Number.isFinite(value)) throw new RangeError(`${name} must be above zero.`);
};
/** Absolute pressure, Pa. @throws RangeError below a perfect vacuum */
export function absolute(gauge: number, atmosphere = STANDARD_ATMOSPHERE): number {
  const p = gauge + atmosphere;
  if (!(p > 0) || !Number.isFinite(p))
    throw new RangeError('The pressure lies below a perfect vacuum: check figure, unit and sign.');
  return p;
}
/**
 * Conductance of a laminar leak from its rate: Q = k (P2 - P_atm2) / (2 P_atm), absolute pressures squared.
 * @param rate m3/s at atmospheric pressure  @param gauge Pa  @returns m3/(s Pa). Source: laws of small leaks (Poiseuille, Bernoulli)
 */
export function laminarConductance(rate: number, gauge: number, atmosphere = STANDARD_ATMOSPHERE): number {
  positive(gauge, 'The pressure of the leak');
  const p = absolute(gauge, atmosphere);
  return (rate * 2 * atmosphere) / (p * p - atmosphere * atmosphere);
}
/** Rate of a laminar leak at a pressure, m3/s at atmospheric pressure. Source: laws of small leaks (Poiseuille, Bernoulli) */
export function laminarRate(conductance: number, gauge: number, atmosphere = STANDARD_ATMOSPHERE): number {
  const p = absolute(gauge, atmosphere);
  return (conductance * (p * p - atmosphere * atmosphere)) / (2 * atmosphere);
}
/**
 * Pressure of a section that leaks, after a time. From V dP/dt = -k (P2 - A2) / 2 with P absolute and A the atmosphere:
 * p / (p + 2A) falls as exp(-k A t / V); far below the atmosphere that is the plain exponential.
 * @param conductance m3/(s Pa)  @param volume m3  @param seconds s  @returns gauge Pa. Source: laws of small leaks (Poiseuille, Bernoulli)
 */
export function leakedPressure(
  start: number,
  conductance: number,
  volume: number,
  seconds: number,
  atmosphere = STANDARD_ATMOSPHERE,
): number {
  positive(volume, 'The volume');
  const left = (start / (start + 2 * atmosphere)) * Math.exp((-conductance * atmosphere * seconds) / volume);
  return (2 * atmosphere * left) / (1 - left);
}

/** Gauge pressure above which an orifice is choked: the rate then follows the absolute pressure. About 0.9 bar. */
export const CHOKED_FROM = 90_000;
/**
 * A rate through an orifice carried to another pressure: as the root of the gauge pressure while small, as the absolute
 * pressure once choked. Source: laws of small leaks (Poiseuille, Bernoulli)
 */
export function orificeRateAt(
  rate: number,
  test: number,
  other: number,
  atmosphere = STANDARD_ATMOSPHERE,
): number {
  positive(test, 'The test pressure');
  if (!(other >= 0)) throw new RangeError('The other pressure must not be below zero.');
  const flow = (p: number) =>
    p <= CHOKED_FROM
      ? Math.sqrt(p)
      : (Math.sqrt(CHOKED_FROM) * (p + atmosphere)) / (CHOKED_FROM + atmosphere);
  return (rate * flow(other)) / flow(test);
}

/** Which gas follows air through the same leak, and by how much its rate differs. Source: laws of small leaks (Poiseuille, Bernoulli) */
export const OTHER_GAS = {
  'natural-gas': { name: 'natural gas', laminar: 1.65, orifice: 1.29 },
  propane: { name: 'propane', laminar: 2.25, orifice: 0.8 },
} as const;
export type OtherGas = keyof typeof OTHER_GAS;

export interface TwoSlopes {
  /** m3/(s Pa) */ readonly letBy: number;
  /** m3/(s Pa) */ readonly leak: number;
  /** gauge Pa at which both cancel and the gauge stands still */ readonly balance: number;
}
/** What drives a laminar leak at a gauge pressure: (P2 - A2) / 2A, Pa; the gauge pressure itself while small. */
export const drive = (gauge: number, atmosphere: number): number =>
  gauge + (gauge * gauge) / (2 * atmosphere);
/** The gauge pressure that drives so much. */
const driven = (s: number, atmosphere: number): number =>
  Math.sqrt(atmosphere * atmosphere + 2 * atmosphere * s) - atmosphere;
/**
 * Let-by and leak told apart by two slopes at two pressures: (V/P_atm) dp/dt = k_in (s_s - s) - k_out s, s = (P2 - A2) / 2A.
 * Advice only while the temperature drifts by less than 0.02 K/min. Source: laws of small leaks (Poiseuille, Bernoulli)
 * @param volume m3  @param supply gauge Pa before the valve  @param a, b pressure (gauge Pa) and slope (Pa/s, a rise is +)
 * @throws RangeError when the two pressures are the same, or the slopes cannot come from let-by and leak
 */
export function twoSlopes(
  volume: number,
  supply: number,
  a: { pressure: number; slope: number },
  b: { pressure: number; slope: number },
  atmosphere = STANDARD_ATMOSPHERE,
): TwoSlopes {
  positive(volume, 'The volume');
  positive(supply, 'The supply pressure');
  if (Math.abs(a.pressure - b.pressure) < 1)
    throw new RangeError('Both slopes were taken at the same pressure: start the second one clearly lower.');
  const flow = (s: number) => (volume / atmosphere) * s;
  const s = (p: number) => drive(p, atmosphere);
  const sum = (flow(a.slope) - flow(b.slope)) / (s(b.pressure) - s(a.pressure));
  const rest = flow(a.slope) + sum * s(a.pressure);
  // a pure leak leaves nothing over: what remains below the rounding of the arithmetic is nothing
  const size = Math.abs(flow(a.slope)) + Math.abs(sum * s(a.pressure));
  const letBy = Math.abs(rest) <= 1e-9 * size ? 0 : rest / s(supply);
  const leak = Math.abs(sum - letBy) <= 1e-9 * Math.abs(sum) ? 0 : sum - letBy;
  return { letBy, leak, balance: balancePressure(letBy, leak, supply, atmosphere) };
}
/** Pressure at which what comes in goes out: s = k_in s_s / (k_in + k_out). Source: laws of small leaks (Poiseuille, Bernoulli) */
export const balancePressure = (
  letBy: number,
  leak: number,
  supply: number,
  atmosphere = STANDARD_ATMOSPHERE,
): number =>
  letBy + leak === 0 ? supply : driven((letBy * drive(supply, atmosphere)) / (letBy + leak), atmosphere);

/**
 * Volume of a section from a metered draw with the supply shut: V = V_drawn P_atm / (p_before - p_after).
 * @param drawn m3 at atmospheric pressure  @returns m3. Source: laws of small leaks (Poiseuille, Bernoulli)
 */
export function drawnVolume(
  drawn: number,
  before: number,
  after: number,
  atmosphere = STANDARD_ATMOSPHERE,
): number {
  positive(drawn, 'The volume drawn');
  if (!(before > after)) throw new RangeError('The pressure after the draw must be below the one before it.');
  return volumeOfFall(drawn, before - after, atmosphere);
}
/** The same from the fall itself, Pa. */
export const volumeOfFall = (drawn: number, fall: number, atmosphere = STANDARD_ATMOSPHERE): number =>
  (drawn * atmosphere) / fall;

/** Flow by a meter's dial: turns x volume per turn / time. @returns l/h. Source: laws of small leaks (Poiseuille, Bernoulli) */
export function dialFlow(turns: number, litresPerTurn: number, ms: number): number {
  positive(ms, 'The time');
  return ((turns * litresPerTurn) / ms) * 3600 * 1000;
}
