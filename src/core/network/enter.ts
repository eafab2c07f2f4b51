/**
 * Lists of things turned into a network, and lists changed on a form brought into the network there is: what stays keeps
 * its place and its joints, what is new is joined where its kind belongs, what is gone leaves the line whole.
 */
import type { Pipe } from '@/core/installation/pipe';
import type { System } from '@/core/installation/section';
import { tradeOf } from '@/core/trades';
import { ruleOfPart } from './catalogue';
import { Draft, type Entry, factsOf, listed } from './draft';
import type { Schematic } from './drawn-before';
import { reachOf } from './flood';
import { type Installation, installationOf, listId, NO_METER, sectionOf } from './installation';
import { laidOut } from './layout';
import { factsOfRow, type ListRow, listRule, type PartListKey, rowsOf } from './lists';
import { firstSupply, type Link, linksAt, type Network, type Part, textOf, valveFor } from './network';

/** What each list of a section names, as parts. */
function entriesOf(s: System): Entry[] {
  const rows = (list: PartListKey, at: Entry['at'], which: (row: ListRow) => boolean = () => true): Entry[] =>
    rowsOf(s, list)
      .filter(which)
      .map((row) => ({
        kind: listRule(list).kind,
        id: row.id,
        name: row.name,
        ...(row.place === undefined ? {} : { place: row.place }),
        facts: factsOfRow(list, row),
        at,
        ...(listRule(list).valve && row.valve ? { valve: row.valve as string } : {}),
      }));
  const early = (v: ListRow) => v.kind === 'container' || v.kind === 'selector';
  return [
    ...rows('valves', 'before the point', early),
    ...(NO_METER.includes(s.meter.kind)
      ? []
      : [
          {
            kind: 'meter' as const,
            id: 'meter',
            name: s.meter.name,
            facts: {
              class: s.meter.kind,
              volume: s.meter.volume,
              testDial: s.meter.testDial,
              serial: s.meter.serial,
            },
            at: 'before the point' as const,
          },
        ]),
    ...rows('regulators', 'before the point'),
    ...rows('valves', 'behind the point', (v) => !early(v)),
    ...rows('elements', 'behind the point'),
    ...rows('joints', 'behind the point'),
    ...rows('appliances', 'on a branch'),
    ...rows('factoryTested', 'on a branch'),
    ...rows('loops', 'on a branch'),
    ...rows('surfaces', 'on a branch'),
    ...rows('connections', 'by itself'),
    ...rows('outlets', 'by itself'),
    ...rows('condensing', 'by itself'),
    ...rows('receivers', 'by itself'),
    ...rows('expansions', 'by itself'),
    ...rows('evaporators', 'by itself'),
    ...rows('handlers', 'behind the point'),
    ...rows('registers', 'on a branch'),
    ...rows('intakes', 'on a branch'),
  ];
}

/** The one valve of a use, renamed, made or taken away. */
function oneValve(
  draft: Draft,
  use: 'supply' | 'meter',
  name: string | undefined,
  owner: string | undefined,
): void {
  const there =
    use === 'supply'
      ? firstSupply(draft.network())
      : draft.parts.find((p) => p.kind === 'valve' && textOf(p, 'use') === 'meter');
  const facts = factsOf({ use, owner });
  if (there) {
    if (name) draft.set(there.id, { name, facts });
    else draft.remove(there.id);
  } else if (name) {
    const id = draft.idFor(use === 'supply' ? 'supply' : 'meter-valve');
    const position = use === 'supply' ? ('closed' as const) : ('open' as const);
    draft.enter(
      { kind: 'valve', id, name, at: 'before the point' },
      { id, kind: 'valve', name, position, facts },
    );
  }
}
function placeEntry(draft: Draft, entry: Entry): void {
  const facts = factsOf(entry.facts);
  const there = draft.find(entry.kind, entry.id);
  if (there) {
    draft.set(there.id, { name: entry.name, place: entry.place ?? there.place, facts });
    if (entry.kind !== 'appliance') return;
    const own = valveFor(draft.network(), { ...there });
    if (own && entry.valve) draft.set(own.id, { name: entry.valve });
    else if (own) draft.remove(own.id);
    else if (entry.valve) {
      const link = linksAt(draft.network(), there.id)[0];
      if (link) draft.split(link, draft.ownValve(entry.id, entry.valve));
    }
    return;
  }
  const closes = ruleOfPart(entry.kind).closes ? { position: 'open' as const } : {};
  const id = draft.idFor(entry.id, entry.kind);
  const { kind, name, place = '' } = entry;
  draft.enter(entry, { id, kind, name, place, facts, ...closes });
}

/**
 * The network with a section's lists brought into it.
 * @param keep what is drawn and stands in no list stays: a drawing from before lists and drawing were one
 */
export function withLists(network: Network, s: System, keep = false): Network {
  const draft = new Draft(network);
  const entries = entriesOf(s);
  if (!keep) {
    const names = (of: System) => new Set(entriesOf(of).map((e) => `${e.kind}/${e.id}`));
    // what no list could say for want of a fact was never on the form: it is not gone because the form lacks it
    const stood = names(sectionOf(installationOf(s, network)));
    const named = names(s);
    for (const p of network.parts.filter(listed(network))) {
      const name = `${p.kind}/${listId(p)}`;
      if (stood.has(name) && !named.has(name)) {
        const own = p.kind === 'appliance' ? valveFor(draft.network(), p) : null;
        draft.remove(p.id);
        if (own) draft.remove(own.id);
      }
    }
  }
  // what is parted has no one source and no one test point: the rig goes onto each section by itself
  const { parted, unpiped } = tradeOf(s);
  if (!parted && !unpiped) {
    source(draft, s);
    oneValve(draft, 'supply', s.supplyValve, s.supplyValveOwner);
  }
  if (!parted) draft.set(draft.point().id, { name: s.testPoint });
  const early = entries.findIndex((e) => e.kind !== 'valve' || e.at !== 'before the point');
  const first = early < 0 ? entries.length : early;
  for (const entry of entries.slice(0, first)) placeEntry(draft, entry);
  oneValve(draft, 'meter', s.meter.valve, s.meter.valveOwner);
  for (const entry of entries.slice(first)) placeEntry(draft, entry);
  if (!parted && !unpiped) closeEnd(draft);
  pipes(draft, s.pipes);
  inOrder(draft, s);
  return draft.network();
}
/** Parts and links in the order of the lists, which is the order they were entered in. */
function inOrder(draft: Draft, s: System): void {
  const names = [
    ...(s.valves ?? []).map((v) => `valve/${v.id}`),
    ...entriesOf(s).map((e) => `${e.kind}/${e.id}`),
  ];
  const own = listed(draft.network());
  const named = (p: Part) => (own(p) ? names.indexOf(`${p.kind}/${listId(p)}`) : -1);
  const pipe = (l: Link) => s.pipes.findIndex((p) => p.id === l.pipe?.id);
  draft.parts = [...draft.parts].sort((a, b) => named(a) - named(b));
  draft.links = [...draft.links].sort((a, b) => pipe(a) - pipe(b));
}
/** Where the gas or water comes from: a tank where one stands here. */
function source(draft: Draft, s: System): void {
  const feed = draft.parts.find((p) => ruleOfPart(p.kind).feeds);
  const { tank } = s;
  const own = tank
    ? {
        kind: 'tank' as const,
        name: tank.name,
        place: tank.place,
        facts: factsOf({ size: tank.size, make: tank.make, serial: tank.serial }),
      }
    : { kind: 'source' as const, name: feed?.kind === 'source' ? feed.name : tradeOf(s).source, facts: {} };
  if (feed) {
    if (tank || feed.kind === 'tank') draft.set(feed.id, own);
    // an inventory knows the tank by its own id
    if (tank && listId(feed) !== tank.id) draft.rename(feed.id, draft.idFor(tank.id, 'tank'));
    return;
  }
  const point = draft.point().id;
  const id = draft.idFor(tank?.id ?? 'source', own.kind);
  draft.enter({ ...own, id, at: 'before the point' }, { ...own, id });
  if (!linksAt(draft.network(), id).length) draft.join(id, point);
}
/** A line on which nothing stands behind the test point ends in a cap. */
function closeEnd(draft: Draft): void {
  const point = draft.point().id;
  const beyond = linksAt(draft.network(), point).some((l) => l.from === point);
  if (!beyond)
    draft.join(point, draft.add({ id: draft.idFor('end'), kind: 'cap', name: 'closed end' }, point));
}
/** Pipes by their id on the link they have, new ones on a bare link, gone ones off. */
function pipes(draft: Draft, list: readonly Pipe[]): void {
  const { shutOff } = reachOf(draft.network());
  draft.links = draft.links.map(({ pipe, ...l }) => {
    const now = pipe && list.find((p) => p.id === pipe.id);
    // what a closed valve keeps out is no part of the list that was changed
    return now ? { ...l, pipe: now } : pipe && shutOff.has(l.id) ? { ...l, pipe } : l;
  });
  for (const pipe of list) if (!draft.links.some((l) => l.pipe?.id === pipe.id)) draft.keepPipe(pipe);
}

/** A drawing from before as a network: its valves named by what they shut, its pipes still only named. */
function drawnBefore(s: System, schematic: Schematic): Network {
  const useOf = (id: string): string | undefined => {
    if (id === 'supply') return 'supply';
    return s.appliances.some((a) => id === `valve-${a.id}`) ? 'appliance' : undefined;
  };
  return {
    parts: schematic.nodes.map((n): Part => ({
      ...n,
      place: '',
      facts: factsOf(n.kind === 'valve' ? { use: useOf(n.id) } : {}),
    })),
    links: schematic.links.map(({ pipe: named, ...l }) => {
      const pipe = s.pipes.find((p) => p.id === named);
      // one pipe was named on several lines: it is one run, on the first of them
      const first = schematic.links.find((x) => x.pipe === named);
      return pipe && first?.id === l.id ? { ...l, pipe } : l;
    }),
  };
}
/** The network of a section that has only lists, and perhaps a drawing from before. */
export function networkFrom(s: System): Network {
  if (s.schematic) return withLists(drawnBefore(s, s.schematic), s, true);
  return laidOut(withLists({ parts: [], links: [] }, s));
}
export const networkOf = (s: System): Network => s.network ?? networkFrom(s);

/** An installation as it was kept; one from before there were networks is drawn from its lists. */
export const readInstallation = (kept: Installation | System): System =>
  'pipes' in kept ? withNetwork(kept, networkOf(kept)) : sectionOf(kept);
/** A section with lists that were changed: they are brought into its network, from which they then follow. */
export const withListsOf = (s: System): System =>
  withNetwork(s, s.network ? withLists(s.network, s) : networkFrom(s));
/** A section whose network was changed: its lists follow. */
export const withNetwork = (s: System, network: Network): System => sectionOf(installationOf(s, network));
