import { placeLine } from '@/ui/places/site-words';
import { SectionFigure } from '@/ui/network/section-figure';
import type { Metadata } from 'next';
import { redirect } from 'next/navigation';
import { found } from '@/app/(house)/found';
import { PlanError } from '@/core/plan/plan';
import { listKit } from '@/server/cabinet/cabinet';
import { readSystem } from '@/server/places/places';
import { lastTimes } from '@/server/records/records';
import { failuresBySection, recordsBySection } from '@/server/places/looks';
import { viewerDay } from '@/server/session/zone';
import { requireSession } from '@/server/session/session';
import { listVisits, testPlan } from '@/server/visits/visits';
import { buttonClass } from '@/ui/kit/button-class';
import { PlanView } from '@/ui/plan/plan-view';
import { readPlanned } from '@/wire/planned';
import { may } from '@/wire/role';

export const metadata: Metadata = { title: 'Plan' };
export default async function PlanPage({
  params,
  searchParams,
}: {
  params: Promise<{ system: string }>;
  searchParams: Promise<Record<string, string | string[] | undefined>>;
}) {
  const session = await requireSession();
  const { system: id } = await params;
  const query = await searchParams;
  const word = (key: string) => (typeof query[key] === 'string' ? query[key] : '');
  const [pack, procedure, kind, wanted] = [word('pack'), word('procedure'), word('case'), word('day')];
  const planned = readPlanned(query);
  if (!pack || !procedure || !kind) redirect(`/places/${id}`);
  const { site, system } = await found(readSystem(session, id));
  const today = await viewerDay();
  const day = /^\d{4}-\d{2}-\d{2}$/.test(wanted) ? wanted : today;
  const head = (
    <>
      <p className="text-sm text-quiet">{placeLine(site)}</p>
      <h1 className="text-2xl font-bold">Plan: {system.name}</h1>
    </>
  );
  let plan;
  try {
    plan = await found(
      testPlan(session, {
        system: id,
        pack,
        procedure,
        case: kind,
        choices: planned.choices,
        ...(planned.section ? { section: planned.section } : {}),
      }),
    );
  } catch (error) {
    if (!(error instanceof PlanError)) throw error;
    return (
      <>
        {head}
        <p role="alert" className="mt-4 border-l-4 border-ochre pl-3 text-lg">
          {error.message}
        </p>
        <a className={buttonClass('act', 'mt-4')} href={`/places/${id}/edit`}>
          Change the system
        </a>
      </>
    );
  }
  const [last, kit, visits, records] = await Promise.all([
    lastTimes(session, procedure),
    listKit(session),
    listVisits(session, today),
    recordsBySection(session, id),
  ]);
  return (
    <>
      {head}
      <PlanView
        gauges={Object.fromEntries(
          Object.keys(query).flatMap((k) =>
            k.startsWith('gauge.') ? [[k.slice('gauge.'.length), word(k)]] : [],
          ),
        )}
        drawn={<SectionFigure section={plan.system} className="mt-2" />}
        plan={plan}
        day={day}
        packId={pack}
        kit={kit}
        visits={visits.map(({ id: visit, title, day: on, version }) => ({
          id: visit,
          title,
          day: on,
          version,
        }))}
        mayRun={may(session.role, 'run')}
        mayPlan={may(session.role, 'plan')}
        failure={word('retest') === 'no' ? null : (failuresBySection(records)[planned.section ?? ''] ?? null)}
        planned={planned}
        firm={session.organisation}
        last={last}
      />
    </>
  );
}
