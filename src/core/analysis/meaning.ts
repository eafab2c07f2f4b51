/** What a trace means, as a screen, a record and a worker pass it on: words, figures in the gauge's unit, curves to draw. */
import { significantText } from '@/core/quantity/figure';
import { unitLabel, type Unit } from '@/core/quantity/unit';
import { ahead, type Analysis, analyse, curveOf, FEWEST_TOLD } from './analyse';
import { nextMove, type Move } from './next-move';
import { type Cause, perUnit, type Sample, type SectionFacts, warmthAt } from './section';
import { earlyWarning, type Limits, type Warning } from './warning';
import { CAUSE_WORDS, evidence, headline, litresPerHour } from './words';

export interface MeaningRequest {
  /** in the gauge's unit */ readonly samples: readonly Sample[];
  readonly facts: SectionFacts;
  readonly unit: Unit;
  readonly decimals: number;
  /** ms; the hold's own beginning and end */
  readonly begin: number;
  readonly end: number;
  /** Displays that break the limit, in the gauge's unit. */
  readonly limits: Limits;
}
/** Of a moment: the curve with the 95 % band about it; the gauge's unit. */
export interface CurvePoint {
  readonly t: number;
  readonly p: number;
  readonly low: number;
  readonly high: number;
}
export interface Meaning {
  readonly headline: string;
  readonly told: Cause | null;
  /** There are readings enough to name a cause by. */
  readonly enough: boolean;
  readonly causes: readonly { readonly cause: Cause; readonly words: string; readonly percent: number }[];
  readonly fors: readonly string[];
  readonly against: readonly string[];
  readonly next: Move | null;
  /** l/h with its 95 % interval, at the pressure of the beginning. */
  readonly rate: { readonly value: number; readonly low: number; readonly high: number } | null;
  readonly leaks: number;
  readonly warning: (Warning & { readonly words: string }) | null;
  /** Where the display will stand at the end of the hold; null when it is over. */
  readonly ahead: { readonly value: number; readonly low: number; readonly high: number } | null;
  readonly curve: readonly CurvePoint[];
  /** What the temperatures that were read do by themselves, and what is left without them; empty where none were. */
  readonly expected: readonly { readonly t: number; readonly p: number }[];
  readonly corrected: readonly { readonly t: number; readonly p: number }[];
  /** What it rests on, for whoever asks why. */
  readonly rests: readonly { readonly name: string; readonly value: string }[];
}
const POINTS = 48;
/** A cause less probable than this is not listed. */
const LISTED = 0.01;

/** @returns null where the readings are too few to say anything */
export function meaningOf(request: MeaningRequest): Meaning | null {
  const { facts, unit, decimals, begin, end } = request;
  const per = perUnit(unit);
  const a = analyse(
    request.samples.map((s) => ({ t: s.t, p: s.p * per })),
    facts,
  );
  if (!a) return null;
  const last = a.from + a.readings.t[a.readings.t.length - 1]! * 1000;
  const movement = (reckoned: number) => {
    const text = (reckoned / per).toFixed(decimals).replace('-', '−');
    return `${Number(text.replace('−', '-')) > 0 ? '+' : ''}${text} ${unitLabel(unit)}`;
  };
  const limit = (v: number | null) => (v === null ? null : v * per);
  const warning = earlyWarning(
    a,
    { low: limit(request.limits.low), high: limit(request.limits.high) },
    begin,
    end,
    last,
  );
  const there = last < end - 500 ? ahead(a, end) : null;
  const inUnit = (v: number) => v / per;
  const to = Math.max(last, end);
  return {
    headline: headline(a),
    told: a.told,
    enough: a.readings.t.length >= FEWEST_TOLD,
    causes: a.causes
      .filter((c) => c.probability >= LISTED)
      .slice(0, 4)
      .map((c) => ({
        cause: c.cause,
        words: CAUSE_WORDS[c.cause],
        percent: Math.round(100 * c.probability),
      })),
    ...evidence(a, {
      movement,
      minutes: (s) => (s < 90 ? `${Math.round(s)} s` : `${significantText(s / 60, 2)} min`),
    }),
    next: nextMove(a),
    rate: a.rate && {
      value: litresPerHour(a.rate.value),
      low: litresPerHour(a.rate.low),
      high: litresPerHour(a.rate.high),
    },
    leaks: a.leaks,
    warning: warning && { ...warning, words: warningWords(warning) },
    ahead: there && { value: inUnit(there.value), low: inUnit(there.low), high: inUnit(there.high) },
    curve: curveOf(
      a,
      Array.from({ length: POINTS + 1 }, (_, i) => a.from + ((to - a.from) * i) / POINTS),
    ).map(({ t, p, low, high }) => ({ t, p: inUnit(p), low: inUnit(low), high: inUnit(high) })),
    ...warmthCurves(a, inUnit),
    rests: [
      { name: 'readings', value: String(request.samples.length) },
      { name: 'scatter of the gauge', value: `${significantText(inUnit(a.sigma), 2)} ${unitLabel(unit)}` },
      ...(a.correlation > 0.1
        ? [{ name: 'likeness of neighbours', value: significantText(a.correlation, 2) }]
        : []),
      ...(facts.perKelvin !== 0 ? [{ name: 'one kelvin does', value: movement(facts.perKelvin) }] : []),
    ],
  };
}
function warmthCurves(a: Analysis, inUnit: (v: number) => number) {
  const { warmth, perKelvin } = a.facts;
  if (warmth.length < 2 || perKelvin === 0) return { expected: [], corrected: [] };
  const expected = warmth.map((w) => ({ t: a.from + w.t * 1000, p: inUnit(a.zero + perKelvin * w.k) }));
  const { t, y } = a.readings;
  const corrected = Array.from(t, (s, i) => ({
    t: a.from + s * 1000,
    p: inUnit(a.zero + y[i]! - perKelvin * warmthAt(warmth, s)),
  }));
  return { expected, corrected };
}
/** Said beside a running hold. A warning is no result: the end reading judges. */
function warningWords({ way, cause }: Warning): string {
  const goes = way === 'falls' ? 'falls' : 'rises';
  const why =
    cause === 'temperature'
      ? ' Warmth is at work: log the temperature, settle and hold again.'
      : cause === 'step'
        ? ' Something was drawn or touched: ask, and hold again.'
        : cause
          ? ` It ${goes} like ${CAUSE_WORDS[cause]}.${way === 'falls' ? ' Own kit first.' : ''}`
          : ' What causes it cannot be told yet.';
  return `It ${goes} beyond the limit before the end.${why}`;
}
