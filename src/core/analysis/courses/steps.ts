/** A knock, a tap drawn, a valve touched: the same course before and after, moved at a moment. */
import type { Readings } from '../noise';
import { type Course, type Scene } from './course';

/** A disturbance moves so many perceptible movements. House figure. */
const KNOCKS = 10;

/** @param left what the closest smooth course leaves of each reading */
export function stepCourses(s: Scene, left: Float64Array): Course[] {
  const size = KNOCKS * s.facts.perceptible;
  return jumpsOf(s.readings, left).map((jump) =>
    s.course({
      key: `step at ${Math.round(jump.t)} s`,
      cause: 'step',
      // where it stands among so many readings was not known beforehand
      before: 0.3 / s.readings.t.length,
      own: 1,
      add: (x, t, out, at) => {
        const h = size * x[at]!;
        const q = x[at + 1]! * s.unit;
        for (let i = 0; i < t.length; i += 1) out[i]! += (t[i]! >= jump.t ? h : 0) - q * t[i]!;
      },
      rates: [s.rate],
      starts: [[jump.size / size, Math.max(0, -(s.whole - jump.size) / s.facts.step)]],
    }),
  );
}
const JUMPS = 3;
/** Where a step takes most off what no smooth course leaves (a cubic; a straight line where readings are few). */
function jumpsOf(r: Readings, smooth: Float64Array): { t: number; size: number }[] {
  const n = r.t.length;
  if (n < 5) return [];
  const left = Float64Array.from(smooth);
  const base: Float64Array[] = [];
  const span = r.t[n - 1]! || 1;
  const dot = (a: Float64Array, b: Float64Array) => a.reduce((sum, v, i) => sum + v * b[i]!, 0);
  for (let k = 0; k <= (n >= 16 ? 3 : 1); k += 1) {
    const v = Float64Array.from(r.t, (t) => (t / span) ** k);
    for (const q of base) {
      const d = dot(q, v);
      for (let i = 0; i < n; i += 1) v[i]! -= d * q[i]!;
    }
    const size = Math.sqrt(dot(v, v));
    base.push(v.map((x) => x / size));
  }
  for (const q of base) {
    const d = dot(q, left);
    for (let i = 0; i < n; i += 1) left[i]! -= d * q[i]!;
  }
  // of a step from each reading on: how much of it no smooth course takes up, and how far it goes with what is left
  const found: { t: number; size: number; gain: number; i: number }[] = [];
  const tails = base.map(() => 0);
  let along = 0;
  for (let i = n - 1; i >= 1; i -= 1) {
    base.forEach((q, k) => (tails[k]! += q[i]!));
    along += left[i]!;
    const own = n - i - tails.reduce((sum, v) => sum + v * v, 0);
    if (own < 0.05) continue;
    found.push({ t: (r.t[i]! + r.t[i - 1]!) / 2, size: along / own, gain: (along * along) / own, i });
  }
  found.sort((a, b) => b.gain - a.gain);
  const apart: typeof found = [];
  for (const f of found)
    if (apart.length < JUMPS && Math.abs(f.size) > r.step && apart.every((x) => Math.abs(x.i - f.i) > 1))
      apart.push(f);
  return apart;
}
