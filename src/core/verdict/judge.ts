import { type RateInterval } from '@/core/adequacy/rate';
import type { VacuumFit } from '@/core/medium/vacuum';
import type { AloneOf, Logged } from '@/core/fillings/filling';
import type { Working } from '@/core/formula/formula';
import {
  add,
  breaks,
  compare,
  exact,
  type Exact,
  inUnit,
  type Limit,
  magnitude,
  scaled,
  subtract,
  toNumber,
} from '@/core/quantity/exact';
import { convert, UNITS } from '@/core/quantity/unit';
import type { Blurred } from '@/core/roles/tightness/corrected';

/** What a hold showed. `change` is end minus start; `broke` names the limit that decided, if one did. */
export interface Judgement {
  readonly outcome: string;
  readonly change: Exact;
  readonly direction: 'none' | 'fall' | 'rise';
  readonly elapsedMs: number;
  readonly perceptible: Limit;
  readonly limit: Limit | null;
  /** Change with what warmth and barometer alone do taken out, in the gauge's unit (float, physics), when logged. */
  readonly corrected?: number;
  /** Why what was logged could not be taken out. */
  readonly uncorrected?: string;
  /** Hold so long that the barometer counts: what it may have done in it, in the gauge's unit; null: it was read. */
  readonly barometer?: { readonly share: Exact; readonly read: boolean };
  /** How well a corrected movement is known, in the gauge's unit, and by what. */
  readonly blurred?: Blurred;
  /** The shape of a vacuum that stood by itself. */
  readonly vacuum?: VacuumFit & { readonly readings: number };
  /** What the bounds of a lock-up or flow reading were. */
  readonly accept?: { readonly low: AcceptedBound | null; readonly high: AcceptedBound | null };
  /** Measured leak rate with its 95 % interval at working pressure, l/h, and the class it falls in. */
  readonly rate?: RateInterval & { readonly title: string; readonly source: string };
  /** Water added over the hold, and what the rule permits; null where no rule gives a limit. */
  readonly makeUp?: {
    readonly added: Exact;
    readonly limit: { readonly value: Exact; readonly source: string; readonly working: Working } | null;
    readonly lowest: Exact;
  };
}
export interface AcceptedBound {
  readonly value: Exact;
  readonly source: string;
}
export interface HoldFacts {
  readonly start: Exact;
  readonly end: Exact;
  readonly elapsedMs: number;
  /** Gas or pipe temperature at start and end, degrees C, when logged. */
  readonly temperature?: readonly [Exact, Exact];
  /** Barometer at start and end, when logged. */
  readonly barometer?: readonly [Exact, Exact];
  /** What warmth and barometer alone do in this section. */
  readonly alone: AloneOf;
  /** What the barometer may have done in a hold of this length, where that reaches the perceptible movement. */
  readonly share?: Exact | null;
}

/** Change with a part of what was logged taken out, in the gauge's unit; undefined when there is nothing to take out. */
function without(facts: HoldFacts, logged: Logged): number | 'unknown' | undefined {
  const unit = facts.end.unit;
  if (UNITS[unit].dimension !== 'pressure') return undefined;
  const alone = facts.alone(convert(toNumber(facts.start), unit, 'Pa'), logged);
  if (alone === null) return undefined;
  if (alone === 'unknown') return 'unknown';
  return toNumber(subtract(facts.end, facts.start)) - convert(alone, 'Pa', unit);
}

export function measure(
  facts: HoldFacts,
  perceptible: Limit,
): Pick<
  Judgement,
  'change' | 'direction' | 'elapsedMs' | 'perceptible' | 'corrected' | 'uncorrected' | 'barometer'
> & { amount: Exact } {
  const change = subtract(facts.end, facts.start);
  const amount = magnitude(change);
  const direction = !breaks(amount, perceptible) ? 'none' : change.digits < 0 ? 'fall' : 'rise';
  const zero = exact(0, 0, facts.start.unit);
  const { temperature, barometer, share } = facts;
  const corrected = without(facts, {
    ...(temperature ? { temperature } : {}),
    ...(barometer ? { barometer } : {}),
  });
  return {
    change: compare(change, zero) === 0 ? exact(0, change.scale, change.unit) : change,
    amount,
    direction,
    elapsedMs: facts.elapsedMs,
    perceptible,
    ...(typeof corrected === 'number' ? { corrected } : {}),
    ...(corrected === 'unknown'
      ? { uncorrected: 'the walls of the pipes are not entered, so what the warmth did cannot be taken out' }
      : {}),
    ...(share ? { barometer: { share, read: barometer !== undefined } } : {}),
  };
}

/**
 * Let-by: looks for a RISE on the closed section. Suspected when the rise breaks the limit; a perceptible FALL is
 * not proved either, since a leak and a passing valve may cancel; otherwise proved.
 */
export function judgeLetBy(facts: HoldFacts, perceptible: Limit, limit: Limit): Judgement {
  const { amount, ...m } = measure(facts, perceptible);
  const rises = m.change.digits > 0 && breaks(amount, limit);
  return {
    ...m,
    limit,
    direction: rises ? 'rise' : m.direction,
    outcome: rises ? 'suspected' : m.direction === 'fall' ? 'fell' : 'proved',
  };
}

/** A settling period of fixed length: it always ends settled; the change is kept as a hint. */
export function judgeSettle(facts: HoldFacts, perceptible: Limit): Judgement {
  const { amount: _, ...m } = measure(facts, perceptible);
  return { ...m, limit: null, outcome: 'settled' };
}

/** The change that judges: the gauge's own, or, in a hold so long that the barometer counts, what is left without it. */
export function judgedChange(facts: HoldFacts, change: Exact): Exact {
  if (!facts.share || !facts.barometer) return change;
  const [b0, b1] = facts.barometer;
  const unit = change.unit;
  const scale = change.scale + 2;
  // a rising barometer lowers the gauge by as much: what it took is given back, rounded towards the fall
  return add(change, subtract(inUnit(b1, unit, scale, 'down'), inUnit(b0, unit, scale, 'up')));
}

/**
 * The judged hold. The gauge's own displayed readings judge; where the hold is so long that the barometer counts, what is
 * left without it does, and unread it can only be Inconclusive or beyond. Temperature can only turn a result into a
 * disagreement. In order:
 * - rise of perceptible movement or more: rose
 * - below perceptible: nil, unless the corrected change is perceptible, cannot be worked out, or the barometer is unread
 * - a first fall below what 0.2 K does, where the rule asks for it: small-fall
 * - fall within the permitted drop: allowance (corrected beyond it: disagree)
 * - fall outside, read later than the rule's minutes + `lateAfter` s: late (a permitted drop belongs to those minutes)
 * - up to the share of an unread barometer: disagree
 * - otherwise beyond (corrected change imperceptible: disagree; not after a first small fall)
 * @param rule.permitted the permitted drop, or null where the rule is nil
 * @param rule.small what 0.2 K does here, where a smaller fall is repeated first; null: no such rule, or it was repeated
 * @param rule.again this hold repeats a small fall: a second one the same way stands whatever the correction
 */
export function judgeTightness(
  facts: HoldFacts,
  rule: {
    perceptible: Limit;
    permitted: Limit | null;
    minutes: number;
    lateAfter: number;
    small?: Exact | null;
    again?: boolean;
  },
): Judgement {
  const { amount: _, ...m } = measure(facts, rule.perceptible);
  const moved = judgedChange(facts, m.change);
  const amount = magnitude(moved);
  const direction = !breaks(amount, rule.perceptible) ? 'none' : moved.digits < 0 ? 'fall' : 'rise';
  const pm = toNumber(rule.perceptible.value);
  const correctedMoves = m.corrected !== undefined && Math.abs(m.corrected) >= pm * (1 - 1e-9);
  const unread = facts.share && !facts.barometer ? facts.share : null;
  const judged = (outcome: string): Judgement => ({
    ...m,
    direction,
    limit: rule.permitted ?? rule.perceptible,
    outcome,
  });
  if (direction === 'rise') return judged('rose');
  if (direction === 'none') return judged(correctedMoves || m.uncorrected || unread ? 'disagree' : 'nil');
  if (!rule.permitted && rule.small && compare(amount, rule.small) < 0) return judged('small-fall');
  if (rule.permitted && !breaks(amount, rule.permitted))
    return judged(
      m.corrected !== undefined && -m.corrected > toNumber(rule.permitted.value) ? 'disagree' : 'allowance',
    );
  if (rule.permitted && facts.elapsedMs > rule.minutes * 60000 + rule.lateAfter * 1000) return judged('late');
  if (unread && compare(amount, unread) <= 0) return judged('disagree');
  if (rule.again) return judged('beyond');
  return judged(m.corrected !== undefined && !correctedMoves ? 'disagree' : 'beyond');
}

/**
 * A pressure that would not stand in a settling period or a hold: how it moved until somebody said so. Ended before warmth
 * or stretch could no longer explain it, a fall says nothing yet.
 */
export function judgeUnheld(
  facts: HoldFacts,
  perceptible: Limit,
  way: 'falls' | 'falls-early' | 'rises' | 'low',
): Judgement {
  const { amount: _, ...m } = measure(facts, perceptible);
  return { ...m, limit: perceptible, outcome: way };
}

/** Strength: withstood when it did not fall perceptibly. A rise proves nothing. */
export function judgeStrength(facts: HoldFacts, perceptible: Limit): Judgement {
  const { amount: _, ...m } = measure(facts, perceptible);
  const outcome = m.direction === 'fall' ? 'fell' : m.direction === 'rise' ? 'rose' : 'withstood';
  return { ...m, limit: perceptible, outcome };
}

/**
 * Lock-up and flow: where the pressure stands at the end, and (lock-up) whether it creeps. Bounds are met at equality.
 * Order: vent reached, too high, falling, too low, creeping upwards, holds.
 */
export function judgeLockUp(
  facts: HoldFacts,
  perceptible: Limit,
  rule: {
    low: AcceptedBound | null;
    high: AcceptedBound | null;
    vent: AcceptedBound | null;
    creep: boolean;
    /** A rise that counts as creep; absent: the perceptible movement. */
    creepLimit?: Limit;
  },
): Judgement {
  const { amount, ...m } = measure(facts, perceptible);
  const creeps = m.change.digits > 0 && breaks(amount, rule.creepLimit ?? perceptible);
  const over = (bound: AcceptedBound | null) => bound !== null && compare(facts.end, bound.value) > 0;
  const outcome =
    rule.vent && compare(facts.end, rule.vent.value) >= 0
      ? 'vents'
      : over(rule.high)
        ? 'too-high'
        : rule.creep && m.direction === 'fall'
          ? 'fell'
          : rule.low && compare(facts.end, rule.low.value) < 0
            ? 'too-low'
            : rule.creep && creeps
              ? 'creeps'
              : 'holds';
  const limit = rule.high
    ? { value: rule.high.value, broken: 'above' as const, source: rule.high.source }
    : null;
  return { ...m, limit, outcome, accept: { low: rule.low, high: rule.high } };
}

/**
 * Plastic school A, and a main held within a part of its pressure: no reading may lie below the floor (nor the end
 * above the ceiling, where there is one). Both are met at equality. A rise is normal here: stretched pipe recovers.
 * @param lowest of all accepted readings
 */
export function judgeFloor(
  facts: HoldFacts,
  perceptible: Limit,
  lowest: Exact,
  rule: { low: AcceptedBound; high: AcceptedBound | null },
): Judgement {
  const { amount: _, ...m } = measure(facts, perceptible);
  const outcome =
    compare(lowest, rule.low.value) < 0
      ? 'below'
      : rule.high && compare(facts.end, rule.high.value) > 0
        ? 'above'
        : 'kept';
  const limit = { value: rule.low.value, broken: 'at' as const, source: rule.low.source };
  return { ...m, limit, outcome, accept: { low: rule.low, high: rule.high } };
}
/**
 * Stretched pipe: the fall from the kept reading against the limit of the rule. A rise of perceptible movement explains
 * nothing. Where the rule asks that it slows down, a fall over the limit that does is `slowing` (it may be held on), one that
 * does not is beyond; a last third without perceptible fall has slowed. Without the readings between it is `unread`.
 * @param thirds falls of the first and last third; null: not read
 */
export function judgeStretch(
  facts: HoldFacts,
  perceptible: Limit,
  limit: Limit,
  thirds?: { readonly first: Exact; readonly last: Exact } | null,
): Judgement {
  const { amount, ...m } = measure(facts, perceptible);
  const over = m.change.digits < 0 && breaks(amount, limit);
  const judged = (outcome: string): Judgement => ({ ...m, limit, outcome });
  if (m.direction === 'rise') return judged('rose');
  if (thirds === undefined) return judged(over ? 'beyond' : 'within');
  if (m.direction === 'none') return judged('within');
  // stretch takes a third at most; a line that empties slows down too, and is no stretch
  if (
    compare(
      scaled(facts.end, 3, 1, facts.end.scale, 'up'),
      scaled(facts.start, 2, 1, facts.start.scale, 'down'),
    ) < 0
  )
    return judged('beyond');
  if (thirds === null) return judged('unread');
  const slows = !breaks(thirds.last, perceptible) || compare(thirds.last, thirds.first) < 0;
  return judged(slows ? (over ? 'slowing' : 'within') : 'beyond');
}
/** A main left to itself: how far it falls is measured, not judged. */
export function judgeDecay(facts: HoldFacts, perceptible: Limit): Judgement {
  const { amount: _, ...m } = measure(facts, perceptible);
  return {
    ...m,
    limit: null,
    outcome: m.direction === 'fall' ? 'fell' : m.direction === 'rise' ? 'rose' : 'held',
  };
}
/** How far it moved, for a slope; nothing is judged by it. */
export function judgeSlope(facts: HoldFacts, perceptible: Limit): Judgement {
  const { amount: _, ...m } = measure(facts, perceptible);
  return { ...m, limit: null, outcome: 'measured' };
}
/**
 * Make-up at test pressure: the water added against the limit, met at equality. A pressure that fell further than the
 * rule allows takes the comparison away; without a limit the figure is somebody else's to judge.
 * @param lowest of all accepted readings, those before each top-up included
 */
export function judgeMakeUp(
  facts: HoldFacts,
  perceptible: Limit,
  added: Exact,
  limit: { value: Exact; source: string; working: Working } | null,
  lowest: Exact,
  low: AcceptedBound,
): Judgement {
  const { amount: _, ...m } = measure(facts, perceptible);
  const outcome =
    // more than the limit was added already: that it fell far besides takes nothing away
    limit && compare(added, limit.value) > 0
      ? 'beyond'
      : compare(lowest, low.value) < 0
        ? 'too-far'
        : m.direction === 'rise'
          ? 'rose'
          : added.digits === 0
            ? 'nil'
            : !limit
              ? 'no-limit'
              : compare(added, limit.value) > 0
                ? 'beyond'
                : 'within';
  return {
    ...m,
    limit: limit ? { value: limit.value, broken: 'above', source: limit.source } : null,
    outcome,
    accept: { low, high: null },
    makeUp: { added, limit, lowest },
  };
}
