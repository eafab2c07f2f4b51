/** A network while things are brought into it: joined where their kind belongs, taken out so that the line stays whole. */
import type { Pipe } from '@/core/installation/pipe';
import { ruleOfPart, type Fact, type PartKind } from './catalogue';
import { reachOf } from './flood';
import { listId } from './installation';
import { freeNear } from './layout';
import { linksAt, namedElsewhere, otherEnd, type Link, type Network, type Part } from './network';

type Facts = Readonly<Record<string, Fact | undefined>>;
/** Something of a list that is to stand in the network. */
export interface Entry {
  readonly kind: PartKind;
  readonly id: string;
  readonly name: string;
  readonly place?: string;
  readonly facts?: Facts;
  /** Where it is joined when it is new. */
  readonly at: 'before the point' | 'behind the point' | 'on a branch' | 'by itself';
  /** The valve of its own, on the same branch. */
  readonly valve?: string;
}
export const factsOf = (facts: Facts = {}): Record<string, Fact> =>
  Object.fromEntries(
    Object.entries(facts).filter((e): e is [string, Fact] => e[1] !== undefined && e[1] !== ''),
  );

/** Kinds that a list of the section names. */
const LISTED: readonly PartKind[] = [
  'valve',
  'meter',
  'regulator',
  'fitting',
  'joint',
  'appliance',
  'tested',
  'loop',
  'opening',
  'outlet',
  'connection',
  'condensing',
  'evaporator',
  'receiver',
  'expansion',
  'handler',
  'register',
  'intake',
];
/** Whether a list of the section names a part; the supply, the meter's and the appliances' own valves are in none. */
export const listed =
  (network: Network) =>
  (p: Part): boolean =>
    LISTED.includes(p.kind) && !(p.kind === 'valve' && namedElsewhere(network, p));

/** An id that none of these has. */
function unused(id: string, those: readonly { readonly id: string }[]): string {
  let free = id;
  for (let n = 2; those.some((x) => x.id === free); n += 1) free = `${id}~${n}`;
  return free;
}
/** A part that is still to find its place. */
type NewPart = Omit<Part, 'x' | 'y' | 'place' | 'facts'> & Partial<Part>;

/** A network while lists are brought into it. */
export class Draft {
  parts: Part[];
  links: Link[];
  constructor(private readonly before: Network) {
    const network = before;
    this.parts = [...network.parts];
    this.links = [...network.links];
  }
  network(): Network {
    return { ...this.before, parts: this.parts, links: this.links };
  }
  find(kind: PartKind, id: string): Part | undefined {
    const own = listed(this.network());
    return this.parts.find((p) => p.kind === kind && listId(p) === id && own(p));
  }
  /** An id no part has. With a kind it is a list's own, under which it is found again (listId). */
  idFor(id: string, kind?: PartKind): string {
    const free = unused(id, this.parts);
    return kind && free !== id ? unused(`${kind}:${id}`, this.parts) : free;
  }
  add(part: NewPart, near?: string): string {
    const anchor = this.parts.find((p) => p.id === near) ?? { x: 0, y: 12 };
    this.parts.push({ place: '', facts: {}, ...freeNear(this.parts, anchor), ...part });
    return part.id;
  }
  join(from: string, to: string, pipe?: Pipe): void {
    const id = unused(`${from}-${to}`.slice(0, 120), this.links);
    this.links.push({ id, from, to, ...(pipe ? { pipe } : {}) });
  }
  rename(id: string, to: string): void {
    const named = (x: string) => (x === id ? to : x);
    this.parts = this.parts.map((p) => ({ ...p, id: named(p.id) }));
    this.links = this.links.map((l) => ({ ...l, from: named(l.from), to: named(l.to) }));
  }
  set(id: string, change: Partial<Part>): void {
    this.parts = this.parts.map((p) => (p.id === id ? { ...p, ...change } : p));
  }
  /** A new part in the middle of a link; the pipe stays on the first half. */
  split(link: Link, part: NewPart): string {
    const id = this.add(part, link.from);
    this.links = this.links.map((l) => (l === link ? { ...l, to: id } : l));
    this.join(id, link.to);
    return id;
  }
  /** Takes a part away; where it stood in a line, the line closes again. */
  remove(id: string): void {
    const around = linksAt(this.network(), id);
    this.links = this.links.filter((l) => !around.includes(l));
    this.parts = this.parts.filter((p) => p.id !== id);
    const [a, b] = around;
    if (a && b && around.length === 2) this.join(otherEnd(a, id), otherEnd(b, id), a.pipe ?? b.pipe);
    // a pipe that would be lost with its link finds another
    else for (const l of around) if (l.pipe) this.keepPipe(l.pipe);
    if (a && b && around.length === 2 && a.pipe && b.pipe) this.keepPipe(b.pipe);
  }
  point(): Part {
    const point = this.parts.find((p) => ruleOfPart(p.kind).reads);
    if (point) return point;
    const last = this.parts[this.parts.length - 1];
    const id = this.add({ id: this.idFor('point'), kind: 'point', name: 'test point' }, last?.id);
    if (last) this.join(last.id, id);
    return this.parts.find((p) => p.id === id)!;
  }
  /** Parts between a source and the test point, both among them. */
  private upstream(): Set<string> {
    const point = this.point().id;
    const from = new Map<string, string>();
    const queue = this.parts.filter((p) => ruleOfPart(p.kind).feeds).map((p) => p.id);
    const seen = new Set(queue);
    for (const id of queue)
      for (const l of linksAt(this.network(), id)) {
        const next = otherEnd(l, id);
        if (seen.has(next)) continue;
        seen.add(next);
        from.set(next, id);
        queue.push(next);
      }
    const path = new Set([point]);
    for (let at = from.get(point); at !== undefined; at = from.get(at)) path.add(at);
    return path;
  }
  /** Joins a new part where its kind belongs. */
  enter(entry: Entry, part: NewPart): void {
    // what an end is joined to is found out, not drawn by a list
    if (entry.at === 'by itself') {
      this.add(part, this.parts.find((p) => p.kind === entry.kind)?.id);
      return;
    }
    const point = this.point().id;
    const before = this.upstream();
    const atPoint = linksAt(this.network(), point);
    const inlet = atPoint.find((l) => before.has(otherEnd(l, point)));
    const outlet = atPoint.find((l) => !before.has(otherEnd(l, point)));
    if (entry.at === 'before the point') {
      if (inlet) this.split(this.towards(inlet, point), part);
      else this.join(this.add(part, point), point);
    } else if (entry.at === 'behind the point') {
      if (outlet) this.split(this.towards(outlet, otherEnd(outlet, point)), part);
      else this.join(point, this.add(part, point));
    } else this.branch(entry, part);
  }
  /** A link that ends at a part, turned where it begins there. */
  private towards(link: Link, end: string): Link {
    if (link.to === end) return link;
    const turned = { ...link, from: link.to, to: link.from };
    this.links = this.links.map((l) => (l === link ? turned : l));
    return turned;
  }
  /** A branch of its own from the end of the main line; a bare cap there gives way. */
  private branch(entry: Entry, part: NewPart): void {
    const tees = this.parts.filter((p) => p.kind === 'tee' && linksAt(this.network(), p.id).length > 0);
    const anchor = tees[tees.length - 1]?.id ?? this.mainEnd();
    const tee = this.add({ id: this.idFor(`tee-${entry.id}`), kind: 'tee', name: '' }, anchor);
    const cap = this.parts.find((p) => p.id === 'end' && p.kind === 'cap');
    const bare = cap && linksAt(this.network(), cap.id)[0];
    if (bare && otherEnd(bare, cap.id) === anchor) {
      this.links = this.links.filter((l) => l !== bare);
      this.parts = this.parts.filter((p) => p !== cap);
      this.join(anchor, tee, bare.pipe);
    } else this.join(anchor, tee);
    if (entry.valve) {
      const valve = this.add(this.ownValve(entry.id, entry.valve), tee);
      this.join(tee, valve);
      this.join(valve, this.add(part, valve));
    } else this.join(tee, this.add(part, tee));
  }
  /** The valve of an appliance's own. */
  ownValve(appliance: string, name: string): NewPart {
    const id = this.idFor(`valve-${appliance}`);
    return { id, kind: 'valve', name, position: 'open', facts: { use: 'appliance' } };
  }
  /** The last part in line behind the test point before anything branches. */
  private mainEnd(): string {
    const before = this.upstream();
    let at = this.point().id;
    const seen = new Set(before);
    for (;;) {
      seen.add(at);
      const next = linksAt(this.network(), at)
        .map((l) => this.parts.find((p) => p.id === otherEnd(l, at)))
        .filter((p): p is Part => p !== undefined && !seen.has(p.id) && p.kind !== 'cap');
      if (next.length !== 1) return at;
      at = next[0]!.id;
    }
  }
  /** Puts a pipe on the first bare link of the section: along the main line, then on branches; else on a link of its own. */
  keepPipe(pipe: Pipe): void {
    const ends = this.parts.filter((p) => ruleOfPart(p.kind).lineEnd);
    if (ends.length) {
      const piped = new Set(this.links.flatMap((l) => (l.pipe ? [l.from, l.to] : [])));
      const wet = ends.filter((p) => ruleOfPart(p.kind).lineEnd === 'wet');
      const dry = ends.find((p) => ruleOfPart(p.kind).lineEnd === 'dry');
      const to = wet.find((p) => !piped.has(p.id)) ?? wet[0];
      if (dry && to) return this.join(dry.id, to.id, pipe);
    }
    const before = this.upstream();
    const kinds = new Map(this.parts.map((p) => [p.id, p.kind]));
    const { links } = reachOf(this.network());
    const bare = this.links.filter(
      (l) => !l.pipe && links.has(l.id) && !(before.has(l.from) && before.has(l.to)),
    );
    const main = (l: Link) => ['tee', 'cap'].includes(kinds.get(l.to) ?? '');
    const own = bare.find(main) ?? bare.find((l) => kinds.get(l.from) === 'tee') ?? bare[0];
    if (own) this.links = this.links.map((l) => (l === own ? { ...l, pipe } : l));
    else {
      const point = this.point().id;
      const end = this.mainEnd();
      const joint = this.add({ id: this.idFor(`tee-${pipe.id}`), kind: 'tee', name: '' }, end);
      this.join(end === joint ? point : end, joint, pipe);
    }
  }
}
