/** How a leak brings a pressure down by its law. Source: laws of small leaks */
import { drive } from '@/core/medium/leak';
import { cubic } from '../noise';
import type { SectionFacts } from '../section';

/** Exponent of a leak by the pressure that drives it: a hole one half, a hairline one; a normal draw says where between. */
export const power = (z: number): number => 0.75 + 0.25 * Math.tanh(z);
/** Takes off what a leak has brought the pressure down, by its exponent and its slope at the beginning. */
export function fallOf(
  facts: SectionFacts,
): (exponent: number, slope: number, t: Float64Array, out: Float64Array) => void {
  const p0 = facts.filling === 'level' ? 0 : facts.pressure;
  const straight = (slope: number, t: Float64Array, out: Float64Array) => {
    for (let i = 0; i < t.length; i += 1) out[i]! -= slope * t[i]!;
  };
  if (!(p0 > 0)) return (_, slope, t, out) => straight(slope, t, out);
  const a = facts.atmosphere;
  const gas = facts.filling === 'gas';
  // the last one is kept: a slope's own derivative asks for the same again
  let way: Way | null = null;
  return (n, slope, t, out) => {
    if (slope <= 0) straight(slope, t, out);
    else if (gas && n === 1) {
      // p / (p + 2A) falls by its exponential; its slope at the beginning is p (p + 2A) / 2A of the constant
      const k = (slope * 2 * a) / (p0 * (p0 + 2 * a));
      for (let i = 0; i < t.length; i += 1) {
        const left = (p0 / (p0 + 2 * a)) * Math.exp(-k * t[i]!);
        out[i]! -= p0 - (2 * a * left) / (1 - left);
      }
    } else if (!gas) {
      // p' = -s (p / p0)^n
      const k = slope / p0;
      for (let i = 0; i < t.length; i += 1)
        out[i]! -=
          n > 0.999
            ? -p0 * Math.expm1(-k * t[i]!)
            : p0 * (1 - Math.max(0, 1 - (1 - n) * k * t[i]!) ** (1 / (1 - n)));
    } else {
      // p' = -s (drive / drive at the beginning)^n: how long it takes to each pressure is the same for every s but for its scale
      if (way?.n !== n) way = wayDown(p0, a, n);
      let k = 0;
      for (let i = 0; i < t.length; i += 1) {
        const at = slope * t[i]!;
        while (k < WAY - 1 && way.time[k + 1]! < at) k += 1;
        const [t0, t1] = [way.time[k]!, way.time[k + 1]!];
        const h = t1 - t0;
        if (at >= t1) {
          out[i]! -= p0 - way.p[k + 1]!;
          continue;
        }
        // a cubic through pressures and slopes
        const p = cubic((at - t0) / h, way.p[k]!, h * way.slope[k]!, way.p[k + 1]!, h * way.slope[k + 1]!);
        out[i]! -= p0 - p;
      }
    }
  };
}
const WAY = 48;
interface Way {
  readonly n: number;
  readonly p: Float64Array;
  /** Pa: time by a slope of one */ readonly time: Float64Array;
  readonly slope: Float64Array;
}
/** Pressures on the way down, with the time to each and the slope there, for a slope of one at the beginning. */
function wayDown(p0: number, atmosphere: number, n: number): Way {
  const whole = drive(p0, atmosphere);
  const speed = (p: number) => (drive(p, atmosphere) / whole) ** n;
  const p = new Float64Array(WAY + 1);
  const time = new Float64Array(WAY + 1);
  const slope = new Float64Array(WAY + 1);
  for (let i = 0; i <= WAY; i += 1) {
    // denser towards the end, where it slows down; to a thousandth, below which no gauge looks
    p[i] = p0 * Math.max(1e-3, (1 - i / WAY) ** 1.5);
    slope[i] = -speed(p[i]!);
    // Simpson's rule over one step
    if (i) {
      const mid = (p[i]! + p[i - 1]!) / 2;
      time[i] =
        time[i - 1]! + ((p[i - 1]! - p[i]!) / 6) * (-1 / slope[i]! - 1 / slope[i - 1]! + 4 / speed(mid));
    }
  }
  return { n, p, time, slope };
}
