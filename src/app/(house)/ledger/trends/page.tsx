import type { Metadata } from 'next';
import Link from 'next/link';
import { readTrends } from '@/server/records/trends';
import { requireSession } from '@/server/session/session';
import { TrendsView } from '@/ui/ledger/trends-view';

export const metadata: Metadata = { title: 'Trends' };
export default async function TrendsPage({
  searchParams,
}: {
  searchParams: Promise<{ procedure?: string }>;
}) {
  const session = await requireSession();
  const { procedure } = await searchParams;
  return (
    <>
      <p className="text-sm">
        <Link prefetch={false} className="text-lake underline-offset-4 hover:underline" href="/ledger">
          Ledger
        </Link>
      </p>
      <TrendsView trends={await readTrends(session, typeof procedure === 'string' ? procedure : '')} />
    </>
  );
}
