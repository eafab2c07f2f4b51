import { placeLine } from '@/ui/places/site-words';
import type { Metadata } from 'next';
import { tradeOf } from '@/core/trades';
import { found } from '@/app/(house)/found';
import { readSystem } from '@/server/places/places';
import { requireSession } from '@/server/session/session';
import { OpenEditor } from '@/ui/network/open-editor';
import { may } from '@/wire/role';

export const metadata: Metadata = { title: 'Section drawn' };
export default async function DrawingPage({ params }: { params: Promise<{ system: string }> }) {
  const session = await requireSession();
  const { system: id } = await params;
  const { site, system } = await found(readSystem(session, id));
  return (
    <OpenEditor
      system={id}
      place={placeLine(site)}
      section={system.facts}
      palette={tradeOf(system.facts).palette}
      may={may(session.role, 'plan')}
    />
  );
}
