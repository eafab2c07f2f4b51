import { isRecalled, type Recall } from '@/core/after/recall';
import type { ExpectedItem, System } from '@/core/installation/section';
import type { Plan } from '@/core/plan/plan';
import { type InventoryItem, momentOf, type RunEvent } from '@/core/run/events';
import { inventoryChanges } from '@/core/run/inventory';
import { inOrganisation, type Tx } from '@/database/client';
import { sightings, sites, systems } from '@/database/schema';
import { and, desc, eq, like } from 'drizzle-orm';
import 'server-only';

/** Keeps each inventory entry of a run with its place, dated. Practice runs leave nothing behind. */
export async function keepSightings(
  tx: Tx,
  org: string,
  plan: Plan,
  events: readonly RunEvent[],
): Promise<void> {
  if (plan.practice) return;
  const rows = events.flatMap((e) => (e.kind === 'inventory' ? [e] : []));
  if (!rows.length) return;
  await tx.insert(sightings).values(
    rows.map((e) => ({
      org,
      id: e.id,
      run: plan.run,
      system: plan.system.id,
      item: e.item.id,
      at: new Date(momentOf(e)),
      by: e.byName,
      facts: e.item,
      search: [e.item.name, e.item.make, e.item.model, e.item.serial, plan.site.name].join(' ').toLowerCase(),
    })),
  );
}

export interface Sighting {
  readonly item: InventoryItem;
  readonly at: string;
  readonly by: string;
  readonly run: string;
  /** What was another make, model or serial the time before. */
  readonly changes: readonly string[];
}
/** What was written down on a system, the newest of each thing, with what changed since the time before. */
export async function inventoryOf(tx: Tx, system: string): Promise<Sighting[]> {
  const rows = await tx
    .select()
    .from(sightings)
    .where(eq(sightings.system, system))
    .orderBy(desc(sightings.at))
    .limit(2000);
  const byItem = new Map<string, typeof rows>();
  for (const row of rows) byItem.set(row.item, [...(byItem.get(row.item) ?? []), row]);
  return [...byItem.values()].map(([newest, ...before]) => {
    // the last entry of an earlier run: entries of the same run correct each other
    const earlier = before.find((b) => b.run !== newest!.run);
    return {
      item: newest!.facts,
      at: newest!.at.toISOString(),
      by: newest!.by,
      run: newest!.run,
      changes: earlier ? inventoryChanges(earlier.facts, newest!.facts) : [],
    };
  });
}
/** A system with what was last seen there, so that it is offered again. */
export async function withSightings(tx: Tx, system: System): Promise<System> {
  const seen = (await inventoryOf(tx, system.id)).map(({ item }): ExpectedItem => {
    const { id, kind, name, place, make, model, serial } = item;
    return { id, kind, name, place, make, model, serial };
  });
  return seen.length ? { ...system, seen } : system;
}
export const readInventory = (scope: { org: string }, system: string) =>
  inOrganisation(scope, (tx) => inventoryOf(tx, system));

export interface RecallLine {
  readonly item: Pick<InventoryItem, 'id' | 'name' | 'place' | 'make' | 'model' | 'serial'>;
  readonly site: string;
  readonly system: string;
  readonly systemName: string;
  /** When, by whom and in which record it was seen; null for what stands on the page of the system only. */
  readonly seen: { readonly at: string; readonly by: string; readonly run: string } | null;
}
/**
 * Recall search: words of name, make, model or serial, over everything ever written down, newest first, and over the
 * appliances and meters on the pages of systems that nobody wrote down yet.
 */
export async function recall(scope: { org: string }, search: string): Promise<RecallLine[]> {
  // "serial SH-880" is how a person says it
  const words = search
    .toLowerCase()
    .split(/\s+/)
    .filter((w) => w && w !== 'serial')
    .slice(0, 8);
  if (!words.length) return [];
  return inOrganisation(scope, async (tx) => {
    const rows = await tx
      .select({ sighting: sightings, site: sites.name, name: systems.name })
      .from(sightings)
      .innerJoin(systems, eq(systems.id, sightings.system))
      .innerJoin(sites, eq(sites.id, systems.site))
      .where(and(...words.map((w) => like(sightings.search, `%${w.replace(/[%_\\]/g, (c) => `\\${c}`)}%`))))
      .orderBy(desc(sightings.at))
      .limit(200);
    const seen = rows.map(({ sighting: s, site, name }): RecallLine => ({
      item: s.facts,
      site,
      system: s.system,
      systemName: name,
      seen: { at: s.at.toISOString(), by: s.by, run: s.run },
    }));
    const places = await tx.select().from(systems).innerJoin(sites, eq(sites.id, systems.site));
    const onPages = places.flatMap(({ systems: s, sites: home }) =>
      platesOf(s.facts).flatMap((item): RecallLine[] => {
        const text = [item.name, item.make, item.model, item.serial, home.name].join(' ').toLowerCase();
        return words.every((w) => text.includes(w)) &&
          !seen.some((x) => x.system === s.id && x.item.serial === item.serial && x.item.model === item.model)
          ? [{ item, site: home.name, system: s.id, systemName: s.name, seen: null }]
          : [];
      }),
    );
    return [...seen, ...onPages];
  });
}
/** What the page of a system says was read from plates: its appliances and its meter. */
const platesOf = (s: System): RecallLine['item'][] =>
  [
    ...s.appliances.map(({ id, name, place, make = '', model = '', serial = '' }) => ({
      id,
      name,
      place,
      make,
      model,
      serial,
    })),
    { id: 'meter', name: s.meter.name, place: '', make: '', model: '', serial: s.meter.serial ?? '' },
  ].filter((p) => p.make || p.model || p.serial);

export interface RecallFind {
  readonly name: string;
  readonly place: string;
  readonly make: string;
  readonly model: string;
  readonly serial: string;
  readonly site: string;
  readonly system: string;
  readonly systemName: string;
  readonly customer: string;
  /** When it was last seen there, and in which record; null for what stands on the page of the system only. */
  readonly seen: { readonly at: string; readonly run: string } | null;
  /** It was another part when somebody looked last. */
  readonly replaced: boolean;
}
/**
 * Every part that a maker's recall means, where it stands or stood: appliances and meters on the pages of systems, and everything that
 * was ever written down on a visit.
 */
export async function recallSearch(scope: { org: string }, wanted: Recall): Promise<RecallFind[]> {
  return inOrganisation(scope, async (tx) => {
    const places = await tx.select().from(systems).innerJoin(sites, eq(sites.id, systems.site));
    const rows = await tx.select().from(sightings).orderBy(desc(sightings.at));
    const newest = new Map<string, string>();
    const found = new Map<string, RecallFind>();
    for (const r of rows) {
      const thing = `${r.system} ${r.item}`;
      if (!newest.has(thing)) newest.set(thing, r.id);
      const key = `${thing} ${r.facts.serial} ${r.facts.model}`;
      if (found.has(key) || !isRecalled(r.facts, wanted)) continue;
      const home = places.find((p) => p.systems.id === r.system);
      if (!home) continue;
      const { name, place, make, model, serial } = r.facts;
      found.set(key, {
        name,
        place,
        make,
        model,
        serial,
        site: home.sites.name,
        system: r.system,
        systemName: home.systems.name,
        customer: home.sites.customer,
        seen: { at: r.at.toISOString(), run: r.run },
        replaced: newest.get(thing) !== r.id,
      });
    }
    for (const { systems: s, sites: home } of places)
      for (const { id, ...plate } of platesOf(s.facts)) {
        const key = `${s.id} ${id} ${plate.serial} ${plate.model}`;
        if (found.has(key) || !isRecalled(plate, wanted)) continue;
        found.set(key, {
          ...plate,
          site: home.name,
          system: s.id,
          systemName: s.name,
          customer: home.customer,
          seen: null,
          replaced: false,
        });
      }
    return [...found.values()].sort((a, b) => a.site.localeCompare(b.site));
  });
}
