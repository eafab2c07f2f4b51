import 'server-only';
import { and, asc, eq, gt } from 'drizzle-orm';
import type { Plan } from '@/core/plan/plan';
import type { PlacedEvent, RunEvent } from '@/core/run/events';
import type { Tx } from '@/database/client';
import { events, runs } from '@/database/schema';
import { isId, notHere } from '@/server/trouble';

export const placed = (row: { position: number; received: number; body: RunEvent }): PlacedEvent => ({
  ...row.body,
  position: row.position,
  received: row.received,
});

/** The plan of a run. @throws TroubleError 404 for an unknown run and for another organisation's alike */
export async function planOf(tx: Tx, run: string): Promise<Plan> {
  if (!isId(run)) throw notHere('run');
  const [row] = await tx.select({ plan: runs.plan }).from(runs).where(eq(runs.id, run));
  if (!row) throw notHere('run');
  return row.plan;
}
/** The log of a run in order, from after a position. */
export const eventsOf = async (tx: Tx, run: string, after = 0): Promise<PlacedEvent[]> =>
  (
    await tx
      .select()
      .from(events)
      .where(and(eq(events.run, run), gt(events.position, after)))
      .orderBy(asc(events.position))
  ).map(placed);
