/**
 * The flow through all openings of a duct system: Q = C p^n, n between 0.5 (an orifice) and 1 (a crack). Source: power law of
 * openings
 */
export interface FlowPoint {
  /** Pa, the size of it */ readonly pressure: number;
  /** m3/s */ readonly flow: number;
  /** relative standard uncertainty of this flow */ readonly uncertainty: number;
}
export interface FlowLaw {
  /** m3/s at 1 Pa */ readonly c: number;
  readonly n: number;
  /** 95 % */ readonly low: number;
  readonly high: number;
  /** Flow at a pressure with its 95 % ends, m3/s. */
  readonly at: (pressure: number) => { readonly flow: number; readonly low: number; readonly high: number };
}
const TWO_SIDED_95 = 1.96;
/** Points closer together than this, in the logarithm of pressure, show no exponent. */
const LEAST_SPAN = 0.3;

/**
 * C and n from two or more points by weighted least squares of the logarithms, each point by its own uncertainty, which is known: the
 * interval is a normal one, not one of the residuals.
 * @throws RangeError for fewer than two points, points at nearly one pressure, or figures that are none
 */
export function fitFlowLaw(points: readonly FlowPoint[]): FlowLaw {
  if (points.length < 2) throw new RangeError('Two points at different pressures are needed.');
  for (const p of points)
    if (!(p.pressure > 0) || !(p.flow > 0) || !(p.uncertainty > 0) || !Number.isFinite(p.pressure * p.flow))
      throw new RangeError('Pressure, flow and its uncertainty must be above zero.');
  const x = points.map((p) => Math.log(p.pressure));
  if (Math.max(...x) - Math.min(...x) < LEAST_SPAN)
    throw new RangeError('Take the points at clearly different pressures, like 25 and 12.5 Pa.');
  const y = points.map((p) => Math.log(p.flow));
  const w = points.map((p) => 1 / p.uncertainty ** 2);
  const total = w.reduce((s, v) => s + v, 0);
  const mean = (of: readonly number[]) => of.reduce((s, v, i) => s + w[i]! * v, 0) / total;
  const [mx, my] = [mean(x), mean(y)];
  const sxx = x.reduce((s, v, i) => s + w[i]! * (v - mx) ** 2, 0);
  const n = x.reduce((s, v, i) => s + w[i]! * (v - mx) * (y[i]! - my), 0) / sxx;
  const half = TWO_SIDED_95 / Math.sqrt(sxx);
  return {
    c: Math.exp(my - n * mx),
    n,
    low: n - half,
    high: n + half,
    at: (pressure) => {
      const apart = Math.log(pressure) - mx;
      const log = my + n * apart;
      const u = TWO_SIDED_95 * Math.sqrt(1 / total + apart ** 2 / sxx);
      return { flow: Math.exp(log), low: Math.exp(log - u), high: Math.exp(log + u) };
    },
  };
}
/** What a fitted exponent says of the set-up: void where its whole interval lies outside 0.5 to 1, doubtful outside 0.5 to 0.75. */
export const exponentWord = (
  { n, low, high }: Pick<FlowLaw, 'n' | 'low' | 'high'>,
  doubtful = 0.75,
): 'sound' | 'doubtful' | 'void' =>
  high < 0.5 || low > 1 ? 'void' : n < 0.5 || n > doubtful ? 'doubtful' : 'sound';
