import { inQuestion } from '@/core/analysis/in-question';
import { ruleOfKind } from '@/core/kinds';
import { closedNow } from '@/core/run/isolations';
import { runningHold } from '@/core/run/read';
import type { BenchView } from '@/device/bench';
import { BothUnits } from '@/ui/frame/lens';
import { Button } from '@/ui/kit/button';
import { byNeed } from '@/ui/kit/by-need';
import { may } from '@/wire/role';
import { Suspense, useState } from 'react';
import { Cautions } from './cautions';
import { PANELS } from './panels';
import type { PanelProps } from './shared';
import { SideEntry } from './side';
import type { Side } from './side-entry';

// what stands beside the stage, and what is asked for by a tap, comes after the stage itself
const Facts = byNeed(() => import('./panels/beside').then((m) => m.Facts));
const Entries = byNeed(() => import('./panels/beside').then((m) => m.Entries));
const Closing = byNeed(() => import('./panels/extra').then((m) => m.Closing));
const WhatCouldItBe = byNeed(() => import('@/ui/analysis/what-could-it-be').then((m) => m.WhatCouldItBe));
const Apart = byNeed(() => import('@/ui/analysis/valve-and-leak').then((m) => m.Apart));
export const YardPane = byNeed(() => import('./panels/extra').then((m) => m.YardPane));
export const SimulatedWorks = byNeed(() => import('./panels/extra').then((m) => m.SimulatedWorks));
const COMING = <p aria-live="polite">Opening …</p>;

/** Gauge, limits and put-back list, and the entries of the run. */
export function Beside({ view }: { view: BenchView }) {
  return (
    <Suspense fallback={COMING}>
      <Facts view={view} />
      <Entries view={view} />
    </Suspense>
  );
}

/** The second of the two slopes has just been held. */
function toldApart({ state }: BenchView): boolean {
  const before = state.visits[state.visits.length - 2];
  return before?.holds.some((h) => h.role === 'slopes' && h.judgement) ?? false;
}
interface Pane extends Pick<PanelProps, 'view' | 'engine' | 'who' | 'act'> {
  /** Null: no stage stands any more. */
  readonly panel: PanelProps | null;
  /** What the last entry was refused with. */
  readonly message: string;
  readonly stageKey: string;
  readonly title: string;
  readonly side: Side | null;
  readonly onSide: (side: Side | null) => void;
}
/** The stage that stands, an entry beside it, or what closes the run. */
export function StagePane({ panel, view, engine, who, act, message, stageKey, title, side, onSide }: Pane) {
  if (!panel)
    return (
      <Suspense fallback={COMING}>
        <Closing view={view} engine={engine} who={who} act={act} />
      </Suspense>
    );
  if (!may(who.role, 'run'))
    return (
      <p className="text-lg">
        {title}. The office sees this run as it goes; a tester or apprentice conducts it.
      </p>
    );
  const { stage, visit } = panel;
  const { panel: Panel } = PANELS[visit.kind];
  const holding = runningHold(view.state) !== null;
  // while something is closed for the search nothing else can be held
  const searching = closedNow(view.state).length > 0;
  const beside = searching ? 'search' : side;
  return (
    <>
      <div className="flex items-start justify-between gap-4">
        <p className={`leading-snug ${holding ? 'text-lg max-sm:hidden lg:text-xl' : 'text-lg lg:text-xl'}`}>
          {beside === 'search' ? 'A part of the section by itself; the test waits.' : stage.instruction}
        </p>
        {!beside && !ruleOfKind(visit.kind).holds && (
          <div className="flex shrink-0 gap-3 max-lg:hidden">
            <Button className="min-h-12" onClick={() => onSide('note')}>
              Note
            </Button>
            <Button className="min-h-12 px-3" onClick={() => onSide('more')}>
              More
            </Button>
          </div>
        )}
      </div>
      {!holding && (
        <Cautions key={stageKey} keys={stage.cautions ?? []} texts={view.plan.procedure.cautions} />
      )}
      <p role="alert" className={`font-semibold text-rust ${message ? '' : 'hidden'}`}>
        {message}
      </p>
      {beside ? (
        <SideEntry side={beside} {...panel} onDone={() => onSide(null)} onSide={onSide} />
      ) : (
        <>
          {inQuestion(view.plan, view.state) && (
            <Suspense fallback={null}>
              <WhatCouldItBe view={view} onSearch={() => onSide('search')} />
            </Suspense>
          )}
          {toldApart(view) && (
            <Suspense fallback={null}>
              <Apart view={view} />
            </Suspense>
          )}
          <Suspense fallback={COMING}>
            <Panel key={stageKey} {...panel} />
          </Suspense>
        </>
      )}
    </>
  );
}

/** What only practice has: what comes in between, and the installation that is worked by hand. */
export const Practice = ({ view: { plan, state } }: { view: BenchView }) =>
  plan.practice ? (
    <div className="grid grid-cols-[minmax(0,1fr)] gap-4">
      <Suspense fallback={null}>
        <YardPane plan={plan} ended={state.ending !== null} fresh={state.events === 0} />
        {state.phase === 'running' && <SimulatedWorks plan={plan} />}
      </Suspense>
    </div>
  ) : null;

/** On the phone beneath the stage: works of a simulated section, note and more, and the facts by a tap. */
export function Below({
  view,
  kind,
  wide,
  onSide,
}: {
  view: BenchView;
  /** The facts stand beside, and practice with them. */ wide: boolean;
  kind: PanelProps['visit']['kind'] | null;
  onSide: (side: Side) => void;
}) {
  const [facts, setFacts] = useState(false);
  return (
    <div className="lg:hidden">
      {!wide && <Practice view={view} />}
      {kind && !ruleOfKind(kind).holds && (
        <div className="grid grid-cols-2 gap-3">
          <Button className="min-h-14" onClick={() => onSide('note')}>
            Note
          </Button>
          <Button className="min-h-14" onClick={() => onSide('more')}>
            More
          </Button>
        </div>
      )}
      <div className="mt-3 grid grid-cols-[1fr_auto] gap-3">
        <Button aria-expanded={facts} onClick={() => setFacts(!facts)}>
          {facts ? 'Hide' : 'Show'} gauge, limits and put-back list
        </Button>
        <BothUnits className="w-24" />
      </div>
      {facts && (
        <div className="mt-3">
          <Beside view={view} />
        </div>
      )}
    </div>
  );
}
