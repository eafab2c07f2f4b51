/**
 * A leak that a passing valve hides: two let-by holds at two pressures tell both apart. The one case in which more than the rule
 * may take a Tight away. Source: laws of small leaks
 */
import { drive } from '@/core/medium/leak';
import { type Apart, type ValveAndLeak, valveAndLeak } from '@/core/medium/two-slopes';
import { fillingOf } from '@/core/plan/filling';
import { type Plan, ruleOf } from '@/core/plan/plan';
import { toNumber } from '@/core/quantity/exact';
import { significantText } from '@/core/quantity/figure';
import { gaugePascal, pascal } from '@/core/quantity/pascal';
import { convert, STANDARD_ATMOSPHERE } from '@/core/quantity/unit';
import { roleOf } from '@/core/roles';
import { hiddenIn, leakThatMatters } from '@/core/run/hold-spec';
import { volumeOf, volumeUnsure } from '@/core/run/hold-setting';
import { type HeldSlope, type Hidden, slopeOf, worthTelling } from '@/core/run/hidden';
import { gaugeOfHold, letByLimit } from '@/core/run/read';
import type { Hold, RunState } from '@/core/run/state';
import { footing, visitsOf } from './holds';

/** Above this the temperature drifts too fast for slopes to be told apart, K/min. Source: the laws' own condition */
const DRIFT = 0.02;

export interface Masked extends ValveAndLeak {
  /** The leak that matters, at the same pressure; m3/s. */
  readonly matters: number;
  /** What the let-by's own limit lets the valve pass at the full difference, m3/s; null: no let-by was held. */
  readonly passes: number | null;
  /** gauge Pa of both holds */ readonly pressures: readonly [number, number];
  /** Both were held behind a closed valve, for this or as a let-by. */
  readonly apart: boolean;
  /** Besides, and the temperature that was read at both stood still enough: it may take a Tight away. */
  readonly counts: boolean;
}
const stoodStill = ({ warmed }: HeldSlope): boolean =>
  warmed !== null && Math.abs(warmed.kelvin) / warmed.minutes < DRIFT;
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
    .flatMap((v) => v.holds.map((h) => [v, h] as const))
    .flatMap(([v, h]) => {
      const apart = roleOf(h.role).apart ?? false;
      const slope = apart || h.role === 'tightness' ? slopeOf(plan, h, part) : null;
      return slope ? [{ ...slope, apart, still: stoodStill(slope), hold: h, stage: v.stage }] : [];
    })
    .filter((x) => x.pressure > 0 && x.pressure < supply);
  // a let-by that was repeated on the pipework alone is of another section
  const alike = (a: (typeof seen)[number], b: (typeof seen)[number]) =>
    !(a.apart && b.apart) || a.stage === b.stage || [a, b].some((x) => x.hold.role === 'slopes');
  const pairs = seen.flatMap((a, i) =>
    seen.slice(i + 1).flatMap((b) => (alike(a, b) ? [[a, b] as const] : [])),
  );
  // two let-by holds before any other pair, those with a still temperature first; then the pair that tells most
  const best = pairs.reduce<(typeof pairs)[number] | null>((found, pair) => {
    const rank = ([a, b]: (typeof pairs)[number]) => (a.apart && b.apart ? (a.still && b.still ? 2 : 1) : 0);
    const tells = ([a, b]: (typeof pairs)[number]) =>
      Math.abs(a.pressure - b.pressure) / Math.hypot(a.error, b.error);
    const ahead = found && (rank(pair) - rank(found) || tells(pair) - tells(found));
    return ahead === null || ahead > 0 ? pair : found;
  }, null);
  if (!best) return null;
  const [a, b] = best;
  const counts = a.apart && b.apart && a.still && b.still;
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
      passes: permitted(plan, seen, volume.value, supply),
      pressures: [a.pressure, b.pressure],
      apart: a.apart && b.apart,
      counts,
    }
  );
}
const say = (m3s: number): string => significantText(convert(m3s, 'm3/s', 'l/h'), 2);
const within = (x: Apart): string => `${say(x.value)} l/h (${say(x.low)} to ${say(x.high)})`;
const mbar = (p: number): string => `${significantText(convert(p, 'Pa', 'mbar'), 3)} mbar`;
/** A rise just below the let-by's limit, as what the valve would pass at the full difference. */
function permitted(
  plan: Plan,
  seen: readonly (HeldSlope & { readonly hold: Hold; readonly stage: string })[],
  volume: number,
  supply: number,
): number | null {
  const found = seen.findLast((x) => roleOf(x.hold.role).provesBoundary);
  const stage = found && plan.procedure.stages[found.stage];
  const gauge = found && gaugeOfHold(plan, found.hold);
  if (!gauge || stage?.kind !== 'hold') return null;
  const rise = pascal(letByLimit(plan, stage, gauge).value) / (found.hold.rule * 60);
  const [full, s] = [supply, found.pressure].map((p) => drive(p, STANDARD_ATMOSPHERE));
  return (((volume * rise) / STANDARD_ATMOSPHERE) * full!) / (full! - s!);
}
/** Why a Tight does not stand: the slopes show a leak above the one that matters. Null: they do not. */
export function maskedWords(m: Masked | null): string | null {
  if (!m?.counts || !(m.leak.low > 0) || m.leak.value <= m.matters) return null;
  return `Two let-by holds, at ${mbar(m.pressures[0])} and ${mbar(m.pressures[1])}, show a leak of ${within(m.leak)} that a valve passing ${say(m.letBy.value)} l/h hides; the leak that matters here is ${say(m.matters)} l/h.`;
}

/** What a passing valve could leave unseen, and what tells it. */
export const hiddenWords = (h: Hidden): string =>
  `Let-by and tightness together could leave a leak of up to ${say(h.most)} l/h unseen, if the closed valve passes as much; ${say(h.matters)} l/h matters here.`;
/** What stands beside the rule on a record: valve and leak apart, or that they were not told apart. Only where the procedure asks. */
export function apartLines(plan: Plan, state: RunState): string[] {
  const asks = Object.values(plan.procedure.stages).some((s) => s.kind === 'observe' && s.shows === 'hidden');
  if (!asks || footing(plan, state) !== 'proved') return [];
  const m = maskedIn(plan, state, null);
  if (m?.apart)
    return [
      `By two slopes, at ${mbar(m.pressures[0])} and ${mbar(m.pressures[1])}: a leak of ${within(m.leak)} at working pressure, ${say(m.matters)} l/h matters here; the closed valve passes ${within(m.letBy)}.`,
      ...(m.counts ? [] : ['The temperature was not read at both, or did not stand still: advice only.']),
    ];
  const hidden = hiddenIn(plan, state, null);
  return worthTelling(hidden)
    ? [
        `${hiddenWords(hidden)} Two holds at two pressures would have told valve and leak apart; they were not held.`,
      ]
    : [];
}
