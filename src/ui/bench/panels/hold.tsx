'use client';
import { known } from '@/core/formula';
import type { Gauge } from '@/core/instrument/gauge';
import { breaks, type Exact, magnitude, subtract } from '@/core/quantity/exact';
import { unitLabel } from '@/core/quantity/unit';
import { roleOf } from '@/core/roles';
import { elapsedBetween } from '@/core/run/clock';
import { holdLimits } from '@/core/run/hold-limits';
import { heldAfter, holdSpec, steadyWindow } from '@/core/run/hold-spec';
import { gaugeOf, holdEnds, runningHold } from '@/core/run/read';
import type { Hold } from '@/core/run/state';
import { beyondWarmth, unheldWays } from '@/core/run/unheld';
import { aloneIn } from '@/core/verdict/correction';
import { now } from '@/device/clock';
import { pointNow } from '@/device/point';
import { holdRequest } from '@/core/analysis/of-hold';
import { holdTrace } from '@/chart/run-trace';
import { MeaningLine } from '@/ui/analysis/meaning-card';
import { useMeaning } from '@/ui/analysis/use-meaning';
import { TraceChart } from '@/ui/charts/trace';
import { useSize } from '@/ui/kit/use-size';
import { useMemo, useState } from 'react';
import { BandStrip } from '../band-strip';
import { fresh } from '../keypad';
import { LiveFacts } from '../live-facts';
import type { PanelProps } from '../shared';
import { SideEntry } from '../side';
import type { Side } from '../side-entry';
import { HoldActions } from './hold-actions';
import { HoldAsks, stepIn } from './hold-asks';
import { endHold, HoldEnd } from './hold-end';
import { Across, HoldFigures } from './hold-figures';
import { HoldStart } from './hold-start';
import { ChangeWords } from './hold-words';
import { lastSeen, type Seen } from './last-seen';
import { explainedLeft, WillNotStand } from './unheld';
import { useHoldAlarm } from './use-hold-alarm';
import { WhileItWaits } from './while-it-waits';
import { useIdle } from './use-idle';

const IDLE_MS = 20_000;
type Spec = NonNullable<ReturnType<typeof holdSpec>>;

/** A timed hold: start reading, countdown with band and limit always in sight, end reading. */
export function HoldPanel(given: PanelProps) {
  const { plan, state } = given.view;
  const gauge = gaugeOf(plan, state);
  const hold = runningHold(state);
  // the need is worked out anew only when an entry changes something, not with every tick of the clock
  const found = useMemo(() => known(() => holdSpec(plan, state)), [plan, state]);
  const [side, setSide] = useState<Side | null>(null);
  if (!gauge) return <p role="alert">Choose and zero the gauge first.</p>;
  if ('missing' in found)
    return (
      <p role="alert" className="border-l-4 border-ochre pl-3 text-lg">
        {found.missing}
      </p>
    );
  const own = { gauge, spec: found.value!, side, onSide: setSide };
  return hold ? <Running {...given} {...own} hold={hold} /> : <HoldStart {...given} {...own} />;
}

/** What is worked out when an entry or a batch of the stream changes something, not with every tick of the clock. */
function useSeldom({ view, visit, stage }: PanelProps, hold: Hold, gauge: Gauge) {
  const { plan, state } = view;
  return useMemo(
    () => ({
      step: stepIn(plan, state, visit, hold, gauge, stage),
      alone: aloneIn(plan, state, stage.part),
      asked: holdRequest(
        plan,
        state,
        visit,
        hold,
        gauge,
        stage.part,
        hold.role === 'settle' ? undefined : holdLimits(plan, state, stage, gauge, hold),
      ),
      windowMs:
        stage.kind === 'hold' && hold.role === 'settle'
          ? steadyWindow(heldAfter(plan, state, stage, hold.minutes))
          : 60_000,
    }),
    [plan, state, visit, hold, gauge, stage],
  );
}

/** A gauge that sends ends the hold with one press; what is refused is read and typed. Null: it does not send now. */
const onePress = (props: PanelProps, shown: Seen, type: () => void): (() => void) | null =>
  shown.live && fresh(props.view.live)
    ? () =>
        void endHold(props, { figure: shown.figure, readAt: now(), same: false, streamed: true }).then(
          (wrong) => wrong && type(),
        )
    : null;
/** It moves so that nobody need wait for the end: it may be said now. */
function mayBeSaid(
  props: PanelProps,
  hold: Hold,
  figure: Exact,
  { fall, rise }: ReturnType<typeof holdLimits>,
): boolean {
  const { stage, at } = props;
  const { plan, state } = props.view;
  if (!unheldWays(state, stage).length) return false;
  const change = subtract(figure, hold.start.figure);
  if (hold.role === 'settle') return true;
  if (roleOf(hold.role).comesBack) return change.digits > 0 && breaks(change, rise);
  const warmth = stage.kind === 'hold' && stage.judge && !beyondWarmth(plan, stage, hold, figure);
  return (
    !warmth && change.digits < 0 && breaks(magnitude(change), fall) && explainedLeft(props, hold, at) === 0
  );
}

function Running({
  gauge,
  spec,
  hold,
  side,
  onSide,
  ...given
}: PanelProps & {
  gauge: Gauge;
  spec: Spec;
  hold: Hold;
  side: Side | null;
  onSide: (side: Side | null) => void;
}) {
  const { plan, state } = given.view;
  const { visit, stage } = given;
  // a hold is counted as it will be judged: a clock that jumps neither ends nor stalls it
  const at = hold.startedAt + elapsedBetween(hold.startClock, pointNow()).ms;
  const props = { ...given, at };
  const [ending, setEnding] = useState(false);
  const [unheld, setUnheld] = useState(false);
  const [setEl, { width, height }] = useSize();
  const left = holdEnds(hold) - at;
  const over = left <= 0;
  useHoldAlarm(hold, left, visit.title);
  const idle = useIdle(!side && !ending && !unheld, IDLE_MS);
  const { step, alone, windowMs, asked } = useSeldom(given, hold, gauge);
  const meaning = useMeaning(asked);
  const request = useMemo(
    () => (width > 0 ? holdTrace(plan, state, visit, hold, at, meaning) : null),
    [plan, state, visit, hold, at, width, meaning],
  );
  const limits = holdLimits(plan, state, stage, gauge, hold);
  const level = gauge.kind === 'level';
  const read = level ? 'Read the level' : 'Read the gauge';
  const shown = lastSeen(props, hold.start);
  const change = subtract(shown.figure, hold.start.figure);
  const falls = mayBeSaid(props, hold, shown.figure, limits);
  const take = onePress(props, shown, () => setEnding(true));
  if (unheld) return <WillNotStand {...props} gauge={gauge} onBack={() => setUnheld(false)} />;
  if (ending)
    return (
      <HoldEnd
        {...props}
        gauge={gauge}
        hold={hold}
        shown={shown.figure}
        over={over}
        onBack={() => setEnding(false)}
        onSide={(next) => {
          setEnding(false);
          onSide(next);
        }}
      />
    );
  const figures = { plan, shown, start: hold.start.figure, left, over, side: side !== null, level, read };
  return (
    <div
      className={`flex flex-1 flex-col lg:min-h-0 gap-2 ${over ? 'hold-ended' : ''}`}
      data-hold={over ? 'over' : 'running'}
      data-minutes={hold.minutes}
    >
      <HoldFigures {...figures} />
      <ChangeWords
        {...props}
        hold={hold}
        limits={limits}
        spec={spec}
        change={change}
        className={side ? 'max-sm:hidden' : ''}
      />
      {!side && (
        <LiveFacts
          visit={visit}
          hold={hold}
          gauge={gauge}
          at={at}
          perceptible={limits.rise}
          alone={alone}
          windowMs={windowMs}
          meaning={meaning}
        />
      )}
      {!side && meaning?.enough && meaning.causes[0]!.cause !== 'steady' && <MeaningLine meaning={meaning} />}
      {roleOf(hold.role).drawn && !(stage.kind === 'hold' && stage.judge) && !(side && side !== 'more') && (
        <BandStrip start={hold.start.figure} now={shown.figure} fall={limits.fall} rise={limits.rise} />
      )}
      {!side && <HoldAsks {...props} hold={hold} gauge={gauge} step={step} onSide={onSide} />}
      {side ? (
        <div className="lg:min-h-0 lg:flex-1 lg:overflow-auto">
          <SideEntry side={side} {...props} onDone={() => onSide(null)} onSide={onSide} />
        </div>
      ) : (
        <>
          <div ref={setEl} className="relative min-h-[120px] flex-1 overflow-hidden">
            {request && (
              <div className="absolute inset-0">
                <TraceChart
                  request={{ ...request, width, height: Math.max(118, height) }}
                  unit={unitLabel(gauge.resolution.unit)}
                  title={visit.title}
                />
              </div>
            )}
          </div>
          {!over && <WhileItWaits {...props} onSide={onSide} />}
          <HoldActions
            {...props}
            hold={hold}
            shown={shown.figure}
            over={over}
            left={left}
            falls={falls}
            read={read}
            onSide={onSide}
            onEnd={() => setEnding(true)}
            onTake={take}
            onUnheld={() => setUnheld(true)}
          />
        </>
      )}
      {idle && !over && <Across left={left} shown={shown.figure} title={visit.title} />}
    </div>
  );
}
