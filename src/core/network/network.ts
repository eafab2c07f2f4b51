/** An installation as a network: parts, what joins them, and in which positions its closing parts stand. */
import type { Pipe } from '@/core/installation/pipe';
import type { Exact } from '@/core/quantity/exact';
import { CATALOGUE, ruleOfPart, type Fact, type PartKind } from './catalogue';

export type Position = 'open' | 'closed';
export interface Part {
  readonly id: string;
  readonly kind: PartKind;
  readonly name: string;
  readonly place: string;
  /** Grid units of the drawing. */
  readonly x: number;
  readonly y: number;
  /** As it stands in the test, where a stage says nothing else; only closing parts have one. */
  readonly position?: Position;
  /** What is known of it, by the catalogue's keys; what nobody knows is absent. */
  readonly facts: Readonly<Record<string, Fact>>;
}
/** Two parts joined: by a run of pipe, or directly. */
export interface Link {
  readonly id: string;
  readonly from: string;
  readonly to: string;
  readonly pipe?: Pipe;
}
/** The edge of a pool on the sheet: a shape in a frame, or points that were sketched. */
export interface Outline {
  readonly shape: OutlineShape;
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
  readonly points?: readonly (readonly [number, number])[];
}
export const OUTLINE_SHAPES = ['rectangle', 'round', 'kidney', 'l-shape', 'sketched'] as const;
export type OutlineShape = (typeof OUTLINE_SHAPES)[number];
export interface Network {
  readonly outline?: Outline;
  readonly parts: readonly Part[];
  readonly links: readonly Link[];
}
/** Parts and what joins them, whatever else is known of a join: all that flooding and drawing need. */
export interface Join {
  readonly id: string;
  readonly from: string;
  readonly to: string;
}
export interface Joined {
  readonly outline?: Outline;
  readonly parts: readonly Part[];
  readonly links: readonly Join[];
}
/** The drawing's sheet in grid units. */
export const GRID = { width: 480, height: 240 } as const;

export const textOf = (part: Part | undefined, key: string): string => {
  const fact = part?.facts[key];
  return typeof fact === 'string' ? fact : '';
};
export const figureOf = (part: Part | undefined, key: string): Exact | undefined => {
  const fact = part?.facts[key];
  return typeof fact === 'object' ? fact : undefined;
};
export const partsOf = (network: Pick<Joined, 'parts'>, kind: PartKind): Part[] =>
  network.parts.filter((p) => p.kind === kind);
/** The links that end at a part. */
export const linksAt = <L extends Join>(network: { readonly links: readonly L[] }, id: string): L[] =>
  network.links.filter((l) => l.from === id || l.to === id);
export const otherEnd = (link: Join, id: string): string => (link.from === id ? link.to : link.from);
export const partOf = (network: Pick<Joined, 'parts'>, id: string): Part | undefined =>
  network.parts.find((p) => p.id === id);

/** The appliance that a valve shuts: the one reached from it without passing another closing part; null where none is. */
export function servedBy(network: Joined, valve: Part): Part | null {
  const seen = new Set([valve.id]);
  // breadth first: the nearest one is its own
  const queue = [valve.id];
  for (const id of queue)
    for (const link of linksAt(network, id)) {
      const next = partOf(network, otherEnd(link, id));
      if (!next || seen.has(next.id)) continue;
      seen.add(next.id);
      if (next.kind === 'appliance') return next;
      const rule = ruleOfPart(next.kind);
      // beyond a tee stands another branch
      if (!rule.closes && !rule.feeds && !rule.reads && !rule.nameless) queue.push(next.id);
    }
  return null;
}
/** The valve of its own that an appliance has: used for it, and reached from it before any other. */
export function valveFor(network: Joined, appliance: Part): Part | null {
  return (
    partsOf(network, 'valve').find(
      (v) => textOf(v, 'use') === 'appliance' && servedBy(network, v)?.id === appliance.id,
    ) ?? null
  );
}
/**
 * The name under which a run knows a closing part's position: the appliance it shuts, "supply" and "meter" for those two,
 * its own id otherwise.
 */
export function positionKey(network: Joined, part: Part): string {
  const use = textOf(part, 'use');
  if (use === 'appliance') return servedBy(network, part)?.id ?? part.id;
  if (use === 'meter') return 'meter';
  if (use === 'supply') return firstSupply(network)?.id === part.id ? 'supply' : part.id;
  return part.id;
}
/** The valve that separates the section from its source. */
export const firstSupply = (network: Pick<Joined, 'parts'>): Part | undefined =>
  partsOf(network, 'valve').find((p) => textOf(p, 'use') === 'supply');

/** Whether a valve stands elsewhere than in a list of its own: the supply, the meter's, and an appliance's own. */
export const namedElsewhere = (network: Pick<Joined, 'parts'>, valve: Part): boolean =>
  valve.id === firstSupply(network)?.id || ['appliance', 'meter'].includes(textOf(valve, 'use'));

/** How a part is named in a sentence, its position beside it. */
export const partName = (part: Part): string => part.name || CATALOGUE[part.kind].word;
/** A valve by what it shuts, where that is one thing. */
export function shutName(network: Joined, valve: Part): string {
  const served = ruleOfPart(valve.kind).ownValve ? valve : servedBy(network, valve);
  return served ? `the valve of ${partName(served)}` : partName(valve);
}
