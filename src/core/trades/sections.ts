/** Several sections of one place, where its trade tells them apart: each is tested, judged and recorded by itself. */
import type { OtherEnd, System } from '@/core/installation/section';
import { installationOf, sectionOf } from '@/core/network/installation';
import type { Link, Network, Part } from '@/core/network/network';
import { networkWithin, SIDES, sideKeys, type SideKey } from './circuit/sides';
import { poolMap, type PoolLine, withFound } from './pool/ends';
import { tradeOf } from '.';

export interface Section {
  readonly key: string;
  readonly title: string;
  /** What is still open of it, in a sentence; '' where nothing is. */
  readonly open: string;
}
/** The sections a procedure can be started for; empty where the whole is one. */
export function sectionsOf(system: System): Section[] {
  const { parted } = tradeOf(system);
  if (!parted) return [];
  return parted === 'sides' ? sides(system) : lines(system);
}
/** The sides of a circuit: nothing of them is open, they are drawn. */
const sides = (system: System): Section[] =>
  sideKeys(system).map((key) => ({
    key,
    title: key === 'both' ? `${SIDES.both}, at the lower PS` : SIDES[key],
    open: '',
  }));
function lines(system: System): Section[] {
  const { lines, ends, joins } = poolMap(system, system.looks ?? []);
  const name = (id: string) => ends.find((e) => e.id === id)?.name ?? id;
  return lines
    .filter((l) => l.ends.length > 1 || !l.perhaps.length)
    .map((l) => ({
      key: l.key,
      title: l.title,
      open: joins.clashes.length
        ? 'What was seen contradicts itself: look again before anything is pressed.'
        : l.perhaps.length
          ? `Not known whether it is joined to ${l.perhaps.map(name).join(', ')}.`
          : '',
    }));
}
/** The pipes that lie wholly between ends of a line, and tees on the way. */
function partsOfLine(network: Network, line: PoolLine): { parts: Set<string>; links: Link[] } {
  const ends = new Set(line.ends);
  const passing = new Set(
    network.parts.filter((p) => ['tee', 'joint', 'fitting', 'valve'].includes(p.kind)).map((p) => p.id),
  );
  const parts = new Set(ends);
  for (const id of parts)
    for (const l of network.links)
      if (l.from === id || l.to === id) {
        const other = l.from === id ? l.to : l.from;
        if (passing.has(other)) parts.add(other);
      }
  return { parts, links: network.links.filter((l) => parts.has(l.from) && parts.has(l.to)) };
}
/** Where rig and gauge go on: an equipment connection of the line where there is one. */
export const pressFrom = (network: Network, line: Pick<PoolLine, 'ends'>): Part | undefined => {
  const own = network.parts.filter((p) => line.ends.includes(p.id));
  return own.find((p) => p.kind === 'connection') ?? own[0];
};
/**
 * The installation as far as one of its sections goes: its own ends and pipes; everything else stands under what is not covered.
 * null where it has no such section.
 */
export const withinSection = (system: System, key: string): System | null =>
  tradeOf(system).parted === 'sides' ? withinSide(system, key) : withinLine(system, key);
function withinSide(system: System, key: string): System | null {
  const side = sideKeys(system).find((k) => k === key);
  const inside = side && system.network && networkWithin(system.network, side);
  if (!side || !inside) return null;
  const title = SIDES[side];
  const other: Readonly<Record<SideKey, string | null>> = { high: SIDES.low, low: SIDES.high, both: null };
  // what the unit's plate says of PS and fluid stands over every side of it
  const { condensing } = system;
  const own = sectionOf(installationOf(system, inside));
  const here = new Set((own.valves ?? []).map((v) => v.kind));
  // what is known to stand on the other side is not looked for on this one
  const elsewhere = (system.valves ?? []).map((v) => v.kind).filter((k) => !here.has(k));
  return {
    ...own,
    ...(elsewhere.length ? { noValves: [...new Set([...(system.noValves ?? []), ...elsewhere])] } : {}),
    ...(condensing ? { condensing } : {}),
    name: `${system.name}, ${title.toLowerCase()}`,
    section: { key: side, title },
    inScope: [
      `${title.toLowerCase()}: ${side === 'high' ? 'liquid line up to the expansion valves' : side === 'low' ? 'evaporators and suction line behind the expansion valves' : 'all that was joined between the service valves'}`,
    ],
    notCovered: [
      ...system.notCovered,
      ...(other[side] ? [`${other[side].toLowerCase()}: tested by itself`] : []),
    ],
  };
}
function withinLine(system: System, key: string): System | null {
  const { lines, ends } = poolMap(system, system.looks ?? []);
  const line = lines.find((l) => l.key === key);
  if (!system.network || !line) return null;
  const network = withFound(system.network, system.foundEnds ?? []);
  const { parts, links } = partsOfLine(network, line);
  const from = pressFrom(network, line);
  const gauge: Part | null = from
    ? {
        id: 'rig',
        kind: 'point',
        name: `rig at ${from.name}`,
        place: from.place,
        x: from.x,
        y: Math.max(0, from.y - 20),
        facts: {},
      }
    : null;
  const others = lines.filter((l) => l.key !== key).map((l) => `line of ${l.title}`);
  const beside = ends
    .filter((e) => !line.ends.includes(e.id))
    .map(({ id, name, place, type, dry }): OtherEnd => {
      const { x, y } = network.parts.find((p) => p.id === id)!;
      return { id, name, place, type, dry, x, y };
    });
  const equipment = network.parts
    .filter((p) => p.kind === 'equipment')
    .map((p) => `${p.name}: equipment not tested`);
  const inside: Network = {
    ...network,
    parts: [...network.parts.filter((p) => parts.has(p.id)), ...(gauge ? [gauge] : [])],
    links: [...links, ...(gauge && from ? [{ id: 'rig-on', from: gauge.id, to: from.id }] : [])],
  };
  // ends that were found stand among the parts now; those of other lines are none of this one
  const { foundEnds: _, ...rest } = system;
  return {
    ...sectionOf({ ...rest, network: inside }),
    name: `${system.name}, line of ${line.title}`,
    section: { key, title: line.title, ...(beside.length ? { others: beside } : {}) },
    inScope: [`line of ${line.title}`],
    notCovered: [...system.notCovered, ...equipment, ...others],
  };
}
