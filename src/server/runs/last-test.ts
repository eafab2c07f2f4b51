/** What was tested last: at an installation, and with which gauges by a person. */
import 'server-only';
import { and, desc, eq, inArray, sql } from 'drizzle-orm';
import type { LastTest } from '@/core/plan/again';
import { localDate } from '@/core/quantity/local-date';
import { inOrganisation, type Tx } from '@/database/client';
import { events, runs } from '@/database/schema';

/** Runs of one person that are looked through for the gauges they used. */
const LOOKED_AT = 12;

/** Gauges this person took, the newest first. */
export async function gaugesUsedBy(tx: Tx, person: string): Promise<string[]> {
  const mine = await tx
    .select({ id: runs.id })
    .from(runs)
    .where(and(eq(runs.madeBy, person), eq(runs.practice, false)))
    .orderBy(desc(runs.made))
    .limit(LOOKED_AT);
  return gaugesOf(
    tx,
    mine.map((r) => r.id),
  );
}
async function gaugesOf(tx: Tx, ids: readonly string[]): Promise<string[]> {
  if (!ids.length) return [];
  const rows = await tx
    .select({ gauge: sql<string>`${events.body} ->> 'gauge'` })
    .from(events)
    .where(and(inArray(events.run, [...ids]), sql`${events.body} ->> 'kind' = 'gauge'`))
    .orderBy(desc(events.received));
  return [...new Set(rows.map((r) => r.gauge))];
}
/** The newest test of an installation, for real; null where none was begun. */
export const lastTestOf = (scope: { org: string }, system: string, zone: string): Promise<LastTest | null> =>
  inOrganisation(scope, async (tx) => {
    const newest = await tx
      .select({
        id: runs.id,
        made: runs.made,
        pack: sql<string>`${runs.plan} -> 'pack' ->> 'id'`,
        procedure: sql<string>`${runs.plan} -> 'procedure' ->> 'id'`,
        case: sql<string>`${runs.plan} ->> 'case'`,
        choices: sql<Record<string, string>>`${runs.plan} -> 'choices'`,
        section: sql<string | null>`${runs.plan} -> 'system' -> 'section' ->> 'key'`,
      })
      .from(runs)
      // two side by side are begun together, and a file read in was held elsewhere
      .where(
        and(
          eq(runs.system, system),
          eq(runs.practice, false),
          sql`not (${runs.plan} ? 'beside') and not (${runs.plan} ? 'outside')`,
        ),
      )
      .orderBy(desc(runs.made))
      .limit(LOOKED_AT);
    const [run] = newest;
    if (!run) return null;
    // a test that was left before its gauge was chosen says nothing of the gauge
    const [gauge] = await gaugesOf(
      tx,
      newest.map((r) => r.id),
    );
    const { id: _, made, ...test } = run;
    return { ...test, on: localDate(made.getTime(), zone), gauge: gauge ?? null };
  });
/** Installations that were tested last, the newest first, each with its place. */
export const lastTested = (
  scope: { org: string },
  most: number,
  zone: string,
): Promise<{ system: string; name: string; site: string; procedure: string; on: string }[]> =>
  inOrganisation(scope, async (tx) => {
    // which they are is told without opening a plan; only those few are read
    const newest = tx
      .selectDistinctOn([runs.system], { id: runs.id, made: runs.made })
      .from(runs)
      .where(eq(runs.practice, false))
      .orderBy(runs.system, desc(runs.made))
      .as('newest');
    const few = await tx.select({ id: newest.id }).from(newest).orderBy(desc(newest.made)).limit(most);
    if (!few.length) return [];
    const rows = await tx
      .select({
        system: runs.system,
        name: sql<string>`${runs.plan} -> 'system' ->> 'name'`,
        site: sql<string>`${runs.plan} -> 'site' ->> 'name'`,
        procedure: sql<string>`${runs.plan} -> 'procedure' ->> 'title'`,
        made: runs.made,
      })
      .from(runs)
      .where(
        inArray(
          runs.id,
          few.map((r) => r.id),
        ),
      )
      .orderBy(desc(runs.made));
    return rows.map(({ made, ...row }) => ({ ...row, on: localDate(made.getTime(), zone) }));
  });
