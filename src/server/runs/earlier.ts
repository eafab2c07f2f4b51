/** Earlier records that a procedure needs: that ended well, of the same section, and what they left in. */
import type { Exact } from '@/core/quantity/exact';
import type { EarlierRecord, Plan } from '@/core/plan/plan';
import { reduce } from '@/core/run/reduce';
import type { System } from '@/core/installation/section';
import { tradeOf } from '@/core/trades';
import { sideKeys } from '@/core/trades/circuit/sides';
import { GOOD } from '@/core/verdict/words';
import type { Tx } from '@/database/client';
import { ledger, runs } from '@/database/schema';
import { notHere } from '@/server/trouble';
import { and, desc, eq, inArray, isNull, sql } from 'drizzle-orm';
import 'server-only';
import { eventsOf } from './read-log';

/** Records sealed here that stand: what was superseded or made void counts no more. */
const earlier = (tx: Tx) =>
  tx
    .select({
      run: ledger.id,
      number: ledger.number,
      word: ledger.word,
      label: sql<string | null>`${ledger.summary} ->> 'label'`,
      section: sql<string | null>`${runs.plan} #>> '{system,section,key}'`,
      procedure: ledger.procedure,
      sealedAt: ledger.at,
      plan: runs.plan,
    })
    .from(ledger)
    .innerJoin(runs, eq(runs.id, ledger.id));
type Row = Awaited<ReturnType<typeof earlier>>[number];
const standing = () => and(isNull(ledger.superseded), isNull(ledger.voided), eq(runs.practice, false));
const asEarlier = ({ plan: _, label, section, ...row }: Row): EarlierRecord => ({
  ...row,
  sealedAt: row.sealedAt.toISOString(),
  ...(label ? { label } : {}),
  ...(section ? { section } : {}),
});

/** What a run left in under pressure with its gauge on; null where it left nothing. */
async function leftIn(tx: Tx, row: Row): Promise<{ figure: Exact; at: string } | null> {
  const { watch } = reduce(row.plan as Plan, await eventsOf(tx, row.run));
  return watch && { figure: watch.figure, at: new Date(watch.at).toISOString() };
}
/** Whether the records cover what is to be tested: its own section, or of the whole every one that there is. */
function covering(rows: readonly Row[], system: System, section: string | undefined): Row | null {
  if (tradeOf(system).parted !== 'sides') return rows[0] ?? null;
  const of = (key: string) => rows.find((r) => r.section === key || r.section === 'both');
  if (section && section !== 'both') return of(section) ?? null;
  const joined = rows.find((r) => r.section === 'both');
  const single = sideKeys(system).filter((k) => k !== 'both');
  if (joined || !single.length) return joined ?? null;
  return single.every((k) => of(k)) ? (rows[0] ?? null) : null;
}
/** The newest sealed record of what is to be tested in which one of these procedures ended well. */
export async function earlierGood(
  tx: Tx,
  system: System,
  section: string | undefined,
  procedures: readonly string[],
): Promise<EarlierRecord | undefined> {
  const rows = await earlier(tx)
    .where(
      and(
        eq(runs.system, system.id),
        standing(),
        inArray(ledger.word, [...GOOD]),
        inArray(ledger.procedure, [...procedures]),
      ),
    )
    .orderBy(desc(ledger.at))
    .limit(50);
  const row = covering(rows, system, section);
  if (!row) return undefined;
  const left = tradeOf(system).parted === 'sides' ? await leftIn(tx, row) : null;
  return { ...asEarlier(row), ...(left ? { left } : {}) };
}
export async function recordOfSystem(tx: Tx, system: string, run: string): Promise<EarlierRecord> {
  const [row] = await earlier(tx).where(and(eq(runs.system, system), eq(ledger.id, run)));
  if (!row) throw notHere('record');
  return asEarlier(row);
}
