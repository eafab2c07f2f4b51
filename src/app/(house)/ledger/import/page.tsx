import type { Metadata } from 'next';
import { listPlaces } from '@/server/places/places';
import { openRuns } from '@/server/records/records';
import { requireSession } from '@/server/session/session';
import { MOST_PLACES, NarrowPlaces } from '@/ui/places/narrow-places';
import { ImportView } from '@/ui/ledger/import-view';
import { may } from '@/wire/role';

export const metadata: Metadata = { title: 'Read in' };
export default async function Import({
  searchParams,
}: {
  searchParams: Promise<{ run?: string; find?: string }>;
}) {
  const session = await requireSession();
  const { run, find = '' } = await searchParams;
  const [open, { places: sites, all }] = await Promise.all([
    openRuns(session),
    listPlaces(session, { find, most: MOST_PLACES }),
  ]);
  return (
    <>
      <NarrowPlaces
        action="/ledger/import"
        find={find}
        shown={sites.length}
        all={all}
        {...(run ? { keep: { run } } : {})}
      />
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
    </>
  );
}
