/** A simulated pool with joins that nobody sees: what one would see who closes a line or blows low air into an end. */
import type { PoolEnd } from '@/core/trades/pool/ends';

export interface HiddenPool {
  /** The connection each end belongs to, by id. */
  readonly line: ReadonlyMap<string, string>;
  /** Ends from the highest to the lowest: air leaves at the highest open one. */
  readonly heights: readonly string[];
  /** The connection of an outlet that stands in no list; '' where there is none. */
  readonly omitted: string;
}
/** Numbers below 1 that follow from a text. */
function numbers(text: string): () => number {
  let s = 2166136261;
  for (const c of text) s = Math.imul(s ^ c.codePointAt(0)!, 16777619) >>> 0;
  return () => {
    s = (Math.imul(s, 1664525) + 1013904223) >>> 0;
    return s / 4294967296;
  };
}
const USUALLY: Readonly<Record<string, readonly string[]>> = {
  pump: ['skimmer', 'drain'],
  heater: ['return', 'jet-lower'],
  blower: ['jet-upper'],
  cleaner: ['cleaner'],
};
/** Lines that mostly follow custom and sometimes do not; the same for the same run. @param run its id */
export function hiddenPool(run: string, ends: readonly PoolEnd[]): HiddenPool {
  const next = numbers(run);
  const dry = ends.filter((e) => e.dry);
  const line = new Map<string, string>(dry.map((e) => [e.id, e.id]));
  for (const e of ends) {
    if (e.dry || !dry.length) continue;
    const usual = dry.filter((d) => USUALLY[d.type]?.includes(e.type));
    const from = next() < 0.8 && usual.length ? usual : dry;
    line.set(e.id, from[Math.floor(next() * from.length)]!.id);
  }
  const heights = ends
    .filter((e) => !e.dry)
    .map((e) => [next(), e.id] as const)
    .sort((a, b) => b[0] - a[0])
    .map(([, id]) => id);
  const omitted = next() < 0.25 && dry.length ? dry[Math.floor(next() * dry.length)]!.id : '';
  return { line, heights, omitted };
}
export interface SeenThere {
  readonly on: readonly string[];
  readonly off: readonly string[];
  readonly stood: boolean;
  readonly elsewhere: string;
}
/** What is seen from one end. Closed: the whole line goes quiet. Air: the two highest open ends of the line bubble. */
export function seenFrom(
  pool: HiddenPool,
  what: 'closed' | 'air',
  from: string,
  plugged: readonly string[],
): SeenThere {
  const own = (id: string) => id !== from && pool.line.get(id) === pool.line.get(from);
  const wet = pool.heights.filter((id) => id !== from);
  if (what === 'closed')
    return { on: wet.filter(own), off: wet.filter((id) => !own(id)), stood: false, elsewhere: '' };
  const open = wet.filter((id) => !plugged.includes(id));
  const on = open.filter(own).slice(0, 2);
  const strange = !on.length && pool.omitted !== '' && pool.omitted === pool.line.get(from);
  return {
    on,
    off: open.filter((id) => !on.includes(id)),
    stood: !on.length && !strange,
    elsewhere: strange ? 'bubbles where no outlet is listed' : '',
  };
}
