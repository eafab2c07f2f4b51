/**
 * What readings of a fan say of ducts at the reference pressure: a flow, or a bound where none could be read; the exponent from two or
 * more pressures; own kit beside it. Source: published duct tightness schools
 */
import { ductReading } from '@/core/limit/duct';
import { exponentWord, fitFlowLaw, type FlowLaw } from '@/core/medium/flow-law';

/** The exponents that openings can have: an orifice, a crack. */
export const STEEPEST = { least: 0.5, most: 1 } as const;
/** Pressures closer than this, in the logarithm, show no exponent. */
const APART = 0.3;
/** From this share of the reference pressure on it counts as reached; pressures this close together count as one. House figures */
const REACHED = 0.9;
const SAME = 0.05;

export interface Point {
  /** Pa between inside and still air, the fan-off pressure taken out; the size of it */
  readonly net: number;
  /** m3/s; null: below what the range can read, `least` is the bound */
  readonly flow: number | null;
  readonly least: number;
  readonly range: string;
  /** relative standard uncertainty of the flow */
  readonly u: number;
}
export interface Law {
  /** Where no second pressure shows it. */
  readonly assumed: number;
  /** Above this, or below 0.5, the set-up is looked at. */
  readonly doubtful: number;
}
export interface AtReference {
  /** m3/s at the reference pressure */
  readonly flow: number;
  /** An upper bound: no flow could be read. */
  readonly bound: boolean;
  readonly n: number;
  /** From the readings themselves; null: assumed. */
  readonly measured: Pick<FlowLaw, 'c' | 'n' | 'low' | 'high'> | null;
  readonly word: 'sound' | 'doubtful' | 'void' | null;
  /** The reading it rests on. */
  readonly from: Point;
  /** The same with the ends of what the exponent can be. */
  readonly low: number;
  readonly high: number;
  /** The reference pressure was not reached. */
  readonly short: boolean;
}
const carried = (p: Point, flow: number, reference: number, n: number): number =>
  flow * (reference / p.net) ** n;

/** The exponent from the readings of one range: of those that lie apart the ones that lie farthest apart; null where there are none. */
export function lawOf(points: readonly Point[]): FlowLaw | null {
  const spans = [...new Set(points.map((p) => p.range))].flatMap((range) => {
    const own = points.filter((p) => p.range === range && p.flow !== null);
    if (own.length < 2) return [];
    const x = own.map((p) => Math.log(p.net));
    return [{ own, span: Math.max(...x) - Math.min(...x) }];
  });
  const widest = spans.reduce<(typeof spans)[number] | null>((a, b) => (a && a.span >= b.span ? a : b), null);
  if (!widest || widest.span < APART) return null;
  return fitFlowLaw(
    widest.own.map((p) => ({ pressure: p.net, flow: p.flow!, uncertainty: Math.max(p.u, 1e-4) })),
  );
}
/**
 * The flow at the reference pressure. Of readings at one pressure the largest counts; without any the smallest bound, carried by the
 * exponent that makes it largest.
 * @param points at least one  @param reference Pa
 */
export function atReference(points: readonly Point[], reference: number, law: Law): AtReference {
  const fitted = lawOf(points);
  const word = fitted && exponentWord(fitted, law.doubtful);
  const measured = fitted && { c: fitted.c, n: fitted.n, low: fitted.low, high: fitted.high };
  const inside = (n: number) => Math.min(STEEPEST.most, Math.max(STEEPEST.least, n));
  const n = fitted ? inside(fitted.n) : law.assumed;
  const ends = fitted
    ? ([inside(fitted.low), inside(fitted.high)] as const)
    : ([STEEPEST.least, STEEPEST.most] as const);
  const read = points.filter((p): p is Point & { flow: number } => p.flow !== null);
  const about = { n, measured, word };
  if (!read.length) {
    const worst = (p: Point) =>
      Math.max(...Object.values(STEEPEST).map((e) => carried(p, p.least, reference, e)));
    const from = points.reduce((a, b) => (worst(b) < worst(a) ? b : a));
    const flow = worst(from);
    return { ...about, flow, bound: true, from, low: 0, high: flow, short: false };
  }
  const away = (p: Point) => Math.abs(Math.log(p.net / reference));
  const nearest = read.reduce((a, b) => (away(b) < away(a) ? b : a));
  const from = read
    .filter((p) => Math.abs(Math.log(p.net / nearest.net)) <= SAME)
    .reduce((a, b) => (carried(b, b.flow, reference, n) > carried(a, a.flow, reference, n) ? b : a));
  const flows = ends.map((e) => carried(from, from.flow, reference, e));
  return {
    ...about,
    flow: carried(from, from.flow, reference, n),
    bound: false,
    from,
    low: Math.min(...flows),
    high: Math.max(...flows),
    short: from.net < reference * REACHED,
  };
}

export interface Question {
  readonly of: 'system' | 'hose';
  /** Pa */ readonly reference: number;
  /** m3/s; null: no edition in force gives one here */ readonly limit: number | null;
  readonly points: readonly Point[];
  /** What own kit passes at the reference pressure, m3/s; null: no valid test of it */
  readonly blank: number | null;
  readonly law: Law;
  /** Share of the limit, percent, that own kit may pass and still be used. */
  readonly share: number;
  /** Somebody said that no second pressure can be had. */
  readonly noSecond: boolean;
  /** The exponent was doubtful once already, and the set-up looked at. */
  readonly doubted: boolean;
}
export type SystemOutcome =
  | 'within'
  | 'unresolved'
  | 'beyond'
  | 'void'
  | 'doubtful'
  | 'blank'
  | 'unchecked'
  | 'unsure'
  | 'no-limit';
export type Answer =
  | { readonly outcome: SystemOutcome | 'measured' | 'large'; readonly at: AtReference }
  /** Not yet: which readings are missing. */
  | { readonly next: 'read' | 'range' | 'half'; readonly at: AtReference | null };

/** Whether own kit passes more than its share of the limit. @param flow, limit m3/s @param share percent */
export const tooLarge = (flow: number, limit: number | null, share: number): boolean =>
  limit !== null && flow > (limit * share) / 100;
/**
 * Judges what stands so far. Q up to L is within; beyond it is judged only once a second pressure showed an exponent that openings can
 * have and own kit was tested: up to L + B unresolved, above it not tight. A bound above L says nothing yet.
 */
export function judgeFan(q: Question): Answer {
  if (!q.points.length) return { next: 'read', at: null };
  const at = atReference(q.points, q.reference, q.law);
  if (q.of === 'hose') return { outcome: tooLarge(at.flow, q.limit, q.share) ? 'large' : 'measured', at };
  if (at.word === 'void') return { outcome: 'void', at };
  if (q.limit === null) return { outcome: 'no-limit', at };
  // short of the reference pressure the exponent that makes the flow largest counts
  const counts = at.short ? at.high : at.flow;
  if (ductReading(counts, q.limit, 0) === 'within') return { outcome: 'within', at };
  if (at.bound) return { next: 'range', at };
  // what passes the limit at less than the reference pressure passes it there too
  if (at.short && ductReading(at.from.flow!, q.limit, 0) === 'within') return { outcome: 'unsure', at };
  if (!at.measured) return q.noSecond ? { outcome: 'unchecked', at } : { next: 'half', at };
  if (at.word === 'doubtful' && !q.doubted) return { outcome: 'doubtful', at };
  if (q.blank === null) return { outcome: 'blank', at };
  const sure = at.short ? at.from.flow! : at.flow;
  const result = ductReading(sure, q.limit, q.blank);
  return { outcome: result === 'beyond' ? 'beyond' : 'unresolved', at };
}
/**
 * The pressure at which even a duct that just passes can be told by a range whose least flow lies above the limit, whatever its exponent:
 * below the range there is then below the limit here. @returns Pa  Source: power law of openings
 */
export const decidingPressure = (limit: number, reference: number, least: number): number =>
  least <= limit ? reference : reference * (least / limit) ** (1 / STEEPEST.least);
