import { notFound, redirect } from 'next/navigation';
import { isId } from '@/server/trouble';
import { type LabelKind, LABELS, pageOfLabel } from '@/wire/codes';

/** Where a label leads that any camera read. */
export default async function Label({ params }: { params: Promise<{ kind: string; id: string }> }) {
  const { kind, id } = await params;
  if (!(kind in LABELS) || !isId(id)) notFound();
  redirect(pageOfLabel(kind as LabelKind, id));
}
