import { placeLine } from '@/ui/places/site-words';
import type { Metadata } from 'next';
import { found } from '@/app/(house)/found';
import { readSystem } from '@/server/places/places';
import { meterKinds } from '@/server/rules/rules';
import { requireSession } from '@/server/session/session';
import { SystemToChange } from '@/ui/places/edit-system';
import { formOfSystem } from '@/wire/system-form';

export const metadata: Metadata = { title: 'Change system' };
export default async function EditSystem({ params }: { params: Promise<{ system: string }> }) {
  const session = await requireSession();
  const { system: id } = await params;
  const { site, system } = await found(readSystem(session, id));
  return (
    <>
      <p className="text-sm text-quiet">{placeLine(site)}</p>
      <h1 className="text-2xl font-bold">{system.name}</h1>
      <SystemToChange
        id={id}
        site={null}
        form={formOfSystem(system.facts)}
        meters={await meterKinds(session)}
      />
    </>
  );
}
