/** A practice taken up again from the moment at which it went wrong, as a run of its own. */
import type { Plan } from '@/core/plan/plan';
import type { RunEvent } from '@/core/run/events';
import { prefixOf, renamed } from '@/core/yard/replay';
import { actionsOf } from '@/core/yard/session';
import { inOrganisation } from '@/database/client';
import { events, runs, yardActs, yardRuns } from '@/database/schema';
import { audit } from '@/server/audit';
import { beginSimulation, simulatedIds } from '@/server/gauge/simulated';
import { now } from '@/server/now';
import { demand } from '@/server/permission';
import type { Session } from '@/server/session/session';
import { TroubleError } from '@/server/trouble';
import { uuid7 } from '@/wire/uuid7';
import { eq } from 'drizzle-orm';
import 'server-only';
import { yardDebrief } from './runs';

/** @returns the run, and how far its clock is ahead, ms (below nothing: behind) @throws TroubleError 403, 404, 409, 422 */
export async function replayFrom(
  session: Session,
  of: string,
  run: string,
): Promise<{ run: string; passed: number }> {
  demand(session, 'run');
  const { debrief, kept } = await yardDebrief(session, of);
  if (kept.person !== session.person)
    throw new TroubleError(403, 'other-person', 'Somebody else practised this. Begin the scenario yourself.');
  const wrong = debrief.grade.wentWrong;
  if (wrong === null)
    throw new TroubleError(422, 'nothing-wrong', 'Nothing went wrong in it: begin the scenario anew.');
  const { session: s } = kept;
  const prefix = prefixOf(s, wrong);
  const stand = simulatedIds(run);
  const was = simulatedIds(of);
  const ids = new Map([
    [of, run],
    [was.gauge, stand.gauge],
    [was.fan, stand.fan],
    ...prefix.events.map((e) => [e.id, uuid7(now())] as const),
  ]);
  const plan: Plan = renamed({ ...s.plan, gauges: s.plan.gauges }, ids);
  const log = prefix.events.map((e) => renamed(e, ids));
  const ms = Math.round(prefix.at - now());
  const made = await inOrganisation(session, async (tx) => {
    const [row] = await tx.select().from(runs).where(eq(runs.id, of));
    const rows = await tx
      .insert(runs)
      .values({ ...row!, id: run, plan, made: new Date(now()), madeBy: session.person })
      .onConflictDoNothing()
      .returning({ id: runs.id });
    if (!rows.length) return false;
    await tx.insert(yardRuns).values({
      org: session.org,
      run,
      person: session.person,
      scenario: s.scenario,
      world: s.world,
      way: 'replay',
      task: null,
      made: new Date(now()),
    });
    const acts = [...prefix.acts, { kind: 'passed' as const, at: prefix.at, ms }];
    await tx.insert(yardActs).values(
      acts.map((body, i) => ({
        org: session.org,
        run,
        position: i + 1,
        at: new Date(now()),
        by: session.name,
        body,
      })),
    );
    const rowsOf = log.map(({ position, received, ...body }, i): typeof events.$inferInsert => ({
      org: session.org,
      run,
      id: body.id,
      position: position ?? i + 1,
      received: received ?? body.at,
      body: body as RunEvent,
    }));
    for (let i = 0; i < rowsOf.length; i += 500) await tx.insert(events).values(rowsOf.slice(i, i + 500));
    await audit(tx, session, 'began practice', run);
    return true;
  });
  if (made)
    await beginSimulation(session, plan, s.world, [
      ...actionsOf({ ...s, acts: prefix.acts }),
      { act: 'passed', at: prefix.at, ms },
    ]);
  return { run, passed: ms };
}
