/** Holds of known truth, looked at again and again while they run: what is warned of, rightly and wrongly; where the end was seen. */
import { ahead, analyse } from '@/core/analysis/analyse';
import { LEAKS } from '@/core/analysis/section';
import { earlyWarning, type Warning } from '@/core/analysis/warning';
import { seeded } from '../../scripts/honesty/worlds';
import { draw, type Trace } from './worlds';

/** Parts of a hold after which it is looked at. */
const LOOKS = [0.12, 0.17, 0.24, 0.33, 0.45, 0.6, 0.75, 0.9, 0.97];
/** The look whose band is kept beside the end. */
const BAND_AT = 0.33;
/** Limits tried, perceptible movements. */
const WIDE = [1, 3, 8];

export interface Warned {
  /** ended inside the limit, and warned of before */ good: number;
  false: number;
  /** ended beyond it, and warned of; parts of the hold saved */ bad: number;
  warned: number;
  saved: number;
  /** sound pipes that warmth moved, and those of them warned of as a leak */ cooling: number;
  calledLeak: number;
  /** ends inside the 95 % band that was drawn after a third */ bands: number;
  inside: number;
}
export const warned = (): Warned => ({
  good: 0,
  false: 0,
  bad: 0,
  warned: 0,
  saved: 0,
  cooling: 0,
  calledLeak: 0,
  bands: 0,
  inside: 0,
});
const upTo = (trace: Trace, n: number) => {
  const now = trace.t[n - 1]!;
  return {
    samples: Array.from({ length: n }, (_, i) => ({
      t: trace.t[i]! * 1000,
      p: trace.facts.pressure + trace.y[i]!,
    })),
    facts: { ...trace.facts, warmth: trace.facts.warmth.filter((w) => w.t <= now) },
    at: now * 1000,
  };
};
/** One hold; what is disturbed in its course is left out, since nobody can see a hand before it moves. */
export function watch(into: Warned, seed: number): void {
  const trace = draw(seeded(seed));
  const n = trace.t.length;
  if (n < 20 || trace.world.cause === 'step') return;
  const reach = WIDE[seed % WIDE.length]! * trace.facts.perceptible;
  const begin = trace.facts.pressure + trace.y[0]!;
  const limits = { low: trace.facts.filling === 'vacuum' ? null : begin - reach, high: begin + reach };
  const last = trace.facts.pressure + trace.y[n - 1]!;
  const half = trace.facts.step / 2;
  const beyond = (limits.low !== null && last <= limits.low + half) || last >= limits.high - half;
  const end = trace.t[n - 1]! * 1000;
  let warning: Warning | null = null;
  let when = 1;
  for (const part of LOOKS) {
    const seen = Math.max(8, Math.floor(part * n));
    if (seen >= n) break;
    const { samples, facts, at } = upTo(trace, seen);
    const a = analyse(samples, facts);
    if (!a) continue;
    if (part === BAND_AT) {
      const band = ahead(a, end);
      into.bands += 1;
      if (last >= band.low - half && last <= band.high + half) into.inside += 1;
    }
    if (!warning) {
      warning = earlyWarning(a, limits, 0, end, at);
      when = part;
    }
  }
  if (beyond) {
    into.bad += 1;
    if (warning) {
      into.warned += 1;
      into.saved += 1 - when;
    }
  } else {
    into.good += 1;
    if (warning) into.false += 1;
  }
  if (trace.world.cause === 'temperature') {
    into.cooling += 1;
    if (warning?.cause && LEAKS.has(warning.cause)) into.calledLeak += 1;
  }
}
