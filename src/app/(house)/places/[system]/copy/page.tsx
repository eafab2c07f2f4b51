import { found } from '@/app/(house)/found';
import { listPlaces, readSystem } from '@/server/places/places';
import { requireSession } from '@/server/session/session';
import { MOST_PLACES, NarrowPlaces } from '@/ui/places/narrow-places';
import { CopySystemForm } from '@/ui/places/copy-system';
import { placeLine } from '@/ui/places/site-words';
import { may } from '@/wire/role';
import type { Metadata } from 'next';

export const metadata: Metadata = { title: 'Copy an installation' };
export default async function CopyPage({
  params,
  searchParams,
}: {
  params: Promise<{ system: string }>;
  searchParams: Promise<{ find?: string }>;
}) {
  const session = await requireSession();
  const { find = '' } = await searchParams;
  const { site, system } = await found(readSystem(session, (await params).system));
  const { places, all } = await listPlaces(session, { find, most: MOST_PLACES });
  // the place it is on can always be chosen
  const sites = [site, ...places.map((p) => p.site).filter((s) => s.id !== site.id)];
  return (
    <>
      <p className="text-sm text-quiet">{placeLine(site)}</p>
      <h1 className="text-2xl font-bold">Another like {system.name}</h1>
      {may(session.role, 'plan') ? (
        <>
          <NarrowPlaces action={`/places/${system.id}/copy`} find={find} shown={places.length} all={all} />
          <CopySystemForm
            system={system.id}
            name={system.name}
            site={site.id}
            customer={site.customer}
            sites={sites.map((s) => ({ id: s.id, title: placeLine(s) }))}
          />
        </>
      ) : (
        <p className="mt-4">An apprentice does not enter places. Ask a tester or the office.</p>
      )}
    </>
  );
}
