/** Standing vacuums whose cause is known: a leak, moisture, or both, as gauges of several steps and hands of several habits read them. */
import { type VacuumCause, vacuumFit } from '@/core/medium/vacuum';
import { waterVapourPressure } from '@/core/medium/refrigerant';
import { seeded } from './pools';

export interface Traced {
  /** Which of the two slopes is more than three times the other at the start; null where neither is. */
  readonly truth: 'leak' | 'moisture' | null;
  readonly cause: VacuumCause;
}
/** One of many, by its seed; null where nothing came back that a gauge could show. */
export function standingVacuum(seed: number): Traced | null {
  const r = seeded(seed);
  const between = (a: number, b: number) => a + (b - a) * r();
  const minutes = r() < 0.7 ? 10 : 30;
  const start = between(20, 67);
  const tau = between(1, minutes * 0.6) * 60;
  const moisture = between(3, 33);
  const leak = moisture * 10 ** between(-1.2, 1.2);
  const celsius = between(5, 30);
  const step = [1, 0.1, 1, 5][Math.floor(r() * 4)]!;
  const every = [5, 10, 60][Math.floor(r() * 3)]!;
  const towards = (moisture * tau) / 60;
  if (towards > waterVapourPressure(celsius) || leak * minutes + towards < 20) return null;
  const normal = () => Math.sqrt(-2 * Math.log(1 - r())) * Math.cos(2 * Math.PI * r());
  const points = Array.from({ length: (minutes * 60) / every + 1 }, (_, i) => {
    const seconds = i * every;
    const pa =
      start + (leak * seconds) / 60 + towards * (1 - Math.exp(-seconds / tau)) + step * 0.5 * normal();
    return { seconds, pa: Math.round(pa / step) * step };
  });
  return {
    truth: leak > 3 * moisture ? 'leak' : moisture > 3 * leak ? 'moisture' : null,
    cause: vacuumFit(points, step, 2 * step, celsius).cause,
  };
}
/** How so many traces of one clear cause came out, percent. */
export function vacuumShares(count: number): { readonly right: number; readonly wrong: number } {
  let [right, wrong, seen] = [0, 0, 0];
  for (let seed = 1; seen < count; seed += 1) {
    const trace = standingVacuum(seed);
    if (!trace?.truth) continue;
    seen += 1;
    if (trace.cause === trace.truth) right += 1;
    else if (trace.cause === 'leak' || trace.cause === 'moisture') wrong += 1;
  }
  return { right: (right / count) * 100, wrong: (wrong / count) * 100 };
}
