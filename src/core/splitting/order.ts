/**
 * Which isolation to hold next, so that the leaking part of a section is found in the least expected time: over every set of parts
 * that it could still be, by dynamic programming (exact up to twelve parts), otherwise one step ahead. Source: optimal search by
 * subsets
 */

/** A hold that puts some of the parts under pressure. */
export interface Isolation {
  readonly key: string;
  /** bit i: part i is under pressure */ readonly holds: number;
  /** minutes of hands and of the hold */ readonly minutes: number;
}
export interface Splitting {
  /** Suspicion of each part, any scale, each above nothing. */
  readonly suspicion: readonly number[];
  readonly isolations: readonly Isolation[];
}
/** What to do while it can be one of some parts. */
export interface Step {
  /** bits of the parts it can still be */ readonly among: number;
  /** Null: it is found, or no isolation tells these parts apart. */
  readonly isolation: Isolation | null;
  /** Expected minutes from here on. */
  readonly minutes: number;
  /** Where it goes on when the hold falls, and when it stands. */
  readonly leaks?: Step;
  readonly sound?: Step;
}
export interface Order {
  readonly step: Step;
  /** The least there is; otherwise looked one step ahead. */
  readonly exact: boolean;
}
export const EXACT_UP_TO = 12;
export const bits = (mask: number): number => {
  let n = 0;
  for (let m = mask; m; m &= m - 1) n += 1;
  return n;
};
/** Suspicion of all parts of a set. */
export const weightOf = (suspicion: readonly number[], mask: number): number =>
  suspicion.reduce((sum, w, i) => (mask & (1 << i) ? sum + w : sum), 0);
/** Isolations that say something about a set: some of it is held, and some is not. */
export const telling = (s: Splitting, mask: number): Isolation[] =>
  s.isolations.filter((i) => (i.holds & mask) !== 0 && (i.holds & mask) !== mask);

/** @throws RangeError with more than thirty parts, or a suspicion that is none */
export function orderOf(s: Splitting, among = 2 ** s.suspicion.length - 1): Order {
  if (s.suspicion.length > 30) throw new RangeError('More than thirty parts: hold groups of them first.');
  if (s.suspicion.some((w) => !(w > 0) || !Number.isFinite(w)))
    throw new RangeError('Every part needs a suspicion above nothing.');
  const exact = bits(among) <= EXACT_UP_TO;
  return { step: exact ? leastOf(s, among) : aheadOf(s, among), exact };
}
function leastOf(s: Splitting, among: number): Step {
  const known = new Map<number, Step>();
  const least = (mask: number): Step => {
    const before = known.get(mask);
    if (before) return before;
    let best: Step = { among: mask, isolation: null, minutes: 0 };
    const all = weightOf(s.suspicion, mask);
    if (bits(mask) > 1)
      for (const isolation of telling(s, mask)) {
        const leaks = least(isolation.holds & mask);
        const sound = least(mask & ~isolation.holds);
        const share = weightOf(s.suspicion, isolation.holds & mask) / all;
        const minutes = isolation.minutes + share * leaks.minutes + (1 - share) * sound.minutes;
        // what ends with fewer parts left open is worth any time
        const open = share * openOf(leaks, s) + (1 - share) * openOf(sound, s);
        const were = best.isolation ? openOf(best, s) : bits(mask);
        if (open < were - 1e-9 || (open < were + 1e-9 && (!best.isolation || minutes < best.minutes)))
          best = { among: mask, isolation, minutes, leaks, sound };
      }
    known.set(mask, best);
    return best;
  };
  return least(among);
}
/** How many parts a way ends with on average: more than one where nothing tells them apart. */
function openOf(step: Step, s: Splitting): number {
  if (!step.isolation) return bits(step.among);
  const share = weightOf(s.suspicion, step.leaks!.among) / weightOf(s.suspicion, step.among);
  return share * openOf(step.leaks!, s) + (1 - share) * openOf(step.sound!, s);
}
/** One step ahead: the most told for a minute; its own way on is looked for when it is there. */
function aheadOf(s: Splitting, mask: number): Step {
  const all = weightOf(s.suspicion, mask);
  let best: Isolation | null = null;
  let most = 0;
  for (const isolation of telling(s, mask)) {
    const share = weightOf(s.suspicion, isolation.holds & mask) / all;
    const told = -share * Math.log2(share) - (1 - share) * Math.log2(1 - share);
    if (told / isolation.minutes > most) [most, best] = [told / isolation.minutes, isolation];
  }
  if (!best) return { among: mask, isolation: null, minutes: 0 };
  const next = (m: number) => (bits(m) <= EXACT_UP_TO ? leastOf(s, m) : aheadOf(s, m));
  const [leaks, sound] = [next(best.holds & mask), next(mask & ~best.holds)];
  const share = weightOf(s.suspicion, best.holds & mask) / all;
  return {
    among: mask,
    isolation: best,
    minutes: best.minutes + share * leaks.minutes + (1 - share) * sound.minutes,
    leaks,
    sound,
  };
}
