'use client';
import { bandHeight } from '@/chart/band-height';
import type { VisitPair } from '@/core/plan/beside-offer';
import { disturbances } from '@/core/visit/build';
import type { VisitFacts } from '@/core/visit/facts';
import type { TestProgress } from '@/core/visit/progress';
import { type VisitPlan } from '@/core/visit/types';
import { Button } from '@/ui/kit/button';
import { buttonClass } from '@/ui/kit/button-class';
import { byNeed } from '@/ui/kit/by-need';
import { useSize } from '@/ui/kit/use-size';
import { minutesWords } from '@/ui/kit/words';
import Link from 'next/link';
import { Suspense, useMemo, useState } from 'react';
import { VisitSettings } from './settings';
import { TaskList } from './task-list';
import { clockOf, dayWords } from './times';
import { useVisit } from './use-visit';

const TimeBand = byNeed(() => import('./band').then((m) => m.TimeBand));

export interface VisitRunLine {
  readonly test: string;
  readonly run: string;
  readonly stage: string;
  readonly ends: number | null;
  readonly over: boolean;
  readonly sealed: string | null;
  readonly progress: TestProgress;
}
export interface VisitViewProps {
  readonly facts: VisitFacts;
  readonly version: number;
  readonly runs: readonly VisitRunLine[];
  readonly pairs: readonly VisitPair[];
  readonly mayPlan: boolean;
  readonly mayRun: boolean;
  readonly serverNow: number;
  /** Who may go. */
  readonly team: readonly { readonly id: string; readonly name: string }[];
  readonly kit: readonly { readonly group: string; readonly name: string; readonly why: string }[];
}

/** A visit in time: the band that a finger can drag, the list with clock times, what runs now with its alarms. */
export function VisitView(props: VisitViewProps) {
  const { facts, at, begin, minute, planned, plan, byHand, trouble, save, saving, wish } = useVisit(props);
  const [selected, setSelected] = useState<string | null>(null);
  const [setEl, { width }] = useSize();
  const rows = useMemo(
    () => [
      ...facts.tests.map((t) => ({ key: t.id, title: `${t.siteName}: ${t.title}` })),
      { key: '', title: 'Around the tests' },
    ],
    [facts.tests],
  );
  const warns = useMemo(() => disturbances(facts.tests), [facts.tests]);
  return (
    <>
      <p className="text-sm text-quiet">
        {dayWords(facts.day)}, from {facts.start}
      </p>
      <div className="flex flex-wrap items-start justify-between gap-4">
        <h1 className="text-2xl font-bold">{facts.title}</h1>
        <div className="no-print flex flex-wrap gap-3">
          <a className={buttonClass('plain')} href={`/api/visits/${facts.id}/ics`} download>
            Calendar file
          </a>
          <Button onClick={() => print()}>Print</Button>
        </div>
      </div>
      {facts.tests.length === 0 ? (
        <div className="mt-4 border border-seam bg-panel p-5">
          <p>No test is on this visit yet. Choose a system, plan its test, and put it on the visit.</p>
          <Link prefetch={false} href="/places" className={buttonClass('act', 'mt-3')}>
            Choose a place
          </Link>
        </div>
      ) : (
        <>
          <Laid {...props} visit={{ facts, begin, planned, plan, byHand, save, saving }} />
          {warns.map((w) => (
            <p key={w} className="mt-2 border-l-4 border-ochre pl-3 text-sm">
              {w}
            </p>
          ))}
          <p role="alert" className="mt-1 text-rust">
            {trouble}
          </p>
          <div
            ref={setEl}
            className="mt-3 overflow-x-auto border border-seam bg-panel px-3 py-2"
            style={{ minHeight: bandHeight(rows.length) + 18 }}
            role="region"
            aria-label="Visit in time"
            tabIndex={0}
          >
            {plan && width > 0 && (
              <Suspense fallback={null}>
                <TimeBand
                  tasks={facts.tasks}
                  plan={plan}
                  rows={rows}
                  width={Math.max(width - 24, Math.min(900, plan.length * 2.2))}
                  begin={begin}
                  zone={facts.zone}
                  selected={selected}
                  now={props.runs.length || Object.keys(facts.done).length ? minute : null}
                  may={props.mayPlan}
                  onSelect={setSelected}
                  onWish={wish}
                />
              </Suspense>
            )}
          </div>
          <p className="no-print mt-1 text-sm text-quiet">
            Full blocks are hands on, broken ones waiting. Drag a block, or move it with the arrow keys: what
            must come before stays before.
          </p>
          {plan && (
            <TaskList
              facts={facts}
              plan={plan}
              runs={props.runs}
              pairs={props.pairs}
              begin={begin}
              at={at}
              selected={selected}
              mayPlan={props.mayPlan}
              mayRun={props.mayRun}
              onSelect={setSelected}
              onChange={save}
            />
          )}
        </>
      )}
      {(plan || planned.trouble || facts.tests.length === 0) && (
        <VisitSettings team={props.team} facts={facts} may={props.mayPlan} kit={props.kit} onChange={save} />
      )}
    </>
  );
}
const proofWords = (p: VisitPlan): string =>
  p.proved
    ? 'No order is shorter.'
    : `At most ${minutesWords(Math.ceil(p.length - p.bound))} longer than the shortest possible.`;

/** How long the visit is, whether an order is shorter, whether the promise is kept. */
function Laid({
  mayPlan,
  visit: { facts, begin, planned, plan, byHand, save, saving },
}: VisitViewProps & {
  visit: Pick<
    ReturnType<typeof useVisit>,
    'facts' | 'begin' | 'planned' | 'plan' | 'byHand' | 'save' | 'saving'
  >;
}) {
  const shortest = planned.plan && !byHand ? proofWords(planned.plan) : '';
  return (
    <>
      {/* the order is worked out after the page stands: its place is kept, so that nothing moves under the eyes */}
      {!plan && <p className="mt-2 min-h-8 text-quiet">{planned.trouble ? '' : 'Laying the visit …'}</p>}
      {plan && (
        <p className="mt-2 min-h-8" aria-live="polite">
          On site <span className="figure text-xl">{minutesWords(Math.round(plan.length))}</span>, until{' '}
          <span className="figure">{clockOf(begin, plan.length, facts.zone)}</span>.{' '}
          {byHand ? `Laid by hand${saving ? ', not yet with the office …' : '.'}` : shortest}
          {byHand && mayPlan && (
            <Button className="ml-3" onClick={() => save({ ...facts, wishes: {}, pinned: [] })}>
              Lay it anew, shortest
            </Button>
          )}
        </p>
      )}
      {plan && plan.late.length > 0 && (
        <p role="alert" className="mt-2 border-l-4 border-rust pl-3">
          The promise for {facts.promise} is not kept:{' '}
          {plan.late.map((id) => facts.tasks.find((t) => t.id === id)?.title).join('; ')}. Begin earlier,
          bring a second person, or tell the customer.
        </p>
      )}
    </>
  );
}
