/**
 * The drawn section: what is joined to what, which valves stand open or closed in the test. From it follows by flooding
 * from the test point what the test reaches, what bounds it, and what a closed part hides.
 */
import type { System } from './section';

export const NODE_KINDS = {
  source: 'source',
  valve: 'valve',
  meter: 'meter',
  regulator: 'regulator',
  appliance: 'appliance',
  point: 'test point',
  tee: 'tee',
  cap: 'cap or plug',
} as const;
export type NodeKind = keyof typeof NODE_KINDS;
export interface SchematicNode {
  readonly id: string;
  readonly kind: NodeKind;
  readonly name: string;
  /** Grid units, 0 to 96 across and 0 to 48 down. */
  readonly x: number;
  readonly y: number;
  /** Position in the test; only valves have one. */
  readonly position?: 'open' | 'closed';
}
export interface SchematicLink {
  readonly id: string;
  readonly from: string;
  readonly to: string;
  /** The pipe of the list that runs here. */
  readonly pipe?: string;
}
export interface Schematic {
  readonly nodes: readonly SchematicNode[];
  readonly links: readonly SchematicLink[];
}
export const GRID = { width: 96, height: 48 } as const;

/** A first drawing from the system's facts: source, supply valve, meter, test point, a branch to each appliance. */
export function drawnFrom(system: System): Schematic {
  const nodes: SchematicNode[] = [];
  const links: SchematicLink[] = [];
  const add = (node: SchematicNode, after?: string, pipe?: string) => {
    // whole grid units: a record holds no fractions
    nodes.push({ ...node, x: Math.round(node.x), y: Math.round(node.y) });
    if (after) links.push({ id: `${after}-${node.id}`, from: after, to: node.id, ...(pipe ? { pipe } : {}) });
    return node.id;
  };
  let last = add({
    id: 'source',
    kind: 'source',
    name: system.medium === 'propane' ? 'cylinder or tank' : 'supply',
    x: 4,
    y: 12,
  });
  last = add(
    {
      id: 'supply',
      kind: 'valve',
      name: system.supplyValve || 'supply valve',
      x: 14,
      y: 12,
      position: 'closed',
    },
    last,
  );
  if (system.meter.kind !== 'none' && system.meter.kind !== '')
    last = add({ id: 'meter', kind: 'meter', name: system.meter.name, x: 24, y: 12 }, last);
  for (const r of system.regulators ?? [])
    last = add(
      { id: r.id, kind: 'regulator', name: r.name, x: nodes[nodes.length - 1]!.x + 11, y: 12 },
      last,
    );
  const start = Math.max(32, nodes[nodes.length - 1]!.x + 9);
  last = add({ id: 'point', kind: 'point', name: system.testPoint || 'test point', x: start, y: 12 }, last);
  const count = system.appliances.length;
  const step = count ? Math.max(8, Math.min(16, (GRID.width - start - 10) / count)) : 0;
  system.appliances.forEach((a, i) => {
    const x = Math.min(GRID.width - 4, start + step * (i + 1));
    const pipe = system.pipes[Math.min(i, system.pipes.length - 1)]?.id;
    last = add({ id: `tee-${a.id}`, kind: 'tee', name: '', x, y: 12 }, last, pipe);
    const valve = add(
      { id: `valve-${a.id}`, kind: 'valve', name: a.valve || `${a.name}, valve`, x, y: 24, position: 'open' },
      last,
    );
    add({ id: a.id, kind: 'appliance', name: a.name, x, y: 36 }, valve);
  });
  if (!count)
    add(
      { id: 'end', kind: 'cap', name: 'closed end', x: Math.min(GRID.width - 4, start + 24), y: 12 },
      last,
      system.pipes[0]?.id,
    );
  return { nodes, links };
}
export const schematicOf = (system: System): Schematic => system.schematic ?? drawnFrom(system);

export interface Reach {
  /** ids of nodes and links the test pressure reaches */
  readonly nodes: ReadonlySet<string>;
  readonly links: ReadonlySet<string>;
  /** closed valves and caps that bound it: each a suspect until proved */
  readonly boundaries: readonly SchematicNode[];
  /** parts the test does not reach */
  readonly outside: readonly SchematicNode[];
  /** what is wrong with the drawing or the positions, in sentences */
  readonly warnings: readonly string[];
}
const stops = (n: SchematicNode): boolean =>
  n.kind === 'cap' || (n.kind === 'valve' && n.position === 'closed');

/** What the test reaches from the test point through everything that stands open. */
export function reachOf(s: Schematic): Reach {
  const byId = new Map(s.nodes.map((n) => [n.id, n]));
  const starts = s.nodes.filter((n) => n.kind === 'point');
  const nodes = new Set<string>();
  const links = new Set<string>();
  const bounds = new Set<string>();
  const open = starts.map((n) => n.id);
  for (const id of open) nodes.add(id);
  while (open.length) {
    const id = open.pop()!;
    for (const link of s.links) {
      const other = link.from === id ? link.to : link.to === id ? link.from : null;
      const node = other === null ? undefined : byId.get(other);
      if (!node) continue;
      links.add(link.id);
      if (stops(node)) {
        bounds.add(node.id);
        continue;
      }
      if (nodes.has(node.id)) continue;
      nodes.add(node.id);
      open.push(node.id);
    }
  }
  const named = (n: SchematicNode) => n.kind !== 'tee';
  const warnings = [
    ...(starts.length === 0
      ? ['There is no test point: the test reaches nothing. Add one where the gauge connects.']
      : []),
    ...s.nodes
      .filter((n) => n.kind === 'source' && nodes.has(n.id))
      .map(
        (n) => `${n.name} stands open to the section: a source left on hides a leak. Close a valve between.`,
      ),
    ...s.nodes
      .filter((n) => n.kind === 'appliance' && !nodes.has(n.id))
      .map(
        (n) =>
          `${n.name} is not reached: whatever leaks there stays unseen. Open its valve, or name it under what is not covered.`,
      ),
    ...s.nodes
      .filter((n) => !s.links.some((l) => l.from === n.id || l.to === n.id))
      .map((n) => `${n.name || 'A part'} is joined to nothing.`),
  ];
  return {
    nodes,
    links,
    boundaries: s.nodes.filter((n) => bounds.has(n.id)),
    outside: s.nodes.filter((n) => named(n) && !nodes.has(n.id) && !bounds.has(n.id)),
    warnings,
  };
}
/** Names of what is in, in the drawing's order. */
export const insideOf = (s: Schematic, reach: Reach): readonly SchematicNode[] =>
  s.nodes.filter((n) => n.kind !== 'tee' && reach.nodes.has(n.id));
