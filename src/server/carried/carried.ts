/** What a device is given to carry: its house, installations seen lately and those of the next visits. */
import 'server-only';
import { and, desc, eq, gte, inArray, lte } from 'drizzle-orm';
import { citedPack } from '@/core/pack/editions';
import type { DatedEntry } from '@/core/instrument/kit';
import type { Pack } from '@/core/pack/schema';
import { offersFor } from '@/core/plan/offer';
import type { EarlierRecord } from '@/core/plan/plan';
import { addDays } from '@/core/quantity/local-date';
import { canonical, sha256Hex } from '@/core/record/canonical';
import { sectionsOf } from '@/core/trades/sections';
import { inOrganisation } from '@/database/client';
import { kitLog, packs, runs, sites, systems, visits } from '@/database/schema';
import { datedEntry } from '@/server/cabinet/dated';
import { clockIsAdjustable, now } from '@/server/now';
import { failuresBySection, recordsBySection } from '@/server/places/looks';
import { practiceSite } from '@/server/places/practice-site';
import { editionsOf, meterKinds, packsAside } from '@/server/rules/rules';
import { storedPack } from '@/server/rules/stored';
import { earlierGood, recordOfSystem } from '@/server/runs/earlier';
import { lastTestOf } from '@/server/runs/last-test';
import { gaugesKnown, systemKnown, thingsKnown } from '@/server/runs/start';
import type { Session } from '@/server/session/session';
import { viewerDay, viewerZone } from '@/server/session/zone';
import {
  afterKey,
  type CarriedAnswer,
  type CarriedHouse,
  type CarriedPack,
  type CarriedRequest,
  type CarriedSystem,
} from '@/wire/carried';
import { give } from './proof';

/** Visits of so many days ahead, so many of the own last runs, so many installations in all. House figures. */
const AHEAD_DAYS = 14;
const OWN_RUNS = 30;
const MOST_SYSTEMS = 60;
/** Entries of a thing's log: beyond them nothing judges. */
const MOST_LOG = 60;
const MOST_ENTRIES = 2000;

/** Packs as they were cited before, by stored hash and what the house says of its sources. */
const marks = new Map<string, { readonly mark: string; readonly pack: Pack }>();
async function packsNow(session: Session): Promise<(CarriedPack & { pack: Pack })[]> {
  return inOrganisation(session, async (tx) => {
    const rows = await tx
      .selectDistinctOn([packs.id])
      .from(packs)
      .orderBy(packs.id, desc(packs.made), desc(packs.version));
    const found: (CarriedPack & { pack: Pack })[] = [];
    for (const row of rows) {
      const editions = await editionsOf(tx, row.id);
      const key = `${row.hash} ${session.organisation} ${JSON.stringify(editions)}`;
      let known = marks.get(key);
      if (!known) {
        const pack = citedPack(storedPack(row), editions, session.organisation);
        known = { pack, mark: sha256Hex(canonical(pack)) };
        if (marks.size > 200) marks.clear();
        marks.set(key, known);
      }
      found.push({ id: row.id, hash: row.hash, ...known });
    }
    return found;
  });
}

/** Installations of the next visits, and those this person tested last, the nearest first. */
const systemsAhead = (session: Session, day: string) =>
  inOrganisation(session, async (tx) => {
    const coming = await tx
      .select({ facts: visits.facts })
      .from(visits)
      .where(and(gte(visits.day, day), lte(visits.day, addDays(day, AHEAD_DAYS))))
      .orderBy(visits.day)
      .limit(40);
    const own = await tx
      .select({ system: runs.system })
      .from(runs)
      .where(and(eq(runs.madeBy, session.person), eq(runs.practice, false)))
      .orderBy(desc(runs.made))
      .limit(OWN_RUNS);
    return {
      visits: coming.map((v) => v.facts),
      systems: [...coming.flatMap((v) => v.facts.tests.map((t) => t.system)), ...own.map((r) => r.system)],
    };
  });

/** One installation as it is carried. */
async function carriedSystem(
  session: Session,
  id: string,
  known: readonly Pack[],
  zone: string,
): Promise<CarriedSystem | null> {
  const found = await inOrganisation(session, async (tx) => {
    const [row] = await tx
      .select({ facts: systems.facts, site: sites })
      .from(systems)
      .innerJoin(sites, eq(sites.id, systems.site))
      .where(eq(systems.id, id));
    if (!row || row.site.id === practiceSite(session.org)) return null;
    const { name, address, customer } = row.site;
    const after: Record<string, EarlierRecord> = {};
    const sections = [undefined, ...sectionsOf(row.facts).map((s) => s.key)];
    for (const o of known.flatMap((p) => offersFor(p, row.facts)))
      for (const section of o.after ? sections : []) {
        const earlier = await earlierGood(tx, row.facts, section, o.after!.procedures);
        if (earlier) after[afterKey(o.id, section)] = earlier;
      }
    const site = { id: row.site.id, name, address, customer };
    return {
      id,
      given: give(session.org, 'system', { site, system: await systemKnown(tx, row.facts), after }),
    };
  });
  if (!found) return null;
  const [last, records] = await Promise.all([lastTestOf(session, id, zone), recordsBySection(session, id)]);
  // as a run that repeats one of them says it (server/runs/start.ts)
  const failures = await inOrganisation(session, async (tx) => {
    const of: Record<string, EarlierRecord> = {};
    for (const [section, { run }] of Object.entries(failuresBySection(records)))
      of[section] = await recordOfSystem(tx, id, run);
    return of;
  });
  return { ...found, last, failures };
}

/** The cabinet with the logs of its gauges. */
const cabinetNow = (session: Session) =>
  inOrganisation(session, async (tx) => {
    const gauges = await gaugesKnown(tx, session.person);
    const ids = gauges.map((g) => g.id);
    const entries = ids.length
      ? await tx
          .select()
          .from(kitLog)
          .where(inArray(kitLog.item, ids))
          .orderBy(desc(kitLog.at))
          .limit(MOST_ENTRIES)
      : [];
    const logs = new Map<string, DatedEntry[]>();
    for (const e of entries) {
      const log = logs.get(e.item) ?? [];
      if (log.length < MOST_LOG) logs.set(e.item, [...log, datedEntry(e)]);
    }
    return { given: { gauges, things: await thingsKnown(tx) }, logs: Object.fromEntries(logs) };
  });

/** What a device takes along: the whole house with what lies ahead, or the installations it asks for alone. */
export async function carriedFor(session: Session, asked: CarriedRequest): Promise<CarriedAnswer> {
  const [day, zone, all] = await Promise.all([viewerDay(), viewerZone(), packsNow(session)]);
  const ahead = asked.house ? await systemsAhead(session, day) : { visits: [], systems: [] };
  const ids = [...new Set([...asked.systems, ...ahead.systems])].slice(0, MOST_SYSTEMS);
  const known = all.map((p) => p.pack);
  const found: CarriedSystem[] = [];
  for (const id of ids) {
    const one = await carriedSystem(session, id, known, zone);
    if (one) found.push(one);
  }
  return { house: asked.house ? await houseNow(session, asked, all, ahead.visits) : null, systems: found };
}
async function houseNow(
  session: Session,
  asked: CarriedRequest,
  all: readonly (CarriedPack & { pack: Pack })[],
  coming: CarriedHouse['visits'],
): Promise<CarriedHouse> {
  const [cabinet, aside, meters] = await Promise.all([
    cabinetNow(session),
    packsAside(session),
    meterKinds(session),
  ]);
  const has = new Set(asked.marks);
  return {
    at: now(),
    ...(clockIsAdjustable() ? { clock: 'test' as const } : {}),
    organisation: { id: session.org, name: session.organisation },
    aside: [...aside],
    meters,
    packs: all.map(({ pack, ...p }) => (has.has(p.mark) ? p : { ...p, pack })),
    cabinet: give(session.org, 'cabinet', cabinet.given),
    logs: cabinet.logs,
    visits: coming,
  };
}
