/**
 * Leaks that a passing valve hides, by other physics: moles in and out, small steps. The two let-by holds that are proposed where
 * one stood in balance, and whether they tell the leak.
 */
import { twoHolds, valveAndLeak } from '@/core/medium/two-slopes';
import { normal, seeded } from '../../scripts/honesty/worlds';

const A = 101_325;
const LITRE_HOUR = 1e-3 / 3600;
const WORKING = 2000;
/** Standard uncertainty of a thermometer's difference, K. */
const KELVIN = 0.1;

export interface Unmasked {
  hidden: number;
  proposed: number;
  unmasked: number;
  /** sound sections behind a valve that passes, and those called leaking */ sound: number;
  called: number;
}
export const unmasked = (): Unmasked => ({ hidden: 0, proposed: 0, unmasked: 0, sound: 0, called: 0 });
/** What a gauge shows after so long, by the moles that pass in small steps. */
function after(
  volume: number,
  supply: number,
  kIn: number,
  kOut: number,
  p0: number,
  seconds: number,
): number {
  let p = p0;
  const squares = (x: number) => ((x + A) ** 2 - A ** 2) / (2 * A);
  for (let i = 0; i < 400; i += 1)
    p += ((A * (kIn * (squares(supply) - squares(p)) - kOut * squares(p))) / volume) * (seconds / 400);
  return p;
}
export function unmask(into: Unmasked, seed: number): void {
  const r = seeded(seed);
  const between = (a: number, b: number) => a + (b - a) * r();
  const volume = 0.005 * 12 ** r();
  const unsure = 0.05;
  const supply = between(1900, 2500);
  const first = between(700, 1000);
  const leaks = r() < 0.7;
  // more than twice the leak that matters, hidden by as much as the valve passes at the first pressure
  const kOut = leaks ? (between(2, 6) * LITRE_HOUR) / WORKING : 0;
  const kIn = leaks ? (kOut * first) / (supply - first) : (between(0, 2) * LITRE_HOUR) / supply;
  const step = 1;
  const perKelvin = A / 293;
  const error = (minutes: number) => Math.hypot(step / Math.sqrt(6), perKelvin * KELVIN) / (minutes * 60);
  const hold = (pressure: number, minutes: number) => {
    const warmth = perKelvin * KELVIN * normal(r);
    const round = (p: number) => Math.round(p / step) * step;
    const end = round(after(volume, supply, kIn, kOut, pressure, minutes * 60) + warmth + 0.4 * normal(r));
    const start = round(pressure + 0.4 * normal(r));
    return { pressure: (start + end) / 2, slope: (end - start) / (minutes * 60), error: error(minutes) };
  };
  const known = { value: volume * (1 + unsure * normal(r)), unsure };
  if (leaks) into.hidden += 1;
  else into.sound += 1;
  const proposal = twoHolds(known, supply, first, error, WORKING, 2 * LITRE_HOUR);
  if (!proposal) return;
  const [one, other] = proposal.pressures.map((p) => hold(p, proposal.minutes));
  const found = valveAndLeak(known, supply, one!, other!, WORKING);
  const says = found !== null && found.leak.low > 0 && found.leak.value > LITRE_HOUR;
  if (leaks) {
    into.proposed += 1;
    if (says) into.unmasked += 1;
  } else if (says) into.called += 1;
}
