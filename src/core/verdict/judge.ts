import { correctedEnd } from '@/core/medium/gas';
import {
  breaks,
  compare,
  exact,
  magnitude,
  subtract,
  toNumber,
  type Exact,
  type Limit,
} from '@/core/quantity/exact';
import { celsiusToKelvin, convert } from '@/core/quantity/unit';

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
}
export interface HoldFacts {
  readonly start: Exact;
  readonly end: Exact;
  readonly elapsedMs: number;
  /** Gas or pipe temperature at start and end, degrees C, when logged. */
  readonly temperature?: readonly [Exact, Exact];
}

function measure(
  facts: HoldFacts,
  perceptible: Limit,
): Pick<Judgement, 'change' | 'direction' | 'elapsedMs' | 'perceptible' | 'corrected'> & { amount: Exact } {
  const change = subtract(facts.end, facts.start);
  const amount = magnitude(change);
  const direction = !breaks(amount, perceptible) ? 'none' : change.digits < 0 ? 'fall' : 'rise';
  const zero = exact(0, 0, facts.start.unit);
  const corrected =
    facts.temperature &&
    convert(
      correctedEnd(
        convert(toNumber(facts.end), facts.end.unit, 'Pa'),
        celsiusToKelvin(toNumber(facts.temperature[0])),
        celsiusToKelvin(toNumber(facts.temperature[1])),
      ),
      'Pa',
      facts.end.unit,
    ) - toNumber(facts.start);
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
