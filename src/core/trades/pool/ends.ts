/** The ends of a pool and the lines they make, as an installation has them. */
import {
  EQUIPMENT_WORDS,
  OUTLET_WORDS,
  type EquipmentType,
  type OutletType,
} from '@/core/installation/parts';
import type { System } from '@/core/installation/section';
import { ruleOfPart } from '@/core/network/catalogue';
import type { Reach } from '@/core/network/flood';
import { figureOf, type Network, type Part, textOf } from '@/core/network/network';
import type { Exact } from '@/core/quantity/exact';
import { joinsOf, type FoundEnd, type Joins, type Line, type Look } from './joins';

export interface PoolEnd {
  readonly id: string;
  readonly name: string;
  readonly place: string;
  /** Reached without diving. */
  readonly dry: boolean;
  readonly type: OutletType | EquipmentType | '';
  readonly word: string;
  /** Pipe size at it; null: nobody said. */
  readonly size: Exact | null;
}
const WORDS: Readonly<Record<string, string>> = { ...OUTLET_WORDS, ...EQUIPMENT_WORDS };
/** Every end there is, equipment first: what was drawn, and what was found since. */
export function poolEnds(
  system: Pick<System, 'network' | 'foundEnds'>,
  found: readonly FoundEnd[] = [],
): PoolEnd[] {
  const drawn = (system.network?.parts ?? []).flatMap((p): PoolEnd[] => {
    const { lineEnd } = ruleOfPart(p.kind);
    if (!lineEnd) return [];
    const type = textOf(p, 'type') as PoolEnd['type'];
    return [
      {
        id: p.id,
        name: p.name,
        place: p.place,
        dry: lineEnd === 'dry',
        type,
        word: WORDS[type] ?? 'kind not said',
        size: figureOf(p, 'size') ?? null,
      },
    ];
  });
  const more = [...(system.foundEnds ?? []), ...found]
    .filter((f, i, all) => all.findIndex((x) => x.id === f.id) === i && !drawn.some((d) => d.id === f.id))
    .map((f): PoolEnd => ({ ...f, dry: false, word: WORDS[f.type] ?? f.type, size: null }));
  return [...drawn, ...more].sort((a, b) => Number(b.dry) - Number(a.dry));
}

/** Every end that can be looked at: those of the line under test, and of the others beside it. */
export function lookingEnds(
  system: Pick<System, 'network' | 'foundEnds' | 'section'>,
  found: readonly FoundEnd[] = [],
): PoolEnd[] {
  const own = poolEnds(system, found);
  const others = (system.section?.others ?? [])
    .filter((o) => !own.some((e) => e.id === o.id))
    .map(({ x: _x, y: _y, ...o }): PoolEnd => ({
      ...o,
      type: o.type as PoolEnd['type'],
      word: WORDS[o.type] ?? 'kind not said',
      size: null,
    }));
  return [...own, ...others].sort((a, b) => Number(b.dry) - Number(a.dry));
}
/** The ends of the other lines as they are drawn, while one line is under test. */
export const otherParts = (system: Pick<System, 'section'>): Part[] =>
  (system.section?.others ?? []).map(({ type, dry, ...o }): Part => ({
    ...o,
    kind: dry ? 'connection' : 'outlet',
    facts: { type },
  }));
/** Where ends that were found stand on the drawing: in a row of their own. Grid units */
const FOUND_AT = { x: 190, y: 226, apart: 50 };
/** What is drawn, with the ends that were found since beside it. */
export function withFound(network: Network, found: readonly FoundEnd[]): Network {
  const more = found
    .filter((f) => !network.parts.some((p) => p.id === f.id))
    .map((f, i): Part => ({
      id: f.id,
      kind: 'outlet',
      name: f.name,
      place: f.place,
      x: FOUND_AT.x + FOUND_AT.apart * i,
      y: FOUND_AT.y,
      facts: { type: f.type },
    }));
  return more.length ? { ...network, parts: [...network.parts, ...more] } : network;
}

export interface PoolLine extends Line {
  /** The same for the same ends, whatever else is known. */
  readonly key: string;
  readonly title: string;
  /** Ends as they are called. */
  readonly names: readonly string[];
}
export interface PoolMap {
  readonly ends: readonly PoolEnd[];
  readonly joins: Joins;
  readonly lines: readonly PoolLine[];
  /** Outlets that are joined to none of the equipment listed: an end is missing, or the pipe is capped. */
  readonly lost: readonly PoolEnd[];
  /** Ends of which nobody knows yet with what they are joined; by custom, with why. */
  readonly custom: readonly Custom[];
}
/** What is usual and not known: never taken for a fact. */
export interface Custom {
  readonly a: string;
  readonly b: string;
  readonly why: string;
}
const USUAL: readonly (readonly [PoolEnd['type'], PoolEnd['type'], string])[] = [
  ['blower', 'jet-upper', 'upper jets usually share a line with the blower'],
  ['pump', 'skimmer', 'skimmers usually lead to the pump inlet'],
  ['pump', 'drain', 'the main drain usually leads to the pump inlet'],
  ['heater', 'return', 'returns usually begin after the heater'],
  ['heater', 'jet-lower', 'lower jets usually begin after the heater'],
  ['cleaner', 'cleaner', 'a cleaner usually has a pipe of its own'],
];
export const lineKey = (ends: readonly string[]): string => [...ends].sort().join('+');
const list = (names: readonly string[]): string =>
  names.length < 2 ? (names[0] ?? '') : `${names.slice(0, -1).join(', ')} and ${names[names.length - 1]!}`;

/** What is known of a pool's lines. @param looks everything seen that was not taken back */
export function poolMap(
  system: Pick<System, 'network' | 'foundEnds' | 'section'>,
  looks: readonly Look[],
  found: readonly FoundEnd[] = [],
): PoolMap {
  const ends = lookingEnds(system, found);
  const byId = new Map(ends.map((e) => [e.id, e]));
  const known = looks.filter((l) => endsOfLook(l).every((id) => byId.has(id)));
  const joins = joinsOf(
    ends.map((e) => e.id),
    known,
  );
  const lines = joins.lines.map((line): PoolLine => {
    const names = line.ends.map((id) => byId.get(id)!.name);
    return { ...line, key: lineKey(line.ends), names, title: list(names) };
  });
  const dry = ends.filter((e) => e.dry);
  const lost = ends.filter(
    (e) => !e.dry && dry.length > 0 && dry.every((d) => joins.bond(d.id, e.id) === 'apart'),
  );
  const custom = USUAL.flatMap(([from, to, why]) =>
    dry
      .filter((d) => d.type === from)
      .flatMap((d) =>
        ends
          .filter((e) => !e.dry && e.type === to && joins.bond(d.id, e.id) === 'open')
          .map((e): Custom => ({ a: d.id, b: e.id, why })),
      ),
  );
  return { ends, joins, lines, lost, custom };
}
/** Ends that a look speaks of. */
export const endsOfLook = (l: Look): readonly string[] => {
  switch (l.kind) {
    case 'closed':
      return [l.at, ...l.quiet, ...l.flowing];
    case 'air':
      return [l.at, ...l.plugged, ...l.bubbled, ...l.still];
    case 'among':
      return [l.at, ...l.of];
    case 'pipe':
      return l.ends;
  }
};
/** A look in a sentence. @param name of an end */
export function lookWords(l: Look, name: (id: string) => string): string {
  const all = (ids: readonly string[]) => list(ids.map(name));
  switch (l.kind) {
    case 'closed':
      return `${name(l.at)} closed: ${l.quiet.length ? `${all(l.quiet)} went quiet` : 'nothing went quiet'}${l.flowing.length ? `, ${all(l.flowing)} kept flowing` : ''}`;
    case 'air':
      return [
        `Low air into ${name(l.at)}${l.plugged.length ? `, ${all(l.plugged)} plugged` : ''}: ${l.bubbled.length ? `${all(l.bubbled)} bubbled` : 'nothing listed bubbled'}`,
        ...(l.still.length ? [`${all(l.still)} watched and still`] : []),
        ...(l.elsewhere ? [`bubbles elsewhere: ${l.elsewhere}`] : []),
        ...(l.bubbled.length ? [] : [l.stood ? 'the pressure stood' : 'the pressure did not stand']),
      ].join('; ');
    case 'among':
      return `Low air into ${name(l.at)}: bubbles from one of ${all(l.of)}, which could not be told`;
    case 'pipe':
      return l.joined
        ? `One pipe seen for ${all(l.ends)}`
        : `A pipe of its own seen for each: ${all(l.ends)}`;
  }
}

/** A pool as its drawing shows it: what is known to be a line holds together, whatever stands open or shut today. */
export function linesDrawn(network: Network, map: PoolMap): { reach: Reach; joins: readonly DrawnJoin[] } {
  const lineOf = new Map(
    map.lines.filter((l) => l.ends.length > 1).flatMap((l) => l.ends.map((e) => [e, l.key] as const)),
  );
  const own = (a: string, b: string) => lineOf.has(a) && lineOf.get(a) === lineOf.get(b);
  const piped = (a: string, b: string) =>
    network.links.some((l) => (l.from === a && l.to === b) || (l.from === b && l.to === a));
  return {
    reach: {
      parts: new Set(lineOf.keys()),
      links: new Set(network.links.filter((l) => own(l.from, l.to)).map((l) => l.id)),
      boundaries: [],
      outside: network.parts.filter((p) => !lineOf.has(p.id)),
      shutOff: new Set(),
      warnings: [],
    },
    joins: [
      ...map.lines.flatMap(({ ends: [first, ...rest] }) =>
        rest.filter((to) => !piped(first!, to)).map((to) => ({ from: first!, to, sure: true })),
      ),
      ...map.custom.filter((c) => !piped(c.a, c.b)).map((c) => ({ from: c.a, to: c.b, sure: false })),
    ],
  };
}
/** A join without a pipe: known, or only usual. */
export interface DrawnJoin {
  readonly from: string;
  readonly to: string;
  readonly sure: boolean;
}
