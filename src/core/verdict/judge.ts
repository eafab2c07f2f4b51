import { convertRate, rateInterval, type RateInterval } from '@/core/adequacy/rate';
import { leakRate } from '@/core/medium/gas';
import type { Working } from '@/core/plan/formula';
import type { RateClass } from '@/core/pack/types';
import {
  breaks,
  compare,
  exact,
  magnitude,
  parseWithUnit,
  subtract,
  toNumber,
  type Exact,
  type Limit,
} from '@/core/quantity/exact';
import type { Figure } from '@/core/quantity/figure';
import { celsiusToKelvin, convert, STANDARD_ATMOSPHERE } from '@/core/quantity/unit';

/** What a hold showed. `change` is end minus start; `broke` names the limit that decided, if one did. */
export interface Judgement {
  readonly outcome: string;
  readonly change: Exact;
  readonly direction: 'none' | 'fall' | 'rise';
  readonly elapsedMs: number;
  readonly perceptible: Limit;
  readonly limit: Limit | null;
  /** Change with the temperature's part taken out, in the gauge's unit (float, physics), when temperatures were logged. */
  readonly corrected?: number;
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
}

/**
 * Change with the part of temperature and barometer taken out, in the gauge's unit; undefined when neither was
 * logged. A gauge reads above the atmosphere: a falling barometer lifts it.
 */
function correctedChange(facts: HoldFacts): number | undefined {
  if (!facts.temperature && !facts.barometer) return undefined;
  const unit = facts.end.unit;
  const pascal = (e: Exact) => convert(toNumber(e), e.unit, 'Pa');
  const [b0, b1] = facts.barometer?.map(pascal) ?? [STANDARD_ATMOSPHERE, STANDARD_ATMOSPHERE];
  const [t0, t1] = facts.temperature?.map((t) => celsiusToKelvin(toNumber(t))) ?? [1, 1];
  // the end as it would read at the start's temperature and barometer
  const end = ((pascal(facts.end) + b1!) * t0!) / t1! - b0!;
  return convert(end, 'Pa', unit) - toNumber(facts.start);
}

function measure(
  facts: HoldFacts,
  perceptible: Limit,
): Pick<Judgement, 'change' | 'direction' | 'elapsedMs' | 'perceptible' | 'corrected'> & { amount: Exact } {
  const change = subtract(facts.end, facts.start);
  const amount = magnitude(change);
  const direction = !breaks(amount, perceptible) ? 'none' : change.digits < 0 ? 'fall' : 'rise';
  const zero = exact(0, 0, facts.start.unit);
  const corrected = correctedChange(facts);
  return {
    change: compare(change, zero) === 0 ? exact(0, change.scale, change.unit) : change,
    amount,
    direction,
    elapsedMs: facts.elapsedMs,
    perceptible,
    ...(corrected === undefined ? {} : { corrected }),
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

/**
 * The judged hold. Raw displayed readings judge; temperature can only turn a result into a disagreement.
 * - movement below perceptible: nil, unless the corrected change is perceptible: disagree
 * - rise of perceptible movement or more: rose
 * - fall within the permitted drop: allowance (corrected beyond it: disagree)
 * - fall outside, read later than the rule's minutes + `lateAfter` s: late (a permitted drop belongs to those minutes)
 * - otherwise beyond (corrected change imperceptible: disagree)
 * @param permitted the permitted drop, or null where the rule is nil
 */
export function judgeTightness(
  facts: HoldFacts,
  rule: { perceptible: Limit; permitted: Limit | null; minutes: number; lateAfter: number },
): Judgement {
  const { amount, ...m } = measure(facts, rule.perceptible);
  const pm = toNumber(rule.perceptible.value);
  const correctedMoves = m.corrected !== undefined && Math.abs(m.corrected) >= pm;
  const judged = (outcome: string): Judgement => ({
    ...m,
    limit: rule.permitted ?? rule.perceptible,
    outcome,
  });
  if (m.direction === 'rise') return judged('rose');
  if (m.direction === 'none') return judged(correctedMoves ? 'disagree' : 'nil');
  if (rule.permitted && !breaks(amount, rule.permitted))
    return judged(
      m.corrected !== undefined && -m.corrected > toNumber(rule.permitted.value) ? 'disagree' : 'allowance',
    );
  if (rule.permitted && facts.elapsedMs > rule.minutes * 60000 + rule.lateAfter * 1000) return judged('late');
  return judged(m.corrected !== undefined && !correctedMoves ? 'disagree' : 'beyond');
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
  rule: { low: AcceptedBound | null; high: AcceptedBound | null; vent: AcceptedBound | null; creep: boolean },
): Judgement {
  const { amount: _, ...m } = measure(facts, perceptible);
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
            : rule.creep && m.direction === 'rise'
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
/** Plastic school B: the fall from the kept reading against the limit of the rule. A rise of perceptible movement explains nothing. */
export function judgeStretch(facts: HoldFacts, perceptible: Limit, limit: Limit): Judgement {
  const { amount, ...m } = measure(facts, perceptible);
  const falls = m.change.digits < 0;
  const outcome = m.direction === 'rise' ? 'rose' : falls && breaks(amount, limit) ? 'beyond' : 'within';
  return { ...m, limit, outcome };
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
    compare(lowest, low.value) < 0
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

/** Up to here the laminar law alone is used; above it both laws are shown as a range (measurement chapter 7.1). Pa. */
const ONE_LAW_BELOW = 10_000;

/**
 * Leak rate and its class at working pressure: the class of the upper end of the 95 % interval, so that an interval
 * that touches a bound falls into the worse class. A rise gives no rate.
 */
export function judgeRate(
  facts: HoldFacts,
  perceptible: Limit,
  rule: {
    classes: readonly RateClass[];
    volume: Figure;
    volumeUncertainty: number;
    resolution: Exact;
    working: Exact;
    /** K over so many minutes */ temperature: (minutes: number) => number;
  },
): Judgement {
  const { amount: _, ...m } = measure(facts, perceptible);
  if (m.direction === 'rise') return { ...m, limit: null, outcome: 'rose' };
  const pascal = (e: Exact) => convert(toNumber(e), e.unit, 'Pa');
  const [start, end] = [pascal(facts.start), pascal(facts.end)];
  const seconds = facts.elapsedMs / 1000;
  const atTest = leakRate(rule.volume.value, start, end, seconds, {
    ...(facts.temperature
      ? { temperature: facts.temperature.map((t) => celsiusToKelvin(toNumber(t))) as [number, number] }
      : {}),
    ...(facts.barometer ? { atmosphere: facts.barometer.map(pascal) as [number, number] } : {}),
  });
  const pressure = (start + end) / 2;
  const working = pascal(rule.working);
  const setting = {
    volume: rule.volume.value,
    pressure,
    resolution: pascal(rule.resolution),
    temperature: facts.temperature ? 0.1 : rule.temperature(seconds / 60),
    seconds,
  };
  const laminar = rateInterval(atTest, setting, working, rule.volumeUncertainty);
  const both = Math.max(pressure, working) > ONE_LAW_BELOW;
  const factor = both ? convertRate(1, pressure, working, 'orifice') / convertRate(1, pressure, working) : 1;
  const interval: RateInterval = {
    rate: laminar.rate,
    low: Math.min(laminar.low, laminar.low * factor),
    high: Math.max(laminar.high, laminar.high * factor),
  };
  const litres = (text: string) => {
    const bound = parseWithUnit(text);
    return convert(toNumber(bound), bound.unit, 'l/h');
  };
  const found =
    rule.classes.find((c) => c.below !== undefined && interval.high < litres(c.below)) ??
    rule.classes[rule.classes.length - 1]!;
  return {
    ...m,
    limit: null,
    outcome: found.key,
    rate: { ...interval, title: found.title, source: found.source },
  };
}
