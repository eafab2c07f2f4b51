/** Made-up pools with lines that nobody sees, what a person would see of them, and the slow way to work them out. */
import type { Look } from '@/core/trades/pool/joins';

export type Random = () => number;
/** A small generator of numbers below 1 that gives the same row for the same seed. */
export function seeded(seed: number): Random {
  let s = (seed * 2654435761 + 40503) >>> 0;
  return () => {
    s = (Math.imul(s, 1664525) + 1013904223) >>> 0;
    return s / 4294967296;
  };
}
const below = (r: Random, n: number): number => Math.floor(r() * n);

export interface Pool {
  readonly ends: readonly string[];
  /** Ends that are reached without diving: one at least in every line. */
  readonly dry: ReadonlySet<string>;
  /** The number of the line of each end. */
  readonly truth: Readonly<Record<string, number>>;
}
/** A pool of so many ends: one to three lines, each with an equipment end. */
export function randomPool(r: Random, ends: number): Pool {
  const lines = 1 + below(r, Math.min(4, ends));
  const names = Array.from({ length: ends }, (_, i) =>
    i < lines ? `equipment ${i + 1}` : `outlet ${i + 1}`,
  );
  return {
    ends: names,
    dry: new Set(names.slice(0, lines)),
    truth: Object.fromEntries(names.map((n, i) => [n, i < lines ? i : below(r, lines)])),
  };
}
/** What is truly seen from one end, perhaps not everywhere. @param wrong one answer of it is turned round */
export function randomLook(r: Random, pool: Pool, id: string, wrong = false): Look {
  const at = pool.ends[below(r, pool.ends.length)]!;
  const others = pool.ends.filter((e) => e !== at && r() < 0.8);
  const turned = wrong && others.length ? others[below(r, others.length)] : null;
  const joined = (e: string) => (pool.truth[e] === pool.truth[at]) !== (e === turned);
  const on = others.filter(joined);
  const off = others.filter((e) => !joined(e));
  switch (below(r, 4)) {
    case 0:
      return { id, kind: 'closed', at, quiet: on, flowing: off };
    case 1: {
      // the highest bubble first; once all of the line are plugged nothing bubbles and the pressure stands
      const bubbled = on.slice(0, below(r, on.length + 1));
      const plugged = bubbled.length ? [] : on;
      return { id, kind: 'air', at, plugged, bubbled, still: off, stood: bubbled.length === 0 };
    }
    case 2:
      return on.length
        ? { id, kind: 'among', at, of: [on[0]!, ...off.slice(0, 2)] }
        : { id, kind: 'closed', at, quiet: [], flowing: off };
    default: {
      const other = others[0];
      return other
        ? { id, kind: 'pipe', ends: [at, other], joined: joined(other) }
        : { id, kind: 'closed', at, quiet: [], flowing: [] };
    }
  }
}

/** Every partition of so many things there is, as line numbers. */
export function* everyPartition(n: number): Generator<number[]> {
  const grow = function* (row: number[], lines: number): Generator<number[], void, undefined> {
    if (row.length === n) {
      yield row;
      return;
    }
    for (let l = 0; l <= lines; l++) yield* grow([...row, l], Math.max(lines, l + 1));
  };
  yield* grow([], 0);
}
/** Whether a partition agrees with what was seen, read straight from the look. */
export function agreesWith(line: (end: string) => number, look: Look): boolean {
  const with_ = (at: string) => (e: string) => line(e) === line(at);
  switch (look.kind) {
    case 'closed':
      return look.quiet.every(with_(look.at)) && !look.flowing.some(with_(look.at));
    case 'air':
      if (!look.bubbled.every(with_(look.at))) return false;
      return look.bubbled.length || look.elsewhere || !look.stood ? true : !look.still.some(with_(look.at));
    case 'among':
      return look.of.some(with_(look.at));
    case 'pipe':
      return look.joined
        ? new Set(look.ends.map(line)).size === 1
        : new Set(look.ends.map(line)).size === look.ends.length;
  }
}
/** All partitions that agree, one by one. */
export function bruteForce(ends: readonly string[], looks: readonly Look[]): number[][] {
  const at = new Map(ends.map((e, i) => [e, i]));
  return [...everyPartition(ends.length)].filter((row) =>
    looks.every((l) => agreesWith((e) => row[at.get(e)!]!, l)),
  );
}
/** The least number of whole lines to be found, on average, until one partition is left: every order is tried. */
export function leastLooks(left: readonly (readonly number[])[], memo = new Map<string, number>()): number {
  if (left.length <= 1) return 0;
  const key = left.map((p) => p.join('')).join(' ');
  const known = memo.get(key);
  if (known !== undefined) return known;
  let best = Infinity;
  for (let end = 0; end < left[0]!.length; end++) {
    const groups = new Map<string, (readonly number[])[]>();
    for (const p of left) {
      const line = p.map((l) => (l === p[end] ? '1' : '0')).join('');
      groups.set(line, [...(groups.get(line) ?? []), p]);
    }
    if (groups.size === 1) continue;
    let cost = 1;
    for (const g of groups.values()) cost += (g.length / left.length) * leastLooks(g, memo);
    best = Math.min(best, cost);
  }
  memo.set(key, best);
  return best;
}
/** The whole line of an end, as it is seen when nothing bubbles any more. */
export const wholeLine = (pool: Pool, at: string, id: string): Look => ({
  id,
  kind: 'closed',
  at,
  quiet: pool.ends.filter((e) => e !== at && pool.truth[e] === pool.truth[at]),
  flowing: pool.ends.filter((e) => pool.truth[e] !== pool.truth[at]),
});
