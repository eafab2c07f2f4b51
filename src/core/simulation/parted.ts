/** A simulated section by what its valves part: which parts stand open to the gauge, and what lies behind a valve that is shut. */
export interface Parted {
  /** Ids of parts and pipes in each, and which part of the whole it is; shares come to 1. */
  readonly cells: readonly { readonly holds: readonly string[]; readonly share: number }[];
  readonly valves: readonly {
    readonly key: string;
    readonly name: string;
    /** Cells it joins, by their place. */ readonly joins: readonly number[];
  }[];
  readonly point: number;
}
type Valve = Parted['valves'][number];

/** Nothing inside parts it. */
export const WHOLE: Parted = { cells: [{ holds: [], share: 1 }], valves: [], point: 0 };

/** Cells that stand open to the gauge while these valves are shut. */
export function reachedFrom({ valves, point }: Parted, shut: ReadonlySet<string>): ReadonlySet<number> {
  const reached = new Set([point]);
  for (let grown = true; grown;) {
    grown = false;
    for (const v of valves)
      if (!shut.has(v.key) && v.joins.some((j) => reached.has(j)))
        for (const j of v.joins)
          if (!reached.has(j)) {
            reached.add(j);
            grown = true;
          }
  }
  return reached;
}
/** How much of the whole some cells are. */
export const shareOf = ({ cells }: Parted, reached: ReadonlySet<number>): number =>
  cells.reduce((sum, c, i) => sum + (reached.has(i) ? c.share : 0), 0);
/** The cell that a valve, shut by itself, takes from the gauge; undefined where there is another way round. */
export function behind(parted: Parted, valve: Valve): number | undefined {
  const reached = reachedFrom(parted, new Set([valve.key]));
  return valve.joins.find((j) => !reached.has(j));
}
/** Valves that take something from the gauge by themselves. */
export const parting = (parted: Parted): readonly Valve[] =>
  parted.valves.filter((v) => behind(parted, v) !== undefined);
/** The cell in which something stands, by its id on the drawing; of a valve the one it shuts off. undefined: none that is known. */
export function cellOf(parted: Parted, id: string): number | undefined {
  const valve = parted.valves.find((v) => v.key === id);
  if (valve) return behind(parted, valve) ?? valve.joins[0];
  const at = parted.cells.findIndex((c) => c.holds.includes(id));
  return at < 0 ? undefined : at;
}
