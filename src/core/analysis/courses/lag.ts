/** What a wall's own lag makes of temperatures that were read beside it. Source: first-order lag */
import type { SectionFacts } from '../section';

/** What a wall lags behind a thermometer, s, with the standard deviation of its logarithm. House figure. */
export const LAG = { tau: 120, spread: 1 };

/** The warmth the section had at a reading's time, by a thermometer and the wall's lag, K above the first. */
export function lagged(facts: SectionFacts, t: Float64Array, tau: number, out: Float64Array): void {
  const w = facts.warmth;
  // the wall stands as the thermometer says when the trace begins
  let [k, held, before] = [0, w[0]!.k, 0];
  const shown = (s: number): number => {
    while (k < w.length - 2 && w[k + 1]!.t < s) k += 1;
    const [a, b] = [w[k]!, w[k + 1]!];
    const part = Math.min(1, Math.max(0, (s - a.t) / (b.t - a.t || 1)));
    return a.k + part * (b.k - a.k);
  };
  let last = shown(before);
  held = last;
  const first = held;
  for (let i = 0; i < t.length; i += 1) {
    const dt = t[i]! - before;
    const now = shown(t[i]!);
    if (dt > 0) {
      // the thermometer goes straight from one reading to the next, the wall follows it by its own time
      const e = Math.exp(-dt / tau);
      const slope = (now - last) / dt;
      held = now - slope * tau + (held - last + slope * tau) * e;
    }
    before = t[i]!;
    last = now;
    out[i] = held - first;
  }
}
