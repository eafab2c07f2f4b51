/** A course of a trace, and the scene that all courses of one trace share: its length, its units, what every course has. */
import type { Candidate } from '../fit';
import { type Readings, solve } from '../noise';
import { type Cause, type SectionFacts, unread } from '../section';
import { fallOf, power } from './law';
import { lagged, LAG } from './lag';

export interface Course extends Candidate {
  readonly cause: Cause;
  /** Weight before any reading; house figures, of causes as they are met. */
  readonly before: number;
  /** Index of the rate that leaves the section, where one does. */
  readonly leak?: number;
  /** Further starts: what simpler courses have found. */
  readonly after: readonly After[];
}
export interface After {
  /** Key of the simpler course. */
  readonly key: string;
  readonly start: (found: readonly number[]) => readonly number[];
}
/** Adds to a course what is its own. @param at index of its first parameter */
export type Add = (x: Float64Array, t: Float64Array, out: Float64Array, at: number) => void;
/** A course by what is its own: parameters, rates and starts without those that all have. */
export interface Spec {
  readonly key: string;
  readonly cause: Cause;
  readonly before: number;
  /** Parameters of its own, standard normal. */
  readonly own?: number;
  readonly add?: Add;
  readonly rates?: Course['rates'];
  readonly starts?: readonly (readonly number[])[];
  readonly leak?: number;
  readonly after?: readonly After[];
  /** It stands still: warmth that nobody read moves it neither. */
  readonly still?: true;
}
export interface Scene {
  readonly facts: SectionFacts;
  readonly readings: Readings;
  /** s */ readonly span: number;
  /** From the first reading to the last. */
  readonly whole: number;
  /** Of rates: steps a trace, so that all parameters are of one size. */
  readonly unit: number;
  readonly rate: Course['rates'][number];
  /** The rate that would do the whole fall. */
  readonly slope: number;
  /** Temperatures that were read move it by more than the gauge's step; by more than counts. */
  readonly logged: boolean;
  readonly warmthMoves: boolean;
  /** One where a leak has taken so much that its law shows: a parameter more. */
  readonly curves: 0 | 1;
  readonly course: (spec: Spec) => Course;
  /** Takes off what leaks. @param at index of its law, where that shows  @param q its rate */
  readonly leaving: (x: Float64Array, t: Float64Array, out: Float64Array, at: number, q: number) => void;
}
/** Leaks spread over decades: standard deviation of the logarithm. House figure. */
const SPREAD = 2;
/** A usual leak is so many times the one that matters. House figure. */
const USUAL = 4;
/** What one kelvin does is known to so much. House figures. */
const GAIN = { gas: 0.08, other: 0.2 };
/** A curve can be told from a straight line once a leak has taken so much of the pressure. */
const CURVES = 0.04;

const range = (x: readonly number[]): number => Math.max(...x) - Math.min(...x);
export const zeros = (k: number): number[] => Array<number>(k).fill(0);
/** Between minus and plus so many, as a start that priors do not forbid. */
export const start = (z: number): number => Math.max(-2.5, Math.min(2.5, z));

export function sceneOf(facts: SectionFacts, r: Readings): Scene {
  const n = r.t.length;
  const span = Math.max(1, r.t[n - 1]!);
  const whole = r.y[n - 1]! - r.y[0]!;
  const { filling, step, perKelvin, pressure } = facts;
  const read = facts.warmth.length >= 2 && perKelvin !== 0;
  const moves = read ? Math.abs(perKelvin) * range(facts.warmth.map((w) => w.k)) : 0;
  const logged = moves > 0.3 * step;
  /** What nobody read of the warmth, over the whole trace. */
  const drift = Math.abs(perKelvin) * (read ? facts.thermometer : unread(facts, span));
  const unit = step / span;
  const gain = GAIN[filling === 'gas' ? 'gas' : 'other'];
  // what every course has: where it starts, what nobody read of the warmth; with a thermometer its gain and lag
  const common = logged ? 4 : 2;
  let warm = new Float64Array(n);
  const floor = (x: Float64Array, t: Float64Array, out: Float64Array, still: boolean) => {
    const d = still && !logged ? 0 : (drift / span) * x[1]!;
    for (let i = 0; i < t.length; i += 1) out[i] = 2 * step * x[0]! + d * t[i]!;
    if (!logged) return;
    if (warm.length !== t.length) warm = new Float64Array(t.length);
    lagged(facts, t, LAG.tau * Math.exp(LAG.spread * x[3]!), warm);
    const g = perKelvin * (1 + gain * x[2]!);
    for (let i = 0; i < t.length; i += 1) out[i]! += g * warm[i]!;
  };
  const slope = Math.max(0, -whole / step);
  const curves = pressure > 0 && Math.abs(whole) > CURVES * pressure ? 1 : 0;
  const falls = fallOf(facts);
  return {
    facts,
    readings: r,
    span,
    whole,
    unit,
    rate: { mid: (USUAL * facts.matters) / facts.give / unit, spread: SPREAD },
    slope,
    logged,
    warmthMoves: logged && moves >= facts.perceptible,
    curves,
    leaving: (x, t, out, at, q) => falls(curves ? power(x[at]!) : 1, q * unit, t, out),
    course: ({ key, cause, before, own = 0, add, rates = [], starts, leak, after = [], still }) => ({
      key,
      cause,
      before,
      size: common + own,
      rates,
      mean: (x, t, out) => {
        floor(x, t, out, still === true);
        add?.(x, t, out, common);
      },
      starts: (starts ?? [[...zeros(own), ...rates.map(() => slope)]]).map((s) => [...zeros(common), ...s]),
      ...(leak === undefined ? {} : { leak }),
      after: after.map((a) => ({
        key: a.key,
        start: (found: readonly number[]) => [...zeros(common), ...a.start(found.slice(common))],
      })),
    }),
  };
}
/**
 * How much of a shape and of a straight fall the readings have in them, by least squares: where a search for both begins.
 * @returns the shape's amount and the fall's rate, in the scene's unit
 */
export function sharesOf(s: Scene, shape: (t: number) => number): readonly [number, number] {
  const { t, y } = s.readings;
  const a = Array.from({ length: 3 }, () => new Float64Array(4));
  for (let i = 0; i < t.length; i += 1) {
    const row = [1, shape(t[i]!), -t[i]! * s.unit, y[i]!];
    for (let j = 0; j < 3; j += 1) for (let k = 0; k < 4; k += 1) a[j]![k]! += row[j]! * row[k]!;
  }
  const x = solve(a);
  return x ? [x[1]!, Math.max(0.1, x[2]!)] : [0, s.slope];
}
/** A cause and a leak together, from where each alone was found: the first without a leak, the leak without the first. */
export const together = (s: Scene, key: string): After[] => [
  { key, start: (own) => [...own, ...zeros(s.curves), s.slope / 10] },
  { key: 'leak', start: (own) => [0, 0, ...own] },
  { key: 'leak', start: (own) => [0, -1.5, ...own] },
  ...(s.curves
    ? [1, -1].flatMap((a) =>
        [-1, 1].map((tau) => ({ key: 'leak', start: (own: readonly number[]) => [a, tau, ...own] })),
      )
    : []),
];
