import type { Metadata } from 'next';
import { usageHere } from '@/server/people/usage';
import { requireSession } from '@/server/session/session';
import { UsageView } from '@/ui/people/usage-view';
import { may } from '@/wire/role';

export const metadata: Metadata = { title: 'Units, days and times' };
export default async function UsagePage() {
  const session = await requireSession();
  return (
    <UsageView
      {...await usageHere(session)}
      name={session.organisation}
      owner={may(session.role, 'govern')}
    />
  );
}
