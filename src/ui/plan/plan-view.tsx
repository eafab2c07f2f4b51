import { zoned } from '@/core/quantity/in-zone';
import type { KitFacts } from '@/core/instrument/kit';
import { occupantBrief, plannedCautions } from '@/core/plan/cautions';
import { goodPath, pathMinutes } from '@/core/plan/good-path';
import { KIT_GROUPS, type KitLine, kitList } from '@/core/plan/kit';
import { caseOf, type EarlierRecord, type Plan } from '@/core/plan/plan';
import { type PartProspect, partProspect, planParts } from '@/core/plan/prospect';
import { tradeOf } from '@/core/trades';
import { BothUnits } from '@/ui/frame/lens';
import { minutesWords } from '@/ui/kit/words';
import type { Planned } from '@/wire/planned';
import Link from 'next/link';
import type { ReactNode } from 'react';
import { Brief } from './brief';
import { GaugesPart } from './gauges-part';
import { HoldPart } from './hold-part';
import { PressurePart } from './pressure-part';
import { PrintButton } from './print-button';
import { Protection } from './protection';
import { type OpenVisit, StartPanel } from './start-panel';

export interface PlanViewProps {
  /** Gauges that were chosen, by part ('' where there is one); absent: the proposed ones. */
  readonly gauges: Readonly<Record<string, string>>;
  /** The section, drawn. */
  readonly drawn: ReactNode;
  readonly plan: Plan;
  readonly day: string;
  readonly packId: string;
  readonly kit: readonly KitFacts[];
  readonly visits: readonly OpenVisit[];
  readonly mayRun: boolean;
  readonly mayPlan: boolean;
  readonly failure: EarlierRecord | null;
  readonly firm: string;
  /** What was settled before: it goes on to the visit or to the bench. */
  readonly planned: Planned;
  /** Middle minutes of each step over the newest records of this procedure, and how many there were. */
  readonly last: { readonly runs: number; readonly minutes: Readonly<Record<string, number>> };
}

const h2 = 'text-lg font-semibold';

/** What could hurt, each with what to do about it. */
function Hazards({ plan, parts }: { plan: Plan; parts: readonly PartProspect[] }) {
  return (
    <section>
      <h2 className={h2}>What could hurt, and what to do about it</h2>
      <dl className="mt-2">
        {plannedCautions(plan, parts).map((c) => (
          <div key={c.key} className="border-t border-seam py-2">
            <dt className="font-semibold">{c.title}</dt>
            <dd>{c.text}</dd>
            <dd className="text-sm text-quiet">{c.source}</dd>
          </div>
        ))}
      </dl>
      <Protection plan={plan} />
    </section>
  );
}

/** What to bring, in groups, with what of the cabinet serves. */
function Load({ list }: { list: readonly KitLine[] }) {
  return (
    <section>
      <h2 className={h2}>What to load</h2>
      <div className="mt-2 grid gap-x-8 sm:grid-cols-2">
        {(Object.keys(KIT_GROUPS) as KitLine['group'][]).map((group) => (
          <div key={group} className="border-t border-seam py-2">
            <h3 className="text-sm text-quiet">{KIT_GROUPS[group]}</h3>
            <ul>
              {list
                .filter((l) => l.group === group)
                .map((l) => (
                  <li key={l.name + l.why} className="py-1">
                    {l.name}
                    <span className="block text-sm text-quiet">
                      {l.why}
                      {l.from.length > 0 && `; in the cabinet: ${l.from.join(', ')}`}
                    </span>
                    {l.lacking && (
                      <span className="block text-sm text-ochre">Nothing in date in the cabinet serves.</span>
                    )}
                  </li>
                ))}
            </ul>
          </div>
        ))}
      </div>
    </section>
  );
}

/** The good path, with minutes of hands and waiting, beside what they took before. */
function Steps({ path, last }: { path: ReturnType<typeof goodPath>; last: PlanViewProps['last'] }) {
  const minutes = pathMinutes(path);
  return (
    <section>
      <h2 className={h2}>Step by step, when all goes well</h2>
      <p className="mt-1 text-sm text-quiet">
        Hands-on minutes are house estimates; waits are the planned holds with the gauge above.
        {last.runs > 0 &&
          ` Beside them what the step really took, the middle of the last ${last.runs} ${last.runs === 1 ? 'record' : 'records'}.`}
      </p>
      <ol className="mt-2 border-t border-seam">
        {path.map((s, i) => (
          <li
            key={`${s.stage}${i}`}
            className="grid grid-cols-[1fr_5rem_6rem] gap-x-3 border-b border-seam py-1.5 sm:grid-cols-[1fr_6rem_7rem_9rem]"
          >
            <span>{s.title}</span>
            <span className="figure-narrow text-right">
              {s.hands + s.close ? `${s.hands + s.close} min` : ''}
            </span>
            <span className="figure-narrow text-right text-quiet">
              {s.wait ? `wait ${minutesWords(s.wait)}` : ''}
            </span>
            <span className="col-span-3 text-right text-sm text-quiet sm:col-span-1">
              {last.minutes[s.stage] !== undefined && `took ${last.minutes[s.stage]!.toFixed(0)} min`}
            </span>
          </li>
        ))}
      </ol>
      <p className="mt-2">
        About <span className="figure">{minutesWords(Math.round(minutes.whole))}</span> on site,{' '}
        <span className="figure">{minutesWords(Math.round(minutes.wait))}</span> of it waiting: on a visit the
        waits are filled.
      </p>
    </section>
  );
}

/** What it cannot prove, and where its section and its rules stand. */
function Aside({ plan, packId }: { plan: Plan; packId: string }) {
  return (
    <section className="border border-seam bg-panel p-4">
      <h2 className="text-sm text-quiet">Cannot prove</h2>
      <p>{plan.procedure.cannotProve.join('; ')}.</p>
      <h2 className="mt-3 text-sm text-quiet">The section</h2>
      <p>
        <Link
          prefetch={false}
          className="text-lake underline-offset-4 hover:underline"
          href={`/places/${plan.system.id}/drawing`}
        >
          What is in, what is out: the drawing
        </Link>
      </p>
      <p>
        <Link
          prefetch={false}
          className="text-lake underline-offset-4 hover:underline"
          href={`/rules/${packId}?procedure=${plan.procedure.id}`}
        >
          The rules it is judged by
        </Link>
      </p>
      <p className="mt-3 text-sm text-quiet">
        {plan.pack.school}, {plan.pack.edition}. {plan.pack.notice}
      </p>
      <div className="mt-3 flex flex-wrap gap-3">
        <PrintButton>Print this plan</PrintButton>
        <BothUnits />
      </div>
    </section>
  );
}

/** A test planned: which gauge, what pressure and why, how long and what that sees, what to bring, whom to warn. */
export function PlanView(props: PlanViewProps) {
  const { plan, day, kit, gauges } = props;
  const parts = planParts(plan).map((p) => partProspect(plan, p, day, gauges[p ?? '']));
  const chosen = [...new Set(parts.flatMap((p) => gauges[p.part ?? ''] ?? p.best ?? []))];
  const judging = plan.gauges.filter((g) => chosen.includes(g.id));
  const path = goodPath(plan, chosen[0] ?? null);
  const minutes = pathMinutes(path);
  const impossible = parts.some((p) => p.pressure.impossible);
  const when = `on ${zoned('UTC', { day: 'numeric', month: 'long', year: 'numeric' }).format(new Date(`${day}T12:00:00Z`))}`;
  return (
    <div
      data-judged-in={[...new Set(judging.map((g) => g.resolution.unit))].join(' ')}
      className="mt-4 grid grid-cols-[minmax(0,1fr)] gap-8 lg:grid-cols-[minmax(0,1fr)_20rem]"
    >
      <div className="grid min-w-0 grid-cols-[minmax(0,1fr)] content-start gap-8">
        <section>
          <h2 className={h2}>What the test reaches</h2>
          {props.drawn}
        </section>
        {parts.map((p) => (
          <section key={p.part ?? ''} className="grid grid-cols-[minmax(0,1fr)] gap-4" aria-label={p.title}>
            {parts.length > 1 && (
              <h2 className="border-t-2 border-ink pt-2 text-xl font-semibold">{p.title}</h2>
            )}
            <PressurePart plan={plan} prospect={p} />
            <HoldPart plan={plan} prospect={p} gauge={gauges[p.part ?? ''] ?? p.best} />
            <GaugesPart plan={plan} prospect={p} day={day} chosen={gauges[p.part ?? ''] ?? p.best} />
          </section>
        ))}
        <Hazards plan={plan} parts={parts} />
        <Load list={kitList(plan, parts, judging, kit, day)} />
        <Steps path={path} last={props.last} />
        <Brief
          proposed={occupantBrief(plan, when, minutes.whole, props.firm)}
          subject={`${plan.site.name}: your ${tradeOf(plan.system).called} is tested ${when}`}
        />
      </div>
      <div className="grid grid-cols-[minmax(0,1fr)] content-start gap-4 lg:sticky lg:top-4 lg:max-h-[calc(100dvh-2rem)] lg:overflow-auto">
        <StartPanel
          plan={plan}
          packId={props.packId}
          visits={props.visits}
          mayRun={props.mayRun}
          mayPlan={props.mayPlan}
          failure={props.failure}
          day={day}
          planned={props.planned}
          gauge={chosen[0] ?? null}
          impossible={impossible}
          caseTitle={caseOf(plan).title}
        />
        <Aside plan={plan} packId={props.packId} />
      </div>
    </div>
  );
}
