import { isRecalled, type Recall } from '@/core/after/recall';
import type { ExpectedItem, System } from '@/core/installation/section';
import type { Plan } from '@/core/plan/plan';
import { type InventoryItem, momentOf, type RunEvent } from '@/core/run/events';
import { inventoryChanges } from '@/core/run/inventory';
import { inOrganisation, type Tx } from '@/database/client';
import { compact } from '@/wire/ledger';
import { sightings, sites, systems } from '@/database/schema';
import { and, asc, desc, eq, type SQL, sql } from 'drizzle-orm';
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
/** So many of what was written down, and of what stands on pages alone, are shown. */
const MOST_FOUND = 200;
/** Every word stands in what is compared, as the database compares it. */
const says = (text: SQL, words: readonly string[]): SQL | undefined =>
  and(...words.map((w) => sql`position(compact_text(${w}) in ${text}) > 0`));
/**
 * Recall search: words of name, make, model or serial, over everything ever written down, newest first, and over the
 * appliances and meters on the pages of systems that nobody wrote down yet. Only what may be meant is read.
 */
export async function recall(
  scope: { org: string },
  search: string,
  most = MOST_FOUND,
): Promise<RecallLine[]> {
  // "serial SH-880" is how a person says it
  const words = search
    .toLowerCase()
    .split(/\s+/)
    .filter((w) => compact(w) && w !== 'serial')
    .slice(0, 8);
  if (!words.length) return [];
  return inOrganisation(scope, async (tx) => {
    const rows = await tx
      .select({ sighting: sightings, site: sites.name, name: systems.name })
      .from(sightings)
      .innerJoin(systems, eq(systems.id, sightings.system))
      .innerJoin(sites, eq(sites.id, systems.site))
      .where(says(sql`${sightings.plates}`, words))
      .orderBy(desc(sightings.at), desc(sightings.id))
      .limit(most);
    const seen = rows.map(({ sighting: s, site, name }): RecallLine => ({
      item: s.facts,
      site,
      system: s.system,
      systemName: name,
      seen: { at: s.at.toISOString(), by: s.by, run: s.run },
    }));
    const places = await tx
      .select()
      .from(systems)
      .innerJoin(sites, eq(sites.id, systems.site))
      .where(and(sql`${systems.plates} <> ''`, says(sql`${systems.plates} || ' ' || ${sites.search}`, words)))
      .orderBy(asc(sites.name), asc(systems.id))
      .limit(most);
    const meant = words.map(compact);
    const onPages = places.flatMap(({ systems: s, sites: home }) =>
      platesOf(s.facts).flatMap((item): RecallLine[] => {
        const text = [item.name, item.make, item.model, item.serial, home.name].map(compact).join(' ');
        return meant.every((w) => text.includes(w)) &&
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
  // what cannot be meant is not read: make and model stand in it, and the letters before the figures of a serial
  const words = [wanted.make, wanted.model, /^[^\d]*/.exec((wanted.from || wanted.to).trim())![0]].filter(
    compact,
  );
  return inOrganisation(scope, async (tx) => {
    const found = new Map<string, RecallFind>();
    const seen = await tx
      .select({ sighting: sightings, system: systems.name, site: sites.name, customer: sites.customer })
      .from(sightings)
      .innerJoin(systems, eq(systems.id, sightings.system))
      .innerJoin(sites, eq(sites.id, systems.site))
      .where(says(sql`${sightings.plates}`, words))
      .orderBy(desc(sightings.at), desc(sightings.id));
    const things = new Map<string, { system: string; item: string }>();
    const thingOf = new Map<string, string>();
    for (const { sighting: r, system, site, customer } of seen) {
      const key = `${r.system} ${r.item} ${r.facts.serial} ${r.facts.model}`;
      if (found.has(key) || !isRecalled(r.facts, wanted)) continue;
      const { name, place, make, model, serial } = r.facts;
      things.set(`${r.system} ${r.item}`, { system: r.system, item: r.item });
      thingOf.set(key, `${r.system} ${r.item}`);
      found.set(key, {
        name,
        place,
        make,
        model,
        serial,
        site,
        system: r.system,
        systemName: system,
        customer,
        seen: { at: r.at.toISOString(), run: r.run },
        replaced: false,
      });
    }
    const newest = await newestOf(tx, [...things.values()]);
    for (const [key, f] of found) {
      const last = newest.get(thingOf.get(key)!);
      found.set(key, {
        ...f,
        replaced: last !== undefined && (last.serial !== f.serial || last.model !== f.model),
      });
    }
    const places = await tx
      .select()
      .from(systems)
      .innerJoin(sites, eq(sites.id, systems.site))
      .where(and(sql`${systems.plates} <> ''`, says(sql`${systems.plates}`, words)));
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
/** What stands there now of each thing: what was seen of it last. */
async function newestOf(tx: Tx, things: readonly { system: string; item: string }[]) {
  if (!things.length) return new Map<string, InventoryItem>();
  const { rows } = await tx.execute<{ system: string; item: string; facts: InventoryItem }>(
    sql`select distinct on (s.system, s.item) s.system, s.item, s.facts from sightings s
      join jsonb_to_recordset(${JSON.stringify(things)}::jsonb) t (system uuid, item text) on t.system = s.system and t.item = s.item
      order by s.system, s.item, s.at desc, s.id desc`,
  );
  return new Map(rows.map((r) => [`${r.system} ${r.item}`, r.facts]));
}
