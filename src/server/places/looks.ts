import { REMEMBERED, remembered } from '@/core/kinds/map/fold';
import type { System } from '@/core/installation/section';
import { isGood } from '@/core/verdict/words';
import { tradeOf } from '@/core/trades';
import { inOrganisation, type Tx } from '@/database/client';
import { events, ledger, runs } from '@/database/schema';
import { and, asc, desc, eq, inArray, isNull, sql } from 'drizzle-orm';
import 'server-only';

/** More entries than any pool has: beyond it nobody reads them either. */
const MOST = 2000;
/** An installation with what was seen of its unseen joins, in whichever run; practice leaves nothing behind. */
export async function withLooks(tx: Tx, system: System): Promise<System> {
  if (tradeOf(system).parted !== 'lines') return system;
  const rows = await tx
    .select({ body: events.body })
    .from(events)
    .innerJoin(runs, and(eq(runs.org, events.org), eq(runs.id, events.run)))
    .where(
      and(
        eq(runs.system, system.id),
        eq(runs.practice, false),
        inArray(sql`${events.body} ->> 'kind'`, [...REMEMBERED]),
      ),
    )
    .orderBy(asc(runs.made), asc(events.position))
    .limit(MOST);
  return {
    ...system,
    ...remembered(
      system,
      rows.map((r) => r.body),
    ),
  };
}
export const readLooks = (scope: { org: string }, system: System) =>
  inOrganisation(scope, (tx) => withLooks(tx, system));

/** A record that stands, with the section of the place it is of: '' for the whole. */
export interface SectionRecord {
  readonly section: string;
  readonly title: string;
  readonly run: string;
  readonly number: string;
  readonly word: string;
  /** As it was called there. */
  readonly label: string;
  readonly procedure: string;
  readonly sealedAt: string;
}
/** Records of an installation, the newest first. */
export const recordsBySection = (scope: { org: string }, system: string): Promise<SectionRecord[]> =>
  inOrganisation(scope, async (tx) => {
    const rows = await tx
      .select({
        section: sql<string>`coalesce(${runs.plan} #>> '{system,section,key}', '')`,
        title: sql<string>`coalesce(${runs.plan} #>> '{system,section,title}', '')`,
        run: ledger.id,
        number: ledger.number,
        word: ledger.word,
        label: sql<string>`coalesce(${ledger.summary} ->> 'label', '')`,
        procedure: ledger.procedure,
        sealedAt: ledger.at,
      })
      .from(ledger)
      .innerJoin(runs, eq(runs.id, ledger.id))
      .where(
        and(
          eq(runs.system, system),
          eq(runs.practice, false),
          isNull(ledger.superseded),
          isNull(ledger.voided),
        ),
      )
      .orderBy(desc(ledger.at))
      .limit(400);
    return rows.map((r) => ({ ...r, sealedAt: r.sealedAt.toISOString() }));
  });
/** The newest record of each section that was not good and has no later one: a run on it repeats that one. */
export function failuresBySection(
  records: readonly SectionRecord[],
): Readonly<Record<string, SectionRecord>> {
  const newest = new Map<string, SectionRecord>();
  for (const r of records) {
    const before = newest.get(r.section);
    if (!before || before.sealedAt < r.sealedAt) newest.set(r.section, r);
  }
  return Object.fromEntries([...newest].filter(([, r]) => !isGood(r.word)));
}
