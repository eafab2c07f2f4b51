/** Where the parts of a network stand on the sheet: the main line across, short branches down, long ones in rows below. */
import { ruleOfPart } from './catalogue';
import { GRID, linksAt, otherEnd, partOf, type Joined, type Part } from './network';

const STEP = 11;
const DOWN = 9;
const LEFT = 4;
const TOP = 12;
const ROW = 16;

interface Tree {
  readonly part: Part;
  readonly below: readonly Tree[];
  /** parts below it, itself among them */
  readonly size: number;
  readonly reads: boolean;
}
function treeFrom(network: Joined, part: Part, seen: Set<string>): Tree {
  seen.add(part.id);
  const below: Tree[] = [];
  for (const link of linksAt(network, part.id)) {
    const next = partOf(network, otherEnd(link, part.id));
    if (next && !seen.has(next.id)) below.push(treeFrom(network, next, seen));
  }
  return {
    part,
    below,
    size: below.reduce((n, t) => n + t.size, 1),
    reads: Boolean(ruleOfPart(part.kind).reads) || below.some((t) => t.reads),
  };
}
/** The parts of a branch that nothing leaves; null where it branches again or is long. */
function chainOf(tree: Tree): Part[] | null {
  const parts: Part[] = [];
  for (let t: Tree | undefined = tree; t; t = t.below[0]) {
    if (t.below.length > 1 || parts.length === 4) return null;
    parts.push(t.part);
  }
  return parts;
}

/**
 * The network with every part placed anew: from its source across to the test point and on along the largest branch.
 * Whole grid units, because a sealed record holds no fractions.
 */
export function laidOut<N extends Joined>(network: N): N {
  const at = new Map<string, { x: number; y: number }>();
  let bottom = TOP;
  const put = (part: Part, x: number, y: number) => {
    at.set(part.id, { x: Math.min(GRID.width, x), y: Math.min(GRID.height, y) });
    bottom = Math.max(bottom, y);
  };
  const line = (tree: Tree, x: number, y: number): void => {
    put(tree.part, x, y);
    const [main, ...branches] = [...tree.below].sort(
      (a, b) => Number(b.reads) - Number(a.reads) || b.size - a.size,
    );
    if (!main) return;
    const chains = branches.map(chainOf);
    let column = 0;
    for (const chain of chains)
      if (chain) {
        chain.forEach((part, i) => put(part, x + column * STEP, y + DOWN * (i + 1)));
        column += 1;
      }
    // what hangs from the next part down needs room beside what hangs from this one
    line(main, x + STEP * Math.max(1, column) + (column ? 3 : 0), y);
    branches.forEach((branch, i) => {
      if (!chains[i]) line(branch, x + STEP, bottom + ROW);
    });
  };
  const seen = new Set<string>();
  const roots = [
    ...network.parts.filter((p) => ruleOfPart(p.kind).feeds),
    ...network.parts.filter((p) => ruleOfPart(p.kind).reads),
    ...network.parts,
  ];
  for (const root of roots) {
    if (seen.has(root.id)) continue;
    const first = seen.size === 0;
    line(treeFrom(network, root, seen), LEFT, first ? TOP : bottom + ROW);
  }
  return { ...network, parts: network.parts.map((p) => ({ ...p, ...at.get(p.id)! })) };
}

/** A place near another where nothing stands yet. */
export function freeNear(
  parts: readonly Pick<Part, 'x' | 'y'>[],
  near: Pick<Part, 'x' | 'y'>,
): { x: number; y: number } {
  const free = (x: number, y: number) =>
    x <= GRID.width && y <= GRID.height && !parts.some((p) => Math.abs(p.x - x) < 8 && Math.abs(p.y - y) < 8);
  for (let ring = 1; ring < 40; ring += 1)
    for (const [dx, dy] of [
      [ring, 0],
      [ring, 1],
      [0, ring],
      [ring, ring],
    ] as const) {
      const [x, y] = [near.x + dx * STEP, near.y + dy * DOWN];
      if (free(x, y)) return { x, y };
    }
  return { x: Math.min(GRID.width, near.x + 2), y: Math.min(GRID.height, near.y + 2) };
}
