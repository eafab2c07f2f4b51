/**
 * The sides of a refrigerant circuit: what is joined between the condensing unit's service valves and the expansion valves. Each is
 * tested by itself, at its own PS; where nothing parts them they are one.
 */
import type { System } from '@/core/installation/section';
import { linksAt, otherEnd, partOf, type Network, type Part, textOf } from '@/core/network/network';

export const SIDES = { high: 'High side', low: 'Low side', both: 'Both sides joined' } as const;
export type SideKey = keyof typeof SIDES;
/** Kinds at which a side ends: the unit's own inside is its maker's, an expansion valve parts the pressures. */
const ENDS: ReadonlySet<Part['kind']> = new Set(['condensing', 'expansion']);

/** Parts joined to some without passing an end of a side; those ends are not among them. */
function spread(network: Network, from: readonly string[], stops: ReadonlySet<Part['kind']>): Set<string> {
  const inside = new Set(from);
  for (const id of inside)
    for (const link of linksAt(network, id)) {
      const next = partOf(network, otherEnd(link, id));
      if (next && !stops.has(next.kind)) inside.add(next.id);
    }
  return inside;
}
const service = (network: Network, use: 'liquid' | 'suction'): string[] =>
  network.parts.filter((p) => p.kind === 'valve' && textOf(p, 'use') === use).map((p) => p.id);

/** What belongs to which side; both hold the same where nothing parts them. */
export function sidesOf(network: Network): Readonly<Record<'high' | 'low', ReadonlySet<string>>> {
  return {
    high: spread(network, service(network, 'liquid'), ENDS),
    low: spread(network, service(network, 'suction'), ENDS),
  };
}
/** Whether an expansion valve parts the sides everywhere: only then can each stand under its own pressure. */
export function sidesApart(network: Network): boolean {
  const { high, low } = sidesOf(network);
  return high.size > 0 && low.size > 0 && ![...high].some((id) => low.has(id));
}
/** The sides a procedure can be started for. */
export function sideKeys(system: Pick<System, 'network'>): readonly SideKey[] {
  const { network } = system;
  if (!network) return [];
  return sidesApart(network) ? ['high', 'low', 'both'] : ['both'];
}

/** Gauge and hose go on here where no test point is drawn: beside the service valve, or the first part there is. */
function rig(network: Network, inside: ReadonlySet<string>): { part: Part; on: string } | null {
  const at =
    network.parts.find((p) => inside.has(p.id) && p.kind === 'valve') ??
    network.parts.find((p) => inside.has(p.id));
  return (
    (at && {
      on: at.id,
      part: {
        id: 'rig',
        kind: 'point',
        name: `gauge port at ${at.name || 'the line'}`,
        place: at.place,
        x: at.x,
        y: Math.max(0, at.y - 20),
        facts: {},
      },
    }) ??
    null
  );
}
/**
 * The network as far as a side goes, with what bounds it; its service valves and, where the other side is left out, its expansion
 * valves stand closed. null where there is no such side.
 */
export function networkWithin(network: Network, key: SideKey): Network | null {
  const { high, low } = sidesOf(network);
  const joined = spread(network, [...high, ...low], new Set(['condensing']));
  const inside = key === 'both' ? joined : key === 'high' ? high : low;
  if (!inside.size) return null;
  const bounds = new Set(
    network.links.flatMap((l) => (inside.has(l.from) ? [l.to] : inside.has(l.to) ? [l.from] : [])),
  );
  const standing = (p: Part): Part =>
    p.kind === 'expansion'
      ? { ...p, position: inside.has(p.id) ? 'open' : 'closed' }
      : p.kind === 'valve' && ['liquid', 'suction'].includes(textOf(p, 'use'))
        ? { ...p, position: 'closed' }
        : p;
  const parts = network.parts.filter((p) => inside.has(p.id) || bounds.has(p.id)).map(standing);
  const kept = new Set(parts.map((p) => p.id));
  const links = network.links.filter(
    (l) => kept.has(l.from) && kept.has(l.to) && (inside.has(l.from) || inside.has(l.to)),
  );
  if (parts.some((p) => p.kind === 'point' && inside.has(p.id))) return { ...network, parts, links };
  // a gauge behind a service valve that is shut would read the unit, not the line
  const on = rig(
    network,
    new Set(
      [...inside].filter(
        (id) => !service(network, 'liquid').includes(id) && !service(network, 'suction').includes(id),
      ),
    ),
  );
  return on
    ? { ...network, parts: [...parts, on.part], links: [...links, { id: 'rig-on', from: 'rig', to: on.on }] }
    : null;
}
