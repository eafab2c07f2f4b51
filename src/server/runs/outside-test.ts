import 'server-only';
import { demand } from '@/server/permission';
import { offersFor } from '@/core/plan/offer';
import type { Plan } from '@/core/plan/plan';
import { outsideEvents, outsideNeeds, OutsideError } from '@/core/run/outside';
import { inOrganisation } from '@/database/client';
import { runs } from '@/database/schema';
import { audit } from '@/server/audit';
import { now } from '@/server/now';
import { cabinet, readSystem } from '@/server/places/places';
import { rulePacks } from '@/server/rules/rules';
import type { Session } from '@/server/session/session';
import { TroubleError } from '@/server/trouble';
import type { OutsidePlanRequest, OutsideTestRequest } from '@/wire/outside-test';
import { uuid7 } from '@/wire/uuid7';
import { appendEvents } from './log';
import { planFor } from './start';

/** Procedures that a log could decide on a system, and the gauges a log may come from. */
export async function outsideOffers(session: Session, system: string) {
  const [{ system: row }, packs, gauges] = await Promise.all([
    readSystem(session, system),
    rulePacks(session),
    cabinet(session),
  ]);
  return {
    offers: packs.flatMap((p) =>
      offersFor(p, row.facts)
        .filter((o) => !o.parts.length)
        .map(({ pack, id, title, school, cases }) => ({ pack, id, title, school, cases })),
    ),
    gauges: gauges
      .filter((g) => g.kind !== 'level')
      .map((g) => ({
        id: g.id,
        title: `${g.name}, ${g.serial}`,
        unit: g.resolution.unit,
        scale: g.resolution.scale,
      })),
  };
}
const planned = (session: Session, asked: OutsidePlanRequest): Promise<Plan> =>
  planFor(session, { id: uuid7(now()), practice: false, ...asked }, { ahead: true });
/** What the log must show for a procedure, and which lists whoever held the test answers for. */
export async function outsidePlan(session: Session, asked: OutsidePlanRequest) {
  return outsideNeeds(await planned(session, asked));
}

/**
 * Makes a run of a test that was held elsewhere: judged by the same rules, marked, to be put back, signed and sealed on the
 * bench; never a certificate. Asked twice with one id it answers the same run. @throws TroubleError saying what does not fit
 */
export async function bringInTest(session: Session, asked: OutsideTestRequest): Promise<{ run: string }> {
  demand(session, 'run');
  const { id, system, pack, procedure, case: kind, zone, gauge, by, file, hash, holds, points } = asked;
  const first = holds[0]!.start.at;
  if (holds.some((h) => h.end.at > now()))
    throw new TroubleError(
      422,
      'future',
      'The log ends in the future. Check the day and the zone of its clock.',
      'holds',
    );
  const base = await planFor(session, {
    id,
    system,
    pack,
    procedure,
    case: kind,
    zone,
    practice: false,
  });
  const plan: Plan = {
    ...base,
    run: id,
    outside: { file, hash, by: by.trim() },
    made: { ...base.made, at: new Date(first - 120_000).toISOString() },
  };
  const { trouble } = outsideNeeds(plan);
  if (trouble) throw new TroubleError(422, 'not-enough', trouble, 'procedure');
  const moment = now();
  const device = uuid7(moment);
  let made: ReturnType<typeof outsideEvents>;
  try {
    made = outsideEvents(
      plan,
      { gauge, holds, points: points.map((p) => [p[0]!, p[1]!] as const) },
      {
        device,
        pageLoad: device,
        zone,
        by: session.person,
        byName: session.name,
        id: (n) => uuid7(moment + n),
      },
    );
  } catch (error) {
    if (error instanceof OutsideError) throw new TroubleError(422, 'does-not-fit', error.message, 'holds');
    throw error;
  }
  const fresh = await inOrganisation(session, async (tx) => {
    const rows = await tx
      .insert(runs)
      .values({
        org: session.org,
        id,
        site: base.site.id,
        system,
        practice: false,
        plan,
        made: new Date(moment),
        madeBy: session.person,
      })
      .onConflictDoNothing()
      .returning({ id: runs.id });
    if (rows.length) await audit(tx, session, 'brought in a test held elsewhere', file);
    return rows.length > 0;
  });
  if (fresh)
    for (let i = 0; i < made.length; i += 200) await appendEvents(session, id, made.slice(i, i + 200));
  return { run: id };
}
