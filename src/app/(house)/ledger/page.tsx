import type { Metadata } from 'next';
import Link from 'next/link';
import { ledgerChoices, ledgerViewsOf, searchLedger } from '@/server/records/ledger';
import { requireSession } from '@/server/session/session';
import { buttonClass } from '@/ui/kit/button-class';
import { LedgerView } from '@/ui/ledger/ledger-view';
import { LEDGER_PAGE } from '@/wire/ledger';
import { queryFrom, type LedgerQuery } from '@/wire/ledger-schema';
import { may } from '@/wire/role';

export const metadata: Metadata = { title: 'Ledger' };
export default async function Ledger({
  searchParams,
}: {
  searchParams: Promise<Record<string, string | string[] | undefined>>;
}) {
  const session = await requireSession();
  const asked = new URLSearchParams(
    Object.entries(await searchParams).flatMap(([k, v]) => (typeof v === 'string' ? [[k, v]] : [])),
  );
  let query: LedgerQuery = {};
  let wrong = '';
  try {
    query = queryFrom(asked);
  } catch (error) {
    wrong = `The address of this search could not be read: ${(error as Error).message}. All records are shown.`;
  }
  const [lines, choices, views] = await Promise.all([
    searchLedger(session, query, LEDGER_PAGE + 1),
    ledgerChoices(session, query.system),
    ledgerViewsOf(session),
  ]);
  return (
    <>
      <div className="flex flex-wrap items-center justify-between gap-3">
        <h1 className="text-2xl font-bold">Ledger</h1>
        <div className="flex flex-wrap gap-3">
          {may(session.role, 'plan') && (
            <Link prefetch={false} className={buttonClass('plain', 'min-h-11 text-sm')} href="/ledger/import">
              Read in a record or a gauge log
            </Link>
          )}
          <Link prefetch={false} className={buttonClass('plain', 'min-h-11 text-sm')} href="/ledger/trends">
            Trends
          </Link>
          <Link prefetch={false} className={buttonClass('plain', 'min-h-11 text-sm')} href="/ledger/recall">
            Recall search
          </Link>
        </div>
      </div>
      {wrong && (
        <p role="alert" className="mt-3 text-rust">
          {wrong}
        </p>
      )}
      <LedgerView
        query={query}
        lines={lines.slice(0, LEDGER_PAGE)}
        more={lines.length > LEDGER_PAGE}
        choices={choices}
        views={views}
      />
    </>
  );
}
