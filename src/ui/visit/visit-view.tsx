'use client';
import type { VisitPair } from '@/core/plan/beside-offer';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { Suspense, useEffect, useMemo, useRef, useState } from 'react';
import { arrange } from '@/core/visit/planner';
import { disturbances } from '@/core/visit/build';
import { withPromise } from '@/core/visit/current';
import type { VisitFacts } from '@/core/visit/facts';
import type { TestProgress } from '@/core/visit/progress';
import { VisitError, type VisitPlan } from '@/core/visit/types';
import { armAlarm, notify, sound } from '@/device/alarm';
import { now as deviceNow } from '@/device/clock';
import { office, type OfficeError } from '@/device/office';
import { Button } from '@/ui/kit/button';
import { buttonClass } from '@/ui/kit/button-class';
import { bandHeight } from '@/chart/band-height';
import { byNeed } from '@/ui/kit/by-need';
import { useSize } from '@/ui/kit/use-size';
import { minutesWords } from '@/ui/kit/words';
import { visitNow } from '@/wire/visit-now';
import { visitStart } from '@/wire/visit-time';
import { TaskList } from './task-list';
import { clockOf, dayWords } from './times';
import { usePlan } from './use-plan';
import { VisitSettings } from './settings';

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
  readonly kit: readonly { readonly group: string; readonly name: string; readonly why: string }[];
}

/** A visit in time: the band that a finger can drag, the list with clock times, what runs now with its alarms. */
export function VisitView(props: VisitViewProps) {
  const router = useRouter();
  const [facts, setFacts] = useState(props.facts);
  const version = useRef(props.version);
  const [trouble, setTrouble] = useState('');
  const [dragged, setDragged] = useState<VisitPlan | null>(null);
  const [selected, setSelected] = useState<string | null>(null);
  const [setEl, { width }] = useSize();
  const offset = useRef(props.serverNow - deviceNow());
  const [at, setAt] = useState(props.serverNow);
  useEffect(() => {
    const timer = setInterval(() => setAt(deviceNow() + offset.current), 1000);
    return () => clearInterval(timer);
  }, []);
  // what the office knows newer than this page
  useEffect(() => {
    if (props.version >= version.current) {
      version.current = props.version;
      setFacts(props.facts);
    }
  }, [props.facts, props.version]);
  const running = props.runs.some((r) => !r.over);
  useEffect(() => {
    if (!running) return;
    const timer = setInterval(() => router.refresh(), 15_000);
    return () => clearInterval(timer);
  }, [running, router]);
  useAlarms(props.runs, facts, at);

  const begin = visitStart(facts);
  const minute = Math.floor((at - begin) / 60_000);
  const { promise, now } = useMemo(
    () => visitNow({ facts, runs: props.runs }, begin, begin + minute * 60_000),
    [facts, props.runs, begin, minute],
  );
  const planned = usePlan({
    facts: {
      tasks: facts.tasks,
      crew: facts.crew,
      wishes: facts.wishes,
      pinned: facts.pinned,
      done: facts.done,
    },
    promise,
    now,
  });
  const plan = dragged ?? planned.plan;
  const byHand = Object.keys(facts.wishes).length > 0;

  const saving = useRef<Promise<void>>(Promise.resolve());
  const save = (next: VisitFacts, removed: string[] = []) => {
    setFacts(next);
    setTrouble('');
    const { id, title, day, start, crew, present, permit, promise: by, tasks, wishes, pinned, done } = next;
    // one at a time, each on the version the one before made
    saving.current = saving.current.then(async () => {
      try {
        const answer = await office<{ version: number }>(`/api/visits/${id}`, {
          method: 'PUT',
          body: {
            version: version.current,
            title,
            day,
            start,
            crew,
            present,
            permit,
            promise: by,
            removed,
            tasks,
            wishes,
            pinned,
            done,
          },
        });
        version.current = answer.version;
        if (removed.length) router.refresh();
      } catch (error) {
        setTrouble((error as OfficeError).message);
        router.refresh();
      }
    });
  };
  const wish = (task: string, wanted: number, done: boolean) => {
    if (!planned.plan) return;
    const base = Object.fromEntries(planned.plan.slots.map((s) => [s.task, s.start]));
    const later = wanted > (base[task] ?? 0);
    const wishes = { ...base, [task]: wanted };
    // what is moved later stays no earlier; what is moved earlier only changes the order
    const pinned = [...facts.pinned.filter((p) => p !== task), ...(later ? [task] : [])];
    if (done) {
      setDragged(null);
      save({ ...facts, wishes, pinned });
      return;
    }
    try {
      setDragged(
        arrange(withPromise(facts, promise), wishes, new Set(pinned), {
          crew: facts.crew,
          now: now.now,
          progress: {
            ...Object.fromEntries(
              Object.entries(facts.done).map(([k, d]) => [k, { state: 'done' as const, ...d }]),
            ),
            ...now.progress,
          },
        }),
      );
    } catch (error) {
      if (!(error instanceof VisitError)) throw error;
      setTrouble(error.message);
    }
  };
  const rows = useMemo(
    () => [
      ...facts.tests.map((t) => ({ key: t.id, title: `${t.siteName}: ${t.title}` })),
      { key: '', title: 'Around the tests' },
    ],
    [facts.tests],
  );
  const warns = useMemo(() => disturbances(facts.tests), [facts.tests]);
  const shortest = planned.plan && !byHand ? proofWords(planned.plan) : '';
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
          {/* the order is worked out after the page stands: its place is kept, so that nothing moves under the eyes */}
          {!plan && <p className="mt-2 min-h-8 text-quiet">{planned.trouble ? '' : 'Laying the visit …'}</p>}
          {plan && (
            <p className="mt-2 min-h-8" aria-live="polite">
              On site <span className="figure text-xl">{minutesWords(Math.round(plan.length))}</span>, until{' '}
              <span className="figure">{clockOf(begin, plan.length, facts.zone)}</span>.{' '}
              {byHand ? 'Laid by hand.' : shortest}
              {byHand && props.mayPlan && (
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
          {warns.map((w) => (
            <p key={w} className="mt-2 border-l-4 border-ochre pl-3 text-sm">
              {w}
            </p>
          ))}
          <p role="alert" className="mt-1 text-rust">
            {trouble || planned.trouble}
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
        <VisitSettings facts={facts} may={props.mayPlan} kit={props.kit} onChange={save} />
      )}
    </>
  );
}
const proofWords = (p: VisitPlan): string =>
  p.proved
    ? 'No order is shorter.'
    : `At most ${minutesWords(Math.ceil(p.length - p.bound))} longer than the shortest possible.`;

/** Every hold of the visit has an alarm of its own, before its end and at it. */
function useAlarms(runs: readonly VisitRunLine[], facts: VisitFacts, at: number): void {
  const rung = useRef(new Set<string>());
  useEffect(() => {
    addEventListener('pointerdown', armAlarm, { once: true });
  }, []);
  useEffect(() => {
    for (const r of runs) {
      if (r.ends === null) continue;
      const name = facts.tests.find((t) => t.id === r.test)?.siteName ?? '';
      for (const [mark, ms, words] of [
        ['soon', 60_000, 'a minute to go. Back to the gauge.'],
        ['end', 0, 'the time has run out. Read the gauge.'],
      ] as const) {
        const key = `${r.run}:${r.ends}:${mark}`;
        if (at < r.ends - ms || rung.current.has(key)) continue;
        rung.current.add(key);
        if (at > r.ends - ms + 5000) continue; // long past when the page was opened
        sound(mark === 'end' ? 3 : 1);
        notify(`${name}, ${r.stage}: ${words}`);
      }
    }
  }, [runs, facts.tests, at]);
}
