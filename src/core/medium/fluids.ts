/** Constants of refrigerants. Source: published constants of the fluids; blends by mass as they are registered. */
export interface Pure {
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
/**
 * Critical temperatures of the blends, K. Source: makers' data sheets of the fluids; where two differ the lower one, so that less
 * is estimated.
 */
export const BLEND_CRITICAL: Readonly<Record<string, number>> = {
  R410A: 344.49,
  R407A: 355.2,
  R407C: 359.2,
  R407F: 355.8,
  R404A: 345.2,
  R507A: 343.77,
  R448A: 355.85,
  R449A: 354.65,
  R452A: 348.05,
  R454A: 354.85,
  R454B: 349.65,
  R454C: 355.55,
  R513A: 368.05,
  R450A: 377.55,
};
export const KIJ: Readonly<Record<string, number>> = {
  'R1234yf|R32': 0.036,
  'R1234yf|R134a': 0.019,
  'R125|R143a': -0.012,
  'R1234ze(E)|R32': 0.018,
  'R1234ze(E)|R134a': 0.016,
};
export const REFRIGERANTS: readonly string[] = [...Object.keys(PURE), ...Object.keys(BLENDS)];
/**
 * Global warming potential of the pure fluids over a hundred years, as Regulation (EU) 2024/573 lists them (annexes I to III);
 * a blend counts by mass. Check the edition in force.
 */
export const GWP: Readonly<Record<string, number>> = {
  R32: 675,
  R125: 3500,
  R134a: 1430,
  R143a: 4470,
  R152a: 124,
  R1234yf: 0.501,
  'R1234ze(E)': 1.37,
  R290: 0.02,
  R600a: 0,
  R744: 1,
  R717: 0,
};
