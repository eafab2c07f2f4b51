import type { Metadata } from 'next';
import { listPlaces } from '@/server/places/places';
import { openRuns } from '@/server/records/records';
import { requireSession } from '@/server/session/session';
import { ImportView } from '@/ui/ledger/import-view';
import { may } from '@/wire/role';

export const metadata: Metadata = { title: 'Read in' };
export default async function Import({ searchParams }: { searchParams: Promise<{ run?: string }> }) {
  const session = await requireSession();
  const [{ run }, open, sites] = await Promise.all([searchParams, openRuns(session), listPlaces(session)]);
  return (
    <ImportView
      mayBringIn={may(session.role, 'plan')}
      chosen={run ?? null}
      places={
        may(session.role, 'run')
          ? sites.flatMap(({ site, systems }) =>
              systems.map((s) => ({ id: s.id, title: `${site.name}: ${s.name}` })),
            )
          : []
      }
      runs={
        may(session.role, 'run')
          ? open.runs.flatMap(({ plan, state, made }) => {
              return !state || state.signatures.length || !state.gauge
                ? []
                : [
                    {
                      id: plan.run,
                      title: `${plan.site.name}: ${plan.system.name}`,
                      procedure: plan.procedure.title,
                      made,
                    },
                  ];
            })
          : []
      }
    />
  );
}
