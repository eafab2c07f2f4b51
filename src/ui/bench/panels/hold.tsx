'use client';
import { useEffect, useMemo, useRef, useState } from 'react';
import { holdTrace } from '@/chart/run-trace';
import type { HoldStage } from '@/core/pack/types';
import {
  exact,
  formatExact,
  magnitude,
  showChange,
  showExact,
  subtract,
  type Exact,
  type Limit,
} from '@/core/quantity/exact';
import { unitLabel } from '@/core/quantity/unit';
import {
  gaugeOf,
  holdEnds,
  holdSpec,
  letByLimit,
  perceptibleOf,
  permittedDrop,
  runningHold,
  temperatureNeeded,
} from '@/core/run/read';
import { notify, sound } from '@/device/alarm';
import { TraceChart } from '@/ui/charts/trace';
import { Button } from '@/ui/kit/button';
import { Why } from '@/ui/kit/why';
import { clockTime, countdown } from '@/ui/kit/words';
import { BandStrip } from '../band-strip';
import { Keypad } from '../keypad';
import { SideEntry, type Side } from '../side-entry';
import type { PanelProps } from '../shared';
import { useSize } from '../use-bench';

/** The fall and rise that a hold is judged against. */
export function holdLimits(props: Pick<PanelProps, 'view' | 'stage'>): {
  fall: Limit;
  rise: Limit;
  nil: boolean;
} {
  const { plan, state } = props.view;
  const gauge = gaugeOf(plan, state)!;
  const pm = perceptibleOf(plan, gauge);
  if (props.stage.kind === 'hold' && props.stage.role === 'let-by')
    return { fall: pm, rise: letByLimit(plan, props.stage as HoldStage, gauge), nil: true };
  const drop = props.stage.kind === 'hold' && props.stage.allowance ? permittedDrop(plan, state) : null;
  return { fall: drop ?? pm, rise: pm, nil: !drop };
}
const ROLE_WORDS = { 'let-by': 'let-by', settle: 'stabilisation', tightness: 'tightness' } as const;
const IDLE_MS = 20_000;

/** A timed hold: start reading, countdown with band and limit always in sight, end reading. */
export function HoldPanel(props: PanelProps) {
  const { view, visit, stage, at, act } = props;
  const { plan, state } = view;
  const gauge = gaugeOf(plan, state);
  const spec = holdSpec(plan, state)!;
  const hold = runningHold(state);
  const [side, setSide] = useState<Side | null>(null);
  const [ending, setEnding] = useState(false);
  const [setEl, { width, height }] = useSize();
  const over = hold !== null && at >= holdEnds(hold);
  const settled = [...state.visits]
    .reverse()
    .flatMap((v) =>
      [
        ...v.cycles.flatMap((c) => (c.settle ? [c.settle] : [])),
        ...v.holds.filter((h) => h.role === 'settle'),
      ].reverse(),
    )[0];
  const before = [...state.visits].reverse().flatMap((v) => [...v.fills].reverse())[0];

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

  const idle = useIdle(hold !== null && !side && !ending, IDLE_MS);
  const request = useMemo(
    () => (hold && width > 0 ? holdTrace(plan, state, visit, hold, at) : null),
    [plan, state, visit, hold, at, width],
  );
  if (!gauge) return <p role="alert">Choose and zero the gauge first.</p>;
  const unit = unitLabel(gauge.resolution.unit);

  if (!hold)
    return (
      <div className="lg:min-h-0 lg:flex-1 lg:overflow-auto">
        <p className="mb-2">
          Start between <span className="figure">{showExact(spec.band.low)}</span> and{' '}
          <span className="figure">{showExact(spec.band.high)}</span>, then{' '}
          <Why
            facts={{
              title: 'Length of the hold',
              source: spec.source,
              text: stage.why ?? 'The rule’s own minutes.',
            }}
          >
            <span className="figure">{spec.minutes} min</span>
          </Why>
          .
        </p>
        {spec.role === 'let-by' && before && (
          <p className="mb-2">
            Across the valve: supply <span className="figure">{showExact(plan.system.supplyPressure)}</span>,
            section <span className="figure">{showExact(before.figure)}</span>, difference{' '}
            <span className="figure font-semibold">
              {showExact(subtract(plan.system.supplyPressure, before.figure))}
            </span>
            . Near-equal pressures would hide a passing valve.
          </p>
        )}
        {spec.role === 'tightness' && settled?.judgement && settled.judgement.change.digits < 0 && (
          <p className="mb-2 border-l-4 border-ochre pl-3">
            Stabilisation fell by{' '}
            <span className="figure">{showExact(magnitude(settled.judgement.change))}</span>
            {settled.topUps.length > 0 && ` and was re-adjusted ${settled.topUps.length} times`}: an early
            hint of a leak, not a result.
          </p>
        )}
        <Keypad
          gauge={gauge}
          label="Read the gauge now: the hold starts with this figure"
          save={`Start the ${spec.minutes} min ${ROLE_WORDS[spec.role]}`}
          previous={before?.figure ?? null}
          live={view.live}
          onSave={async (entered) => {
            const answer = await act({ kind: 'hold-start', ...entered });
            return answer.accepted ? null : answer.text;
          }}
        />
        {side ? (
          <SideEntry side={side} {...props} onDone={() => setSide(null)} onSide={setSide} />
        ) : (
          <div className="mt-2 flex flex-wrap gap-3">
            <Button className="min-h-14" onClick={() => setSide('top-up')}>
              Re-adjust first
            </Button>
            {stage.kind === 'hold' && stage.skip && (
              <Button className="min-h-14" onClick={() => setSide('skip')}>
                Skip this stage
              </Button>
            )}
            {stage.kind === 'isolate-and-repeat' && stage.optional && (
              <Button className="min-h-14" onClick={() => setSide('skip')}>
                Leave it at that
              </Button>
            )}
            <Button className="min-h-14" onClick={() => setSide('more')}>
              More
            </Button>
          </div>
        )}
      </div>
    );

  const limits = holdLimits(props);
  const shown = lastSeen(props, hold.start);
  const change = subtract(shown.figure, hold.start.figure);
  if (ending)
    return (
      <div className="lg:min-h-0 lg:flex-1 lg:overflow-auto">
        <Keypad
          gauge={gauge}
          label={`Time is up. Read the gauge now`}
          save={hold.role === 'settle' ? 'Settled: go on' : 'This is the end reading'}
          previous={shown.figure}
          live={view.live}
          onCancel={() => setEnding(false)}
          onSave={async (entered) => {
            const answer = await act({ kind: 'hold-end', ...entered });
            if (answer.accepted) setEnding(false);
            return answer.accepted ? null : answer.text;
          }}
          extra={
            hold.role === 'settle' ? (
              <Button
                className="min-h-14"
                onClick={() => {
                  setEnding(false);
                  setSide('top-up');
                }}
              >
                Outside the band: re-adjust
              </Button>
            ) : null
          }
        />
      </div>
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
              : `last reading, ${clockTime(shown.at, plan.made.zone)}`}
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
          <p className="text-sm text-quiet">{over ? 'time is up: read the gauge' : 'time left'}</p>
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
        {over ? 'The time has run out. Read the gauge.' : left < 15000 ? 'Fifteen seconds to go.' : ''}
      </p>
      <p className={side ? 'max-sm:hidden' : ''}>
        Change <span className="figure font-semibold">{showChange(change)}</span>;{' '}
        {hold.role === 'settle' ? (
          <>
            keep between <span className="figure">{showExact(spec.band.low)}</span> and{' '}
            <span className="figure">{showExact(spec.band.high)}</span>
            {hold.topUps.length > 0 && <>; re-adjusted {hold.topUps.length} times</>}
          </>
        ) : (
          <Why facts={whyLimit(limits, hold.role)}>
            <span>
              {hold.role === 'let-by' ? 'a rise of' : limits.nil ? 'nil: a fall of' : 'permitted drop'}{' '}
              <span className="figure">
                {showExact(hold.role === 'let-by' ? limits.rise.value : limits.fall.value)}
              </span>
              {limits.nil
                ? limits.rise.broken === 'at'
                  ? ' or more counts'
                  : ', more than it counts'
                : ', more is not tight'}
            </span>
          </Why>
        )}
      </p>
      {hold.role !== 'settle' && !(side && side !== 'more') && (
        <BandStrip start={hold.start.figure} now={shown.figure} fall={limits.fall} rise={limits.rise} />
      )}
      {!side && temperatureNeeded(state, hold) && (
        <p className="flex flex-wrap items-center gap-3 border-l-4 border-ochre pl-3">
          This repeats an unexplained rise: log the pipe temperature at start and end.
          <Button className="min-h-12" onClick={() => setSide('temperature')}>
            Temperature
          </Button>
        </p>
      )}
      {side ? (
        <div className="lg:min-h-0 lg:flex-1 lg:overflow-auto">
          <SideEntry side={side} {...props} onDone={() => setSide(null)} onSide={setSide} />
        </div>
      ) : (
        <>
          <div ref={setEl} className="relative min-h-[170px] flex-1 overflow-hidden">
            {request && (
              <div className="absolute inset-0">
                <TraceChart
                  request={{ ...request, width, height: Math.max(150, height) }}
                  unit={unit}
                  title={visit.title}
                />
              </div>
            )}
          </div>
          <div className="grid grid-cols-3 gap-3 sm:grid-cols-5">
            <Button className="min-h-16" onClick={() => setSide('reading')} aria-keyshortcuts="r">
              Reading
            </Button>
            <Button className="min-h-16" onClick={() => setSide('top-up')} aria-keyshortcuts="t">
              {hold.role === 'settle' ? 'Re-adjusted' : 'Top-up'}
            </Button>
            <Button
              className="min-h-16 max-sm:hidden"
              onClick={() => setSide('disturbance')}
              aria-keyshortcuts="d"
            >
              Disturbance
            </Button>
            <Button className="min-h-16 max-sm:hidden" onClick={() => setSide('note')} aria-keyshortcuts="n">
              Note
            </Button>
            <Button className="min-h-16" onClick={() => setSide('more')}>
              More
            </Button>
          </div>
          <Keys onSide={setSide} />
          <Button
            tone="act"
            data-primary
            className="min-h-20 w-full shrink-0 text-xl max-lg:sticky max-lg:bottom-0"
            disabled={!over}
            onClick={() => setEnding(true)}
          >
            {over ? 'Read the gauge now' : `End reading in ${countdown(left)}`}
          </Button>
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

/** One key each: R reading, T top-up, D disturbance, N note. */
function Keys({ onSide }: { onSide: (side: Side) => void }) {
  useEffect(() => {
    const map: Record<string, Side> = { r: 'reading', t: 'top-up', d: 'disturbance', n: 'note' };
    const onKey = (e: KeyboardEvent) => {
      if (e.ctrlKey || e.metaKey || e.altKey || (e.target as HTMLElement).closest('input, textarea, select'))
        return;
      const side = map[e.key.toLowerCase()];
      if (side) {
        e.preventDefault();
        onSide(side);
      }
    };
    addEventListener('keydown', onKey);
    return () => removeEventListener('keydown', onKey);
  }, [onSide]);
  return null;
}

/** Whether nobody has touched anything for a while. */
function useIdle(active: boolean, after: number): boolean {
  const [idle, setIdle] = useState(false);
  useEffect(() => {
    if (!active) return;
    let timer: ReturnType<typeof setTimeout>;
    const wake = () => {
      setIdle(false);
      clearTimeout(timer);
      timer = setTimeout(() => setIdle(true), after);
    };
    wake();
    const kinds = ['pointerdown', 'keydown', 'wheel'] as const;
    kinds.forEach((k) => addEventListener(k, wake));
    return () => {
      clearTimeout(timer);
      setIdle(false);
      kinds.forEach((k) => removeEventListener(k, wake));
    };
  }, [active, after]);
  return idle;
}
