'use client';
import { type Plan, PlanError } from '@/core/plan/plan';
import { localDate } from '@/core/quantity/local-date';
import { knownHere } from '@/device/begin';
import { deviceZone, serverNow } from '@/device/clock';
import type { OfficeError } from '@/device/office';
import { SectionFigure } from '@/ui/network/section-figure';
import { PlanView } from '@/ui/plan/plan-view';
import { placeLine } from '@/ui/places/site-words';
import { NO_RUN, planAsked } from '@/wire/asked-plan';
import { readPlanned } from '@/wire/planned';
import { may } from '@/wire/role';
import { useMemo } from 'react';
import type { RoomProps } from './rooms';

/** The plan of a test, made on this device. */
export function PlanHere({ who, carrying, id }: RoomProps) {
  const made = useMemo(() => {
    const query = Object.fromEntries(new URLSearchParams(location.search));
    const planned = readPlanned(query);
    const request = {
      id: NO_RUN,
      practice: false,
      zone: deviceZone(),
      system: id,
      pack: query.pack ?? '',
      procedure: query.procedure ?? '',
      case: query.case ?? '',
      choices: planned.choices,
      ...(planned.section ? { section: planned.section } : {}),
    };
    try {
      const { known } = knownHere(carrying, who, request);
      return { query, planned, plan: planAsked(request, known, { ahead: true }), wrong: '' };
    } catch (error) {
      const wrong = error instanceof PlanError ? error.message : (error as OfficeError).message;
      return { query, planned, plan: null as Plan | null, wrong };
    }
  }, [carrying, who, id]);
  const { query, planned, plan, wrong } = made;
  const system = carrying.systems.find((s) => s.id === id);
  const day =
    query.day && /^\d{4}-\d{2}-\d{2}$/.test(query.day) ? query.day : localDate(serverNow(), deviceZone());
  return (
    <>
      {system && <p className="text-sm text-quiet">{placeLine(system.site)}</p>}
      <h1 className="text-2xl font-bold">Plan{system ? `: ${system.system.name}` : ''}</h1>
      {plan && system ? (
        <PlanView
          gauges={Object.fromEntries(
            Object.entries(query).flatMap(([k, v]) =>
              k.startsWith('gauge.') ? [[k.slice('gauge.'.length), v]] : [],
            ),
          )}
          drawn={<SectionFigure section={plan.system} className="mt-2" />}
          plan={plan}
          day={day}
          packId={query.pack ?? ''}
          kit={carrying.house.cabinet.value.things.map((t) => t.item)}
          visits={[]}
          mayRun={may(who.role, 'run')}
          mayPlan={false}
          failure={query.retest === 'no' ? null : (system.failures[planned.section ?? ''] ?? null)}
          planned={planned}
          firm={carrying.house.organisation.name}
          last={{ runs: 0, minutes: {} }}
        />
      ) : (
        <p role="alert" className="mt-4 border-l-4 border-ochre pl-3 text-lg">
          {wrong}
        </p>
      )}
    </>
  );
}
