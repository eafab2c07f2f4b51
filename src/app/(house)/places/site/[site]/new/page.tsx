import { placeLine } from '@/ui/places/site-words';
import type { Metadata } from 'next';
import { found } from '@/app/(house)/found';
import { readSite } from '@/server/places/places';
import { meterKinds } from '@/server/rules/rules';
import { requireSession } from '@/server/session/session';
import { now } from '@/server/now';
import { NewSystem as NewSystemView } from '@/ui/places/new-system';
import { uuid7 } from '@/wire/uuid7';

export const metadata: Metadata = { title: 'New system' };
export default async function NewSystem({ params }: { params: Promise<{ site: string }> }) {
  const session = await requireSession();
  const { site } = await params;
  const home = await found(readSite(session, site));
  return (
    <>
      <p className="text-sm text-quiet">{placeLine(home.site)}</p>
      <h1 className="text-2xl font-bold">New system</h1>
      <NewSystemView id={uuid7(now())} site={site} meters={await meterKinds(session)} />
    </>
  );
}
