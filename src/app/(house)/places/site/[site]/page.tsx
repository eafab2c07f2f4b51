import type { Metadata } from 'next';
import { found } from '@/app/(house)/found';
import { readSite } from '@/server/places/places';
import { requireSession } from '@/server/session/session';
import { SiteFormView } from '@/ui/places/site-form';
import { may } from '@/wire/role';

export const metadata: Metadata = { title: 'Change the place' };
export default async function ChangePlace({ params }: { params: Promise<{ site: string }> }) {
  const session = await requireSession();
  const { site } = await params;
  const { id, name, address, customer } = (await found(readSite(session, site))).site;
  return (
    <>
      <h1 className="text-2xl font-bold">{name}</h1>
      {may(session.role, 'plan') ? (
        <SiteFormView site={{ id, name, address, customer }} />
      ) : (
        <p className="mt-4">An apprentice does not change places. Ask a tester or the office.</p>
      )}
    </>
  );
}
