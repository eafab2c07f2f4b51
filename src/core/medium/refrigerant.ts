/**
 * Bubble-point pressure of refrigerants by the Peng-Robinson equation with van der Waals mixing and binary interaction
 * coefficients. An estimate: a nameplate or a maker's table always wins. Source: Peng and Robinson, Ind. Eng. Chem.
 * Fundam. 15 (1976) 59; constants and kij from published constants of the fluids
 */
import { BLEND_CRITICAL, BLENDS, GWP, KIJ, PURE, type Pure } from './fluids';

const R = 8.314462618;

/** The part of a blend's critical temperature up to which its bubble point is estimated. */
const BLEND_PART = 0.99;
/** Up to here the estimate of a blend was checked against published tables, K; above it is rough. */
const CHECKED_TO = 62 + 273.15;
const kij = (a: string, b: string): number => KIJ[[a, b].sort().join('|')] ?? 0;

interface Component extends Pure {
  readonly name: string;
  /** mole fraction */ readonly x: number;
}
function components(name: string): Component[] {
  const single = PURE[name];
  if (single) return [{ ...single, name, x: 1 }];
  const blend = BLENDS[name];
  if (!blend)
    throw new RangeError(
      `"${name}" is not a refrigerant whose pressure can be estimated. Use the nameplate.`,
    );
  const moles = Object.entries(blend).map(([n, mass]) => ({ n, moles: mass / PURE[n]!.molar }));
  const total = moles.reduce((s, m) => s + m.moles, 0);
  return moles.map(({ n, moles: m }) => ({ ...PURE[n]!, name: n, x: m / total }));
}
/** Molar mass of a refrigerant, kg/mol. @throws RangeError for one that is not listed */
export const molarMass = (name: string): number => components(name).reduce((s, c) => s + c.x * c.molar, 0);
const meanCritical = (parts: readonly Component[]): number => parts.reduce((s, c) => s + c.x * c.tc, 0);
/**
 * Critical temperature, K. Of a pure fluid its own, of a blend as it is published. @throws RangeError for a name not listed
 */
export const criticalTemperature = (name: string): number =>
  PURE[name]?.tc ?? (components(name), BLEND_CRITICAL[name]!);

/** Roots of Z3 + c2 Z2 + c1 Z + c0, real ones only, ascending. */
function cubicRoots(c2: number, c1: number, c0: number): number[] {
  const q = (c2 * c2 - 3 * c1) / 9;
  const r = (2 * c2 ** 3 - 9 * c2 * c1 + 27 * c0) / 54;
  if (r * r < q ** 3) {
    const theta = Math.acos(Math.max(-1, Math.min(1, r / Math.sqrt(q ** 3))));
    return [0, 1, 2]
      .map((k) => -2 * Math.sqrt(q) * Math.cos((theta + 2 * Math.PI * k) / 3) - c2 / 3)
      .sort((a, b) => a - b);
  }
  const s = -Math.sign(r) * Math.cbrt(Math.abs(r) + Math.sqrt(r * r - q ** 3));
  return [s + (s === 0 ? 0 : q / s) - c2 / 3];
}

/** ln of the fugacity coefficients of a phase. */
function lnPhi(
  a: readonly number[],
  b: readonly number[],
  cross: readonly (readonly number[])[],
  x: readonly number[],
  t: number,
  p: number,
  phase: 'liquid' | 'vapour',
): number[] {
  let am = 0;
  let bm = 0;
  for (let i = 0; i < x.length; i++) {
    bm += x[i]! * b[i]!;
    for (let j = 0; j < x.length; j++) am += x[i]! * x[j]! * cross[i]![j]!;
  }
  const A = (am * p) / (R * t) ** 2;
  const B = (bm * p) / (R * t);
  const roots = cubicRoots(B - 1, A - 3 * B * B - 2 * B, -(A * B - B * B - B ** 3)).filter((z) => z > B);
  const z = phase === 'liquid' ? roots[0]! : roots[roots.length - 1]!;
  const s = Math.SQRT2;
  return x.map((_, i) => {
    const sum = x.reduce((acc, xj, j) => acc + xj * cross[i]![j]!, 0);
    return (
      (b[i]! / bm) * (z - 1) -
      Math.log(z - B) -
      (A / (2 * s * B)) * ((2 * sum) / am - b[i]! / bm) * Math.log((z + (1 + s) * B) / (z + (1 - s) * B))
    );
  });
}

interface Mixture {
  readonly a: readonly number[];
  readonly b: readonly number[];
  readonly cross: readonly (readonly number[])[];
  readonly x: readonly number[];
}
function mixtureAt(parts: readonly Component[], kelvin: number): Mixture {
  const a = parts.map((c) => {
    const m = 0.37464 + 1.54226 * c.omega - 0.26992 * c.omega ** 2;
    return ((0.45724 * (R * c.tc) ** 2) / c.pc) * (1 + m * (1 - Math.sqrt(kelvin / c.tc))) ** 2;
  });
  return {
    a,
    b: parts.map((c) => (0.0778 * R * c.tc) / c.pc),
    cross: parts.map((ci, i) => parts.map((cj, j) => Math.sqrt(a[i]! * a[j]!) * (1 - kij(ci.name, cj.name)))),
    x: parts.map((c) => c.x),
  };
}
/**
 * Saturation of a pure fluid: between the two extremes of its isotherm the fugacities of liquid and vapour cross once. Found by
 * halving, which cannot miss near the critical point where iteration does.
 */
function purePressure(c: Component, kelvin: number): number {
  const { a, b, cross } = mixtureAt([c], kelvin);
  const pressure = (v: number) => (R * kelvin) / (v - b[0]!) - a[0]! / (v * v + 2 * b[0]! * v - b[0]! ** 2);
  const slope = (v: number) =>
    (-R * kelvin) / (v - b[0]!) ** 2 +
    (a[0]! * (2 * v + 2 * b[0]!)) / (v * v + 2 * b[0]! * v - b[0]! ** 2) ** 2;
  // the isotherm falls, rises between its extremes, and falls again; the volume at which it rises most lies between them
  const critical = 3.9514 * b[0]!;
  const steepest = [...Array(400).keys()]
    .map((i) => b[0]! * (1.05 + i * 0.02) + (i > 200 ? (i - 200) ** 2 * 0.002 * b[0]! : 0))
    .concat(critical)
    .reduce((best, v) => (slope(v) > slope(best) ? v : best), critical);
  if (!(slope(steepest) > 0)) return c.pc; // so near its critical point that both phases are one
  const root = (from: number, to: number) => {
    let [lo, hi] = [from, to];
    for (let i = 0; i < 200; i++) {
      const mid = (lo + hi) / 2;
      if (slope(mid) > 0 === slope(hi) > 0) hi = mid;
      else lo = mid;
    }
    return (lo + hi) / 2;
  };
  let far = steepest;
  while (slope(far) > 0) far *= 1.5;
  const least = pressure(root(b[0]! * 1.000001, steepest));
  const most = pressure(root(steepest, far));
  let [lo, hi] = [Math.max(least, most * 1e-9), most];
  const liquidHeavier = (p: number) =>
    lnPhi(a, b, cross, [1], kelvin, p, 'liquid')[0]! > lnPhi(a, b, cross, [1], kelvin, p, 'vapour')[0]!;
  for (let i = 0; i < 200 && hi - lo > 1e-12 * hi; i++) {
    const mid = (lo + hi) / 2;
    if (liquidHeavier(mid)) lo = mid;
    else hi = mid;
  }
  return (lo + hi) / 2;
}
interface Bubble {
  readonly p: number;
  readonly k: readonly number[];
}
/** Successive substitution from a guess; null where it ends in the trivial answer (vapour = liquid) or not at all. */
function substitute({ a, b, cross, x }: Mixture, kelvin: number, guess: Bubble): Bubble | null {
  let p = guess.p;
  let y = guess.k.map((ki, i) => ki * x[i]!);
  const total = y.reduce((s, v) => s + v, 0);
  y = y.map((v) => v / total);
  for (let round = 0; round < 4000; round++) {
    const liquid = lnPhi(a, b, cross, x, kelvin, p, 'liquid');
    const vapour = lnPhi(a, b, cross, y, kelvin, p, 'vapour');
    const k = liquid.map((l, i) => Math.exp(l - vapour[i]!));
    const sum = k.reduce((s, ki, i) => s + ki * x[i]!, 0);
    if (!Number.isFinite(sum) || k.every((ki) => Math.abs(ki - 1) < 1e-5)) return null;
    y = k.map((ki, i) => (ki * x[i]!) / sum);
    p *= sum;
    if (Math.abs(sum - 1) < 1e-11) return { p, k };
  }
  return null;
}
/** The bubble point of a blend, followed up from a temperature at which any guess leads to it. */
function blendPressure(parts: readonly Component[], kelvin: number): number | null {
  const from = Math.min(kelvin, meanCritical(parts) * 0.85);
  const wilson = parts.map((c) => c.pc * Math.exp(5.373 * (1 + c.omega) * (1 - c.tc / from)));
  const p = parts.reduce((s, c, i) => s + c.x * wilson[i]!, 0);
  let here = substitute(mixtureAt(parts, from), from, { p, k: wilson.map((w) => w / p) });
  let before: { t: number; at: Bubble } | null = null;
  let t = from;
  let step = 4;
  while (here && t < kelvin) {
    const next = Math.min(kelvin, t + step);
    const carry = (now: number, then: number | undefined, span: number): number =>
      then === undefined ? now : now * Math.exp((Math.log(now / then) * (next - t)) / span);
    const span = before ? t - before.t : 1;
    const guess: Bubble = {
      p: carry(here.p, before?.at.p, span),
      k: here.k.map((ki, i) => carry(ki, before?.at.k[i], span)),
    };
    const found: Bubble | null = substitute(mixtureAt(parts, next), next, guess);
    // a jump is the other branch, not the next point of this one
    if (found && found.p > here.p && found.p < here.p * (1 + 0.06 * (next - t))) {
      before = { t, at: here };
      here = found;
      t = next;
    } else if ((step /= 2) < 0.01) return null;
  }
  return here?.p ?? null;
}

/**
 * Saturation (bubble-point) pressure at a temperature, absolute, Pa. An estimate, good to about 1.5 % from -10 to 62 C
 * for the blends listed.
 * @throws RangeError above the critical temperature (there is no bubble point: take the nameplate) and for a name not listed
 */
export function bubblePressure(name: string, kelvin: number): number {
  const parts = components(name);
  if (!(kelvin > 150)) throw new RangeError('The temperature is too low for this estimate.');
  const [single, second] = parts;
  const most = second ? criticalTemperature(name) * BLEND_PART : single!.tc;
  const p = kelvin >= most ? null : second ? blendPressure(parts, kelvin) : purePressure(single!, kelvin);
  if (p === null)
    throw new RangeError(
      `Above or close to the critical temperature of ${name} (${(criticalTemperature(name) - 273.15).toFixed(0)} °C) there is no bubble point to estimate. Take the pressure from the nameplate.`,
    );
  return p;
}
/**
 * The bubble point with how far it can be trusted: a blend above 62 °C is a rough estimate, for which a nameplate is asked.
 * @throws RangeError as bubblePressure
 */
export const saturation = (
  name: string,
  kelvin: number,
): { readonly pa: number; readonly rough: boolean } => ({
  pa: bubblePressure(name, kelvin),
  rough: name in BLENDS && kelvin > CHECKED_TO,
});

/**
 * Vapour pressure of water over liquid water or ice, absolute, Pa: what moisture in a circuit rises towards. Source: Buck,
 * J. Appl. Meteorol. 20 (1981) 1527, as revised 1996  @param celsius -40 to 60
 */
export function waterVapourPressure(celsius: number): number {
  if (!(celsius >= -40 && celsius <= 60))
    throw new RangeError('The vapour pressure of water is known here from −40 to 60 °C.');
  return celsius < 0
    ? 611.15 * Math.exp((23.036 - celsius / 333.7) * (celsius / (279.82 + celsius)))
    : 611.21 * Math.exp((18.678 - celsius / 234.5) * (celsius / (257.14 + celsius)));
}
/** kg of CO2 for each kg of a listed refrigerant. @throws RangeError for one that is not listed: its factor is entered */
export function warmingPotential(name: string): number {
  const parts = BLENDS[name] ?? (name in PURE ? { [name]: 100 } : undefined);
  if (!parts) throw new RangeError(`"${name}" has no factor here. Enter the one of its data sheet.`);
  return Object.entries(parts).reduce((sum, [n, mass]) => sum + GWP[n]! * (mass / 100), 0);
}

/** Second virial coefficient of nitrogen, m3/mol, 250 to 350 K: -4.5e-6 at 298 K, rising 0.2e-6 per K. */
const nitrogenB = (kelvin: number): number => -4.5e-6 + 0.2e-6 * (kelvin - 298);
/**
 * Pressure of nitrogen in a closed circuit at another temperature: P follows T, with the second virial coefficient for
 * what real nitrogen adds. @param p absolute, Pa  @returns absolute, Pa. Source: published constants of the fluids
 */
export function nitrogenAt(p: number, kelvin: number, other: number): number {
  if (!(p > 0) || !(kelvin > 0) || !(other > 0))
    throw new RangeError('Pressure and temperatures must be absolute and above zero.');
  // molar volume from Z = 1 + B/v, kept in the closed circuit
  const ideal = (R * kelvin) / p;
  const v = ideal / 2 + Math.sqrt((ideal / 2) ** 2 + ideal * nitrogenB(kelvin));
  return ((R * other) / v) * (1 + nitrogenB(other) / v);
}
