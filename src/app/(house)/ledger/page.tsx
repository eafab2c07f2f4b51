import type { Metadata } from 'next';
import { ledger } from '@/server/records/records';
import { requireSession } from '@/server/session/session';
import { RecordRow } from '@/ui/ledger/row';
import { buttonClass } from '@/ui/kit/button-class';
import { SearchField } from '@/ui/ledger/search-field';

export const metadata: Metadata = { title: 'Ledger' };
export default async function Ledger({ searchParams }: { searchParams: Promise<{ q?: string | string[] }> }) {
  const session = await requireSession();
  const { q } = await searchParams;
  const search = (Array.isArray(q) ? q[0] : q)?.slice(0, 200) ?? '';
  const lines = await ledger(session, search);
  return (
    <>
      <h1 className="text-2xl font-bold">Ledger</h1>
      <form action="/ledger" className="mt-3 flex max-w-2xl gap-3" role="search">
        <SearchField value={search} />
        <button type="submit" className={buttonClass('plain')}>
          Search
        </button>
      </form>
      <p className="mt-3 text-sm text-quiet" aria-live="polite">
        {lines.length === 200
          ? 'The newest 200 records'
          : `${lines.length} record${lines.length === 1 ? '' : 's'}`}
        {search ? ` with “${search}”` : ''}
      </p>
      <ul className="mt-1 border-t border-seam">
        {lines.map((l) => (
          <RecordRow key={l.run} line={l} />
        ))}
      </ul>
      {lines.length === 0 &&
        (search ? (
          <p className="mt-4">
            No record has all these words. Search by place, number, verdict or person; fewer words find more.
          </p>
        ) : (
          <p className="mt-4">
            No record is sealed yet. Start a test from Places; when it is signed and sealed it stands here.
          </p>
        ))}
    </>
  );
}
