import { found } from '@/app/(house)/found';
import { listPlaces, readSystem } from '@/server/places/places';
import { requireSession } from '@/server/session/session';
import { CopySystemForm } from '@/ui/places/copy-system';
import { placeLine } from '@/ui/places/site-words';
import { may } from '@/wire/role';
import type { Metadata } from 'next';

export const metadata: Metadata = { title: 'Copy an installation' };
export default async function CopyPage({ params }: { params: Promise<{ system: string }> }) {
  const session = await requireSession();
  const { site, system } = await found(readSystem(session, (await params).system));
  return (
    <>
      <p className="text-sm text-quiet">{placeLine(site)}</p>
      <h1 className="text-2xl font-bold">Another like {system.name}</h1>
      {may(session.role, 'plan') ? (
        <CopySystemForm
          system={system.id}
          name={system.name}
          site={site.id}
          customer={site.customer}
          sites={(await listPlaces(session)).map((p) => ({ id: p.site.id, title: placeLine(p.site) }))}
        />
      ) : (
        <p className="mt-4">An apprentice does not enter places. Ask a tester or the office.</p>
      )}
    </>
  );
}
