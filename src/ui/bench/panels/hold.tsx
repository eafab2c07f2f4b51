'use client';
import { holdTrace } from '@/chart/run-trace';
import { suddenStep } from '@/core/analysis/live';
import { known } from '@/core/formula';
import type { Gauge } from '@/core/instrument/gauge';
import type { HoldStage, Stage } from '@/core/kinds';
import { acceptOf } from '@/core/plan/limits';
import { type Plan } from '@/core/plan/plan';
import {
  breaks,
  exact,
  type Exact,
  formatExact,
  type Limit,
  magnitude,
  showChange,
  showExact,
  subtract,
  toNumber,
} from '@/core/quantity/exact';
import { unitLabel } from '@/core/quantity/unit';
import { roleOf } from '@/core/roles';
import { makeUpDecided } from '@/core/roles/make-up/judge';
import { barometerNeeded } from '@/core/run/barometer';
import { elapsedBetween } from '@/core/run/clock';
import { holdLimits } from '@/core/run/hold-limits';
import { heldAfter, holdSpec, steadyWindow } from '@/core/run/hold-spec';
import { contextOf, gaugeOf, holdEnds, runningHold, temperatureNeeded } from '@/core/run/read';
import type { Hold, RunState, Visit } from '@/core/run/state';
import { unheldWays } from '@/core/run/unheld';
import { madeUp, makeUpLimit } from '@/core/run/water-limits';
import { aloneIn } from '@/core/verdict/correction';
import { notify, sound } from '@/device/alarm';
import { pointNow } from '@/device/point';
import { TraceChart } from '@/ui/charts/trace';
import { Button } from '@/ui/kit/button';
import { useSize } from '@/ui/kit/use-size';
import { Why } from '@/ui/kit/why';
import { clockTime, countdown } from '@/ui/kit/words';
import { lazy, useEffect, useMemo, useRef, useState } from 'react';
import { BandStrip } from '../band-strip';
import { LiveFacts, samplesOf } from '../live-facts';
import type { PanelProps } from '../shared';
import { SideEntry } from '../side';
import type { Side } from '../side-entry';
import { HoldEnd } from './hold-end';
import { HoldStart } from './hold-start';
import { Keys } from './keys';
import { explainedLeft, WillNotStand } from './unheld';
import { useIdle } from './use-idle';

const SecondPlace = lazy(() => import('./extra').then((m) => ({ default: m.SecondPlace })));

const IDLE_MS = 20_000;

/** A sudden step in a judged hold: offered as a disturbance. */
const stepIn = (plan: Plan, state: RunState, visit: Visit, hold: Hold, gauge: Gauge, stage: Stage) =>
  roleOf(hold.role).steps
    ? suddenStep(
        samplesOf(visit, hold, gauge),
        toNumber(holdLimits(plan, state, stage, gauge, hold).rise.value),
      )
    : null;
/** A timed hold: start reading, countdown with band and limit always in sight, end reading. */
export function HoldPanel(given: PanelProps) {
  const { view, visit } = given;
  const { plan, state } = view;
  const gauge = gaugeOf(plan, state);
  const hold = runningHold(state);
  // a hold is counted as it will be judged: a clock that jumps neither ends nor stalls it
  const at = hold ? hold.startedAt + elapsedBetween(hold.startClock, pointNow()).ms : given.at;
  const props = { ...given, at };
  // the need is worked out anew only when an entry changes something, not with every tick of the clock
  const found = useMemo(() => known(() => holdSpec(plan, state)), [plan, state]);
  const [side, setSide] = useState<Side | null>(null);
  const [ending, setEnding] = useState(false);
  const [unheld, setUnheld] = useState(false);
  const [setEl, { width, height }] = useSize();
  const over = hold !== null && at >= holdEnds(hold);
  const alarmed = useRef('');
  const left = hold ? holdEnds(hold) - at : 0;
  const soon = left < 15_000;
  useEffect(() => {
    if (!hold) return;
    const mark = `${hold.start.id}:${over ? 'end' : soon && hold.minutes >= 1 ? 'soon' : ''}`;
    if (mark === alarmed.current || mark.endsWith(':')) return;
    alarmed.current = mark;
    if (over) {
      sound(3);
      notify(`${visit.title}: the time has run out. Read the gauge.`);
    } else {
      sound(1);
      notify(`${visit.title}: 15 s to go. Back to the gauge.`);
    }
  }, [hold, over, soon, visit.title]);

  const idle = useIdle(hold !== null && !side && !ending && !unheld, IDLE_MS);
  const request = useMemo(
    () => (hold && width > 0 ? holdTrace(plan, state, visit, hold, at) : null),
    [plan, state, visit, hold, at, width],
  );
  // both are worked out when an entry or a batch of the stream changes something, not with every tick of the clock
  const { step, alone, windowMs } = useMemo(
    () =>
      hold && gauge
        ? {
            step: stepIn(plan, state, visit, hold, gauge, given.stage),
            alone: aloneIn(plan, state, given.stage.part),
            windowMs:
              given.stage.kind === 'hold' && hold.role === 'settle'
                ? steadyWindow(heldAfter(plan, state, given.stage, hold.minutes))
                : 60_000,
          }
        : { step: null, alone: null, windowMs: 60_000 },
    [plan, state, visit, hold, gauge, given.stage],
  );
  if (!gauge) return <p role="alert">Choose and zero the gauge first.</p>;
  if ('missing' in found)
    return (
      <p role="alert" className="border-l-4 border-ochre pl-3 text-lg">
        {found.missing}
      </p>
    );
  const spec = found.value!;
  const unit = unitLabel(gauge.resolution.unit);

  if (!hold) return <HoldStart {...props} gauge={gauge} spec={spec} side={side} onSide={setSide} />;

  const limits = holdLimits(plan, state, props.stage, gauge, hold);
  const level = gauge.kind === 'level';
  const read = level ? 'Read the level' : 'Read the gauge';
  const shown = lastSeen(props, hold.start);
  const change = subtract(shown.figure, hold.start.figure);
  const ways = unheldWays(state, props.stage);
  const falls =
    ways.length > 0 &&
    (hold.role === 'settle' ||
      (change.digits < 0 && breaks(magnitude(change), limits.fall) && explainedLeft(props, hold, at) === 0));
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
          setSide(next);
        }}
      />
    );
  return (
    <div
      className={`flex flex-1 flex-col lg:min-h-0 gap-2 ${over ? 'hold-ended' : ''}`}
      data-hold={over ? 'over' : 'running'}
    >
      {side && (
        <p className="figure text-2xl sm:hidden" role="timer" aria-label={`time left ${countdown(left)}`}>
          {countdown(left)}{' '}
          <span className="font-sans text-base text-quiet">
            {over ? 'time is up' : 'left'}, start {showExact(hold.start.figure)}
          </span>
        </p>
      )}
      <div
        className={`grid-cols-1 items-end gap-x-6 sm:grid sm:grid-cols-[1.3fr_1fr] ${side ? 'max-sm:hidden' : 'grid'}`}
      >
        <div>
          <p className="text-sm text-quiet">
            {shown.live
              ? shown.simulated
                ? 'simulated gauge now'
                : 'gauge now'
              : `${level ? `level over the ${plan.procedure.levelOver ?? 'slab'}, read at` : 'last reading,'} ${clockTime(shown.at, plan.made.zone)}`}
          </p>
          <p
            className="figure-narrow leading-none whitespace-nowrap text-[72px] lg:text-[96px]"
            aria-label={`reading ${showExact(shown.figure)}`}
          >
            {formatExact(shown.figure)}
            <span className="ml-2 text-2xl">{unit}</span>
          </p>
        </div>
        <div>
          <p className="text-sm text-quiet">{over ? `time is up: ${read.toLowerCase()}` : 'time left'}</p>
          <p
            className={`figure-narrow leading-none text-[64px] lg:text-[72px] ${over ? 'text-ochre' : ''}`}
            role="timer"
            aria-label={`time left ${countdown(left)}`}
          >
            {countdown(left)}
          </p>
        </div>
      </div>
      <p className="sr-only" aria-live="polite">
        {over ? `The time has run out. ${read}.` : left < 15000 ? 'Fifteen seconds to go.' : ''}
      </p>
      <p className={side ? 'max-sm:hidden' : ''}>
        Change <span className="figure font-semibold">{showChange(change)}</span>;{' '}
        {hold.role === 'settle' ? (
          <>
            {spec.band && (
              <>
                keep between <span className="figure">{showExact(spec.band.low)}</span> and{' '}
                <span className="figure">{showExact(spec.band.high)}</span>
              </>
            )}
            {props.stage.kind === 'hold' && props.stage.until === 'steady' && <>, until it stands still</>}
          </>
        ) : hold.role === 'lock-up' || hold.role === 'flow' ? (
          <AcceptWords {...props} />
        ) : hold.role === 'floor' ? (
          <>
            nobody pumps; no reading may lie below the line; a rise is normal here. <AcceptWords {...props} />
          </>
        ) : hold.role === 'make-up' ? (
          <MakeUpWords {...props} hold={hold} at={at} />
        ) : hold.role === 'decay' ? (
          <>nobody pumps; how far it falls is measured, not judged</>
        ) : hold.role === 'leak-rate' ? (
          <>the fall gives the leak rate; a rise gives none</>
        ) : (
          <Why facts={whyLimit(limits, hold.role)}>
            <span>
              {hold.role === 'let-by'
                ? 'a rise of'
                : hold.role === 'stretch'
                  ? 'since pumping ended, a fall of'
                  : limits.nil
                    ? 'nil: a fall of'
                    : 'permitted drop'}{' '}
              <span className="figure">
                {showExact(hold.role === 'let-by' ? limits.rise.value : limits.fall.value)}
              </span>
              {limits.nil || hold.role === 'stretch'
                ? limits.rise.broken === 'at'
                  ? ' or more counts'
                  : ', more than it counts'
                : ', more is not tight'}
            </span>
          </Why>
        )}
      </p>
      {!side && (
        <LiveFacts
          visit={visit}
          hold={hold}
          gauge={gauge}
          at={at}
          fall={limits.fall}
          perceptible={limits.rise}
          zone={plan.made.zone}
          alone={alone}
          windowMs={windowMs}
        />
      )}
      {roleOf(hold.role).drawn && !(side && side !== 'more') && (
        <BandStrip start={hold.start.figure} now={shown.figure} fall={limits.fall} rise={limits.rise} />
      )}
      {!side && temperatureNeeded(plan, state, hold) && (
        <p className="flex flex-wrap items-center gap-3 border-l-4 border-ochre pl-3">
          This repeats a movement that warmth could explain: log the pipe temperature at start and end.
          <Button className="min-h-12" onClick={() => setSide('temperature')}>
            Temperature
          </Button>
        </p>
      )}
      {!side && barometerNeeded(plan, state, props.stage, hold) && (
        <p className="flex flex-wrap items-center gap-3 border-l-4 border-ochre pl-3">
          Over a hold this long the barometer moves the gauge as much as what counts: read it at start and
          end. Unread, this hold can never be Tight.
          <Button className="min-h-12" onClick={() => setSide('barometer')}>
            Barometer
          </Button>
        </p>
      )}
      {!side && props.stage.kind === 'hold' && props.stage.witness && hold.role === 'tightness' && (
        <SecondPlace act={props.act} hold={hold} place={props.stage.witness} />
      )}
      {!side && step && (
        <p className="flex flex-wrap items-center gap-3 border-l-4 border-ochre pl-3" role="alert">
          <span>
            A sudden step of{' '}
            <span className="figure">
              {step.change.toFixed(gauge.resolution.scale).replace('-', '−')} {unit}
            </span>{' '}
            at {clockTime(step.at, plan.made.zone)}: a leak falls evenly, a draw or a hand falls at once.
          </span>
          <Button className="min-h-12" onClick={() => setSide('disturbance')}>
            Log a disturbance
          </Button>
        </p>
      )}
      {!side && <Rhythm stage={props.stage} visit={visit} hold={hold} at={at} />}
      {side ? (
        <div className="lg:min-h-0 lg:flex-1 lg:overflow-auto">
          <SideEntry side={side} {...props} onDone={() => setSide(null)} onSide={setSide} />
        </div>
      ) : (
        <>
          <div ref={setEl} className="relative min-h-[170px] flex-1 overflow-hidden lg:min-h-[120px]">
            {request && (
              <div className="absolute inset-0">
                <TraceChart
                  request={{ ...request, width, height: Math.max(118, height) }}
                  unit={unit}
                  title={visit.title}
                />
              </div>
            )}
          </div>
          <div className="sticky bottom-0 z-10 -mx-1 grid shrink-0 gap-3 bg-ground px-1 pt-1">
            <div className="grid grid-cols-3 gap-3 sm:grid-cols-5">
              <Button className="min-h-16" onClick={() => setSide('reading')} aria-keyshortcuts="r">
                Reading
              </Button>
              <Button className="min-h-16" onClick={() => setSide('top-up')} aria-keyshortcuts="t">
                {hold.role === 'settle' ? 'Re-adjusted' : hold.role === 'make-up' ? 'Water added' : 'Top-up'}
              </Button>
              <Button
                className="min-h-16 max-sm:hidden"
                onClick={() => setSide('disturbance')}
                aria-keyshortcuts="d"
              >
                Disturbance
              </Button>
              <Button
                className="min-h-16 max-sm:hidden"
                onClick={() => setSide('note')}
                aria-keyshortcuts="n"
              >
                Note
              </Button>
              <Button className="min-h-16" onClick={() => setSide('more')}>
                More
              </Button>
            </div>
            <Keys onSide={setSide} />
            {falls && (
              <Button className="min-h-14" onClick={() => setUnheld(true)}>
                {hold.role === 'settle' ? 'It will not stand' : 'It falls beyond the limit: say so now'}
              </Button>
            )}
            {!over && makeUpDecided(plan, state, props.stage, hold, shown.figure) && (
              <Button className="min-h-14" onClick={() => setEnding(true)}>
                More is added than the whole hold permits: read now
              </Button>
            )}
            {!over && hold.role === 'leak-rate' && (
              <Button className="min-h-14" onClick={() => setEnding(true)}>
                It falls fast: read now
              </Button>
            )}
            {!over && hold.role !== 'leak-rate' && at >= hold.startedAt + hold.rule * 60000 && (
              <Button className="min-h-14" onClick={() => setEnding(true)}>
                The rule’s own {hold.rule} min have passed: end now
              </Button>
            )}
            <Button
              tone="act"
              data-primary
              className="min-h-20 w-full shrink-0 text-xl"
              disabled={!over}
              onClick={() => setEnding(true)}
            >
              {over ? `${read} now` : `End reading in ${countdown(left)}`}
            </Button>
          </div>
        </>
      )}
      {idle && !over && (
        <div
          className="fixed inset-x-0 top-[61px] bottom-0 z-30 grid place-content-center gap-6 bg-ground text-center"
          data-across
        >
          <p className="figure-narrow text-[clamp(110px,34vw,320px)] leading-none">{countdown(left)}</p>
          <p className="figure-narrow text-[clamp(44px,12vw,110px)] leading-none">
            {formatExact(shown.figure)} <span className="text-[0.4em]">{unit}</span>
          </p>
          <p className="text-quiet">{visit.title}. Touch anywhere to come back.</p>
        </div>
      )}
    </div>
  );
}

/** Water added so far, and the limit it is compared with as it stands now. */
function MakeUpWords({ view, stage, hold, at }: Pick<PanelProps, 'view' | 'stage' | 'at'> & { hold: Hold }) {
  const added = madeUp(hold);
  const found = known(() =>
    makeUpLimit(view.plan, view.state, stage as HoldStage, {
      start: hold.start.figure,
      end: hold.start.figure,
      elapsedMs: Math.max(at - hold.startedAt, hold.minutes * 60_000),
    }),
  );
  const limit = 'value' in found ? found.value : null;
  return (
    <>
      water added <span className="figure font-semibold">{showExact(added)}</span>
      {limit ? (
        <>
          , permitted over the hold{' '}
          <Why
            facts={{
              title: 'Make-up permitted',
              source: limit.source,
              text: limit.working.text,
              formula: limit.working.formula,
              inputs: limit.working.inputs,
            }}
          >
            <span className="figure">{showExact(limit.value)}</span>
          </Why>
        </>
      ) : (
        <>; no limit is given: the figure goes to the engineer</>
      )}
      . <AcceptWords view={view} stage={stage} />
    </>
  );
}

/** Where a lock-up or flow reading may stand, each bound with its source. */
function AcceptWords({ view, stage }: Pick<PanelProps, 'view' | 'stage'>) {
  if (stage.kind !== 'hold') return null;
  const { plan, state } = view;
  const context = contextOf(plan, state, stage.part);
  const bounds = (['low', 'high'] as const).flatMap((side) => {
    const bound = acceptOf(stage.accept?.[side], side, context, plan, stage.part);
    return bound ? [{ side, ...bound }] : [];
  });
  return (
    <>
      {bounds.map((b) => (
        <Why
          key={b.side}
          facts={{
            title: b.side === 'low' ? 'Lowest that holds' : 'Highest that holds',
            source: b.source,
            text: b.working?.text ?? 'Exactly this much still holds.',
            ...(b.working ? { formula: b.working.formula, inputs: b.working.inputs } : {}),
          }}
        >
          <span className="mr-3">
            {b.side === 'low' ? 'at least' : 'at most'} <span className="figure">{showExact(b.value)}</span>
          </span>
        </Why>
      ))}
    </>
  );
}

/** Asks for the next reading where the pack gives a rhythm. */
function Rhythm({ stage, visit, hold, at }: Pick<PanelProps, 'stage' | 'visit' | 'at'> & { hold: Hold }) {
  if (stage.kind !== 'hold' || !stage.rhythm) return null;
  const last = Math.max(hold.startedAt, ...visit.readings.map((r) => r.readMoment));
  const due = last + stage.rhythm * 60000;
  if (due >= hold.startedAt + hold.minutes * 60000 - 30000) return null;
  return (
    <p className={at > due ? 'text-ochre' : 'text-quiet'} aria-live="polite">
      {at > due ? 'A reading is due now' : <>Next reading in {countdown(due - at)}</>} (every {stage.rhythm}{' '}
      min).
    </p>
  );
}

function whyLimit(limits: { fall: Limit; rise: Limit; nil: boolean }, role: string) {
  const limit = role === 'let-by' ? limits.rise : limits.fall;
  return {
    title:
      role === 'let-by'
        ? 'Let-by limit'
        : limits.nil
          ? 'Nil: smallest movement that counts'
          : 'Permitted drop',
    source: limit.source,
    text: `${showExact(limit.value)} is broken ${limit.broken === 'at' ? 'at equality: exactly this much counts' : 'above: exactly this much is still met'}. A rise of ${showExact(limits.rise.value)} or more is never proof of tightness.`,
  };
}

/** What the gauge shows: its stream where there is one, otherwise the newest entry. */
function lastSeen(
  { view, visit }: Pick<PanelProps, 'view' | 'visit'>,
  start: { figure: Exact; at: number },
): { figure: Exact; at: number; live: boolean; simulated: boolean } {
  const { live, state } = view;
  if (live && live.gauge === state.gauge)
    return {
      figure: exact(live.digits, live.scale, start.figure.unit),
      at: live.at,
      live: true,
      simulated: live.simulated,
    };
  const newest = [
    start,
    ...visit.readings
      .filter((r) => !r.late && r.at >= start.at)
      .map((r) => ({ figure: (r.corrected ?? r).figure, at: r.readMoment })),
  ].pop()!;
  return { ...newest, live: false, simulated: false };
}
