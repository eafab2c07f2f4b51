import type { Metadata } from 'next';
import { drawnFrom, schematicOf } from '@/core/installation/schematic';
import { found } from '@/app/(house)/found';
import { readSystem } from '@/server/places/places';
import { requireSession } from '@/server/session/session';
import { Drawing } from '@/ui/places/drawing';
import { mayPlan } from '@/wire/role';

export const metadata: Metadata = { title: 'Section drawn' };
export default async function DrawingPage({ params }: { params: Promise<{ system: string }> }) {
  const session = await requireSession();
  const { system: id } = await params;
  const { site, system } = await found(readSystem(session, id));
  return (
    <Drawing
      system={id}
      name={system.name}
      place={`${site.name}, ${site.address}`}
      start={schematicOf(system.facts)}
      fresh={drawnFrom(system.facts)}
      may={mayPlan(session.role)}
    />
  );
}
