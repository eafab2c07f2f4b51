'use client';
import { wallCourses } from '@/chart/wall';
import { ruleOfKind } from '@/core/kinds';
import { heldBack, urgentOwed } from '@/core/run/beside';
import type { Payload } from '@/core/run/events';
import { isTransition } from '@/core/run/folds';
import { currentVisit, holdEnds, openJoints, owedWords, runningHold, stageOf } from '@/core/run/read';
import { verdictOf, WORDS } from '@/core/verdict/verdict';
import { armAlarm, keepAwake } from '@/device/alarm';
import type { BenchEngine, BenchView, Contact } from '@/device/bench';
import { startWorker } from '@/device/worker';
import { Wall, WallStrip } from '@/ui/charts/wall';
import { mirrored } from '@/ui/frame/settings';
import { Trouble } from '@/ui/frame/trouble';
import { Button } from '@/ui/kit/button';
import { buttonClass } from '@/ui/kit/button-class';
import { byNeed } from '@/ui/kit/by-need';
import { preparePop } from '@/ui/kit/pop';
import { prepareSignature } from '@/ui/kit/signature-pad';
import { countdown, VERDICT_INK } from '@/ui/kit/words';
import type { Identity } from '@/wire/role';
import { mayRun } from '@/wire/role';
import { OctagonX } from 'lucide-react';
import { lazy, Suspense, useEffect, useMemo, useRef, useState, useSyncExternalStore } from 'react';
import { Companion, useCompanion } from './companion';
import { orphanDraft, settleDraft, watchDraft } from './draft';
import { PANELS } from './panels';
import type { PanelProps } from './shared';
import { SideEntry } from './side';
import type { Side } from './side-entry';
import { isLate, UrgentLine, useUrgentAlarm } from './urgent';
import { useNow, useOpening, useView } from './use-bench';

const CONTACT: Record<Contact, string> = {
  'with-office': '',
  'no-signal': 'No signal: go on, it is sent later',
  'signed-out': 'Signed out: entries wait here until you sign in again',
  'store-away': 'This device’s own store does not answer: close other tabs, free some storage',
  'database-away': 'The office’s records are away: go on, it is sent later',
};
// without its script (no signal, never loaded) the bench goes on without this line
const OtherHolds = lazy(() => import('./other-holds').catch(() => ({ default: () => null })));
// what stands beside the stage, and what is asked for by a tap, comes after the stage itself
const Facts = byNeed(() => import('./panels/beside').then((m) => m.Facts));
const Entries = byNeed(() => import('./panels/beside').then((m) => m.Entries));
function Beside({ view }: { view: BenchView }) {
  return (
    <Suspense fallback={<p aria-live="polite">Opening …</p>}>
      <Facts view={view} />
      <Entries view={view} />
    </Suspense>
  );
}
const NO_RUNS: readonly string[] = [];
const SetAsideLine = byNeed(() => import('./panels/extra').then((m) => m.SetAsideLine));
const Closing = byNeed(() => import('./panels/extra').then((m) => m.Closing));
const SimulatedWorks = byNeed(() => import('./panels/extra').then((m) => m.SimulatedWorks));

/** The live run. Opens from this device first, so that it works without a signal. */
export function Bench({ run }: { run: string }) {
  const opening = useOpening(run);
  if (opening.kind === 'opening')
    return (
      <p className="p-8 text-lg" aria-live="polite">
        Opening the run …
      </p>
    );
  if (opening.kind === 'signed-out')
    return (
      <section className="mx-auto max-w-xl p-8">
        <h1 className="text-2xl font-bold">You are signed out</h1>
        <p className="mt-2">What was entered on this device is kept. Sign in again and the run goes on.</p>
        <a className={buttonClass('act', 'mt-4')} href={`/sign-in?next=/bench/${run}`}>
          Sign in
        </a>
      </section>
    );
  if (opening.kind === 'trouble')
    return <Trouble title="This run cannot be opened" text={opening.text} again={() => location.reload()} />;
  return <OpenBench engine={opening.engine} who={opening.who} />;
}

function OpenBench({ engine, who }: { engine: BenchEngine; who: Identity }) {
  const view = useView(engine);
  const { plan, state } = view;
  const visit = currentVisit(state);
  const verdict = useMemo(() => verdictOf(plan, state), [plan, state]);
  const urgent = useMemo(() => urgentOwed(plan, state, verdict?.use), [plan, state, verdict]);
  const standing = visit && stageOf(plan, visit);
  const withinTime = standing?.kind === 'fill' && standing.within !== undefined;
  const at = useNow(
    runningHold(state) !== null ||
      !!visit?.dial ||
      !!visit?.pumped.length ||
      withinTime ||
      urgent !== null ||
      plan.beside !== undefined,
  );
  useUrgentAlarm(urgent, at, plan.site.name);
  const [message, setMessage] = useState('');
  const [left, setLeft] = useState(false);
  const [facts, setFacts] = useState(false);
  const [side, setSide] = useState<Side | null>(null);
  const [keys, setKeys] = useState(false);
  const main = useRef<HTMLDivElement>(null);
  const heading = useRef<HTMLHeadingElement>(null);
  const shownStage = useRef<string | null>(null);
  useEffect(() => {
    setLeft(mirrored());
    const later = setTimeout(
      () =>
        void Promise.all([
          preparePop(),
          prepareSignature(),
          import('./panels/extra'),
          import('./panels/beside'),
        ]).then(() => startWorker([location.pathname])),
      1200,
    );
    addEventListener('pointerdown', armAlarm, { once: true });
    const sleep = keepAwake();
    return () => {
      clearTimeout(later);
      sleep();
    };
  }, []);
  const stageKey = visit ? `${visit.ordinal}` : state.phase;
  useEffect(() => {
    setMessage('');
    setSide(null);
    main.current?.scrollTo({ top: 0 });
    // the new stage is said to whoever does not see it; what somebody types elsewhere keeps the focus
    if (shownStage.current !== null && !document.activeElement?.matches('input, textarea, select'))
      heading.current?.focus({ preventScroll: true });
    shownStage.current = stageKey;
  }, [stageKey]);
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      const typing = (e.target as HTMLElement).closest('input, textarea, select');
      if (e.key === 'Escape') {
        setKeys(false);
        setSide(null);
      }
      if (typing || e.ctrlKey || e.metaKey || e.altKey) return;
      if (e.key === '?') setKeys((k) => !k);
      if (e.key === 'Enter' && !(e.target as HTMLElement).closest('button, a, summary'))
        document.querySelector<HTMLButtonElement>('[data-primary]:not(:disabled)')?.click();
    };
    addEventListener('keydown', onKey);
    return () => removeEventListener('keydown', onKey);
  }, []);
  // an entry by figures says at its own keypad what was wrong
  const saysItself = visit !== null && PANELS[visit.kind].saysItself === true;
  const other = useCompanion(view, who);
  const waits = heldBack(plan, state, other);
  const act = async (payload: Payload) => {
    const wait = waits[0];
    if (wait && isTransition(payload.kind)) {
      setMessage(saysItself ? '' : wait.text);
      return { accepted: false as const, code: 'waits', text: wait.text };
    }
    const answer = await engine.append(payload);
    setMessage(answer.accepted || saysItself ? '' : answer.text);
    return answer;
  };
  const draft = useSyncExternalStore(watchDraft, orphanDraft, () => null);
  const [seen, setSeen] = useState<readonly string[]>([]);
  const overtaken = view.events.filter(
    (e) =>
      e.by === who.person &&
      e.position !== undefined &&
      !seen.includes(e.id) &&
      state.withoutEffect.some((w) => w.id === e.id && w.code === 'overtaken'),
  );
  const leavesOwed = state.phase === 'put-back';
  useEffect(() => {
    if (!leavesOwed) return;
    // leaving the job with gas off or a screw out: the browser asks first
    const ask = (e: BeforeUnloadEvent) => e.preventDefault();
    addEventListener('beforeunload', ask);
    return () => removeEventListener('beforeunload', ask);
  }, [leavesOwed]);
  const courses = wallCourses(plan, state, at);
  const owed = state.debts.filter((d) => !d.cleared).map((d) => owedWords(plan, d, verdict?.use));
  const stage = visit && stageOf(plan, visit);
  const part = visit && plan.procedure.parts?.find((p) => p.key === stage?.part);
  const title = visit
    ? part && part.title !== visit.title
      ? `${part.title}: ${visit.title}`
      : visit.title
    : { running: '', 'put-back': 'Put back', signing: 'Signatures', signed: 'Seal' }[state.phase];
  const running = runningHold(state);
  const toGo = running ? holdEnds(running) - at : null;
  const pageTitle = `${toGo === null ? '' : toGo > 0 ? `${countdown(toGo)} ` : 'Read it: '}${title}, ${plan.system.name}`;
  useEffect(() => {
    document.title = pageTitle;
  }, [pageTitle]);
  const laid = courses.findIndex((c) => c.state === 'running') + 1 || courses.length;
  const panel: PanelProps | null = visit && stage ? { view, engine, who, visit, stage, at, act } : null;
  const Panel = visit && PANELS[visit.kind].panel;
  const reads = mayRun(who.role);
  const holding = running !== null;
  return (
    <div
      className={`flex h-dvh flex-col ${left ? 'lg:[&_[data-sides]]:[direction:rtl] lg:[&_[data-sides]>*]:[direction:ltr]' : ''}`}
    >
      <header className="flex min-h-14 items-center gap-3 border-b border-seam bg-panel px-3">
        <a
          href="/today"
          className="inline-flex min-h-12 items-center px-2 font-semibold text-lake underline-offset-4 hover:underline"
        >
          Today
        </a>
        <h1 ref={heading} tabIndex={-1} className="min-w-0 flex-1 leading-tight font-normal outline-none">
          <span className="block truncate text-sm text-quiet">
            {visit && (
              <span className="lg:hidden">
                {laid} of {courses.length} ·{' '}
              </span>
            )}
            {plan.site.name}: {plan.system.name}
            {plan.practice && <strong className="text-heather"> · practice, simulated</strong>}
          </span>
          <span className="block truncate text-lg font-semibold">
            {title}
            {visit && (
              <span className="font-normal text-quiet max-lg:hidden">
                , stage {laid} of {courses.length}
              </span>
            )}
          </span>
        </h1>
        <SavedLine view={view} wide />
        {visit && reads && (
          <button
            type="button"
            className="inline-flex min-h-14 min-w-24 items-center justify-center gap-2 border-2 border-rust bg-panel px-4 font-bold text-rust hover:bg-rust hover:text-on-accent"
            onClick={() => void act({ kind: 'stop' })}
          >
            <OctagonX size={20} aria-hidden />
            STOP
          </button>
        )}
      </header>
      <SavedLine view={view} />
      <Companion view={view} other={other} at={at} waits={waits} />
      {urgent && (state.phase !== 'running' || isLate(urgent, at)) && <UrgentLine owed={urgent} at={at} />}
      <Suspense fallback={null}>
        <OtherHolds
          who={who}
          run={plan.run}
          at={at}
          beside={plan.beside?.runs.map((r) => r.run) ?? NO_RUNS}
        />
      </Suspense>
      {view.refused.length > 0 && (
        <Suspense fallback={null}>
          <SetAsideLine view={view} />
        </Suspense>
      )}
      {visit && visit.kind !== 'joints' && openJoints(state).length > 0 && (
        <p className="border-b border-seam bg-panel px-4 py-1.5 text-sm text-ochre">
          To be cleared with leak fluid before the pressure goes:{' '}
          {openJoints(state)
            .map((j) => j.name)
            .join(', ')}{' '}
          (More, Joints).
        </p>
      )}
      {overtaken.length > 0 && (
        <p role="alert" className="flex flex-wrap items-center gap-3 border-b border-seam bg-panel px-4 py-2">
          Somebody else had already ended that step: your entry is kept in the log but did not count.
          <Button className="min-h-12" onClick={() => setSeen([...seen, ...overtaken.map((e) => e.id)])}>
            I have seen it
          </Button>
        </p>
      )}
      {draft && (
        <p role="alert" className="flex flex-wrap items-center gap-3 border-b border-seam bg-panel px-4 py-2">
          <span>
            You were typing{' '}
            <span className="figure">
              {draft.text} {draft.unit}
            </span>{' '}
            when that step ended.
          </span>
          <Button
            className="min-h-12"
            tone="act"
            onClick={() =>
              void act({
                kind: 'note',
                text: `${draft.label}: ${draft.text} ${draft.unit} (typed when the step ended)`,
              }).then((a) => a.accepted && settleDraft())
            }
          >
            Keep it as a note
          </Button>
          <Button className="min-h-12" onClick={settleDraft}>
            Drop it
          </Button>
        </p>
      )}
      <div data-sides className="grid min-h-0 flex-1 grid-cols-[28px_1fr] lg:grid-cols-[184px_1fr_322px]">
        <aside
          className="min-h-0 overflow-y-auto lg:border-r lg:border-seam"
          role="region"
          aria-label="Wall of courses"
          tabIndex={0}
        >
          <div className="h-full lg:hidden">
            <WallStrip courses={courses} />
          </div>
          <div className="flex min-h-full flex-col justify-end p-2 max-lg:hidden">
            <Wall
              courses={courses}
              props={owed}
              openJoint={plan.system.notCovered.length > 0}
              width={168}
              scale={courses.length > 10 ? 2 : 3}
              reach={12}
              stamp={verdict ? { word: WORDS[verdict.word], colour: VERDICT_INK[verdict.word] } : null}
            />
            <p className="mt-1 text-xs text-quiet">
              Plumb shows movement against limit. Open joint at the base: {plan.system.notCovered.length} not
              covered.
            </p>
          </div>
        </aside>
        <main ref={main} className="flex min-h-0 flex-col gap-2 overflow-y-auto p-3 lg:gap-3 lg:px-6">
          {stage && panel && Panel ? (
            reads ? (
              <>
                <div className="flex items-start justify-between gap-4">
                  <p
                    className={`leading-snug ${holding ? 'text-lg max-sm:hidden lg:text-xl' : 'text-lg lg:text-xl'}`}
                  >
                    {stage.instruction}
                  </p>
                  {!side && !ruleOfKind(visit.kind).holds && (
                    <div className="flex shrink-0 gap-3 max-lg:hidden">
                      <Button className="min-h-12" onClick={() => setSide('note')}>
                        Note
                      </Button>
                      <Button className="min-h-12 px-3" onClick={() => setSide('more')}>
                        More
                      </Button>
                    </div>
                  )}
                </div>
                {!holding && (
                  <Cautions key={stageKey} keys={stage.cautions ?? []} texts={plan.procedure.cautions} />
                )}
                <p role="alert" className={`font-semibold text-rust ${message ? '' : 'hidden'}`}>
                  {message}
                </p>
                {side ? (
                  <SideEntry side={side} {...panel} onDone={() => setSide(null)} onSide={setSide} />
                ) : (
                  <Suspense fallback={<p aria-live="polite">Opening …</p>}>
                    <Panel key={stageKey} {...panel} />
                  </Suspense>
                )}
              </>
            ) : (
              <p className="text-lg">
                {title}. The office sees this run as it goes; a tester or apprentice conducts it.
              </p>
            )
          ) : (
            <Suspense fallback={<p aria-live="polite">Opening …</p>}>
              <Closing view={view} engine={engine} who={who} act={act} />
            </Suspense>
          )}
          <div className="lg:hidden">
            {plan.practice && state.phase === 'running' && (
              <Suspense fallback={null}>
                <SimulatedWorks plan={plan} />
              </Suspense>
            )}
            {stage && !side && !ruleOfKind(visit.kind).holds && (
              <div className="grid grid-cols-2 gap-3">
                <Button className="min-h-14" onClick={() => setSide('note')}>
                  Note
                </Button>
                <Button className="min-h-14" onClick={() => setSide('more')}>
                  More
                </Button>
              </div>
            )}
            <Button className="mt-3 w-full" aria-expanded={facts} onClick={() => setFacts(!facts)}>
              {facts ? 'Hide' : 'Show'} gauge, limits and put-back list
            </Button>
            {facts && (
              <div className="mt-3">
                <Beside view={view} />
              </div>
            )}
          </div>
          {keys && <KeyList />}
        </main>
        <aside
          className="min-h-0 overflow-y-auto border-l border-seam bg-panel p-4 max-lg:hidden"
          role="region"
          aria-label="Facts"
          tabIndex={0}
        >
          {plan.practice && state.phase === 'running' && (
            <div className="mb-4">
              <Suspense fallback={null}>
                <SimulatedWorks plan={plan} />
              </Suspense>
            </div>
          )}
          <Beside view={view} />
        </aside>
      </div>
    </div>
  );
}

/** Where the entries are: on this device, and with the office. */
function SavedLine({ view, wide = false }: { view: BenchView; wide?: boolean }) {
  const away = CONTACT[view.contact];
  const photos = view.photosWaiting
    ? `; ${view.photosWaiting} photo${view.photosWaiting === 1 ? '' : 's'} still here`
    : '';
  const text = `saved here ${view.here}, with the office ${view.here - view.waiting}${photos}`;
  return (
    <p
      className={`text-sm ${wide ? 'text-right max-lg:hidden' : 'border-b border-seam px-3 py-1 lg:hidden'} ${away ? 'text-ochre' : 'text-quiet'}`}
      data-here={view.here}
      data-office={view.here - view.waiting}
      aria-live="polite"
    >
      {text}
      {away && (
        <span className={wide ? 'block' : ''}>
          {wide ? '' : '. '}
          {away}
        </span>
      )}
    </p>
  );
}

/** Cautions that this person has read on this page, so that they fold to one line where they stand again. */
const read = new Set<string>();
/** Cautions stand before the step, in words; once read they fold to one line that opens again. */
function Cautions({ keys, texts }: { keys: readonly string[]; texts: Readonly<Record<string, string>> }) {
  const all = keys.join(' ');
  const [open, setOpen] = useState(() => !keys.every((k) => read.has(k)));
  if (!keys.length) return null;
  const fold = () => {
    for (const k of keys) read.add(k);
    setOpen(!open);
  };
  return (
    <div className="flex items-start gap-3 border-l-4 border-ochre pl-3" key={all}>
      {open ? (
        <ul className="grid min-w-0 flex-1 gap-1 text-base leading-snug" aria-label="Cautions">
          {keys.map((k) => (
            <li key={k}>{texts[k]}</li>
          ))}
        </ul>
      ) : (
        <p className="min-w-0 flex-1 truncate text-base">{keys.map((k) => texts[k]).join(' ')}</p>
      )}
      <button
        type="button"
        className="min-h-11 shrink-0 px-2 font-semibold text-lake underline-offset-4 hover:underline"
        aria-expanded={open}
        onClick={fold}
      >
        {open ? 'Read' : 'Cautions'}
      </button>
    </div>
  );
}

function KeyList() {
  const keys = [
    ['Enter', 'the main action'],
    ['R', 'reading'],
    ['T', 'top-up or re-adjusted'],
    ['D', 'disturbance'],
    ['N', 'note'],
    ['Esc', 'back'],
    ['?', 'this list'],
  ];
  return (
    <dl className="grid grid-cols-[4rem_1fr] gap-1 border border-ink bg-panel p-4" aria-label="Keys">
      {keys.map(([k, w]) => (
        <div key={k} className="contents">
          <dt className="figure">{k}</dt>
          <dd>{w}</dd>
        </div>
      ))}
    </dl>
  );
}
