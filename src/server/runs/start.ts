import 'server-only';
import { and, asc, desc, eq, inArray } from 'drizzle-orm';
import type { System } from '@/core/installation/section';
import type { Gauge } from '@/core/instrument/gauge';
import { ownKitOf } from '@/core/instrument/kit';
import { citedPack } from '@/core/pack/editions';
import { changedSince, PLANS_DIFFER } from '@/core/record/carried';
import type { Plan } from '@/core/plan/plan';
import { inOrganisation, type Tx } from '@/database/client';
import { gauges, kit, kitLog, packs, runs, sites, systems } from '@/database/schema';
import { audit } from '@/server/audit';
import { datedEntry } from '@/server/cabinet/dated';
import { isGiven } from '@/server/carried/proof';
import { beginSimulation, hiddenFault, practised, simulationFor } from '@/server/gauge/simulated';
import { clockIsAdjustable, now } from '@/server/now';
import { demand } from '@/server/permission';
import { withSightings } from '@/server/places/inventory';
import { withLooks } from '@/server/places/looks';
import { practiceSite } from '@/server/places/practice-site';
import { editionsOf } from '@/server/rules/rules';
import { storedPack } from '@/server/rules/stored';
import { earlierGood, recordOfSystem } from '@/server/runs/earlier';
import type { Session } from '@/server/session/session';
import { notHere, TroubleError } from '@/server/trouble';
import { begun } from '@/server/visits/store';
import {
  type AskedRun,
  demandBegins,
  type Known,
  lastFirst,
  planAsked,
  planDigest,
  wholeOf,
} from '@/wire/asked-plan';
import { afterKey, type CarriedClaim, type Given, type GivenCabinet, type GivenSystem } from '@/wire/carried';
import type { StartRun } from '@/wire/requests';
import { gaugesUsedBy } from './last-test';

/** An installation with everything seen of it before. */
export async function systemKnown(tx: Tx, facts: System): Promise<System> {
  return withLooks(tx, await withSightings(tx, wholeOf(facts)));
}
/** The gauges of the cabinet, those this person used last first. */
export async function gaugesKnown(tx: Tx, person: string | undefined): Promise<Gauge[]> {
  const all = (await tx.select().from(gauges).orderBy(asc(gauges.name), asc(gauges.id))).map((g) => g.facts);
  return lastFirst(all, person ? await gaugesUsedBy(tx, person) : []);
}
/** Everything else of the cabinet with its whole log. */
export async function thingsKnown(tx: Tx): Promise<GivenCabinet['things']> {
  const things = (await tx.select().from(kit).orderBy(asc(kit.name), asc(kit.id))).map((k) => k.facts);
  if (!things.length) return [];
  const ids = things.map((k) => k.id);
  const log = (await tx.select().from(kitLog).where(inArray(kitLog.item, ids))).map((e) => ({
    item: e.item,
    dated: datedEntry(e),
  }));
  return things.map((item) => ({
    item,
    log: log.filter((e) => e.item === item.id).map((e) => e.dated),
  }));
}
/** A version of a pack by its hash; the newest without. */
async function packRow(tx: Tx, id: string, hash?: string) {
  const [row] = await tx
    .select()
    .from(packs)
    .where(and(eq(packs.id, id), ...(hash ? [eq(packs.hash, hash)] : [])))
    .orderBy(desc(packs.made), desc(packs.version))
    .limit(1);
  return row;
}
/** What the office knows of a run that is asked for. @throws TroubleError, PlanError */
async function knownOf(tx: Tx, session: Planner, request: AskedRun, hash?: string): Promise<Known> {
  const [row] = await tx
    .select({ system: systems, site: sites })
    .from(systems)
    .innerJoin(sites, eq(sites.id, systems.site))
    .where(eq(systems.id, request.system));
  if (!row) throw notHere('system');
  const pack = (hash && (await packRow(tx, request.pack, hash))) || (await packRow(tx, request.pack));
  if (!pack) throw notHere('rule pack');
  const { id, name, address, customer } = row.site;
  if (!request.practice && id === practiceSite(session.org))
    throw new TroubleError(
      422,
      'practice-only',
      'This installation is for practice only. Begin a test for real with Test now, or on a place of your own.',
    );
  const resolved = citedPack(storedPack(pack), await editionsOf(tx, pack.id), session.organisation);
  const procedure = resolved.procedures.find((p) => p.id === request.procedure);
  const { facts } = row.system;
  const after =
    procedure?.after && (await earlierGood(tx, facts, request.section, procedure.after.procedures));
  return {
    organisation: { id: session.org, name: session.organisation },
    site: { id, name, address, customer },
    system: await systemKnown(tx, facts),
    pack: resolved,
    packHash: pack.hash,
    ...(await cabinetOf(tx, session, request)),
    after,
    retestOf: request.retestOf ? await recordOfSystem(tx, request.system, request.retestOf) : undefined,
    by: session.name,
    at: now(),
    clock: clockIsAdjustable() ? 'test' : undefined,
  };
}
/** Gauges and own kit of the cabinet; a practice run has its own. */
async function cabinetOf(
  tx: Tx,
  session: Planner,
  { practice, zone }: AskedRun,
): Promise<Pick<Known, 'gauges' | 'ownKit'>> {
  if (practice) return { gauges: [], ownKit: [] };
  return {
    gauges: await gaugesKnown(tx, session.person),
    ownKit: ownKitOf(await thingsKnown(tx), now(), zone),
  };
}

/** Who plans; of a person the gauges used last stand first. */
type Planner = Pick<Session, 'org' | 'organisation' | 'name'> & Partial<Pick<Session, 'person'>>;
/** The plan of a run as it would start now; used for starting and for showing it beforehand. */
export const planFor = (
  session: Planner,
  request: AskedRun,
  options: { ahead?: boolean } = {},
): Promise<Plan> =>
  inOrganisation(session, async (tx) => {
    const plan = planAsked(request, await knownOf(tx, session, request), options);
    return request.practice ? practised(plan) : plan;
  });

/** No run is begun longer before it arrives, from no older knowledge: a clock that says so is wrong. House figure. */
const LONGEST_AWAY = 31 * 86_400_000;
/**
 * The plan of a run that was begun without a signal: made here again, from what the office once gave the device and from
 * what was entered there since. What differs from the office's own is said in the plan.
 */
const planCarried = (session: Session, request: AskedRun, claim: CarriedClaim): Promise<Plan> =>
  inOrganisation(session, async (tx) => {
    const own = await knownOf(tx, session, request, claim.pack);
    const newest = (await packRow(tx, request.pack))!.hash;
    const system = givenBack<GivenSystem>(session.org, 'system', claim.system);
    const about = system?.value.system.id === request.system ? system : null;
    const cabinet = givenBack<GivenCabinet>(session.org, 'cabinet', claim.cabinet);
    const from = Math.max(about?.at ?? 0, cabinet?.at ?? 0, own.at - LONGEST_AWAY);
    const at = Math.min(own.at, Math.max(from, claim.at));
    // what was entered on the device meanwhile stands here as it was entered
    const entered = new Set(claim.entered);
    const then = (cabinet?.value.gauges ?? []).filter((g) => !entered.has(g.id));
    const known: Known = {
      ...own,
      at,
      ...(about
        ? {
            site: entered.has(own.site.id) ? own.site : about.value.site,
            system: about.value.system,
            after: about.value.after[afterKey(request.procedure, request.section)],
          }
        : {}),
      ...(cabinet
        ? {
            gauges: [
              ...cabinet.value.gauges.map(
                (g) => (entered.has(g.id) && own.gauges.find((x) => x.id === g.id)) || g,
              ),
              ...own.gauges.filter(
                (g) => entered.has(g.id) && !cabinet.value.gauges.some((x) => x.id === g.id),
              ),
            ],
            ownKit: ownKitOf(cabinet.value.things, at, request.zone),
          }
        : {}),
    };
    const plan = planAsked(request, known);
    const changed = changedSince({ ...known, gauges: then }, { ...own, packHash: newest });
    return {
      ...plan,
      carried: {
        given: about ? new Date(about.at).toISOString() : null,
        arrived: new Date(own.at).toISOString(),
        changed: planDigest(plan) === claim.digest ? changed : [...changed, PLANS_DIFFER],
      },
    };
  });
function givenBack<T>(
  org: string,
  what: 'system' | 'cabinet',
  given: { value: object; at: number; proof: string } | undefined,
): Given<T> | null {
  // what was given longer ago than any run is under way is no knowledge any more
  return given && given.at > now() - LONGEST_AWAY && isGiven(org, what, given)
    ? (given as Given<unknown> as Given<T>)
    : null;
}

/** Starts a run. Asked twice with the same id it answers the same run. @throws TroubleError, PlanError */
export async function startRun(session: Session, request: StartRun): Promise<{ run: string }> {
  demand(session, 'run');
  const { visit, carried, ...asked } = request;
  const plan = carried ? await planCarried(session, asked, carried) : await planFor(session, asked);
  demandBegins(plan);
  // said before anything is made: a practice run without its installation would answer nothing
  if (request.practice) hiddenFault(plan, request.fault ?? 'surprise');
  const made = await inOrganisation(session, async (tx) => {
    const moment = new Date(now());
    const rows = await tx
      .insert(runs)
      .values({
        org: session.org,
        id: request.id,
        site: plan.site.id,
        system: request.system,
        practice: request.practice,
        plan,
        made: moment,
        madeBy: session.person,
      })
      .onConflictDoNothing()
      .returning({ id: runs.id });
    if (rows.length) {
      await audit(tx, session, 'started run', request.id);
      if (visit && !request.practice) await begun(tx, visit, request.system, request.id);
    } else {
      const [own] = await tx
        .select({ id: runs.id })
        .from(runs)
        .where(and(eq(runs.id, request.id)));
      if (!own) throw new TroubleError(409, 'id-taken', 'This run could not be started. Try again.');
    }
    return rows.length > 0;
  });
  if (made && request.practice)
    await beginSimulation(session, plan, simulationFor(plan, request.fault ?? 'surprise'));
  return { run: request.id };
}
