/**
 * Which ends of a pool belong to one line, from what was seen at them. A line is a set of joined ends: the answer is a
 * partition of the ends, and everything said here holds in EVERY partition that agrees with all looks.
 */

import type { OutletType } from '@/core/installation/parts';

/** What was seen at the ends. Ids are those of the ends. */
export type Look = { readonly id: string } & (
  | {
      /** Equipment running, this end's line closed at the diverter: which outlets went quiet, which kept flowing. */
      readonly kind: 'closed';
      readonly at: string;
      readonly quiet: readonly string[];
      readonly flowing: readonly string[];
    }
  | {
      /** Low air into this end, the plugged ones shut: which bubbled, which were watched and did not. */
      readonly kind: 'air';
      readonly at: string;
      readonly plugged: readonly string[];
      readonly bubbled: readonly string[];
      readonly still: readonly string[];
      /** Nothing bubbled and the pressure stood: only then silence says "not joined". */
      readonly stood?: boolean | undefined;
      /** Bubbles where no end is listed, in words. */
      readonly elsewhere?: string | undefined;
    }
  | {
      /** Bubbles came from at least one of these; which could not be told. */
      readonly kind: 'among';
      readonly at: string;
      readonly of: readonly string[];
    }
  | {
      /** The pipe itself was seen: one for all of these, or a pipe of its own for each. */
      readonly kind: 'pipe';
      readonly ends: readonly string[];
      readonly joined: boolean;
    }
);
/** An end that stood in no list until it bubbled, or was found by hand. */
export interface FoundEnd {
  readonly id: string;
  readonly name: string;
  readonly type: OutletType;
  readonly place: string;
}
type Pair = readonly [string, string];
/** A look as demands on a partition: pairs in one line, pairs in two, and "this one with at least one of those". */
export interface Says {
  readonly joined: readonly Pair[];
  readonly apart: readonly Pair[];
  readonly some: readonly { readonly at: string; readonly of: readonly string[] }[];
}
const NOTHING: Says = { joined: [], apart: [], some: [] };
const each = (at: string, ends: readonly string[]): Pair[] => ends.map((e): Pair => [at, e]);

/**
 * What a look says of joins. Air rises to the highest open end first: an end that stayed still beside one that bubbled says
 * nothing; where nothing bubbled, silence counts only if the pressure stood. Source: published practice of mapping pool lines
 */
export function says(look: Look): Says {
  switch (look.kind) {
    case 'closed':
      return { ...NOTHING, joined: each(look.at, look.quiet), apart: each(look.at, look.flowing) };
    case 'air': {
      const silent = look.bubbled.length === 0 && !look.elsewhere && look.stood === true;
      return {
        ...NOTHING,
        joined: each(look.at, look.bubbled),
        apart: silent ? each(look.at, look.still) : [],
      };
    }
    case 'among':
      return { ...NOTHING, some: [{ at: look.at, of: look.of }] };
    case 'pipe': {
      const pairs = look.ends.flatMap((a, i) => look.ends.slice(i + 1).map((b): Pair => [a, b]));
      return look.joined ? { ...NOTHING, joined: pairs } : { ...NOTHING, apart: pairs };
    }
  }
}

/** Lines that are joined so far, each end with the name of its line. */
class Lines {
  private constructor(private readonly up: Map<string, string>) {}
  static of(ends: readonly string[]): Lines {
    return new Lines(new Map(ends.map((e) => [e, e])));
  }
  lineOf(end: string): string {
    let line = end;
    for (let next = this.up.get(line); next !== undefined && next !== line; next = this.up.get(line))
      line = next;
    return line;
  }
  join(a: string, b: string): void {
    this.up.set(this.lineOf(a), this.lineOf(b));
  }
  copy(): Lines {
    return new Lines(new Map(this.up));
  }
}
const all = (looks: readonly Look[]): Says => {
  const said = looks.map(says);
  return {
    joined: said.flatMap((s) => s.joined),
    apart: said.flatMap((s) => s.apart),
    some: said.flatMap((s) => s.some),
  };
};
/** Whether any partition at all agrees. Exact: joins are closed over, every "at least one of" is tried with each of its ends. */
function possible(ends: readonly string[], demand: Says): boolean {
  const lines = Lines.of(ends);
  for (const [a, b] of demand.joined) lines.join(a, b);
  const clash = (l: Lines) => demand.apart.some(([a, b]) => l.lineOf(a) === l.lineOf(b));
  const fits = (l: Lines, open: Says['some']): boolean => {
    if (clash(l)) return false;
    const left = open.filter(({ at, of }) => !of.some((e) => l.lineOf(e) === l.lineOf(at)));
    const [first] = left;
    if (!first) return true;
    return first.of.some((e) => {
      const joined = l.copy();
      joined.join(first.at, e);
      return fits(joined, left);
    });
  };
  return fits(lines, demand.some);
}
/** Whether looks agree with each other. */
export const agree = (ends: readonly string[], looks: readonly Look[]): boolean => possible(ends, all(looks));

export type Bond = 'joined' | 'apart' | 'open';
/** What is sure of two ends. Where the looks contradict each other nothing is: ask {@link clashes} first. */
function bond(ends: readonly string[], demand: Says, a: string, b: string): Bond {
  if (a === b) return 'joined';
  const pair: Pair = [a, b];
  if (!possible(ends, { ...demand, apart: [...demand.apart, pair] })) return 'joined';
  return possible(ends, { ...demand, joined: [...demand.joined, pair] }) ? 'open' : 'apart';
}

/** Looks that cannot all be right: leaving out any one of them, the others agree. */
export interface Clash {
  readonly looks: readonly string[];
}
/**
 * Every contradiction that shares no look with another one named: each as small as can be. Empty: all looks agree.
 * Whichever of its looks is repeated, the clash ends if that one was wrong.
 */
export function clashes(ends: readonly string[], looks: readonly Look[]): Clash[] {
  const found: Clash[] = [];
  let left = [...looks];
  while (!agree(ends, left)) {
    let core = left;
    // the newest are let go first: what is named is what was seen first of several that say the same
    for (const look of [...left].reverse()) {
      const without = core.filter((l) => l !== look);
      if (!agree(ends, without)) core = without;
    }
    found.push({ looks: core.map((l) => l.id) });
    left = left.filter((l) => !core.includes(l));
  }
  return found;
}

/** What is known of the lines. */
export interface Joins {
  /** Ends known to be one line; sorted as the ends are. An end of which no join is known stands alone. */
  readonly lines: readonly Line[];
  readonly bond: (a: string, b: string) => Bond;
  readonly clashes: readonly Clash[];
  /** No pair is open and nothing contradicts. */
  readonly settled: boolean;
}
export interface Line {
  readonly ends: readonly string[];
  /** Ends that may belong to it too. */
  readonly perhaps: readonly string[];
}
/** Works out the lines. Looks that clash are left out of what is sure: the others still say what they say. */
export function joinsOf(ends: readonly string[], looks: readonly Look[]): Joins {
  const clash = clashes(ends, looks);
  const wrong = new Set(clash.flatMap((c) => c.looks));
  const demand = all(looks.filter((l) => !wrong.has(l.id)));
  const bonds = new Map<string, Bond>();
  const key = (a: string, b: string) => `${a}\n${b}`;
  ends.forEach((a, i) =>
    ends.slice(i).forEach((b) => {
      const is = bond(ends, demand, a, b);
      bonds.set(key(a, b), is).set(key(b, a), is);
    }),
  );
  const of = (a: string, b: string): Bond => bonds.get(key(a, b)) ?? 'open';
  const lines: Line[] = [];
  for (const end of ends) {
    if (lines.some((l) => l.ends.includes(end))) continue;
    const own = ends.filter((e) => of(end, e) === 'joined');
    lines.push({ ends: own, perhaps: ends.filter((e) => of(end, e) === 'open') });
  }
  return {
    lines,
    bond: of,
    clashes: clash,
    settled: clash.length === 0 && lines.every((l) => l.perhaps.length === 0),
  };
}

/** Partitions that are counted at most before numbers are estimated instead. */
const MOST_COUNTED = 6000;
/** Every partition that agrees, as the line number of each end; null where there are more than can be counted. */
export function partitions(
  ends: readonly string[],
  looks: readonly Look[],
  most = MOST_COUNTED,
): number[][] | null {
  const demand = all(looks);
  const at = new Map(ends.map((e, i) => [e, i]));
  const pairs = (list: readonly Pair[]) => list.map(([a, b]) => [at.get(a)!, at.get(b)!] as const);
  const joined = pairs(demand.joined);
  const apart = pairs(demand.apart);
  const some = demand.some.map((s) => ({ at: at.get(s.at)!, of: s.of.map((e) => at.get(e)!) }));
  const found: number[][] = [];
  const line: number[] = [];
  const fits = (i: number): boolean =>
    joined.every(([a, b]) => Math.max(a, b) !== i || line[a] === line[b]) &&
    apart.every(([a, b]) => Math.max(a, b) !== i || line[a] !== line[b]);
  const go = (lines: number): boolean => {
    const i = line.length;
    if (i === ends.length) {
      if (some.every((s) => s.of.some((e) => line[e] === line[s.at]))) found.push([...line]);
      return found.length <= most;
    }
    for (let l = 0; l <= lines; l++) {
      line.push(l);
      const on = !fits(i) || go(Math.max(lines, l + 1));
      line.pop();
      if (!on) return false;
    }
    return true;
  };
  return go(0) ? found : null;
}

/** An end to look from next, and what it would tell. */
export interface NextLook {
  readonly at: string;
  /** Ends of which it would become known whether they are joined to it. */
  readonly tells: readonly string[];
}
/**
 * The end whose whole line is worth finding next: of those that can be reached without diving the one whose answers differ
 * most from each other (in bits, over all partitions that agree); only where none of them tells anything, one in the pool.
 * Where there are too many partitions to count, the one with the most open pairs. null: nothing is open.
 * @param dry ends that are reached without diving
 */
export function nextLook(
  ends: readonly string[],
  looks: readonly Look[],
  dry: ReadonlySet<string>,
): NextLook | null {
  const joins = joinsOf(ends, looks);
  const tells = (at: string) => ends.filter((e) => joins.bond(at, e) === 'open');
  const open = ends.filter((e) => tells(e).length > 0);
  const first = open.some((e) => dry.has(e)) ? open.filter((e) => dry.has(e)) : open;
  if (!first.length) return null;
  const wrong = new Set(joins.clashes.flatMap((c) => c.looks));
  const counted = partitions(
    ends,
    looks.filter((l) => !wrong.has(l.id)),
  );
  const worth = (at: string): number => (counted ? bits(counted, ends.indexOf(at)) : tells(at).length);
  const best = first.reduce((a, b) => (worth(b) > worth(a) + 1e-9 ? b : a));
  return { at: best, tells: tells(best) };
}
/** How much the line of an end tells, in bits, all partitions being equally likely. */
function bits(partitionsLeft: readonly number[][], end: number): number {
  const counts = new Map<string, number>();
  for (const p of partitionsLeft) {
    const line = p.map((l) => (l === p[end] ? '1' : '0')).join('');
    counts.set(line, (counts.get(line) ?? 0) + 1);
  }
  const n = partitionsLeft.length;
  return [...counts.values()].reduce((sum, c) => sum - (c / n) * Math.log2(c / n), 0);
}
