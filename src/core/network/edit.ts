/** Changes of a drawing by hand. Each gives a new sheet; ids come in, the old sheet stays for undoing. */
import { ruleOfPart } from './catalogue';
import { freeNear } from './layout';
import { GRID, linksAt, otherEnd, partOf, type Join, type Part } from './network';

/** A sheet of parts and joins; what else stands on them is carried along. */
export interface Sheet<P extends Part = Part, L extends Join = Join> {
  readonly parts: readonly P[];
  readonly links: readonly L[];
}
const within = (v: number, most: number) => Math.max(2, Math.min(most, Math.round(v)));

/** Moves a part; it stays on the sheet, in whole grid units. */
export const moved = <S extends Sheet>(sheet: S, id: string, x: number, y: number): S => ({
  ...sheet,
  parts: sheet.parts.map((p) =>
    p.id === id ? { ...p, x: within(x, GRID.width), y: within(y, GRID.height) } : p,
  ),
});
/** Joins two parts, or parts them where they are joined already. A part is never joined to itself. */
export function joined<S extends Sheet>(sheet: S, from: string, to: string, id: string): S {
  if (from === to || !partOf(sheet, from) || !partOf(sheet, to)) return sheet;
  const there = linksAt(sheet, from).filter((l) => otherEnd(l, from) === to);
  return {
    ...sheet,
    links: there.length ? sheet.links.filter((l) => !there.includes(l)) : [...sheet.links, { id, from, to }],
  };
}
/**
 * A new part: in the middle of a join where one is named, joined to a part where one is named, else loose. What stood on
 * the join (its pipe) stays on the half towards its beginning.
 * @param ids of the part and of the join made with it
 */
export function added<S extends Sheet>(
  sheet: S,
  part: Omit<S['parts'][number], 'x' | 'y' | 'id'>,
  at: { readonly part?: string | undefined; readonly link?: string | undefined },
  ids: readonly [string, string],
): S {
  const [id, link] = ids;
  const cut = sheet.links.find((l) => l.id === at.link);
  const ends = cut && [partOf(sheet, cut.from), partOf(sheet, cut.to)];
  const near = partOf(sheet, at.part ?? '') ?? sheet.parts[sheet.parts.length - 1] ?? { x: 0, y: 12 };
  const spot =
    ends?.[0] && ends[1]
      ? { x: Math.round((ends[0].x + ends[1].x) / 2), y: Math.round((ends[0].y + ends[1].y) / 2) }
      : freeNear(sheet.parts, near);
  const parts = [...sheet.parts, { ...part, id, ...spot }];
  // what an end is joined to is found out: it is drawn by itself
  if (ruleOfPart(part.kind).lineEnd) return { ...sheet, parts };
  if (cut)
    return {
      ...sheet,
      parts,
      links: [
        ...sheet.links.map((l) => (l === cut ? { ...l, to: id } : l)),
        { id: link, from: id, to: cut.to },
      ],
    };
  const anchor = partOf(sheet, at.part ?? '');
  return {
    ...sheet,
    parts,
    links: anchor ? [...sheet.links, { id: link, from: anchor.id, to: id }] : sheet.links,
  };
}
/** Takes a part away; where it stood in a line of two joins, the line closes and what stood on the first stays. */
export function removed<S extends Sheet>(sheet: S, id: string, link: string): S {
  const around = linksAt(sheet, id);
  const [a, b] = around;
  const rest = sheet.links.filter((l) => !around.includes(l));
  const through = a && b && around.length === 2 && otherEnd(a, id) !== otherEnd(b, id);
  return {
    ...sheet,
    parts: sheet.parts.filter((p) => p.id !== id),
    links: through ? [...rest, { ...b, ...a, id: link, from: otherEnd(a, id), to: otherEnd(b, id) }] : rest,
  };
}
/** A part and everything beyond it, seen from the source and the test point. */
export function branchOf(sheet: Sheet, id: string): string[] {
  const stop = new Set(
    sheet.parts
      .filter((p) => p.id !== id && (ruleOfPart(p.kind).feeds || ruleOfPart(p.kind).reads))
      .map((p) => p.id),
  );
  // the side of it that leads to a source or a test point is none of its branch
  const leads = (start: string): Set<string> | null => {
    const seen = new Set([id, start]);
    for (const at of seen) {
      if (at === id) continue;
      if (stop.has(at)) return null;
      for (const l of linksAt(sheet, at)) seen.add(otherEnd(l, at));
    }
    return seen;
  };
  const beyond = linksAt(sheet, id).flatMap((l) => [...(leads(otherEnd(l, id)) ?? [])]);
  return [...new Set([id, ...beyond])];
}
/**
 * Copies a branch beside itself, joined to the same part. Names are kept: the copy is of the same make.
 * @param name a new id for an old one; @param fresh what stands on a copied join, with an id of its own
 */
export function copied<S extends Sheet>(
  sheet: S,
  id: string,
  name: (old: string) => string,
  fresh: (link: S['links'][number]) => S['links'][number] = (l) => l,
): S {
  const inside = new Set(branchOf(sheet, id));
  const parts = sheet.parts.filter((p) => inside.has(p.id));
  const right = Math.max(...parts.map((p) => p.x)) - Math.min(...parts.map((p) => p.x)) + 12;
  const shift = (p: Part) => ({ x: Math.min(GRID.width, p.x + right), y: p.y });
  const links = sheet.links.filter((l) => inside.has(l.from) || inside.has(l.to));
  const now = (old: string) => (inside.has(old) ? name(old) : old);
  return {
    ...sheet,
    parts: [...sheet.parts, ...parts.map((p) => ({ ...p, id: name(p.id), ...shift(p) }))],
    links: [
      ...sheet.links,
      ...links.map((l) => ({ ...fresh(l), id: name(l.id), from: now(l.from), to: now(l.to) })),
    ],
  };
}
