/**
 * What a trace means: every course that is possible in this section is fitted, and each cause gets the probability that readings
 * and section give it. Advice beside the rule: it explains and warns, it judges nothing. Source: Bayesian model comparison
 */
import { type Course, sceneOf, smoothCourses, stepCourses } from './courses';
import { fit, type Fit, QUICK, quantile, type Weighed } from './fit';
import { likelihoodOf, type Readings, type Scatter, roughness, scatterAbout, upperTail } from './noise';
import { type Cause, LEAKS, type Sample, type SectionFacts, unread } from './section';

export interface Fitted {
  readonly course: Course;
  readonly fit: Fit;
  readonly probability: number;
}
export interface Rate {
  /** m3/s at the pressure of the beginning, with its 95 % interval: volume and warmth that nobody read are in it. */
  readonly value: number;
  readonly low: number;
  readonly high: number;
}
export interface Analysis {
  /** Every cause with its probability, the most probable first. */
  readonly causes: readonly { readonly cause: Cause; readonly probability: number }[];
  /** The cause, where one stands out; null: cannot tell. */
  readonly told: Cause | null;
  /** Probability that something leaves the section (or enters a vacuum). */
  readonly leaks: number;
  /** How much, if it leaks. */
  readonly rate: Rate | null;
  readonly fits: readonly Fitted[];
  readonly readings: Readings;
  readonly facts: SectionFacts;
  /** ms of the first reading */ readonly from: number;
  /** display of the first reading */ readonly zero: number;
  /** scatter of the gauge, in the unit of the facts */ readonly sigma: number;
  readonly correlation: number;
}
/** A cause stands out from so much on; below it the product says that it cannot tell. House figure. */
export const STANDS_OUT = 0.8;
/** Readings without which nothing is carried on; and without which no cause is named. */
const FEWEST_READINGS = 2;
export const FEWEST_TOLD = 4;
const MOST_READINGS = 200;
/** A gauge that does not follow: so many like readings, and such a part of the trace. House figures. */
const STUCK = { readings: 12, part: 0.25, before: 0.1 };

/** Readings as the likelihood takes them: in order, since the first, thinned where there are more than a curve can use. */
export function readingsOf(
  samples: readonly Sample[],
  step: number,
): Readings & { from: number; zero: number } {
  const sorted = samples
    .filter((s) => Number.isFinite(s.p) && Number.isFinite(s.t))
    .sort((a, b) => a.t - b.t);
  const from = sorted[0]?.t ?? 0;
  const zero = sorted[0]?.p ?? 0;
  const last = sorted[sorted.length - 1]?.t ?? 0;
  const groups: { t: number; y: number; w: number }[] = [];
  if (sorted.length <= MOST_READINGS)
    for (const s of sorted) groups.push({ t: (s.t - from) / 1000, y: s.p - zero, w: 1 });
  else {
    // those of one display within one short stretch stand together, at their middle
    const width = (last - from) / (MOST_READINGS / 2) || 1;
    let open: Map<number, { t: number; y: number; w: number }> | null = null;
    let slot = -1;
    const close = () => {
      if (open) groups.push(...[...open.values()].map((g) => ({ ...g, t: g.t / g.w })));
    };
    for (const s of sorted) {
      const k = Math.floor((s.t - from) / width);
      if (k !== slot) {
        close();
        open = new Map();
        slot = k;
      }
      const y = s.p - zero;
      const key = Math.round(y / step);
      const g = open!.get(key) ?? { t: 0, y, w: 0 };
      g.t += (s.t - from) / 1000;
      g.w += 1;
      open!.set(key, g);
    }
    close();
    groups.sort((a, b) => a.t - b.t);
  }
  return {
    t: Float64Array.from(groups, (g) => g.t),
    y: Float64Array.from(groups, (g) => g.y),
    weight: Float64Array.from(groups, (g) => g.w),
    step,
    from,
    zero,
  };
}
const cut = (r: Readings, n: number): Readings => ({
  t: r.t.slice(0, n),
  y: r.y.slice(0, n),
  weight: r.weight.slice(0, n),
  step: r.step,
});
/** Readings at the end that are all alike, if there are enough of them after others that were not. */
function alikeAtEnd(r: Readings): number | null {
  const n = r.t.length;
  let from = n - 1;
  while (from > 0 && r.y[from - 1] === r.y[n - 1]) from -= 1;
  const long = (r.t[n - 1]! - r.t[from]!) / (r.t[n - 1]! || 1);
  return n - from >= STUCK.readings && long >= STUCK.part && from >= STUCK.readings ? from : null;
}
/** Courses so much further from the readings than the closest are not looked at again (natural logarithm). House figure. */
const FAR = 40;
const COARSE = 48;
/** Middles of some neighbours each: enough to see which courses are possible at all. */
function coarse(r: Readings): Readings {
  const n = r.t.length;
  const each = Math.ceil(n / COARSE);
  const m = Math.ceil(n / each);
  const [t, y, weight] = [new Float64Array(m), new Float64Array(m), new Float64Array(m)];
  for (let i = 0; i < n; i += 1) {
    const k = Math.floor(i / each);
    t[k]! += r.t[i]! * r.weight[i]!;
    y[k]! += r.y[i]! * r.weight[i]!;
    weight[k]! += r.weight[i]!;
  }
  for (let k = 0; k < m; k += 1) {
    t[k]! /= weight[k]!;
    y[k]! /= weight[k]!;
  }
  return { t, y, weight, step: r.step };
}
interface Found {
  readonly course: Course;
  readonly fit: Fit;
  readonly log: number;
}
const logOf = (course: Course, one: Fit | null): Found[] =>
  one && Number.isFinite(one.evidence)
    ? [{ course, fit: one, log: one.evidence + Math.log(course.before) }]
    : [];
/** What a course leaves, as the logarithm of its size: never less than a step hides. */
const sizeOf = (square: number, step: number): number => Math.log(square + (step * step) / 24) / 2;
/** Another way to see the same readings: what it leaves of them in all, what it had to choose, its scatter. */
interface Rival {
  readonly left: number;
  readonly used: number;
  readonly scatter: Scatter;
}
/**
 * First every course by middles; then, with the scatter that the closest of them leaves, the possible ones by every reading. The
 * closest is asked for by what it leaves and how much it had to choose (Akaike), not by how probable it is: a large scatter would
 * make any course probable.
 */
function fitted(
  facts: SectionFacts,
  r: Readings,
  rival?: Rival,
): { found: Found[]; scatter: Scatter; rival: Rival } {
  const n = r.t.length;
  const few = coarse(r);
  const spread = Math.hypot(roughness(r), r.step / Math.sqrt(12));
  const look = likelihoodOf({ ...few, step: r.step * 1e-3 }, spread, 1, Infinity);
  const simple = new Map<string, readonly number[]>();
  const lookAt = (course: Course) => {
    const further = course.after.flatMap(({ key, start }) =>
      simple.has(key) ? [start(simple.get(key)!)] : [],
    );
    const one = fit(few, look, course, [...course.starts, ...further], QUICK);
    if (!one) return [];
    simple.set(course.key, Array.from(one.x));
    const mean = new Float64Array(n);
    course.mean(one.x, r.t, mean);
    const used = one.x.length;
    const square = r.y.reduce((sum, y, i) => sum + r.weight[i]! * (y - mean[i]!) ** 2, 0) / n;
    const size = sizeOf(square, r.step);
    return [{ course, one, mean, used, square, size, criterion: n * size + used }];
  };
  const closest = (list: ReturnType<typeof lookAt>) =>
    list.reduce<(typeof list)[number] | null>((b, l) => (!b || l.criterion < b.criterion ? l : b), null);
  const scene = sceneOf(facts, r);
  const smooth = smoothCourses(scene).flatMap(lookAt);
  const nearest = closest(smooth);
  const steps = nearest
    ? stepCourses(
        scene,
        r.y.map((y, i) => y - nearest.mean[i]!),
      ).flatMap(lookAt)
    : [];
  const looked = [...smooth, ...steps];
  const best = closest(looked);
  const none = { sigma: spread, thin: 1, correlation: 0 };
  if (!best) return { found: [], scatter: none, rival: { left: Infinity, used: 0, scatter: none } };
  const own = scatterAbout(r, best.mean, best.used);
  const left = best.square * n;
  const scatter =
    rival && sizeOf(rival.left / n, r.step) * n + rival.used < best.criterion ? rival.scatter : own;
  const like = likelihoodOf(r, scatter.sigma, scatter.thin);
  const found = looked
    .filter((l) => n * scatter.thin * (l.size - best.size) < FAR)
    .flatMap((l) => logOf(l.course, fit(r, like, l.course, [l.one.x])));
  return { found, scatter, rival: { left, used: best.used, scatter: own } };
}
const logSum = (logs: readonly number[]): number => {
  const most = Math.max(...logs);
  return most + Math.log(logs.reduce((s, l) => s + Math.exp(l - most), 0));
};

/**
 * @param samples what the gauge showed, in any order  @param facts of the section when the trace begins
 * @returns null with fewer than two readings, or none that says anything
 */
export function analyse(samples: readonly Sample[], facts: SectionFacts): Analysis | null {
  const r = readingsOf(samples, facts.step);
  const n = r.t.length;
  if (n < FEWEST_READINGS || !(r.t[n - 1]! > 0)) return null;
  // a gauge that follows no more: what came before by the usual causes, then the same figure whatever is
  const alike = alikeAtEnd(r);
  const before = alike === null ? null : fitted(facts, cut(r, alike));
  const { found, scatter } = fitted(facts, r, before?.rival);
  if (!found.length) return null;
  const logs = found.map((f) => f.log);
  const stuck = before?.found.length
    ? logSum(before.found.map((f) => f.log)) + Math.log(STUCK.before / n)
    : -Infinity;
  const all = logSum([...logs, stuck].filter((l) => l > -Infinity));
  const fits = found
    .map((f): Fitted => ({ course: f.course, fit: f.fit, probability: Math.exp(f.log - all) }))
    .sort((a, b) => b.probability - a.probability);
  const sums = new Map<Cause, number>();
  for (const f of fits) sums.set(f.course.cause, (sums.get(f.course.cause) ?? 0) + f.probability);
  if (stuck > -Infinity) sums.set('stuck', Math.exp(stuck - all));
  const causes = [...sums]
    .map(([cause, probability]) => ({ cause, probability }))
    .sort((a, b) => b.probability - a.probability);
  return {
    causes,
    told:
      n >= FEWEST_TOLD && causes[0]!.probability >= STANDS_OUT && shaped(causes[0]!.cause, fits)
        ? causes[0]!.cause
        : null,
    leaks: causes.reduce((s, c) => s + (LEAKS.has(c.cause) ? c.probability : 0), 0),
    rate: rateOf(facts, fits, r),
    fits,
    readings: r,
    facts,
    from: r.from,
    zero: r.zero,
    sigma: scatter.sigma,
    correlation: scatter.correlation,
  };
}
/** Warmth that nobody read, seen in a straight line alone, is a guess whatever its odds: a leak is as straight. */
const shaped = (cause: Cause, fits: readonly Fitted[]): boolean =>
  cause !== 'temperature' || (fits.find((f) => f.course.key === 'drift')?.probability ?? 0) < 1 - STANDS_OUT;
/** Of the leak, by all courses that have one, each by its probability. */
function rateOf(facts: SectionFacts, fits: readonly Fitted[], r: Readings): Rate | null {
  const leaky = fits.filter((f) => f.course.leak !== undefined);
  const most = leaky[0]?.probability ?? 0;
  if (!(most > 0)) return null;
  const list: { value: number; weight: number }[] = [];
  for (const f of leaky) {
    if (f.probability < 0.01 * most) continue;
    for (const x of f.fit.rates()[f.course.leak!]!)
      if (x.weight > 1e-9) list.push({ value: x.value, weight: (x.weight * f.probability) / most });
  }
  const sum = list.reduce((s, x) => s + x.weight, 0);
  const sorted: Weighed = list
    .map((x) => ({ value: x.value, weight: x.weight / sum }))
    .sort((a, b) => a.value - b.value);
  const unit = facts.step / Math.max(1, r.t[r.t.length - 1]!);
  const [low, value, high] = [0.025, 0.5, 0.975].map((q) => quantile(sorted, q) * unit * facts.give) as [
    number,
    number,
    number,
  ];
  // the volume's own uncertainty, beside that of the slope
  const wide = 1.96 * facts.giveUncertainty * value;
  return {
    value,
    low: Math.max(0, value - Math.hypot(value - low, wide)),
    high: value + Math.hypot(high - value, wide),
  };
}
interface Mixture {
  readonly weight: number;
  readonly mean: number;
  readonly sd: number;
}
/** Every probable course carried to some moments: where each stands there, and how surely. @param times ms, ascending */
function carriedTo(a: Analysis, times: readonly number[]): Mixture[][] {
  const { warmth, perKelvin } = a.facts;
  const seconds = times.map((t) => (t - a.from) / 1000);
  const last = warmth.length >= 2 ? warmth[warmth.length - 1]!.t : Infinity;
  // what the warmth does from the last time on that anybody read it
  const wanders = seconds.map((s) => (s > last ? perKelvin * unread(a.facts, s - last) : 0));
  const n = a.readings.t.length;
  // a lag needs the way there: the moments stand among the readings
  const order = [...a.readings.t, ...seconds].map((t, i) => ({ t, i })).sort((p, q) => p.t - q.t);
  const all = Float64Array.from(order, (o) => o.t);
  const where = new Int32Array(order.length);
  order.forEach((o, k) => (where[o.i] = k));
  return a.fits
    .filter((f) => f.probability > 1e-4)
    .map(({ course, fit: found, probability }) => {
      const out = new Float64Array(all.length);
      const values = (x: Float64Array) => {
        course.mean(x, all, out);
        return seconds.map((_, k) => out[where[n + k]!]!);
      };
      const here = values(found.x);
      const slopes = Array.from(found.x, (v, j) => {
        const x = Float64Array.from(found.x);
        const h = 1e-4 * Math.max(1, Math.abs(v));
        x[j]! += h;
        return values(x).map((moved, k) => (moved - here[k]!) / h);
      });
      return here.map((mean, k) => {
        let variance = wanders[k]! ** 2;
        for (let i = 0; i < slopes.length; i += 1)
          for (let j = 0; j < slopes.length; j += 1)
            variance += slopes[i]![k]! * slopes[j]![k]! * found.covariance[i]![j]!;
        return { weight: probability, mean: a.zero + mean, sd: Math.sqrt(Math.max(0, variance)) };
      });
    });
}
export interface Ahead {
  /** in the unit of the facts */ readonly value: number;
  readonly low: number;
  readonly high: number;
  /** Probability that the display then lies below a figure, or at it. */
  readonly below: (figure: number) => number;
}
/** What several courses together say, each about its own middle. */
function together(parts: readonly Mixture[], own: number): Ahead {
  const sum = parts.reduce((s, p) => s + p.weight, 0);
  const wide = parts.map((p) => ({ ...p, sd: Math.sqrt(p.sd ** 2 + own) || 1e-12 }));
  const below = (figure: number) =>
    wide.reduce((s, p) => s + p.weight * upperTail((p.mean - figure) / p.sd), 0) / sum;
  const ends = [
    Math.min(...wide.map((p) => p.mean - 6 * p.sd)),
    Math.max(...wide.map((p) => p.mean + 6 * p.sd)),
  ] as const;
  const find = (part: number) => {
    let [low, high] = ends;
    for (let i = 0; i < 40; i += 1) {
      const mid = (low + high) / 2;
      if (below(mid) < part) low = mid;
      else high = mid;
    }
    return (low + high) / 2;
  };
  return { value: find(0.5), low: find(0.025), high: find(0.975), below };
}
/** What the gauge will show at a moment, by all courses together, with the 95 % band of that display. @param at ms */
export function ahead(a: Analysis, at: number): Ahead {
  // the display: what stands behind it, the gauge's scatter and its step
  return together(
    carriedTo(a, [at]).map((x) => x[0]!),
    a.sigma ** 2 + a.readings.step ** 2 / 12,
  );
}
/** The course by all causes together, with its 95 % band: what stands behind the displays. @param times ms, ascending */
export function curveOf(
  a: Analysis,
  times: readonly number[],
): { readonly t: number; readonly p: number; readonly low: number; readonly high: number }[] {
  const courses = carriedTo(a, times);
  return times.map((t, k) => {
    const { value, low, high } = together(
      courses.map((c) => c[k]!),
      0,
    );
    return { t, p: value, low, high };
  });
}
