/**
 * Traces whose truth is known, made by other physics code than the product's: gas by its moles with a leak between orifice and
 * laminar, water by a balance of volumes, vacuum by inflow and vapour, a level by its surface; the gauge with its own scatter,
 * sometimes coloured, and its step. Every hidden size is a standard normal draw, so that the likelihood of any other draw can be asked.
 */
import type { Cause, SectionFacts } from '@/core/analysis/section';
import { between, normal, type Random, spread } from '../../scripts/honesty/worlds';

const pick = <T>(r: Random, list: readonly T[]): T => list[Math.floor(r() * list.length)]!;

/** What a cause does: the true course of the pressure over the display of the beginning, for any draw of its hidden sizes. */
export interface World {
  readonly cause: Cause;
  /** hidden sizes, standard normal */ readonly size: number;
  /** which of them is the leak, as ln; and what it means, m3/s */
  readonly leak?: { readonly at: number; readonly rate: (z: number) => number };
  readonly course: (z: Float64Array, t: Float64Array, out: Float64Array) => void;
}
export interface Scene {
  readonly facts: SectionFacts;
  readonly t: Float64Array;
  /** scatter before rounding; correlation of neighbours */ readonly sigma: number;
  readonly rho: number;
  /** The relative error of the section's give as the tester knows it. */
  readonly off: number;
  readonly worlds: readonly World[];
}
export interface Trace extends Scene {
  readonly world: World;
  readonly z: Float64Array;
  readonly y: Float64Array;
  readonly truth: Float64Array;
  /** m3/s that leaks, 0 where nothing does; the section is not quite as large as its facts say */ readonly leak: number;
}
const ATMOSPHERE = 101_325;
const LITRE_HOUR = 1e-3 / 3600;

/** Fall of a gas that leaks by a power of the difference of squares, by small steps of its moles (midpoint rule). */
function emptying(
  p0: number,
  volume: number,
  rate: number,
  power: number,
  t: Float64Array,
  out: Float64Array,
) {
  const squares = (p: number) => (p + ATMOSPHERE) ** 2 - ATMOSPHERE ** 2;
  const base = squares(p0);
  const speed = (p: number) => (p <= 0 ? 0 : ((rate * ATMOSPHERE) / volume) * (squares(p) / base) ** power);
  let [p, now] = [p0, 0];
  for (let i = 0; i < t.length; i += 1) {
    const steps = Math.max(1, Math.ceil(((t[i]! - now) * speed(p)) / (0.01 * p0 + 1)));
    const h = (t[i]! - now) / Math.min(40, steps);
    for (let k = 0; k < Math.min(40, steps); k += 1)
      p = Math.max(0, p - h * speed(Math.max(0, p - (h / 2) * speed(p))));
    now = t[i]!;
    out[i]! -= p0 - p;
  }
}
/** Between a hole and a hairline. */
const power = (z: number): number => 0.75 + 0.25 * Math.tanh(z);
const relaxing = (amount: number, tau: number, t: Float64Array, out: Float64Array) => {
  for (let i = 0; i < t.length; i += 1) out[i]! += amount * -Math.expm1(-t[i]! / tau);
};
const evenly = (slope: number, t: Float64Array, out: Float64Array) => {
  for (let i = 0; i < t.length; i += 1) out[i]! += slope * t[i]!;
};
const times = (r: Random, span: number): Float64Array => {
  const n = r() < 0.2 ? Math.round(between(r, 6, 12)) : Math.round(spread(r, 24, 160));
  return Float64Array.from({ length: n }, (_, i) => (span * i) / (n - 1));
};
const gaugeOf = (r: Random, step: number) => ({
  sigma: step * spread(r, 0.2, 1.2),
  rho: r() < 0.2 ? between(r, 0.4, 0.85) : 0,
});
/** How far the product's own default of warmth that nobody read goes, K a minute and in all. */
const DRIFT = (minutes: number) => ({ perMinute: 0.05, most: minutes <= 2 ? 0.1 : 0.5 });

/** A scene of gas, of water, of a vacuum or of a level. */
export function scene(r: Random): Scene {
  const which = r();
  return which < 0.5 ? gas(r) : which < 0.82 ? liquid(r) : which < 0.92 ? vacuum(r) : level(r);
}
/** Hidden: where it stands within its step (z0), the drift that nobody read (z1), then what the cause has. */
function gas(r: Random): Scene {
  const volume = spread(r, 5e-3, 0.15);
  const p0 = pick(r, [850, 2050, 2050, 5000, 15_000, 20_700]);
  const step = p0 > 10_000 ? pick(r, [10, 20]) : pick(r, [1, 1, 10]);
  const minutes = pick(r, [1, 2, 2, 5, 15, 60]);
  const t = times(r, minutes * 60);
  const span = t[t.length - 1]!;
  const perKelvin = (p0 + ATMOSPHERE) / 293;
  const logged = minutes >= 5 && r() < 0.45;
  const air = logged ? weather(r, span) : null;
  const supply = r() < 0.4 ? p0 + pick(r, [50, 1250, 1250]) : null;
  const drift = DRIFT(minutes);
  const unread = perKelvin * (logged ? 0.05 : Math.min(drift.most, drift.perMinute * minutes));
  const off = 0.05;
  const matters = LITRE_HOUR;
  const rate = (z: number) => 4 * matters * Math.exp(1.6 * z);
  const facts: SectionFacts = {
    filling: 'gas',
    pressure: p0,
    atmosphere: ATMOSPHERE,
    give: volume / ATMOSPHERE,
    giveUncertainty: off,
    perKelvin,
    drift,
    stretches: false,
    supply,
    matters,
    step,
    perceptible: 2 * step,
    warmth: air?.read ?? [],
    thermometer: 0.05,
  };
  const base = (z: Float64Array, time: Float64Array, out: Float64Array, drifts = true) => {
    for (let i = 0; i < time.length; i += 1)
      out[i] =
        step * z[0]! +
        (drifts ? (unread / span) * z[1]! * time[i]! : 0) +
        (air ? perKelvin * air.wall(time[i]!, z[2]!) : 0);
  };
  const own = air ? 3 : 2;
  const moves = air ? Math.abs(perKelvin * air.range) : 0;
  const warm: Cause = moves >= facts.perceptible ? 'temperature' : 'steady';
  const leaky: Cause = moves >= facts.perceptible ? 'temperature+leak' : 'leak';
  const worlds: World[] = [
    { cause: warm, size: own, course: (z, time, out) => base(z, time, out, logged) },
    {
      cause: leaky,
      size: own + 2,
      leak: { at: own, rate },
      course: (z, time, out) => {
        base(z, time, out);
        emptying(p0, volume, rate(z[own]!), power(z[own + 1]!), time, out);
      },
    },
  ];
  if (!logged) {
    const fill = (z: Float64Array, time: Float64Array, out: Float64Array) =>
      relaxing(perKelvin * z[own]!, 300 * Math.exp(z[own + 1]!), time, out);
    worlds.push(
      { cause: 'temperature', size: own, course: (z, time, out) => base(z, time, out) },
      {
        cause: 'temperature',
        size: own + 2,
        course: (z, time, out) => {
          base(z, time, out);
          fill(z, time, out);
        },
      },
      {
        cause: 'temperature+leak',
        size: own + 4,
        leak: { at: own + 2, rate },
        course: (z, time, out) => {
          base(z, time, out);
          fill(z, time, out);
          emptying(p0, volume, rate(z[own + 2]!), power(z[own + 3]!), time, out);
        },
      },
    );
  }
  if (supply !== null) {
    const through = (
      z: Float64Array,
      time: Float64Array,
      out: Float64Array,
      kOut: (z: Float64Array) => number,
    ) => {
      base(z, time, out);
      const kIn = (rate(z[own]!) * ATMOSPHERE) / volume / supply;
      // small steps of the balance between what comes in and what goes out
      let [p, now] = [p0, 0];
      const out2 = kOut(z);
      for (let i = 0; i < time.length; i += 1) {
        const dt = time[i]! - now;
        const steps = Math.min(20, Math.max(1, Math.ceil((kIn + out2) * dt * 10)));
        for (let k = 0; k < steps; k += 1) {
          const h = dt / steps;
          const mid = p + (h / 2) * (kIn * (supply - p) - out2 * p);
          p = Math.max(0, p + h * (kIn * (supply - mid) - out2 * mid));
        }
        now = time[i]!;
        out[i]! += p - p0;
      }
    };
    worlds.push(
      { cause: 'let-by', size: own + 1, course: (z, time, out) => through(z, time, out, () => 0) },
      {
        cause: 'let-by+leak',
        size: own + 2,
        leak: { at: own + 1, rate },
        course: (z, time, out) =>
          through(z, time, out, (x) => (rate(x[own + 1]!) * ATMOSPHERE) / volume / p0),
      },
    );
  }
  worlds.push(jump(own, base, step, span));
  return { facts, t, ...gaugeOf(r, step), off, worlds };
}
/** Somebody draws, or touches a valve: a step at a moment, anywhere. */
function jump(
  own: number,
  base: (z: Float64Array, t: Float64Array, out: Float64Array) => void,
  step: number,
  span: number,
): World {
  return {
    cause: 'step',
    size: own + 2,
    course: (z, t, out) => {
      base(z, t, out);
      const at = span * (0.5 + 0.5 * erf(z[own + 1]! / Math.SQRT2));
      for (let i = 0; i < t.length; i += 1) if (t[i]! >= at) out[i]! += 25 * step * z[own]!;
    },
  };
}
/** Air beside the pipe, read now and then by a thermometer; the wall follows by its own time, of which z says how long. */
function weather(r: Random, span: number) {
  // air beside a pipe seldom changes faster than a tenth of a kelvin a minute
  const amount = between(r, 0.3, Math.max(0.5, Math.min(2.5, span / 600))) * (r() < 0.7 ? -1 : 1);
  const tau = span * spread(r, 0.3, 2);
  const shown = (s: number) => (amount * -Math.expm1(-s / tau)) / -Math.expm1(-span / tau);
  const count = pick(r, [2, 3, 6, 20]);
  const read = Array.from({ length: count }, (_, i) => {
    const at = (span * i) / (count - 1);
    return { t: at, k: Math.round((shown(at) + 0.02 * normal(r)) * 20) / 20 };
  });
  const first = read[0]!.k;
  // what the thermometer saw between two readings nobody knows: the wall follows the straight line between them
  const line = (s: number) => {
    const i = Math.min(count - 2, Math.max(0, Math.floor((s / span) * (count - 1))));
    const [a, b] = [read[i]!, read[i + 1]!];
    return a.k + ((b.k - a.k) * (s - a.t)) / (b.t - a.t) - first;
  };
  return {
    read: read.map((x) => ({ t: x.t, k: x.k - first })),
    range: Math.max(...read.map((x) => x.k)) - Math.min(...read.map((x) => x.k)),
    wall: (s: number, z: number) => {
      const lag = 120 * Math.exp(z);
      // exponential memory of the line, by twenty weights
      let sum = 0;
      for (let k = 0; k < 20; k += 1) {
        const back = -lag * Math.log(1 - (k + 0.5) / 20);
        sum += s - back > 0 ? line(s - back) : 0;
      }
      return sum / 20;
    },
  };
}
function liquid(r: Random): Scene {
  const plastic = r() < 0.5;
  const volume = spread(r, 5e-3, 0.3);
  const stiff = volume * (plastic ? spread(r, 5e-9, 2e-8) : spread(r, 6e-10, 5e-9));
  const p0 = pick(r, [3e5, 6e5, 1e6]);
  const step = pick(r, [100, 1000]);
  const minutes = pick(r, [10, 30, 30, 60, 120]);
  const t = times(r, minutes * 60);
  const span = t[t.length - 1]!;
  const perKelvin = plastic ? -between(r, 4e3, 2e4) : between(r, 1e4, 1.5e5);
  const drift = DRIFT(minutes);
  const unread = Math.abs(perKelvin) * Math.min(drift.most, drift.perMinute * minutes);
  const off = 0.15;
  const matters = 0.1 * LITRE_HOUR;
  const rate = (z: number) => 4 * matters * Math.exp(1.6 * z);
  const facts: SectionFacts = {
    filling: 'liquid',
    pressure: p0,
    atmosphere: ATMOSPHERE,
    give: stiff,
    giveUncertainty: off,
    perKelvin,
    drift,
    stretches: plastic,
    supply: null,
    matters,
    step,
    perceptible: 2 * step,
    warmth: [],
    thermometer: 0.1,
  };
  const own = 2;
  const base = (z: Float64Array, time: Float64Array, out: Float64Array, drifts = true) => {
    for (let i = 0; i < time.length; i += 1)
      out[i] = step * z[0]! + (drifts ? (unread / span) * z[1]! * time[i]! : 0);
  };
  const leaks = (q: number, power: number, time: Float64Array, out: Float64Array) => {
    // C dp/dt = -q (p / p0)^n, by its closed form
    const k = q / stiff / p0;
    for (let i = 0; i < time.length; i += 1) {
      const left =
        Math.abs(power - 1) < 1e-6
          ? Math.exp(-k * time[i]!)
          : Math.max(0, 1 - (1 - power) * k * time[i]!) ** (1 / (1 - power));
      out[i]! -= p0 * (1 - left);
    }
  };
  const stretch = (z: Float64Array, time: Float64Array, out: Float64Array) => {
    const a = p0 * 0.012 * Math.exp(0.7 * z[own]!);
    const tc = 60 * Math.exp(z[own + 1]!);
    for (let i = 0; i < time.length; i += 1) out[i]! -= a * Math.log((tc + time[i]!) / tc);
  };
  const fill = (z: Float64Array, time: Float64Array, out: Float64Array) =>
    relaxing(perKelvin * z[own]!, 900 * Math.exp(0.8 * z[own + 1]!), time, out);
  const worlds: World[] = [
    { cause: 'steady', size: own, course: (z, time, out) => base(z, time, out, false) },
    {
      cause: 'leak',
      size: own + 2,
      leak: { at: own, rate },
      course: (z, time, out) => {
        base(z, time, out);
        leaks(rate(z[own]!), power(z[own + 1]!), time, out);
      },
    },
    { cause: 'temperature', size: own, course: (z, time, out) => base(z, time, out) },
    {
      cause: 'temperature',
      size: own + 2,
      course: (z, time, out) => {
        base(z, time, out);
        fill(z, time, out);
      },
    },
    {
      cause: 'temperature+leak',
      size: own + 4,
      leak: { at: own + 2, rate },
      course: (z, time, out) => {
        base(z, time, out);
        fill(z, time, out);
        leaks(rate(z[own + 2]!), power(z[own + 3]!), time, out);
      },
    },
    {
      cause: 'air',
      size: own + 2,
      course: (z, time, out) => {
        base(z, time, out);
        relaxing(-0.01 * p0 * Math.exp(0.8 * z[own]!), 100 * Math.exp(0.6 * z[own + 1]!), time, out);
      },
    },
    jump(own, base, step, span),
  ];
  if (plastic)
    worlds.push(
      {
        cause: 'stretch',
        size: own + 2,
        course: (z, time, out) => {
          base(z, time, out);
          stretch(z, time, out);
        },
      },
      {
        cause: 'stretch+leak',
        size: own + 4,
        leak: { at: own + 2, rate },
        course: (z, time, out) => {
          base(z, time, out);
          stretch(z, time, out);
          leaks(rate(z[own + 2]!), power(z[own + 3]!), time, out);
        },
      },
    );
  return { facts, t, ...gaugeOf(r, step), off, worlds };
}
const still = (
  filling: 'vacuum' | 'level',
  give: number,
  matters: number,
  step: number,
  pressure: number,
  off: number,
): SectionFacts => ({
  filling,
  pressure,
  atmosphere: ATMOSPHERE,
  give,
  giveUncertainty: off,
  perKelvin: 0,
  drift: { perMinute: 0, most: 0 },
  stretches: false,
  supply: null,
  matters,
  step,
  perceptible: 2 * step,
  warmth: [],
  thermometer: 0.1,
});
function vacuum(r: Random): Scene {
  const minutes = pick(r, [10, 30, 60]);
  const t = times(r, minutes * 60);
  const step = pick(r, [0.1, 1]);
  const give = spread(r, 2e-3, 2e-2) / ATMOSPHERE;
  const span = t[t.length - 1]!;
  // what lets in 20 Pa in ten minutes, in this circuit
  const matters = (20 / 600) * give;
  const rate = (z: number) => 4 * matters * Math.exp(1.2 * z);
  const own = 1;
  const base = (z: Float64Array, time: Float64Array, out: Float64Array) => {
    for (let i = 0; i < time.length; i += 1) out[i] = step * z[0]!;
  };
  const vapour = (z: Float64Array, time: Float64Array, out: Float64Array) =>
    relaxing(150 * Math.exp(0.8 * z[own]!), 200 * Math.exp(0.6 * z[own + 1]!), time, out);
  return {
    facts: still('vacuum', give, matters, step, 40, 0.05),
    t,
    ...gaugeOf(r, step),
    off: 0.05,
    worlds: [
      { cause: 'steady', size: own, course: base },
      {
        cause: 'leak',
        size: own + 1,
        leak: { at: own, rate },
        course: (z, time, out) => {
          base(z, time, out);
          evenly(rate(z[own]!) / give, time, out);
        },
      },
      {
        cause: 'moisture',
        size: own + 2,
        course: (z, time, out) => {
          base(z, time, out);
          vapour(z, time, out);
        },
      },
      {
        cause: 'moisture+leak',
        size: own + 3,
        leak: { at: own + 2, rate },
        course: (z, time, out) => {
          base(z, time, out);
          vapour(z, time, out);
          evenly(rate(z[own + 2]!) / give, time, out);
        },
      },
      jump(own, base, step, span),
    ],
  };
}
function level(r: Random): Scene {
  const t = times(r, pick(r, [10, 15, 30]) * 60);
  const step = pick(r, [1e-3, 1e-4]);
  const give = spread(r, 5e-3, 0.1);
  const rate = (z: number) => 4 * LITRE_HOUR * Math.exp(1.6 * z);
  const own = 1;
  const base = (z: Float64Array, time: Float64Array, out: Float64Array) => {
    for (let i = 0; i < time.length; i += 1) out[i] = step * z[0]!;
  };
  return {
    facts: still('level', give, LITRE_HOUR, step, 0, 0.05),
    t,
    ...gaugeOf(r, step),
    off: 0.05,
    worlds: [
      { cause: 'steady', size: own, course: base },
      {
        cause: 'leak',
        size: own + 1,
        leak: { at: own, rate },
        course: (z, time, out) => {
          base(z, time, out);
          evenly(-rate(z[own]!) / give, time, out);
        },
      },
      {
        cause: 'air',
        size: own + 2,
        course: (z, time, out) => {
          base(z, time, out);
          relaxing(-0.006 * Math.exp(0.8 * z[own]!), 100 * Math.exp(0.6 * z[own + 1]!), time, out);
        },
      },
      jump(own, base, step, t[t.length - 1]!),
    ],
  };
}
/** Error function by its own series and continued fraction. */
export function erf(x: number): number {
  const a = Math.abs(x);
  if (a > 5.5) return Math.sign(x);
  if (a < 2.2) {
    let [term, sum] = [a, a];
    for (let k = 1; k < 60; k += 1) {
      term *= (-a * a) / k;
      sum += term / (2 * k + 1);
      if (Math.abs(term) < 1e-16) break;
    }
    return (Math.sign(x) * 2 * sum) / Math.sqrt(Math.PI);
  }
  let f = 0;
  for (let k = 50; k >= 1; k -= 1) f = k / 2 / (a + f);
  return Math.sign(x) * (1 - Math.exp(-a * a) / Math.sqrt(Math.PI) / (a + f));
}
/** One trace of a scene: a cause and its hidden sizes drawn, the gauge read and rounded. Nothing stands below nothing. */
export function draw(r: Random): Trace {
  for (;;) {
    const found = drawn(r, scene(r));
    const floor = found.facts.filling === 'level' ? -Infinity : -found.facts.pressure;
    if (found.truth.every((m) => m >= floor)) return found;
  }
}
function drawn(r: Random, s: Scene): Trace {
  const causes = [...new Set(s.worlds.map((w) => w.cause))];
  const cause = pick(r, causes);
  const world = pick(
    r,
    s.worlds.filter((w) => w.cause === cause),
  );
  const z = Float64Array.from({ length: world.size }, () => normal(r));
  // it stands somewhere within its step
  z[0] = (r() - 0.5) * 1;
  const truth = new Float64Array(s.t.length);
  world.course(z, s.t, truth);
  let e = normal(r);
  const y = Float64Array.from(truth, (m) => {
    e = s.rho * e + Math.sqrt(1 - s.rho * s.rho) * normal(r);
    return Math.round((m + s.sigma * e) / s.facts.step) * s.facts.step;
  });
  return {
    ...s,
    world,
    z,
    y,
    truth,
    leak: world.leak ? world.leak.rate(z[world.leak.at]!) * (1 + s.off * normal(r)) : 0,
  };
}
