import type { Metadata } from 'next';
import { cache } from 'react';
import { found } from '@/app/(house)/found';
import { pairsOf } from '@/core/plan/beside-offer';
import { now } from '@/server/now';
import { listMembers } from '@/server/people/people';
import { rulePacks } from '@/server/rules/rules';
import { requireSession } from '@/server/session/session';
import { kitOfVisit, readVisit } from '@/server/visits/visits';
import { VisitView } from '@/ui/visit/visit-view';
import { may } from '@/wire/role';

/** Read once for the page and its title. */
const load = cache(async (id: string) => found(readVisit(await requireSession(), id)));
export const generateMetadata = async ({
  params,
}: {
  params: Promise<{ visit: string }>;
}): Promise<Metadata> => {
  const { visit } = await params;
  return { title: `Visit ${(await load(visit)).facts.title}` };
};
export default async function VisitPage({ params }: { params: Promise<{ visit: string }> }) {
  const session = await requireSession();
  const { visit } = await params;
  const view = await load(visit);
  // the page is asked for again and again while a run is open: packs only where two tests may yet begin together
  const waiting = view.facts.tests.filter((t) => !t.run).length;
  const packs = waiting > 1 ? await rulePacks(session) : [];
  return (
    <VisitView
      facts={view.facts}
      version={view.version}
      runs={view.runs}
      pairs={pairsOf(packs, view.facts.tests)}
      mayPlan={may(session.role, 'plan')}
      mayRun={may(session.role, 'run')}
      serverNow={now()}
      team={(await listMembers(session))
        .filter((m) => may(m.role, 'run'))
        .map(({ id, name }) => ({ id, name }))}
      kit={await kitOfVisit(session, view.facts)}
    />
  );
}
