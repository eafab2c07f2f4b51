import 'server-only';
import { and, eq } from 'drizzle-orm';
import type { VisitFacts } from '@/core/visit/facts';
import { inOrganisation, type Tx } from '@/database/client';
import { visits } from '@/database/schema';
import { isId, notHere, TroubleError } from '@/server/trouble';

/** The row of a visit. @throws TroubleError 404 */
export const rowOf = async (tx: Tx, id: string) => {
  const [row] = isId(id) ? await tx.select().from(visits).where(eq(visits.id, id)) : [];
  if (!row) throw notHere('visit');
  return row;
};
/** Writes a visit if nobody changed it meanwhile. @throws TroubleError 409 */
export async function write(tx: Tx, version: number, facts: VisitFacts): Promise<number> {
  const done = await tx
    .update(visits)
    .set({ facts, day: facts.day, version: version + 1 })
    .where(and(eq(visits.id, facts.id), eq(visits.version, version)))
    .returning({ version: visits.version });
  if (!done.length)
    throw new TroubleError(
      409,
      'changed',
      'Somebody else changed this visit meanwhile. The page shows it as it is now; make your change again.',
    );
  return done[0]!.version;
}

export const readVisitFacts = (scope: { org: string }, id: string) =>
  inOrganisation(scope, async (tx) => {
    const { facts, version } = await rowOf(tx, id);
    return { facts, version };
  });
/** Notes on a visit that one of its tests has begun with this run; in the transaction that starts the run. */
export async function begun(
  tx: Tx,
  visit: { id: string; test: string },
  system: string,
  run: string,
): Promise<void> {
  const row = await rowOf(tx, visit.id);
  const test = row.facts.tests.find((t) => t.id === visit.test && t.system === system);
  if (!test || test.run) return;
  await write(tx, row.version, {
    ...row.facts,
    tests: row.facts.tests.map((t) => (t.id === test.id ? { ...t, run } : t)),
  });
}
