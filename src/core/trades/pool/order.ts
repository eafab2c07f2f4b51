/** In which order the lines of a pool are pressed: what is owed first, then what takes the fewest plugs under water. */

/** What is known of a line's tightness: nothing, a test that did not decide, that it loses, or that it held. */
export type Standing = 'untested' | 'open' | 'loses' | 'good';
export interface Pressable {
  readonly key: string;
  readonly ends: readonly string[];
  /** Ends that may belong to it too: it cannot be closed before they are known. */
  readonly perhaps: readonly string[];
}
export interface Next<L> {
  readonly line: L;
  readonly why: string;
}
const RANK: Readonly<Record<Standing, number>> = { open: 0, untested: 1, loses: 2, good: 3 };
const dives = (n: number): string =>
  n === 0 ? 'no plug under water' : n === 1 ? 'one plug under water' : `${n} plugs under water`;
const WHY: Readonly<Record<Standing, (wet: number) => string>> = {
  open: (wet) => `a test did not decide, ${dives(wet)}`,
  untested: (wet) => `not tested, ${dives(wet)}`,
  loses: () => 'it loses: mended and cured first, then pressed again',
  good: () => '',
};
/**
 * Lines that are still to be pressed, the next first: those a test left open, then untested ones by the plugs that have to be
 * dived for, last those that lose and wait for their repair. A line that held is done, and its ends are proved ones. House choice
 * @param standing of a line by its key  @param dry whether an end is reached without diving
 */
export function pressOrder<L extends Pressable>(
  lines: readonly L[],
  standing: (key: string) => Standing,
  dry: (end: string) => boolean,
): Next<L>[] {
  return lines
    .filter((l) => l.ends.length > 1 && !l.perhaps.length && standing(l.key) !== 'good')
    .map((line) => ({ line, of: standing(line.key), wet: line.ends.filter((e) => !dry(e)).length }))
    .sort((a, b) => RANK[a.of] - RANK[b.of] || a.wet - b.wet || (a.line.key < b.line.key ? -1 : 1))
    .map(({ line, of, wet }) => ({ line, why: WHY[of](wet) }));
}
