/**
 * Bubble-point pressure of refrigerants by the Peng-Robinson equation with van der Waals mixing and binary interaction
 * coefficients. An estimate: a nameplate or a maker's table always wins. Source: Peng and Robinson, Ind. Eng. Chem.
 * Fundam. 15 (1976) 59; constants and kij from published constants of the fluids
 */
const R = 8.314462618;

interface Pure {
  readonly tc: number;
  /** Pa */ readonly pc: number;
  readonly omega: number;
  /** kg/mol */ readonly molar: number;
}
const pure = (tc: number, pcMPa: number, omega: number, m: number): Pure => ({
  tc,
  pc: pcMPa * 1e6,
  omega,
  molar: m / 1000,
});
export const PURE: Readonly<Record<string, Pure>> = {
  R32: pure(351.255, 5.782, 0.2769, 52.024),
  R125: pure(339.173, 3.6177, 0.3052, 120.02),
  R134a: pure(374.21, 4.05928, 0.32684, 102.032),
  R143a: pure(345.857, 3.761, 0.2615, 84.041),
  R1234yf: pure(367.85, 3.3822, 0.276, 114.042),
  'R1234ze(E)': pure(382.513, 3.6349, 0.313, 114.042),
  R290: pure(369.89, 4.2512, 0.1521, 44.096),
  R600a: pure(407.81, 3.629, 0.184, 58.122),
  R744: pure(304.1282, 7.3773, 0.22394, 44.01),
  R717: pure(405.4, 11.333, 0.25601, 17.031),
  R152a: pure(386.411, 4.5168, 0.2752, 66.051),
};
/** Composition by mass, percent. */
export const BLENDS: Readonly<Record<string, Readonly<Record<string, number>>>> = {
  R410A: { R32: 50, R125: 50 },
  R407A: { R32: 20, R125: 40, R134a: 40 },
  R407C: { R32: 23, R125: 25, R134a: 52 },
  R407F: { R32: 30, R125: 30, R134a: 40 },
  R404A: { R125: 44, R143a: 52, R134a: 4 },
  R507A: { R125: 50, R143a: 50 },
  R448A: { R32: 26, R125: 26, R1234yf: 20, R134a: 21, 'R1234ze(E)': 7 },
  R449A: { R32: 24.3, R125: 24.7, R1234yf: 25.3, R134a: 25.7 },
  R452A: { R32: 11, R125: 59, R1234yf: 30 },
  R454A: { R32: 35, R1234yf: 65 },
  R454B: { R32: 68.9, R1234yf: 31.1 },
  R454C: { R32: 21.5, R1234yf: 78.5 },
  R513A: { R1234yf: 56, R134a: 44 },
  R450A: { R134a: 42, 'R1234ze(E)': 58 },
};
const KIJ: Readonly<Record<string, number>> = {
  'R1234yf|R32': 0.036,
  'R1234yf|R134a': 0.019,
  'R125|R143a': -0.012,
  'R1234ze(E)|R32': 0.018,
  'R1234ze(E)|R134a': 0.016,
};
const kij = (a: string, b: string): number => KIJ[[a, b].sort().join('|')] ?? 0;
export const REFRIGERANTS: readonly string[] = [...Object.keys(PURE), ...Object.keys(BLENDS)];

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
/** Lowest critical temperature of the parts by mole fraction, K: above it no bubble point is offered. */
export const criticalTemperature = (name: string): number =>
  components(name).reduce((s, c) => s + c.x * c.tc, 0);

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

/**
 * Saturation (bubble-point) pressure at a temperature, absolute, Pa. An estimate, good to about 1.5 % from -10 to 62 C
 * for the blends listed.
 * @throws RangeError above the critical temperature (there is no bubble point: take the nameplate) and for a name not listed
 */
export function bubblePressure(name: string, kelvin: number): number {
  const parts = components(name);
  if (!(kelvin > 150)) throw new RangeError('The temperature is too low for this estimate.');
  if (kelvin >= criticalTemperature(name) * 0.995)
    throw new RangeError(
      `Above the critical temperature of ${name} (${(criticalTemperature(name) - 273.15).toFixed(0)} °C) there is no bubble point. Take the pressure from the nameplate.`,
    );
  const a = parts.map((c) => {
    const m = 0.37464 + 1.54226 * c.omega - 0.26992 * c.omega ** 2;
    return ((0.45724 * (R * c.tc) ** 2) / c.pc) * (1 + m * (1 - Math.sqrt(kelvin / c.tc))) ** 2;
  });
  const b = parts.map((c) => (0.0778 * R * c.tc) / c.pc);
  const cross = parts.map((ci, i) =>
    parts.map((cj, j) => Math.sqrt(a[i]! * a[j]!) * (1 - kij(ci.name, cj.name))),
  );
  const x = parts.map((c) => c.x);
  // Wilson's first guess, then successive substitution: p and y until the vapour's fractions sum to one
  const wilson = parts.map((c) => c.pc * Math.exp(5.373 * (1 + c.omega) * (1 - c.tc / kelvin)));
  let p = wilson.reduce((s, w, i) => s + x[i]! * w, 0);
  let y = wilson.map((w, i) => (x[i]! * w) / p);
  for (let round = 0; round < 200; round++) {
    const liquid = lnPhi(a, b, cross, x, kelvin, p, 'liquid');
    const vapour = lnPhi(a, b, cross, y, kelvin, p, 'vapour');
    const k = liquid.map((l, i) => Math.exp(l - vapour[i]!));
    const sum = k.reduce((s, ki, i) => s + ki * x[i]!, 0);
    y = k.map((ki, i) => (ki * x[i]!) / sum);
    p *= sum;
    if (Math.abs(sum - 1) < 1e-10) return p;
  }
  throw new RangeError(
    `The pressure of ${name} could not be estimated at this temperature. Use the nameplate.`,
  );
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
