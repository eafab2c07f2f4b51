import 'server-only';
import { and, desc, eq } from 'drizzle-orm';
import type { Gauge } from '@/core/instrument/gauge';
import { loadPack } from '@/core/pack/load';
import { makePlan, type Plan } from '@/core/plan/plan';
import { inOrganisation } from '@/database/client';
import { auditLog, gauges, packs, runs, sites, systems } from '@/database/schema';
import { beginSimulation, simulatedGauge } from '@/server/gauge/simulated';
import { now } from '@/server/now';
import type { Session } from '@/server/session/session';
import { notHere, TroubleError } from '@/server/trouble';
import type { StartRun } from '@/wire/requests';
import { mayRun } from '@/wire/role';
import { uuid7 } from '@/wire/uuid7';

/** The plan of a run as it would start now; used for starting and for showing it beforehand. */
export async function planFor(
  session: Pick<Session, 'org' | 'organisation' | 'name'>,
  request: StartRun,
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
      .orderBy(desc(packs.version))
      .limit(1);
    if (!pack) throw notHere('rule pack');
    const cabinet: Gauge[] = request.practice
      ? [simulatedGauge(request.id)]
      : (await tx.select().from(gauges)).map((g) => g.facts);
    const { site } = row;
    const plan = makePlan({
      run: request.id,
      practice: request.practice,
      organisation: { id: session.org, name: session.organisation },
      site: { id: site.id, name: site.name, address: site.address, customer: site.customer },
      system: row.system.facts,
      pack: loadPack(JSON.parse(pack.body)),
      packHash: pack.hash,
      procedureId: request.procedure,
      case: request.case,
      choices: request.choices ?? {},
      gauges: cabinet,
      made: { at: new Date(now()).toISOString(), zone: request.zone, by: session.name },
    });
    return { plan, site: site.id };
  });
}

/** Starts a run. Asked twice with the same id it answers the same run. @throws TroubleError, PlanError */
export async function startRun(session: Session, request: StartRun): Promise<{ run: string }> {
  if (!mayRun(session.role))
    throw new TroubleError(403, 'role', 'The office plans and reads; a tester or apprentice starts a run.');
  const { plan, site } = await planFor(session, request);
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
    if (rows.length)
      await tx.insert(auditLog).values({
        org: session.org,
        id: uuid7(now()),
        at: moment,
        person: session.person,
        what: 'started run',
        subject: request.id,
      });
    else {
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
