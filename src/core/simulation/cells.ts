/**
 * An installation as what its valves part: cells, each with all that no valve inside can shut off from it. Every open valve joins its
 * cells to one; a closed one may pass between them.
 */
import { pipeVolume, type System } from '@/core/installation/section';
import { type PartKind, ruleOfPart } from '@/core/network/catalogue';
import { networkOf } from '@/core/network/enter';
import { figureOf, linksAt, otherEnd, partName, partOf, positionKey } from '@/core/network/network';
import { toNumber } from '@/core/quantity/exact';
import { convert } from '@/core/quantity/unit';
import type { Parted } from './parted';

export interface Cell {
  /** ids of parts and of runs of pipe in it */ readonly holds: readonly string[];
  /** m3 */ readonly volume: number;
  /** A source stands in it: its pressure is the source's. */ readonly fed: boolean;
}
export interface CellValve {
  /** The name a run knows its position under. */ readonly key: string;
  readonly name: string;
  /** Cells it joins, by their place in the list. */ readonly joins: readonly number[];
}
export interface Cells {
  readonly cells: readonly Cell[];
  readonly valves: readonly CellValve[];
  /** The cell in which the gauge stands. */ readonly point: number;
  /** What can be looked at and gone to, by the id it has on the drawing. */
  readonly places: readonly { readonly id: string; readonly name: string }[];
  /** Runs of pipe, by their own ids: they are gone over together. */
  readonly pipes: readonly { readonly id: string; readonly name: string }[];
}
/** Of a run of pipe nobody measured, and of a part without a plate, m3: a hand's width of pipe. House figure for the model. */
const UNKNOWN = 2e-5;

/** A section by what its valves part. @param volume m3 that everything open together holds, as the test reckons with it */
export function cellsOf(system: System, volume: number): Cells {
  const network = networkOf(system);
  const closes = (id: string) => ruleOfPart(partOf(network, id)!.kind).closes === true;
  const cellAt = new Map<string, number>();
  const holds: string[][] = [];
  const spread = (id: string, cell: number): void => {
    if (closes(id) || cellAt.has(id)) return;
    cellAt.set(id, cell);
    holds[cell]!.push(id);
    for (const link of linksAt(network, id)) spread(otherEnd(link, id), cell);
  };
  for (const part of network.parts)
    if (!closes(part.id) && !cellAt.has(part.id)) {
      holds.push([]);
      spread(part.id, holds.length - 1);
    }
  // a pipe between two valves is a cell of its own
  for (const link of network.links) {
    const at = cellAt.get(link.from) ?? cellAt.get(link.to);
    if (at === undefined) holds.push([]);
    const cell = at ?? holds.length - 1;
    cellAt.set(link.id, cell);
    holds[cell]!.push(link.id);
    if (link.pipe && link.pipe.id !== link.id) holds[cell]!.push(link.pipe.id);
  }
  const inside = (id: string): number => {
    const link = network.links.find((l) => l.id === id);
    if (link) return link.pipe ? pipeVolume(link.pipe) : UNKNOWN;
    const plate = figureOf(partOf(network, id), 'volume');
    return plate ? convert(toNumber(plate), plate.unit, 'm3') : 0;
  };
  const raw = holds.map((ids) => ids.reduce((sum, id) => sum + inside(id), UNKNOWN));
  const fed = holds.map((ids) => ids.some((id) => ruleOfPart(partOf(network, id)?.kind ?? 'tee').feeds));
  const point = Math.max(
    0,
    holds.findIndex((ids) => ids.some((id) => ruleOfPart(partOf(network, id)?.kind ?? 'tee').reads)),
  );
  const whole = raw.reduce((sum, v, i) => sum + (fed[i] ? 0 : v), 0);
  const scale = volume / whole;
  return {
    cells: holds.map((ids, i) => ({ holds: ids, volume: raw[i]! * scale, fed: fed[i]! })),
    valves: network.parts
      .filter((p) => closes(p.id))
      .map((p) => ({
        key: positionKey(network, p),
        name: partName(p),
        joins: [
          ...new Set(linksAt(network, p.id).map((l) => cellAt.get(otherEnd(l, p.id)) ?? cellAt.get(l.id)!)),
        ],
      })),
    point,
    pipes: network.links.flatMap((l) => (l.pipe ? [{ id: l.pipe.id, name: l.pipe.name }] : [])),
    places: network.parts
      .filter((p) => !ruleOfPart(p.kind).nameless)
      .map((p) => ({ id: p.id, name: partName(p) })),
  };
}
/**
 * What valves inside a section part; undefined where none does. What stands on a supply is no part of it, nor is a condensing unit behind
 * its service valves.
 * @param volume m3 that everything open together holds, where it is known
 * @param hoses hoses from all its points meet at the tester's manifold
 */
export function partedOf(system: System, volume = 1, hoses = false): Parted | undefined {
  const network = networkOf(system);
  const { cells, valves, point } = cellsOf(system, volume);
  const rules = (c: Cell) => c.holds.flatMap((id) => partOf(network, id)?.kind ?? []);
  const inside = new Map(
    cells.flatMap((c, i) => (c.fed || isUnit(rules(c)) ? [] : [i])).map((i, n) => [i, n]),
  );
  const parts = valves
    .map((v) => ({ ...v, joins: v.joins.flatMap((j) => inside.get(j) ?? []) }))
    .filter((v) => v.joins.length > 0);
  const at = inside.get(point);
  if (!parts.some((v) => v.joins.length > 1) || at === undefined) return undefined;
  const kept = [...inside.keys()].map((i) => cells[i]!);
  const whole = kept.reduce((sum, c) => sum + c.volume, 0);
  const ports = kept.flatMap((c, i) => (rules(c).some((kind) => ruleOfPart(kind).reads) ? [i] : []));
  return {
    cells: kept.map((c) => ({ holds: c.holds, share: c.volume / whole })),
    valves: hoses && ports.length > 1 ? [...parts, { key: MANIFOLD, name: 'manifold', joins: ports }] : parts,
    point: at,
  };
}
/** Where hoses from several points meet: nobody shuts it. */
const MANIFOLD = 'works:manifold';
/** A condensing unit and nothing that was joined on site. */
const isUnit = (kinds: readonly PartKind[]): boolean =>
  kinds.length > 0 && kinds.every((kind) => kind === 'condensing');
