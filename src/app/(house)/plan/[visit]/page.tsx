import type { Metadata } from 'next';
import { found } from '@/app/(house)/found';
import { now } from '@/server/now';
import { requireSession } from '@/server/session/session';
import { kitOfVisit, readVisit } from '@/server/visits/visits';
import { VisitView } from '@/ui/visit/visit-view';
import { mayPlan, mayRun } from '@/wire/role';

export const metadata: Metadata = { title: 'Visit' };
export default async function VisitPage({ params }: { params: Promise<{ visit: string }> }) {
  const session = await requireSession();
  const { visit } = await params;
  const view = await found(readVisit(session, visit));
  return (
    <VisitView
      facts={view.facts}
      version={view.version}
      runs={view.runs}
      mayPlan={mayPlan(session.role)}
      mayRun={mayRun(session.role)}
      serverNow={now()}
      kit={await kitOfVisit(session, view.facts)}
    />
  );
}
