'use client';
import { deviceZone, now } from '@/device/clock';
import { beginRun } from '@/device/enter';
import { office, type OfficeError } from '@/device/office';
import { Button } from '@/ui/kit/button';
import { Field, FIELD } from '@/ui/kit/field';
import { ChoiceFields } from '@/ui/places/choice-fields';
import { plannedQuery } from '@/wire/planned';
import { uuid7 } from '@/wire/uuid7';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { PlanViewProps } from './plan-view';

export interface OpenVisit {
  readonly id: string;
  readonly title: string;
  readonly day: string;
  readonly version: number;
}

type StartProps = Pick<
  PlanViewProps,
  'plan' | 'packId' | 'visits' | 'mayRun' | 'mayPlan' | 'failure' | 'day' | 'planned'
> & { gauge: string | null };

/** The ways on from a plan: each goes with everything that was settled on it. */
function useStart({ plan, packId, visits, failure, gauge, day, planned }: StartProps) {
  const [visit, setVisit] = useState(visits[0]?.id ?? '');
  const [trouble, setTrouble] = useState('');
  const [busy, setBusy] = useState(false);
  const attempt = async (work: () => Promise<string>) => {
    setBusy(true);
    setTrouble('');
    try {
      location.assign(await work());
    } catch (error) {
      setTrouble((error as OfficeError).message);
      setBusy(false);
    }
  };
  // asked again after a lost answer, the same run is meant
  const [run] = useState(() => uuid7(now()));
  const router = useRouter();
  const { choices: chosen, ...attendance } = planned;
  const test = {
    system: plan.system.id,
    pack: packId,
    procedure: plan.procedure.id,
    case: plan.case,
    choices: plan.choices,
    ...attendance,
  };
  /** Another school asks for another pressure and time: the plan is made anew, with everything else as it was. */
  const choose = (next: Record<string, string>) => {
    const query = plannedQuery({ ...planned, choices: next });
    for (const [key, value] of new URLSearchParams(location.search))
      if (!query.has(key) && !key.startsWith('choice.')) query.set(key, value);
    router.replace(`${location.pathname}?${query}`, { scroll: false });
  };
  const put = () =>
    attempt(async () => {
      let target = visits.find((v) => v.id === visit);
      if (!target) {
        const id = uuid7(now());
        await office('/api/visits', {
          body: { id, title: `${plan.site.name}`, day, start: '08:30', zone: deviceZone() },
        });
        target = { id, title: '', day, version: 1 };
      }
      await office(`/api/visits/${target.id}/tests`, {
        body: { version: target.version, test: { id: uuid7(now()).slice(-12), ...test, gauge } },
      });
      return `/plan/${target.id}`;
    });
  const begin = () =>
    attempt(async () => {
      await beginRun(
        {
          id: run,
          ...test,
          practice: false,
          ...(failure ? { retestOf: failure.run } : {}),
          zone: deviceZone(),
        },
        plan.procedure.title,
      );
      return `/bench/${run}`;
    });
  return { visit, setVisit, trouble, busy, chosen, attendance, choose, put, begin };
}

/** What follows from the plan: put it on a visit, or begin at the bench now. */
export function StartPanel(props: StartProps & { impossible: boolean; caseTitle: string }) {
  const { plan, visits, mayRun, mayPlan, impossible, caseTitle } = props;
  const { visit, setVisit, trouble, busy, chosen, attendance, choose, put, begin } = useStart(props);
  return (
    <section className="no-print border border-seam bg-panel p-4" aria-labelledby="go">
      <h2 id="go" className="text-lg font-semibold">
        {plan.procedure.title}
      </h2>
      <p className="text-sm text-quiet">{caseTitle}</p>
      {plan.procedure.choices.length > 0 && (
        <details className="mt-2 text-sm">
          <summary className="min-h-8 cursor-pointer text-lake">Where schools differ</summary>
          <ChoiceFields questions={plan.procedure.choices} chosen={chosen} onChange={choose} />
        </details>
      )}
      {(attendance.permit || attendance.present || attendance.doneBy) && (
        <p className="mt-2 text-sm text-quiet">
          {[
            attendance.permit && `Permit ${attendance.permit}`,
            attendance.doneBy &&
              (attendance.doneBy === 'owner'
                ? 'work by the owner under the permit'
                : 'work by a licensed person'),
            attendance.present && `present: ${attendance.present}`,
          ]
            .filter(Boolean)
            .join('; ')}
        </p>
      )}
      {mayPlan && (
        <>
          <Field label="Visit" className="mt-3">
            {(ids) => (
              <select {...ids} className={FIELD} value={visit} onChange={(e) => setVisit(e.target.value)}>
                {visits.map((v) => (
                  <option key={v.id} value={v.id}>
                    {v.day}, {v.title}
                  </option>
                ))}
                <option value="">a new visit</option>
              </select>
            )}
          </Field>
          <Button
            tone="act"
            className="mt-2 min-h-14 w-full text-lg"
            disabled={busy || impossible}
            onClick={() => void put()}
          >
            Put it on the visit
          </Button>
        </>
      )}
      {mayRun && (
        <Button className="mt-3 min-h-14 w-full" disabled={busy || impossible} onClick={() => void begin()}>
          Begin at the bench now
        </Button>
      )}
      {impossible && (
        <p className="mt-2 text-sm text-rust">As entered no test is possible: see the test pressure.</p>
      )}
      <p role="alert" className="mt-2 text-rust">
        {trouble}
      </p>
    </section>
  );
}
