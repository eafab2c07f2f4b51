/** Warmth as a course: a drift that nobody read, a fill that cools. Source: ideal gas, and water, in a closed section */
import { type Add, type Course, type Scene, sharesOf, start, together, zeros } from './course';

/** What a fill's own warmth is, K, and how long it lasts, s with the standard deviation of its logarithm. House figures. */
const FILL = { gas: { k: 1, tau: 300, spread: 1 }, other: { k: 1, tau: 900, spread: 0.9 } };
/** Warmth of a fill that a thermometer on the pipe does not see, K. House figure. */
const UNSEEN = 0.3;
const SHAPES = [-2, -1, 0, 1];

export function warmthCourses(s: Scene): Course[] {
  const { perKelvin, filling } = s.facts;
  if (perKelvin === 0) return [];
  const fill = FILL[filling === 'gas' ? 'gas' : 'other'];
  const size = perKelvin * (s.logged ? UNSEEN : fill.k);
  const add: Add = (x, t, out, at) => {
    const a = size * x[at]!;
    const tau = fill.tau * Math.exp(fill.spread * x[at + 1]!);
    for (let i = 0; i < t.length; i += 1) out[i]! -= a * Math.expm1(-t[i]! / tau);
  };
  const z = start(s.whole / (size * -Math.expm1(-s.span / fill.tau)));
  return [
    ...(s.logged ? [] : [s.course({ key: 'drift', cause: 'temperature', before: 0.5, starts: [[]] })]),
    s.course({
      key: 'warmth',
      cause: 'temperature',
      before: 0.5,
      own: 2,
      add,
      starts: SHAPES.map((shape) => [z, shape]),
    }),
    s.course({
      key: 'warmth and leak',
      cause: 'temperature+leak',
      before: 0.2,
      own: 2 + s.curves,
      add: (x, t, out, at) => {
        add(x, t, out, at);
        s.leaving(x, t, out, at + 2, x[at + 2 + s.curves]!);
      },
      rates: [s.rate],
      starts: SHAPES.map((shape) => {
        const tau = fill.tau * Math.exp(fill.spread * shape);
        const [a, q] = sharesOf(s, (t) => -size * Math.expm1(-t / tau));
        return [start(a), shape, ...zeros(s.curves), q];
      }),
      leak: 0,
      after: together(s, 'warmth'),
    }),
  ];
}
