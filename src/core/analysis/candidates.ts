/**
 * The courses a trace can have in a section like this, each as a curve with what is known of its size beforehand. Sources: ideal
 * gas in a closed section; laws of small leaks; elastic water and pipe wall; the shape of a rising vacuum
 */
import type { Candidate } from './fit';
import { type Readings } from './noise';
import type { Cause, SectionFacts } from './section';

export interface Course extends Candidate {
  readonly cause: Cause;
  /** Weight before any reading; house figures, of causes as they are met. */
  readonly before: number;
  /** Index of the rate that leaves the section, where one does. */
  readonly leak?: number;
  /** Further starts: what simpler courses have found. Own parameters and rates, without those that all have. */
  readonly after?: readonly {
    readonly key: string;
    readonly start: (own: readonly number[]) => readonly number[];
  }[];
}
/** Leaks spread over decades: standard deviation of the logarithm. House figure. */
const SPREAD = 2;
/** A usual leak is so many times the one that matters. House figure. */
const USUAL = 4;
/** What a fill's own warmth is, K, and how long it lasts, s with the standard deviation of its logarithm. House figures. */
const FILL = { k: 1, tau: 300, spread: 1 };
const LIQUID_FILL = { k: 1, tau: 900, spread: 0.9 };
/** What a wall lags behind a thermometer, s. House figure. */
const LAG = { tau: 120, spread: 1 };
/** What one kelvin does is known to so much. House figures. */
const GAIN = { gas: 0.08, liquid: 0.2 };
/** Warmth of a fill that a thermometer on the pipe does not see, K. House figure. */
const UNSEEN = 0.3;
/** Stretch per e-fold of time, as a part of the pressure; its time, s. House figures. */
const STRETCH = { part: 0.012, spread: 0.9, tau: 60, tauSpread: 1.2 };
/** Air that is still settling: part of the pressure, or m of a level; its time, s. House figures. */
const AIR = { part: 0.01, level: 0.006, spread: 1, tau: 100, tauSpread: 0.7 };
/** A disturbance moves so many perceptible movements. House figure. */
const KNOCKS = 10;
/** A curve can be told from a straight line once a leak has taken so much of the pressure. */
const CURVES = 0.04;
/** Water vapour from wet walls: Pa, and s. House figures. */
const VAPOUR = { pa: 150, spread: 1, tau: 200, tauSpread: 0.8 };

type Mean = Candidate['mean'];
/** The warmth the section had at a reading's time, by a thermometer and the wall's lag, K above the first. */
function lagged(facts: SectionFacts, t: Float64Array, tau: number, out: Float64Array): void {
  const w = facts.warmth;
  // the wall stands as the thermometer says when the trace begins
  let [k, held, before] = [0, w[0]!.k, 0];
  const shown = (s: number): number => {
    while (k < w.length - 2 && w[k + 1]!.t < s) k += 1;
    const [a, b] = [w[k]!, w[k + 1]!];
    const part = Math.min(1, Math.max(0, (s - a.t) / (b.t - a.t || 1)));
    return a.k + part * (b.k - a.k);
  };
  let last = shown(before);
  held = last;
  const first = held;
  for (let i = 0; i < t.length; i += 1) {
    const dt = t[i]! - before;
    const now = shown(t[i]!);
    if (dt > 0) {
      // the thermometer goes straight from one reading to the next, the wall follows it by its own time
      const e = Math.exp(-dt / tau);
      const slope = (now - last) / dt;
      held = now - slope * tau + (held - last + slope * tau) * e;
    }
    before = t[i]!;
    last = now;
    out[i] = held - first;
  }
}
/**
 * Every smooth course that is possible here; or, with what the closest of those leaves, the same with a step in it.
 * @param r readings, whose first and last say how long it is  @param left what a smooth course leaves of each reading
 */
export function coursesFor(facts: SectionFacts, r: Readings, left?: Float64Array): Course[] {
  const n = r.t.length;
  const span = Math.max(1, r.t[n - 1]!);
  const whole = r.y[n - 1]! - r.y[0]!;
  const { filling, step, perKelvin, give, pressure } = facts;
  const gas = filling === 'gas';
  const minutes = span / 60;
  const read = facts.warmth.length >= 2 && perKelvin !== 0;
  const logged = read && Math.abs(perKelvin) * range(facts.warmth.map((w) => w.k)) > 0.3 * step;
  /** What nobody read of the warmth, over the whole trace, Pa. */
  const unread =
    Math.abs(perKelvin) *
    (read ? facts.thermometer : Math.min(facts.drift.most, facts.drift.perMinute * minutes));
  /** Rates in steps a trace, so that all parameters are of one size. */
  const unit = step / span;
  const rate = { mid: (USUAL * facts.matters) / give / unit, spread: SPREAD };
  const z0 = 2 * step;
  let warm = new Float64Array(n);
  const gain = GAIN[gas ? 'gas' : 'liquid'];
  // parameters that every course has: where it starts, what nobody read of the warmth, and what a thermometer read
  const common = logged ? 4 : 2;
  const floor: Mean = (x, t, out) => {
    const d = (unread / span) * x[1]!;
    if (logged) {
      if (warm.length !== t.length) warm = new Float64Array(t.length);
      lagged(facts, t, LAG.tau * Math.exp(LAG.spread * x[3]!), warm);
      const g = perKelvin * (1 + gain * x[2]!);
      for (let i = 0; i < t.length; i += 1) out[i] = z0 * x[0]! + d * t[i]! + g * warm[i]!;
    } else for (let i = 0; i < t.length; i += 1) out[i] = z0 * x[0]! + d * t[i]!;
  };
  const zeros = (k: number) => Array<number>(k).fill(0);
  const slope0 = Math.max(0, -whole / step);
  const all: Course[] = [];
  const put = (
    key: string,
    cause: Cause,
    before: number,
    own: number,
    add: (x: Float64Array, t: Float64Array, out: Float64Array, at: number) => void,
    rates: Course['rates'] = [],
    starts: readonly (readonly number[])[] = [],
    leak?: number,
    after: NonNullable<Course['after']> = [],
  ) =>
    all.push({
      key,
      cause,
      before,
      size: common + own,
      rates,
      mean: (x, t, out) => {
        floor(x, t, out);
        add(x, t, out, common);
      },
      starts: (starts.length ? starts : [[...zeros(own), ...rates.map(() => slope0)]]).map((s) => [
        ...zeros(common),
        ...s,
      ]),
      ...(leak === undefined ? {} : { leak }),
      after: after.map(({ key: of, start }) => ({
        key: of,
        start: (x) => [...zeros(common), ...start(x.slice(common))],
      })),
    });
  /** Two causes together, from where each alone was found: the first without a leak, the leak without the first. */
  const together = (key: string, size: number): NonNullable<Course['after']> => [
    { key, start: (own) => [...own, ...zeros(curves), slope0 / 10] },
    { key: 'leak', start: (own) => [...zeros(size), ...own] },
    { key: 'leak', start: (own) => [...zeros(size - 1), -1.5, ...own] },
    ...(curves
      ? [1, -1].flatMap((a) =>
          [-1, 1].map((tau) => ({ key: 'leak', start: (own: readonly number[]) => [a, tau, ...own] })),
        )
      : []),
  ];

  const falls = fallOf(facts);
  // a leak that has taken little of the pressure is straight whatever its law; else its law is one more thing not known
  const curves = pressure > 0 && Math.abs(whole) > CURVES * pressure ? 1 : 0;
  if (left) {
    disturbed(facts, r, left, put, rate, unit);
    return all;
  }
  const warmthMoves =
    logged && Math.abs(perKelvin) * range(facts.warmth.map((w) => w.k)) >= facts.perceptible;
  if (filling === 'vacuum') {
    vacuum(facts, put, rate, unit, whole);
    return all;
  }
  const leaky: Cause = warmthMoves ? 'temperature+leak' : 'leak';
  // without a drift of its own: nothing moves it
  all.push({
    key: 'steady',
    cause: warmthMoves ? 'temperature' : 'steady',
    before: 1,
    size: common,
    rates: [],
    mean: (x, t, out) => {
      const keep = x[1]!;
      x[1] = logged ? keep : 0;
      floor(x, t, out);
      x[1] = keep;
    },
    starts: [zeros(common)],
  });
  if (perKelvin !== 0 && !logged) put('drift', 'temperature', 0.5, 0, () => undefined);
  const leaving = (x: Float64Array, t: Float64Array, out: Float64Array, at: number, q: number) =>
    falls(curves ? power(x[at]!) : 1, q * unit, t, out);
  put(
    'leak',
    leaky,
    1,
    curves,
    (x, t, out, at) => leaving(x, t, out, at, x[at + curves]!),
    [rate],
    (curves ? [1, 3, 10] : [1]).map((k) => [...zeros(curves), k * slope0]),
    0,
  );
  if (perKelvin !== 0) {
    const own = gas ? FILL : LIQUID_FILL;
    const k = logged ? UNSEEN : own.k;
    const relaxed = (x: Float64Array, t: Float64Array, out: Float64Array, at: number) => {
      const a = perKelvin * k * x[at]!;
      const tau = own.tau * Math.exp(own.spread * x[at + 1]!);
      for (let i = 0; i < t.length; i += 1) out[i]! += a * (1 - Math.exp(-t[i]! / tau));
    };
    const a0 = Math.max(-2.5, Math.min(2.5, whole / (perKelvin * k * (1 - Math.exp(-span / own.tau)))));
    const shapes = [-2, -1, 0, 1];
    put(
      'warmth',
      'temperature',
      0.5,
      2,
      relaxed,
      [],
      shapes.map((s) => [a0, s]),
    );
    put(
      'warmth and leak',
      'temperature+leak',
      0.2,
      2 + curves,
      (x, t, out, at) => {
        relaxed(x, t, out, at);
        leaving(x, t, out, at + 2, x[at + 2 + curves]!);
      },
      [rate],
      shapes.map((s) => [a0 / 2, s, ...zeros(curves), slope0 / 2]),
      0,
      together('warmth', 2),
    );
  }
  if (facts.stretches) {
    const stretched = (x: Float64Array, t: Float64Array, out: Float64Array, at: number) => {
      const a = pressure * STRETCH.part * Math.exp(STRETCH.spread * x[at]!);
      const tau = STRETCH.tau * Math.exp(STRETCH.tauSpread * x[at + 1]!);
      for (let i = 0; i < t.length; i += 1) out[i]! -= a * Math.log1p(t[i]! / tau);
    };
    const a0 =
      Math.log(Math.max(1e-3, -whole / (pressure * STRETCH.part * Math.log1p(span / STRETCH.tau)))) /
      STRETCH.spread;
    const z = Math.max(-2.5, Math.min(2.5, a0));
    put(
      'stretch',
      'stretch',
      1,
      2,
      stretched,
      [],
      [
        [z, 0],
        [z, -1.5],
        [z, 1.5],
      ],
    );
    put(
      'stretch and leak',
      'stretch+leak',
      0.35,
      2 + curves,
      (x, t, out, at) => {
        stretched(x, t, out, at);
        leaving(x, t, out, at + 2, x[at + 2 + curves]!);
      },
      [rate],
      [
        [z - 0.7, 0, ...zeros(curves), slope0 / 2],
        [z - 0.7, -1.5, ...zeros(curves), slope0 / 2],
        [z - 2, 0, ...zeros(curves), slope0],
      ],
      0,
      together('stretch', 2),
    );
  }
  const { supply } = facts;
  if (supply !== null && supply > pressure + step) {
    // (V/P_atm) dp/dt = k_in (p_s - p) - k_out p: towards the pressure at which both are alike
    const towards = (kIn: number, kOut: number, t: Float64Array, out: Float64Array) => {
      const k = kIn + kOut;
      const rest = kIn * supply - k * pressure;
      for (let i = 0; i < t.length; i += 1)
        out[i]! += rest * (Math.abs(k * t[i]!) < 1e-9 ? t[i]! : -Math.expm1(-k * t[i]!) / k);
    };
    const into = rate;
    const own = whole - (logged ? perKelvin * facts.warmth[facts.warmth.length - 1]!.k : 0);
    const rise0 = Math.max(0, whole / step);
    const share = (supply - pressure) / supply;
    put(
      'let-by',
      'let-by',
      1,
      0,
      (x, t, out, at) => towards((x[at]! * unit) / supply, 0, t, out),
      [into],
      [[rise0 / share]],
    );
    if (pressure > 5 * step)
      put(
        'let-by and leak',
        'let-by+leak',
        0.2,
        0,
        (x, t, out, at) => towards((x[at]! * unit) / supply, (x[at + 1]! * unit) / pressure, t, out),
        [into, rate],
        [
          [rise0 / share + into.mid / 4, (into.mid * share) / 4],
          ...[0.1, 0.5, 1, 3, 10, 40, 150].map((turns) => {
            // it nears its balance in so many of its own times, and ends where the readings do
            const k = turns / span;
            const rest = Math.max(0.01 * pressure, pressure + own / -Math.expm1(-turns));
            const kIn = Math.min(k, (k * rest) / supply);
            return [(kIn * supply) / unit, ((k - kIn) * pressure) / unit];
          }),
        ],
        1,
      );
  }
  if (filling === 'liquid' || filling === 'level') {
    const size = filling === 'level' ? AIR.level : AIR.part * Math.max(pressure, 1000);
    const settled = (x: Float64Array, t: Float64Array, out: Float64Array, at: number) => {
      const a = size * Math.exp(AIR.spread * x[at]!);
      const tau = AIR.tau * Math.exp(AIR.tauSpread * x[at + 1]!);
      for (let i = 0; i < t.length; i += 1) out[i]! += a * Math.expm1(-t[i]! / tau);
    };
    const z = Math.max(-2.5, Math.min(2.5, Math.log(Math.max(1e-3, -whole / size)) / AIR.spread));
    put(
      'air',
      'air',
      0.7,
      2,
      settled,
      [],
      [
        [z, 0],
        [z, -1],
        [z, 1],
      ],
    );
    if (filling === 'level')
      put(
        'air, then leak',
        'leak',
        0.2,
        2,
        (x, t, out, at) => {
          settled(x, t, out, at);
          const q = x[at + 2]! * unit;
          for (let i = 0; i < t.length; i += 1) out[i]! -= q * t[i]!;
        },
        [rate],
        [
          [z - 0.7, 0, slope0 / 2],
          [z - 0.7, -1, slope0],
        ],
        0,
      );
  }
  return all;
}
type Put = (
  key: string,
  cause: Cause,
  before: number,
  own: number,
  add: (x: Float64Array, t: Float64Array, out: Float64Array, at: number) => void,
  rates?: Course['rates'],
  starts?: readonly (readonly number[])[],
  leak?: number,
  after?: NonNullable<Course['after']>,
) => void;

const range = (x: readonly number[]): number => Math.max(...x) - Math.min(...x);
/** Exponent of a leak by the pressure that drives it: a hole one half, a hairline one; a normal draw says where between. */
const power = (z: number): number => 0.75 + 0.25 * Math.tanh(z);
/** Takes off what a leak has brought the pressure down, by its exponent and its slope at the beginning. */
function fallOf(
  facts: SectionFacts,
): (exponent: number, slope: number, t: Float64Array, out: Float64Array) => void {
  const p0 = facts.filling === 'level' ? 0 : facts.pressure;
  const straight = (slope: number, t: Float64Array, out: Float64Array) => {
    for (let i = 0; i < t.length; i += 1) out[i]! -= slope * t[i]!;
  };
  if (!(p0 > 0)) return (_, slope, t, out) => straight(slope, t, out);
  const a = facts.atmosphere;
  const gas = facts.filling === 'gas';
  const drive = (p: number) => (gas ? p + (p * p) / (2 * a) : p);
  // the last one is kept: a slope's own derivative asks for the same again
  let way: Way | null = null;
  return (n, slope, t, out) => {
    if (slope <= 0) straight(slope, t, out);
    else if (gas && n === 1) {
      // p / (p + 2A) falls by its exponential; its slope at the beginning is p (p + 2A) / 2A of the constant
      const k = (slope * 2 * a) / (p0 * (p0 + 2 * a));
      for (let i = 0; i < t.length; i += 1) {
        const left = (p0 / (p0 + 2 * a)) * Math.exp(-k * t[i]!);
        out[i]! -= p0 - (2 * a * left) / (1 - left);
      }
    } else if (!gas) {
      // p' = -s (p / p0)^n
      const k = slope / p0;
      for (let i = 0; i < t.length; i += 1)
        out[i]! -=
          n > 0.999
            ? -p0 * Math.expm1(-k * t[i]!)
            : p0 * (1 - Math.max(0, 1 - (1 - n) * k * t[i]!) ** (1 / (1 - n)));
    } else {
      // p' = -s (drive / drive at the beginning)^n: how long it takes to each pressure is the same for every s but for its scale
      if (way?.n !== n) way = wayDown(p0, drive, n);
      let k = 0;
      for (let i = 0; i < t.length; i += 1) {
        const at = slope * t[i]!;
        while (k < WAY - 1 && way.time[k + 1]! < at) k += 1;
        const [t0, t1] = [way.time[k]!, way.time[k + 1]!];
        const h = t1 - t0;
        if (at >= t1) {
          out[i]! -= p0 - way.p[k + 1]!;
          continue;
        }
        // a cubic through pressures and slopes
        const s = (at - t0) / h;
        const s2 = s * s;
        const s3 = s2 * s;
        const p =
          (2 * s3 - 3 * s2 + 1) * way.p[k]! +
          (s3 - 2 * s2 + s) * h * way.slope[k]! +
          (3 * s2 - 2 * s3) * way.p[k + 1]! +
          (s3 - s2) * h * way.slope[k + 1]!;
        out[i]! -= p0 - p;
      }
    }
  };
}
const WAY = 48;
interface Way {
  readonly p0: number;
  readonly n: number;
  readonly p: Float64Array;
  /** Pa: time by a slope of one */ readonly time: Float64Array;
  readonly slope: Float64Array;
}
/** Pressures on the way down, with the time to each and the slope there, for a slope of one at the beginning. */
function wayDown(p0: number, drive: (p: number) => number, n: number): Way {
  const whole = drive(p0);
  const speed = (p: number) => (drive(p) / whole) ** n;
  const p = new Float64Array(WAY + 1);
  const time = new Float64Array(WAY + 1);
  const slope = new Float64Array(WAY + 1);
  for (let i = 0; i <= WAY; i += 1) {
    // denser towards the end, where it slows down; to a thousandth, below which no gauge looks
    p[i] = p0 * Math.max(1e-3, (1 - i / WAY) ** 1.5);
    slope[i] = -speed(p[i]!);
    // Simpson's rule over one step
    if (i) {
      const mid = (p[i]! + p[i - 1]!) / 2;
      time[i] =
        time[i - 1]! + ((p[i - 1]! - p[i]!) / 6) * (-1 / slope[i]! - 1 / slope[i - 1]! + 4 / speed(mid));
    }
  }
  return { p0, n, p, time, slope };
}
/** A knock, a tap drawn, a valve touched: the same course before and after, moved at a moment. */
function disturbed(
  facts: SectionFacts,
  r: Readings,
  left: Float64Array,
  put: Put,
  rate: { mid: number; spread: number },
  unit: number,
): void {
  const n = r.t.length;
  const size = KNOCKS * facts.perceptible;
  for (const at of jumpsOf(r, left))
    // where it stands among so many readings was not known beforehand
    put(
      `step at ${Math.round(at.t)} s`,
      'step',
      0.3 / n,
      1,
      (x, t, out, k) => {
        const h = size * x[k]!;
        const q = x[k + 1]! * unit;
        for (let i = 0; i < t.length; i += 1) out[i]! += (t[i]! >= at.t ? h : 0) - q * t[i]!;
      },
      [rate],
      [[at.size / size, Math.max(0, -(r.y[n - 1]! - r.y[0]! - at.size) / facts.step)]],
    );
}
const JUMPS = 3;
/** Where a step takes most off what no smooth course leaves (a cubic; a straight line where readings are few). */
function jumpsOf(r: Readings, smooth: Float64Array): { t: number; size: number }[] {
  const n = r.t.length;
  if (n < 5) return [];
  const left = Float64Array.from(smooth);
  const base: Float64Array[] = [];
  const span = r.t[n - 1]! || 1;
  const dot = (a: Float64Array, b: Float64Array) => a.reduce((sum, v, i) => sum + v * b[i]!, 0);
  for (let k = 0; k <= (n >= 16 ? 3 : 1); k += 1) {
    const v = Float64Array.from(r.t, (t) => (t / span) ** k);
    for (const q of base) {
      const d = dot(q, v);
      for (let i = 0; i < n; i += 1) v[i]! -= d * q[i]!;
    }
    const size = Math.sqrt(dot(v, v));
    base.push(v.map((x) => x / size));
  }
  for (const q of base) {
    const d = dot(q, left);
    for (let i = 0; i < n; i += 1) left[i]! -= d * q[i]!;
  }
  // of a step from each reading on: how much of it no smooth course takes up, and how far it goes with what is left
  const found: { t: number; size: number; gain: number; i: number }[] = [];
  const tails = base.map(() => 0);
  let along = 0;
  for (let i = n - 1; i >= 1; i -= 1) {
    base.forEach((q, k) => (tails[k]! += q[i]!));
    along += left[i]!;
    const own = n - i - tails.reduce((sum, v) => sum + v * v, 0);
    if (own < 0.05) continue;
    found.push({ t: (r.t[i]! + r.t[i - 1]!) / 2, size: along / own, gain: (along * along) / own, i });
  }
  found.sort((a, b) => b.gain - a.gain);
  const apart: typeof found = [];
  for (const f of found)
    if (apart.length < JUMPS && Math.abs(f.size) > r.step && apart.every((x) => Math.abs(x.i - f.i) > 1))
      apart.push(f);
  return apart;
}
/** What comes back into a vacuum: air, evenly; vapour, fast and then slower. */
function vacuum(
  facts: SectionFacts,
  put: Put,
  rate: { mid: number; spread: number },
  unit: number,
  whole: number,
): void {
  put('steady', 'steady', 1, 0, () => undefined);
  const in0 = Math.max(0, whole / facts.step);
  put(
    'leak, even',
    'leak',
    1,
    0,
    (x, t, out, at) => {
      for (let i = 0; i < t.length; i += 1) out[i]! += x[at]! * unit * t[i]!;
    },
    [rate],
    [[in0]],
    0,
  );
  const vapour = (x: Float64Array, t: Float64Array, out: Float64Array, at: number) => {
    const a = VAPOUR.pa * Math.exp(VAPOUR.spread * x[at]!);
    const tau = VAPOUR.tau * Math.exp(VAPOUR.tauSpread * x[at + 1]!);
    for (let i = 0; i < t.length; i += 1) out[i]! -= a * Math.expm1(-t[i]! / tau);
  };
  const z = Math.max(-2.5, Math.min(2.5, Math.log(Math.max(1e-3, whole / VAPOUR.pa)) / VAPOUR.spread));
  put(
    'moisture',
    'moisture',
    1,
    2,
    vapour,
    [],
    [
      [z, 0],
      [z, -1.2],
      [z, 1.2],
    ],
  );
  put(
    'moisture and leak',
    'moisture+leak',
    0.3,
    2,
    (x, t, out, at) => {
      vapour(x, t, out, at);
      for (let i = 0; i < t.length; i += 1) out[i]! += x[at + 2]! * unit * t[i]!;
    },
    [rate],
    [
      [z - 0.7, 0, in0 / 2],
      [z - 0.7, -1.2, in0 / 2],
    ],
    0,
  );
}
