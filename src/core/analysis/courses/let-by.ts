/** A closed valve that passes, with or without a leak behind it. Source: laws of small leaks */
import { type Course, type Scene } from './course';

/** How many of its own times a trace may be long: where searches begin. */
const TURNS = [0.1, 0.5, 1, 3, 10, 40, 150];

export function letByCourses(s: Scene): Course[] {
  const { supply, pressure, perKelvin, warmth, step } = s.facts;
  if (supply === null || supply <= pressure + step) return [];
  // (V/P_atm) dp/dt = k_in (p_s - p) - k_out p: towards the pressure at which both are alike
  const towards = (kIn: number, kOut: number, t: Float64Array, out: Float64Array) => {
    const k = kIn + kOut;
    const rest = kIn * supply - k * pressure;
    for (let i = 0; i < t.length; i += 1)
      out[i]! += rest * (Math.abs(k * t[i]!) < 1e-9 ? t[i]! : -Math.expm1(-k * t[i]!) / k);
  };
  const own = s.whole - (s.logged ? perKelvin * warmth[warmth.length - 1]!.k : 0);
  const share = (supply - pressure) / supply;
  const rise = Math.max(0, s.whole / step) / share;
  const { unit, rate } = s;
  const alone = s.course({
    key: 'let-by',
    cause: 'let-by',
    before: 1,
    add: (x, t, out, at) => towards((x[at]! * unit) / supply, 0, t, out),
    rates: [rate],
    starts: [[rise]],
  });
  if (pressure <= 5 * step) return [alone];
  return [
    alone,
    s.course({
      key: 'let-by and leak',
      cause: 'let-by+leak',
      before: 0.2,
      add: (x, t, out, at) => towards((x[at]! * unit) / supply, (x[at + 1]! * unit) / pressure, t, out),
      rates: [rate, rate],
      starts: [
        [rise + rate.mid / 4, (rate.mid * share) / 4],
        ...TURNS.map((turns) => {
          // it nears its balance in so many of its own times, and ends where the readings do
          const k = turns / s.span;
          const rest = Math.max(0.01 * pressure, pressure + own / -Math.expm1(-turns));
          const kIn = Math.min(k, (k * rest) / supply);
          return [(kIn * supply) / unit, ((k - kIn) * pressure) / unit];
        }),
      ],
      leak: 1,
    }),
  ];
}
