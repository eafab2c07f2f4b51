import type { Metadata } from 'next';
import { requireSession } from '@/server/session/session';
import { SharedView } from '@/ui/shared/shared-view';

export const metadata: Metadata = { title: 'Shared with Vast Stone' };
export default async function Shared() {
  const { org, person, name, role, organisation } = await requireSession();
  return <SharedView who={{ org, person, name, role, organisation }} />;
}
