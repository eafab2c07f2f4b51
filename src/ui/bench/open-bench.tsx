'use client';
import { type Course } from '@/chart/courses';
import { wallCourses } from '@/chart/wall';
import { heldBack, urgentOwed } from '@/core/run/beside';
import type { Payload } from '@/core/run/events';
import { isTransition } from '@/core/run/folds';
import { currentVisit, holdEnds, owedWords, runningHold, stageOf, unitsJudgedIn } from '@/core/run/read';
import { type Verdict, verdictOf, WORDS } from '@/core/verdict/verdict';
import { armAlarm, keepAwake } from '@/device/alarm';
import { recallAhead } from '@/device/clock';
import { useWide } from '@/ui/kit/use-wide';
import type { BenchEngine, BenchView, Next } from '@/device/bench';
import { startWorker } from '@/device/worker';
import { Wall, WallStrip } from '@/ui/charts/wall';
import { BothUnits } from '@/ui/frame/lens';
import { mirrored } from '@/ui/frame/settings';
import { Trouble } from '@/ui/frame/trouble';
import { buttonClass } from '@/ui/kit/button-class';
import { byNeed } from '@/ui/kit/by-need';
import { preparePop } from '@/ui/kit/pop';
import { prepareSignature } from '@/ui/kit/signature-pad';
import { countdown, VERDICT_INK } from '@/ui/kit/words';
import type { Identity } from '@/wire/role';
import { may } from '@/wire/role';
import { OctagonX } from 'lucide-react';
import {
  lazy,
  type ReactNode,
  type RefObject,
  Suspense,
  useCallback,
  useEffect,
  useMemo,
  useRef,
  useState,
} from 'react';
import { Companion, useCompanion } from './companion';
import { KeyList, useKeys } from './key-list';
import { GaugeRefused, OpenJoints, OrphanDraft, Overtaken } from './lines';
import { Opening } from './opening';
import { PANELS } from './panels';
import { SavedLine } from './saved-line';
import type { PanelProps } from './shared';
import type { Side } from './side-entry';
import { Below, Beside, Practice, StagePane } from './stage-pane';
import { Undo } from './undo';
import { isLate, UrgentLine, useUrgentAlarm } from './urgent';
import { useNow, useOpening, useView } from './use-bench';

// without its script (no signal, never loaded) the bench goes on without this line
const OtherHolds = lazy(() => import('./other-holds').catch(() => ({ default: () => null })));
const NO_RUNS: readonly string[] = [];
const SetAsideLine = byNeed(() => import('./panels/extra').then((m) => m.SetAsideLine));

/** The run, once this device or the office gave it. */
export function BenchRoom({ run }: { run: string }) {
  useEffect(() => recallAhead(run), [run]);
  const opening = useOpening(run);
  if (opening.kind === 'opening') return <Opening />;
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
/** What the bench does while it stands open: alarm armed, screen awake, and what opens without a signal fetched. */
function useStanding(): void {
  useEffect(() => {
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
}
/** With gas off or a screw out the browser asks before the page is left. */
function useLeaving(owed: boolean): void {
  useEffect(() => {
    if (!owed) return;
    const ask = (e: BeforeUnloadEvent) => e.preventDefault();
    addEventListener('beforeunload', ask);
    return () => removeEventListener('beforeunload', ask);
  }, [owed]);
}
/** What is left of a hold stands in the tab. @param toGo ms */
function usePageTitle(toGo: number | null, title: string): void {
  const whole = `${toGo === null ? '' : toGo > 0 ? `${countdown(toGo)} ` : 'Read it: '}${title}`;
  useEffect(() => {
    document.title = whole;
  }, [whole]);
}
/** At a new stage: its top in sight, and said to whoever does not see it; what somebody types elsewhere keeps the focus. */
function useNewStage(stageKey: string, heading: RefObject<HTMLElement | null>, onNew: () => void): void {
  const shown = useRef<string | null>(null);
  useEffect(() => {
    onNew();
    if (shown.current !== null && !document.activeElement?.matches('input, textarea, select'))
      heading.current?.focus({ preventScroll: true });
    shown.current = stageKey;
  }, [stageKey, heading, onNew]);
}

function OpenBench({ engine, who }: { engine: BenchEngine; who: Identity }) {
  const view = useView(engine);
  const { plan, state } = view;
  const visit = currentVisit(state);
  const verdict = useMemo(() => verdictOf(plan, state), [plan, state]);
  const urgent = useMemo(() => urgentOwed(plan, state, verdict?.use), [plan, state, verdict]);
  const stage = visit && stageOf(plan, visit);
  const withinTime = stage?.kind === 'fill' && stage.within !== undefined;
  const running = runningHold(state);
  const at = useNow(
    running !== null ||
      !!visit?.dial ||
      !!visit?.pumped.length ||
      withinTime ||
      urgent !== null ||
      plan.beside !== undefined,
  );
  useUrgentAlarm(urgent, at, plan.site.name);
  useStanding();
  useLeaving(state.phase === 'put-back');
  const wide = useWide();
  const [message, setMessage] = useState('');
  const [left, setLeft] = useState(false);
  useEffect(() => setLeft(mirrored()), []);
  const [side, setSide] = useState<Side | null>(null);
  const main = useRef<HTMLDivElement>(null);
  const heading = useRef<HTMLHeadingElement>(null);
  const stageKey = visit ? `${visit.ordinal}` : state.phase;
  const onNew = useCallback(() => {
    setMessage('');
    setSide(null);
    main.current?.scrollTo({ top: 0 });
  }, []);
  useNewStage(stageKey, heading, onNew);
  const keys = useKeys(useCallback(() => setSide(null), []));
  // an entry by figures says at its own keypad what was wrong
  const saysItself = visit !== null && PANELS[visit.kind].saysItself === true;
  const other = useCompanion(view, who);
  const waits = heldBack(plan, state, other);
  const [last, setLast] = useState<string | null>(null);
  const act = async (payload: Payload, next?: Next) => {
    const wait = waits[0];
    if (wait && isTransition(payload.kind)) {
      setMessage(saysItself ? '' : wait.text);
      return { accepted: false as const, code: 'waits', text: wait.text };
    }
    const answer = await engine.append(payload, next);
    setMessage(answer.accepted || saysItself ? '' : answer.text);
    if (answer.accepted && payload.kind !== 'undo') setLast(answer.id);
    return answer;
  };
  const courses = wallCourses(plan, state, at);
  const part = plan.procedure.parts?.find((p) => p.key === stage?.part);
  const title = visit
    ? part && part.title !== visit.title
      ? `${part.title}: ${visit.title}`
      : visit.title
    : { running: '', 'put-back': 'Put back', signing: 'Signatures', signed: 'Seal' }[state.phase];
  usePageTitle(running ? holdEnds(running) - at : null, `${title}, ${plan.system.name}`);
  const undo = <Undo wide={wide} view={view} id={last} act={act} onOver={() => setLast(null)} />;
  const panel: PanelProps | null = visit && stage ? { view, engine, who, visit, stage, at, act } : null;
  return (
    <div
      data-judged-in={unitsJudgedIn(plan, state).join(' ')}
      className={`flex h-dvh flex-col ${left ? 'lg:[&_[data-sides]]:[direction:rtl] lg:[&_[data-sides]>*]:[direction:ltr]' : ''}`}
    >
      <Header
        view={view}
        courses={courses}
        title={title}
        heading={heading}
        stop={visit && may(who.role, 'run') ? () => void act({ kind: 'stop' }) : null}
      >
        {wide && undo}
      </Header>
      <div className="relative">
        <SavedLine view={view} />
        {!wide && undo}
      </div>
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
      <GaugeRefused text={view.gaugeRefused} />
      {visit && visit.kind !== 'joints' && <OpenJoints view={view} />}
      <Overtaken view={view} who={who} />
      <OrphanDraft act={act} />
      <div data-sides className="grid min-h-0 flex-1 grid-cols-[28px_1fr] lg:grid-cols-[184px_1fr_322px]">
        <WallSide view={view} courses={courses} verdict={verdict} />
        <main ref={main} className="flex min-h-0 flex-col gap-2 overflow-y-auto p-3 lg:gap-3 lg:px-6">
          <StagePane
            panel={panel}
            view={view}
            engine={engine}
            who={who}
            act={act}
            message={message}
            stageKey={stageKey}
            title={title}
            side={side}
            onSide={setSide}
          />
          <Below view={view} wide={wide} kind={side ? null : (visit?.kind ?? null)} onSide={setSide} />
          {keys && <KeyList />}
        </main>
        <FactsSide view={view} wide={wide} />
      </div>
    </div>
  );
}

/** Facts at the side of a wide screen, and practice with them. */
const FactsSide = ({ view, wide }: { view: BenchView; wide: boolean }) => (
  <aside
    className="min-h-0 overflow-y-auto border-l border-seam bg-panel p-4 max-lg:hidden"
    role="region"
    aria-label="Facts"
    tabIndex={0}
  >
    {wide && <BothUnits className="mb-3 w-full" />}
    {wide && view.plan.practice && (
      <div className="mb-4">
        <Practice view={view} />
      </div>
    )}
    <Beside view={view} />
  </aside>
);

/** Where one is, and STOP at the far end. */
function Header({
  view,
  courses,
  title,
  heading,
  stop,
  children,
}: {
  view: BenchView;
  courses: readonly Course[];
  title: string;
  children: ReactNode;
  heading: RefObject<HTMLHeadingElement | null>;
  stop: (() => void) | null;
}) {
  const { plan, state } = view;
  const laid = courses.findIndex((c) => c.state === 'running') + 1 || courses.length;
  const visiting = currentVisit(state) !== null;
  return (
    <header className="relative flex min-h-14 items-center gap-3 border-b border-seam bg-panel px-3">
      <a
        href="/today"
        className="inline-flex min-h-12 items-center px-2 font-semibold text-lake underline-offset-4 hover:underline"
      >
        Today
      </a>
      <h1 ref={heading} tabIndex={-1} className="min-w-0 flex-1 leading-tight font-normal outline-none">
        <span className="block truncate text-sm text-quiet">
          {visiting && (
            <span className="lg:hidden">
              {laid} of {courses.length} ·{' '}
            </span>
          )}
          {plan.site.name}: {plan.system.name}
          {plan.practice && <strong className="text-heather"> · practice, simulated</strong>}
        </span>
        <span className="block truncate text-lg font-semibold">
          {title}
          {visiting && (
            <span className="font-normal text-quiet max-lg:hidden">
              , stage {laid} of {courses.length}
            </span>
          )}
        </span>
      </h1>
      {children}
      <SavedLine view={view} wide />
      {stop && (
        <button
          type="button"
          className="inline-flex min-h-14 min-w-24 items-center justify-center gap-2 border-2 border-rust bg-panel px-4 font-bold text-rust hover:bg-rust hover:text-on-accent"
          onClick={stop}
        >
          <OctagonX size={20} aria-hidden />
          STOP
        </button>
      )}
    </header>
  );
}

/** The wall at the side: a strip on the phone. */
function WallSide({
  view: { plan, state },
  courses,
  verdict,
}: {
  view: BenchView;
  courses: readonly Course[];
  verdict: Verdict | null;
}) {
  const owed = state.debts.filter((d) => !d.cleared).map((d) => owedWords(plan, d, verdict?.use));
  return (
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
  );
}
