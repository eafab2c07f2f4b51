/**
 * What a running hold shows by itself: whether it has settled, and a sudden step. What the trace means is the analysis's.
 */
import type { Sample } from './section';

export interface Settling {
  readonly steady: boolean;
  /** movement over the last window, gauge's unit; null while the readings do not reach back that far */
  readonly moved: number | null;
  readonly windowMs: number;
}
/**
 * Whether the last window moved less than can be perceived and nothing was re-adjusted in it. The window is
 * max(60 s, hold / 10). Source: the work, general rules of judging
 */
export function settling(
  samples: readonly Sample[],
  at: number,
  windowMs: number,
  perceptible: number,
  lastTopUp: number | null,
): Settling {
  const from = at - windowMs;
  const sorted = [...samples].sort((a, b) => a.t - b.t);
  const inside = sorted.filter((s) => s.t >= from);
  const before = sorted.filter((s) => s.t < from).pop();
  // the value held at the window's start counts; without a reading before it the window is not covered
  const seen = before ? [before, ...inside] : inside;
  if (!before && !(inside[0] && inside[0].t <= from + 1000)) return { steady: false, moved: null, windowMs };
  if (!inside.length) return { steady: false, moved: null, windowMs };
  const values = seen.map((s) => s.p);
  const moved = Math.max(...values) - Math.min(...values);
  // exactly perceptible is movement; the differences of decimal figures are off by what floats cannot hold
  return {
    steady: moved < perceptible * (1 - 1e-9) && (lastTopUp === null || lastTopUp <= from),
    moved,
    windowMs,
  };
}

/** Two readings at most so far apart show a sudden change, ms; slower falls may be a leak. House figure. */
const STEP_MS = 20_000;
/** A step is at least so many perceptible movements, and so many times what the hold moves otherwise. House figures. */
const STEP_SIZE = 3;
/**
 * A sudden step among the readings: water drawn, a valve or a hand. A leak falls evenly; this much within seconds, and
 * nothing like it before or after, is something else. Offered as a disturbance, never assumed.
 * @param perceptible in the gauge's unit  @returns the newest step with its moment and size; null where there is none
 */
export function suddenStep(
  samples: readonly Sample[],
  perceptible: number,
): { readonly at: number; readonly change: number } | null {
  const s = [...samples].sort((a, b) => a.t - b.t);
  const between = s.slice(1).map((x, i) => ({ at: x.t, ms: x.t - s[i]!.t, change: x.p - s[i]!.p }));
  const sizes = between.map((b) => Math.abs(b.change)).sort((a, b) => a - b);
  // what the others do: the middle of them, the largest left out, since it is the one in question
  const usual = sizes.slice(0, -1)[Math.floor((sizes.length - 1) / 2)] ?? 0;
  const found = between
    .filter((b) => b.ms <= STEP_MS && Math.abs(b.change) >= Math.max(STEP_SIZE * perceptible, 5 * usual))
    .pop();
  return found ? { at: found.at, change: found.change } : null;
}
