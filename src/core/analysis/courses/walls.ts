/** Walls that stretch and air that settles: falls that fade by themselves. Source: elastic water and pipe wall */
import { type Add, type Course, type Scene, sharesOf, start, together, zeros } from './course';

/** Stretch per e-fold of time, as a part of the pressure; its time, s. House figures. */
const STRETCH = { part: 0.012, spread: 0.9, tau: 60, tauSpread: 1.2 };
/** Air that is still settling: part of the pressure, or m of a level; its time, s. House figures. */
const AIR = { part: 0.01, level: 0.006, spread: 1, tau: 100, tauSpread: 0.7 };

export function stretchCourses(s: Scene): Course[] {
  if (!s.facts.stretches) return [];
  const size = s.facts.pressure * STRETCH.part;
  const add: Add = (x, t, out, at) => {
    const a = size * Math.exp(STRETCH.spread * x[at]!);
    const tau = STRETCH.tau * Math.exp(STRETCH.tauSpread * x[at + 1]!);
    for (let i = 0; i < t.length; i += 1) out[i]! -= a * Math.log1p(t[i]! / tau);
  };
  const fell = Math.max(1e-3, -s.whole / (size * Math.log1p(s.span / STRETCH.tau)));
  const z = start(Math.log(fell) / STRETCH.spread);
  return [
    s.course({
      key: 'stretch',
      cause: 'stretch',
      before: 1,
      own: 2,
      add,
      starts: [0, -1.5, 1.5].map((tau) => [z, tau]),
    }),
    s.course({
      key: 'stretch and leak',
      cause: 'stretch+leak',
      before: 0.35,
      own: 2 + s.curves,
      add: (x, t, out, at) => {
        add(x, t, out, at);
        s.leaving(x, t, out, at + 2, x[at + 2 + s.curves]!);
      },
      rates: [s.rate],
      starts: [0, -1.5, 1.5].map((shape) => {
        const tau = STRETCH.tau * Math.exp(STRETCH.tauSpread * shape);
        const [a, q] = sharesOf(s, (t) => -size * Math.log1p(t / tau));
        return [start(Math.log(Math.max(0.02, a)) / STRETCH.spread), shape, ...zeros(s.curves), q];
      }),
      leak: 0,
      after: together(s, 'stretch'),
    }),
  ];
}
export function airCourses(s: Scene): Course[] {
  const { filling, pressure } = s.facts;
  if (filling !== 'liquid' && filling !== 'level') return [];
  const size = filling === 'level' ? AIR.level : AIR.part * Math.max(pressure, 1000);
  const add: Add = (x, t, out, at) => {
    const a = size * Math.exp(AIR.spread * x[at]!);
    const tau = AIR.tau * Math.exp(AIR.tauSpread * x[at + 1]!);
    for (let i = 0; i < t.length; i += 1) out[i]! += a * Math.expm1(-t[i]! / tau);
  };
  const z = start(Math.log(Math.max(1e-3, -s.whole / size)) / AIR.spread);
  const air = s.course({
    key: 'air',
    cause: 'air',
    before: 0.7,
    own: 2,
    add,
    starts: [0, -1, 1].map((tau) => [z, tau]),
  });
  if (filling === 'liquid') return [air];
  return [
    air,
    s.course({
      key: 'air, then leak',
      cause: 'leak',
      before: 0.2,
      own: 2,
      add: (x, t, out, at) => {
        add(x, t, out, at);
        for (let i = 0; i < t.length; i += 1) out[i]! -= x[at + 2]! * s.unit * t[i]!;
      },
      rates: [s.rate],
      starts: [
        [z - 0.7, 0, s.slope / 2],
        [z - 0.7, -1, s.slope],
      ],
      leak: 0,
    }),
  ];
}
