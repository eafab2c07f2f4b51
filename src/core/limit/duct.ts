/** Ducts: permitted leakage, the flow law, the half-pressure check and one's own kit. Source: published duct tightness schools */

const positive = (value: number, name: string): void => {
  if (!(value > 0) || !Number.isFinite(value)) throw new RangeError(`${name} must be above zero.`);
};
/** CFM at 25 Pa per 100 ft2 of the floor served: 4 finished or rough-in with air handler, 3 without, 8 all inside. */
export const FLOOR_SCHOOL = {
  'after-construction': { words: 'after construction, or rough-in with air handler', per100: 4 },
  'rough-in': { words: 'rough-in without air handler', per100: 3 },
  inside: { words: 'all ducts inside the thermal boundary', per100: 8 },
} as const;
export type FloorCase = keyof typeof FLOOR_SCHOOL;
const CFM = 0.028316846592 / 60;
/** @param floor m2 served by this system  @returns m3/s at 25 Pa */
export function floorLimit(floor: number, which: FloorCase): number {
  positive(floor, 'The floor area');
  return (FLOOR_SCHOOL[which].per100 * CFM * floor) / 9.290304;
}
/** Coefficients of the duct-surface school, l/s per m2 at 1 Pa. */
export const SURFACE_CLASS = { A: 0.027, B: 0.009, C: 0.003, D: 0.001 } as const;
/** f_max = c p^0.65 per m2 of duct surface. @param pressure Pa, the size of it  @returns m3/s for the surface */
export function surfaceLimit(surface: number, pressure: number, c: keyof typeof SURFACE_CLASS): number {
  positive(surface, 'The duct surface');
  positive(pressure, 'The test pressure');
  return SURFACE_CLASS[c] * 0.001 * surface * pressure ** 0.65;
}
/** Flow carried to another pressure: Q (p2/p1)^n. n 0.5 to 1.0, 0.6 when unknown. */
export function flowAt(flow: number, pressure: number, other: number, n: number): number {
  positive(pressure, 'The pressure of the reading');
  positive(other, 'The other pressure');
  if (!(n >= 0.5 && n <= 1)) throw new RangeError('The exponent lies between 0.5 and 1.0; 0.6 when unknown.');
  return flow * (other / pressure) ** n;
}
export interface HalvingCheck {
  readonly ratio: number;
  readonly n: number;
  readonly low: number;
  readonly high: number;
  /** void: the whole interval lies outside 0.5 to 1; doubtful: n outside 0.5 to 0.75 */
  readonly result: 'sound' | 'doubtful' | 'void';
}
/**
 * Exponent from two points of one range with its 95 % interval: n = ln(Q2/Q1)/ln(p2/p1), u_n = u sqrt(2)/|ln(p2/p1)|
 * with u the relative standard uncertainty of the flow. Source: published duct tightness schools
 */
export function halvingCheck(
  q1: number,
  p1: number,
  q2: number,
  p2: number,
  uncertainty: number,
): HalvingCheck {
  for (const [v, name] of [
    [q1, 'The first flow'],
    [p1, 'The first pressure'],
    [q2, 'The second flow'],
    [p2, 'The second pressure'],
  ] as const)
    positive(v, name);
  if (!(uncertainty >= 0)) throw new RangeError('The uncertainty of the flow must not be below zero.');
  const span = Math.log(p2 / p1);
  if (Math.abs(span) < 0.05)
    throw new RangeError('Take the two points at clearly different pressures, like 25 and 12.5 Pa.');
  const n = Math.log(q2 / q1) / span;
  const half = (1.96 * uncertainty * Math.SQRT2) / Math.abs(span);
  const [low, high] = [n - half, n + half];
  return {
    ratio: q2 / q1,
    n,
    low,
    high,
    result: high < 0.5 || low > 1 ? 'void' : n < 0.5 || n > 0.75 ? 'doubtful' : 'sound',
  };
}
/**
 * A duct reading with one's own kit's leakage: Q <= L within allowance; L < Q <= L + B unresolved; above: not tight.
 * The deduction is shown, never silent. Source: published duct tightness schools
 */
export function ductReading(q: number, limit: number, blank: number): 'within' | 'unresolved' | 'beyond' {
  positive(limit, 'The limit');
  if (!(q >= 0) || !(blank >= 0)) throw new RangeError('Reading and own kit must not be below zero.');
  // a figure that was entered as the limit itself may come out of its units a rounding above it
  const upTo = (bound: number) => q <= bound * (1 + 1e-9);
  return upTo(limit) ? 'within' : upTo(limit + blank) ? 'unresolved' : 'beyond';
}
/** Test pressure at which a range's least flow would be reached by a duct exactly at its limit. @returns Pa */
export function pressureToRead(limit: number, reference: number, least: number, n: number): number {
  positive(limit, 'The limit');
  positive(least, 'The least flow of the range');
  if (!(n >= 0.5 && n <= 1)) throw new RangeError('The exponent lies between 0.5 and 1.0; 0.6 when unknown.');
  return reference * (least / limit) ** (1 / n);
}
