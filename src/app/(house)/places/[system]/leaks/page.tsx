import { found } from '@/app/(house)/found';
import { networkOf } from '@/core/network/enter';
import { leakBook } from '@/server/leaks/leaks';
import { partPhotosOf } from '@/server/places/part-photos';
import { readSystem } from '@/server/places/places';
import { requireSession } from '@/server/session/session';
import { viewerZone } from '@/server/session/zone';
import { LeakBook } from '@/ui/leaks/leak-book';
import { placeLine } from '@/ui/places/site-words';
import type { Metadata } from 'next';
import Link from 'next/link';

export const metadata: Metadata = { title: 'Leak book' };
export default async function LeaksPage({ params }: { params: Promise<{ system: string }> }) {
  const session = await requireSession();
  const { system: id } = await params;
  const { site, system } = await found(readSystem(session, id));
  const [book, photos, zone] = await Promise.all([
    leakBook(session, id),
    partPhotosOf(session, id),
    viewerZone(),
  ]);
  return (
    <>
      <p className="text-sm text-quiet">
        {placeLine(site)}:{' '}
        <Link prefetch={false} href={`/places/${id}`} className="text-lake underline">
          {system.name}
        </Link>
      </p>
      <h1 className="text-2xl font-bold">Leak book</h1>
      <LeakBook
        system={id}
        network={networkOf(system.facts)}
        book={book}
        photos={photos}
        zone={zone}
        who={session.name}
      />
    </>
  );
}
