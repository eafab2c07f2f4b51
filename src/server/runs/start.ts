import { fillingNamed } from '@/core/fillings';
import type { Gauge } from '@/core/instrument/gauge';
import { ownKitOf } from '@/core/instrument/kit';
import { notCoveredOf } from '@/core/network/installation';
import { and, desc, eq, inArray } from 'drizzle-orm';
import 'server-only';
import { demand } from '@/server/permission';

import { citedPack } from '@/core/pack/editions';
import { makePlan, type Plan, PlanError } from '@/core/plan/plan';
import { planParts } from '@/core/plan/prospect';
import { pressurePlan } from '@/core/plan/weakest';
import { besideOf } from '@/core/run/beside';
import { inOrganisation, type Tx } from '@/database/client';
import { gauges, kit, kitLog, packs, runs, sites, systems } from '@/database/schema';
import { audit } from '@/server/audit';
import { datedEntry } from '@/server/cabinet/dated';
import { beginSimulation, hiddenFault, simulatedFan, simulatedGauge } from '@/server/gauge/simulated';
import { clockIsAdjustable, now } from '@/server/now';
import { withSightings } from '@/server/places/inventory';
import { withLooks } from '@/server/places/looks';
import { practiceSite } from '@/server/places/practice-site';
import type { System } from '@/core/installation/section';
import { tradeOf } from '@/core/trades';
import { PARTED_WORDS } from '@/core/trades/trade';
import { sectionsOf, withinSection } from '@/core/trades/sections';
import { gaugesUsedBy } from './last-test';
import { earlierGood, recordOfSystem } from '@/server/runs/earlier';
import { editionsOf } from '@/server/rules/rules';
import { storedPack } from '@/server/rules/stored';
import type { Session } from '@/server/session/session';
import { notHere, TroubleError } from '@/server/trouble';
import { begun } from '@/server/visits/store';
import type { StartRun } from '@/wire/requests';

/** The plan of a run as it would start now; used for starting and for showing it beforehand. */
export async function planFor(
  session: Pick<Session, 'org' | 'organisation' | 'name'> & Partial<Pick<Session, 'person'>>,
  request: Omit<StartRun, 'visit'>,
  options: { ahead?: boolean } = {},
): Promise<{ plan: Plan; site: string }> {
  return inOrganisation(session, async (tx) => {
    const [row] = await tx
      .select({ system: systems, site: sites })
      .from(systems)
      .innerJoin(sites, eq(sites.id, systems.site))
      .where(eq(systems.id, request.system));
    if (!row) throw notHere('system');
    const [pack] = await tx
      .select()
      .from(packs)
      .where(eq(packs.id, request.pack))
      .orderBy(desc(packs.made), desc(packs.version))
      .limit(1);
    if (!pack) throw notHere('rule pack');
    const { site } = row;
    if (!request.practice && site.id === practiceSite(session.org))
      throw new TroubleError(
        422,
        'practice-only',
        'This installation is for practice only. Begin a test for real with Test now, or on a place of your own.',
      );
    const resolved = citedPack(storedPack(pack), await editionsOf(tx, pack.id), session.organisation);
    const rule = resolved.procedures.find((p) => p.id === request.procedure);
    const simulated = fillingNamed(rule?.fills).simulated;
    const cabinet: Gauge[] = request.practice
      ? [simulatedGauge(request.id, simulated.unit)]
      : lastFirst(
          (await tx.select().from(gauges)).map((g) => g.facts),
          session.person ? await gaugesUsedBy(tx, session.person) : [],
        );
    const things = request.practice ? [] : (await tx.select().from(kit)).map((k) => k.facts);
    const blanks = things.length
      ? await tx
          .select()
          .from(kitLog)
          .where(
            inArray(
              kitLog.item,
              things.map((k) => k.id),
            ),
          )
      : [];
    const ownKit =
      request.practice && simulated.kind === 'duct'
        ? [simulatedFan(request.id)]
        : ownKitOf(
            things.map((item) => ({ item, log: blanks.filter((e) => e.item === item.id).map(datedEntry) })),
            now(),
            request.zone,
          );
    const beside = request.beside && besideOf(resolved, request.beside.id, request.beside.runs);
    if (request.beside && !beside)
      throw new TroubleError(422, 'beside', 'This rule pack does not do these two side by side.');
    const needs = resolved.procedures.find((p) => p.id === request.procedure)?.after?.procedures;
    const system = await sectionMeant(tx, row.system.facts, request.section);
    const after = needs && (await earlierGood(tx, row.system.facts, request.section, needs));
    const retestOf = request.retestOf && (await recordOfSystem(tx, request.system, request.retestOf));
    const plan = makePlan({
      run: request.id,
      practice: request.practice,
      organisation: { id: session.org, name: session.organisation },
      site: { id: site.id, name: site.name, address: site.address, customer: site.customer },
      system,
      pack: resolved,
      packHash: pack.hash,
      procedureId: request.procedure,
      case: request.case,
      choices: request.choices ?? {},
      gauges: cabinet,
      ...(cabinet.some((g) => g.id === request.gauge) ? { gaugeMeant: request.gauge! } : {}),
      ...(ownKit.length ? { ownKit } : {}),
      ...attendanceOf(request),
      ...(beside ? { beside } : {}),
      ...(after ? { after } : {}),
      ...(options.ahead ? { ahead: true } : {}),
      ...(retestOf ? { retestOf } : {}),
      made: {
        at: new Date(now()).toISOString(),
        zone: request.zone,
        by: session.name,
        ...(clockIsAdjustable() ? { clock: 'test' as const } : {}),
      },
    });
    return { plan, site: site.id };
  });
}

/** The gauges a person used last stand first; of equal fit the bench keeps this order. */
const lastFirst = (all: readonly Gauge[], used: readonly string[]): Gauge[] => {
  const rank = (g: Gauge) => (used.includes(g.id) ? used.indexOf(g.id) : used.length);
  return [...all].sort((a, b) => rank(a) - rank(b));
};
/** The installation, or the one section of it that is meant, with everything known of it from before. */
async function sectionMeant(tx: Tx, facts: System, section: string | undefined): Promise<System> {
  // what relies on its maker's test stands under what is not covered, with its certificate
  const whole = await withLooks(tx, {
    ...(await withSightings(tx, facts)),
    notCovered: notCoveredOf(facts),
  });
  if (!section) return whole;
  const known = sectionsOf(whole).find((s) => s.key === section);
  const within = known && withinSection(whole, section);
  if (!within) throw new TroubleError(422, 'section', PARTED_WORDS[tradeOf(facts).parted ?? 'lines'].gone);
  if (known.open) throw new PlanError('section', `${known.open} Look once more before this line is closed.`);
  return within;
}
/** What was said about permit and attendance; nothing where nothing was said. */
function attendanceOf(request: StartRun): Pick<Plan, 'attendance'> {
  const permit = request.permit?.trim();
  const present = request.present?.trim();
  if (!permit && !present && !request.doneBy) return {};
  return {
    attendance: {
      ...(permit ? { permit } : {}),
      ...(request.doneBy ? { doneBy: request.doneBy } : {}),
      ...(present ? { present } : {}),
    },
  };
}

/** Starts a run. Asked twice with the same id it answers the same run. @throws TroubleError, PlanError */
export async function startRun(session: Session, request: StartRun): Promise<{ run: string }> {
  demand(session, 'run');
  const { visit, ...asked } = request;
  const { plan, site } = await planFor(session, asked);
  for (const part of planParts(plan)) {
    const { impossible, missing } = pressurePlan(plan, part);
    if (impossible) throw new PlanError('pressure', impossible);
    // a plate nobody read is asked for before anything is joined, not when the cylinder stands there
    if (missing && tradeOf(plan.system).parted === 'sides') throw new PlanError('fact', missing);
  }
  // said before anything is made: a practice run without its installation would answer nothing
  if (request.practice) hiddenFault(plan, request.fault ?? 'surprise');
  const made = await inOrganisation(session, async (tx) => {
    const moment = new Date(now());
    const rows = await tx
      .insert(runs)
      .values({
        org: session.org,
        id: request.id,
        site,
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
  if (made && request.practice) await beginSimulation(session, plan, request.fault ?? 'surprise');
  return { run: request.id };
}
