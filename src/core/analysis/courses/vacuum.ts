/** What comes back into a vacuum: air, evenly; vapour, fast and then slower. Source: the shape of a rising vacuum */
import { type Add, type Course, type Scene, start } from './course';

/** Water vapour from wet walls: Pa, and s. House figures. */
const VAPOUR = { pa: 150, spread: 1, tau: 200, tauSpread: 0.8 };

export function vacuumCourses(s: Scene): Course[] {
  const rise = Math.max(0, s.whole / s.facts.step);
  const vapour: Add = (x, t, out, at) => {
    const a = VAPOUR.pa * Math.exp(VAPOUR.spread * x[at]!);
    const tau = VAPOUR.tau * Math.exp(VAPOUR.tauSpread * x[at + 1]!);
    for (let i = 0; i < t.length; i += 1) out[i]! -= a * Math.expm1(-t[i]! / tau);
  };
  const evenly = (q: number, t: Float64Array, out: Float64Array) => {
    for (let i = 0; i < t.length; i += 1) out[i]! += q * s.unit * t[i]!;
  };
  const z = start(Math.log(Math.max(1e-3, s.whole / VAPOUR.pa)) / VAPOUR.spread);
  return [
    s.course({
      key: 'leak, even',
      cause: 'leak',
      before: 1,
      add: (x, t, out, at) => evenly(x[at]!, t, out),
      rates: [s.rate],
      starts: [[rise]],
      leak: 0,
    }),
    s.course({
      key: 'moisture',
      cause: 'moisture',
      before: 1,
      own: 2,
      add: vapour,
      starts: [0, -1.2, 1.2].map((tau) => [z, tau]),
    }),
    s.course({
      key: 'moisture and leak',
      cause: 'moisture+leak',
      before: 0.3,
      own: 2,
      add: (x, t, out, at) => {
        vapour(x, t, out, at);
        evenly(x[at + 2]!, t, out);
      },
      rates: [s.rate],
      starts: [0, -1.2].map((tau) => [z - 0.7, tau, rise / 2]),
      leak: 0,
    }),
  ];
}
