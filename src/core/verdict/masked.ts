/**
 * A leak that a passing valve hides: two let-by holds at two pressures tell both apart. The one case in which more than the rule
 * may take a Tight away. Source: laws of small leaks
 */
import { defaultTemperatureUncertainty } from '@/core/adequacy/gas';
import { LOGGED_KELVIN } from '@/core/adequacy/rate';
import { movesOf } from '@/core/fillings/moves';
import { type Slope, type ValveAndLeak, valveAndLeak } from '@/core/medium/two-slopes';
import { fillingOf } from '@/core/plan/filling';
import { type Plan, ruleOf } from '@/core/plan/plan';
import { toNumber } from '@/core/quantity/exact';
import { significantText } from '@/core/quantity/figure';
import { gaugePascal, kelvin, pascal } from '@/core/quantity/pascal';
import { convert } from '@/core/quantity/unit';
import { leakThatMatters } from '@/core/run/hold-spec';
import { volumeOf, volumeUnsure } from '@/core/run/hold-setting';
import { gaugeOfHold } from '@/core/run/read';
import type { Hold, RunState } from '@/core/run/state';
import { footing, visitsOf } from './holds';

/** Above this the temperature drifts too fast for slopes to be told apart, K/min. Source: the laws' own condition */
const DRIFT = 0.02;

export interface Masked extends ValveAndLeak {
  /** The leak that matters, at the same pressure; m3/s. */
  readonly matters: number;
  /** gauge Pa of both holds */ readonly pressures: readonly [number, number];
  /** Both are let-by holds, and the temperature that was read at both stood still enough: it may take a Tight away. */
  readonly counts: boolean;
}
interface Seen extends Slope {
  readonly letBy: boolean;
  readonly still: boolean;
}
function slopeOf(plan: Plan, hold: Hold, part: string | null): Seen | null {
  const { end, judgement, temperature } = hold;
  const gauge = gaugeOfHold(plan, hold);
  const start = gaugePascal(hold.start.figure);
  const last = end ? gaugePascal(end.figure) : null;
  if (!judgement || !gauge || start === null || last === null || hold.broken || hold.topUps.length)
    return null;
  const seconds = judgement.elapsedMs / 1000;
  if (!(seconds > 0)) return null;
  const [t0, t1] = [temperature.start, temperature.end].map((t) => (t ? kelvin(t) : null));
  const read = t0 != null && t1 != null;
  const u = read
    ? LOGGED_KELVIN
    : defaultTemperatureUncertainty(seconds / 60, ruleOf(plan, part).temperatureDefault);
  const { perKelvin } = movesOf(plan, part).weather(plan.system, Math.max(0, start))!;
  const step = pascal(gauge.resolution);
  const warmth = read ? perKelvin * (t1 - t0) : 0;
  return {
    pressure: (start + last) / 2,
    slope: (last - start - warmth) / seconds,
    error: Math.hypot(step / Math.sqrt(6), perKelvin * u) / seconds,
    letBy: hold.role === 'let-by',
    still: read && Math.abs(t1 - t0) / (seconds / 60) < DRIFT,
  };
}
/**
 * What two holds say of valve and leak; null where no two were held at pressures that differ, or nothing stands behind the valve.
 * @param only where it could take a Tight away; nothing is worked out where it could not
 */
export function maskedIn(plan: Plan, state: RunState, part: string | null, only?: 'counting'): Masked | null {
  if (fillingOf(plan, part).name !== 'gas' || footing(plan, state, part) === 'separated') return null;
  const supply = gaugePascal(plan.system.supplyPressure);
  const working = gaugePascal(plan.system.workingPressure);
  if (!supply || !working) return null;
  const seen = visitsOf(plan, state, null)
    .flatMap((v) => v.holds)
    .flatMap((h) => (h.role === 'let-by' || h.role === 'tightness' ? (slopeOf(plan, h, part) ?? []) : []))
    .filter((x) => x.pressure > 0 && x.pressure < supply);
  // two let-by holds before any other pair; then the furthest apart
  const pairs = seen.flatMap((a, i) => seen.slice(i + 1).map((b) => [a, b] as const));
  const best = pairs.reduce<(typeof pairs)[number] | null>((found, pair) => {
    const rank = ([a, b]: readonly [Seen, Seen]) =>
      (a.letBy && b.letBy ? supply : 0) + Math.abs(a.pressure - b.pressure);
    return !found || rank(pair) > rank(found) ? pair : found;
  }, null);
  if (!best) return null;
  const [a, b] = best;
  const counts = a.letBy && b.letBy && a.still && b.still;
  if (only && !counts) return null;
  const volume = {
    value: volumeOf(plan, state, part).value,
    unsure: volumeUnsure(plan, state, part),
  };
  const own = leakThatMatters(plan, part);
  const at = ruleOf(plan, part).adequacy.at === 'test' ? Math.max(a.pressure, b.pressure) : working;
  const found = volume.value > 0 ? valveAndLeak(volume, supply, a, b, at) : null;
  return (
    found && {
      ...found,
      matters: convert(toNumber(own), own.unit, 'm3/s'),
      pressures: [a.pressure, b.pressure],
      counts,
    }
  );
}
/** Why a Tight does not stand: the slopes show a leak above the one that matters. Null: they do not. */
export function maskedWords(m: Masked | null): string | null {
  if (!m?.counts || !(m.leak.low > 0) || m.leak.value <= m.matters) return null;
  const say = (v: number) => significantText(v * 3.6e6, 2);
  const mbar = (p: number) => `${significantText(p / 100, 3)} mbar`;
  return `Two let-by holds, at ${mbar(m.pressures[0])} and ${mbar(m.pressures[1])}, show a leak of ${say(m.leak.value)} l/h (${say(m.leak.low)} to ${say(m.leak.high)}) that a valve passing ${say(m.letBy.value)} l/h hides; the leak that matters here is ${say(m.matters)} l/h.`;
}
