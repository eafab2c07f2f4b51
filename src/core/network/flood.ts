/**
 * What a test reaches: from every place where a gauge connects through all that stands open. From it follow what bounds
 * the section, what is left out, and which pipes hold the pressure.
 */
import { ruleOfPart } from './catalogue';
import {
  linksAt,
  otherEnd,
  partName,
  partOf,
  positionKey,
  type Joined,
  type Part,
  type Position,
} from './network';

/** Positions of a stage, by the name a run knows a closing part under; what is not named stands as the network says. */
export type Positions = Readonly<Record<string, Position>>;
/** How a closing part stands; null for a part that cannot close. */
export const positionOf = (network: Joined, part: Part, positions: Positions = {}): Position | null =>
  ruleOfPart(part.kind).closes ? (positions[positionKey(network, part)] ?? part.position ?? 'open') : null;

export interface Reach {
  /** ids of parts and links the test pressure reaches */
  readonly parts: ReadonlySet<string>;
  readonly links: ReadonlySet<string>;
  /** closed valves and caps that bound it: each a suspect until proved */
  readonly boundaries: readonly Part[];
  /** parts the test does not reach */
  readonly outside: readonly Part[];
  /** links that a closed part keeps out; what is joined to nothing is not among them */
  readonly shutOff: ReadonlySet<string>;
  /** what is wrong with the drawing or the positions, in sentences */
  readonly warnings: readonly string[];
}

const NOTHING: ReadonlySet<string> = new Set();
/** Floods from some parts. @param stops whether a part holds the flood back; it and its links are reached all the same */
function spread(network: Joined, from: readonly string[], stops: (part: Part) => boolean) {
  const parts = new Set(from);
  const links = new Set<string>();
  const bounds = new Set<string>();
  // a set is walked in the order of insertion, what is added while walking included
  for (const id of parts)
    for (const link of linksAt(network, id)) {
      const next = partOf(network, otherEnd(link, id));
      if (!next) continue;
      links.add(link.id);
      if (stops(next)) bounds.add(next.id);
      else parts.add(next.id);
    }
  return { parts, links, bounds };
}

/**
 * What the test reaches from its test points. @param positions of a stage, where it sets some
 * @param shut ids of parts that are closed besides, whatever else is said of them
 */
export function reachOf(
  network: Joined,
  positions: Positions = {},
  shut: ReadonlySet<string> = NOTHING,
): Reach {
  const points = network.parts.filter((p) => ruleOfPart(p.kind).reads);
  const starts = points.map((p) => p.id);
  const closed = new Set(
    network.parts.filter(
      (p) => ruleOfPart(p.kind).ends || shut.has(p.id) || positionOf(network, p, positions) === 'closed',
    ),
  );
  const { parts, links, bounds } = spread(network, starts, (p) => closed.has(p));
  const joined = spread(network, starts, () => false);
  const named = (p: Part) => !ruleOfPart(p.kind).nameless;
  const alone = (p: Part) => linksAt(network, p.id).length === 0;
  const warnings = [
    ...(points.length === 0
      ? ['There is no test point: the test reaches nothing. Add one where the gauge connects.']
      : []),
    ...network.parts
      .filter((p) => ruleOfPart(p.kind).feeds && parts.has(p.id))
      .map(
        (p) =>
          `${partName(p)} stands open to the section: a source left on hides a leak. Close a valve between.`,
      ),
    ...network.parts
      .filter((p) => p.kind === 'appliance' && !parts.has(p.id))
      .map(
        (p) =>
          `${partName(p)} is not reached: whatever leaks there stays unseen. Open its valve, or name it under what is not covered.`,
      ),
    ...network.parts.filter(alone).map((p) => `${partName(p)} is joined to nothing.`),
  ];
  return {
    parts,
    links,
    boundaries: network.parts.filter((p) => bounds.has(p.id)),
    outside: network.parts.filter((p) => named(p) && !parts.has(p.id) && !bounds.has(p.id)),
    shutOff: new Set(
      network.links.filter((l) => joined.links.has(l.id) && !links.has(l.id)).map((l) => l.id),
    ),
    warnings,
  };
}
/** Names of what is in, in the network's order. */
export const insideOf = (network: Joined, reach: Reach): Part[] =>
  network.parts.filter((p) => !ruleOfPart(p.kind).nameless && reach.parts.has(p.id));
