import type { Metadata } from 'next';
import { requireSession } from '@/server/session/session';
import { NewPlace } from '@/ui/places/new-place';

export const metadata: Metadata = { title: 'New place' };
export default async function NewPlacePage() {
  return <NewPlace role={(await requireSession()).role} />;
}
