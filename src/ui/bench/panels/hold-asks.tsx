'use client';
import { suddenStep } from '@/core/analysis/live';
import { samplesOf } from '@/core/analysis/of-hold';
import type { Gauge } from '@/core/instrument/gauge';
import type { Stage } from '@/core/kinds';
import type { Plan } from '@/core/plan/plan';
import { toNumber } from '@/core/quantity/exact';
import { unitLabel } from '@/core/quantity/unit';
import { roleOf } from '@/core/roles';
import { barometerNeeded } from '@/core/run/barometer';
import { holdLimits } from '@/core/run/hold-limits';
import { temperatureNeeded } from '@/core/run/read';
import type { Hold, RunState, Visit } from '@/core/run/state';
import { Button } from '@/ui/kit/button';
import { clockTime, countdown } from '@/ui/kit/words';
import { lazy, type ReactNode } from 'react';
import type { PanelProps } from '../shared';
import type { Side } from '../side-entry';

const SecondPlace = lazy(() => import('./extra').then((m) => ({ default: m.SecondPlace })));

/** A sudden step in a judged hold: offered as a disturbance. */
export const stepIn = (plan: Plan, state: RunState, visit: Visit, hold: Hold, gauge: Gauge, stage: Stage) =>
  roleOf(hold.role).steps
    ? suddenStep(
        samplesOf(visit, hold, gauge),
        toNumber(holdLimits(plan, state, stage, gauge, hold).rise.value),
      )
    : null;

/** A line that asks for something, with the one thing to do. */
function Ask({
  children,
  word,
  onClick,
  alert,
}: {
  children: ReactNode;
  word: string;
  onClick: () => void;
  alert?: true;
}) {
  return (
    <p
      className="flex flex-wrap items-center gap-3 border-l-4 border-ochre pl-3"
      {...(alert ? { role: 'alert' } : {})}
    >
      {children}
      <Button className="min-h-12" onClick={onClick}>
        {word}
      </Button>
    </p>
  );
}
/** What a running hold asks for beside its reading: temperature, barometer, the second place, a step explained, the next reading. */
export function HoldAsks({
  view,
  visit,
  stage,
  at,
  act,
  hold,
  gauge,
  step,
  onSide,
}: PanelProps & {
  hold: Hold;
  gauge: Gauge;
  step: ReturnType<typeof stepIn>;
  onSide: (side: Side) => void;
}) {
  const { plan, state } = view;
  return (
    <>
      {stage.kind === 'hold' && stage.judge && !hold.noThermometer && (
        <Ask word="Temperatures" onClick={() => onSide('temperature')}>
          {placesWords(hold)}
        </Ask>
      )}
      {hold.role === 'slopes' && !(hold.temperature.start && hold.temperature.end) && (
        <Ask word="Temperature" onClick={() => onSide('temperature')}>
          Read the pipe&rsquo;s temperature at start and end: without it the two slopes are advice only.
        </Ask>
      )}
      {!(stage.kind === 'hold' && stage.judge) && temperatureNeeded(plan, state, hold) && (
        <Ask word="Temperature" onClick={() => onSide('temperature')}>
          This repeats a movement that warmth could explain: log the pipe temperature at start and end.
        </Ask>
      )}
      {barometerNeeded(plan, state, stage, hold) && (
        <Ask word="Barometer" onClick={() => onSide('barometer')}>
          Over a hold this long the barometer moves the gauge as much as what counts: read it at start and
          end. Unread, this hold can never be Tight.
        </Ask>
      )}
      {stage.kind === 'hold' && stage.witness && hold.role === 'tightness' && (
        <SecondPlace act={act} hold={hold} place={stage.witness} />
      )}
      {step && (
        <Ask alert word="Log a disturbance" onClick={() => onSide('disturbance')}>
          <span>
            A sudden step of{' '}
            <span className="figure">
              {step.change.toFixed(gauge.resolution.scale).replace('-', '−')}{' '}
              {unitLabel(gauge.resolution.unit)}
            </span>{' '}
            at {clockTime(step.at, plan.made.zone)}: a leak falls evenly, a draw or a hand falls at once.
          </span>
        </Ask>
      )}
      <Rhythm stage={stage} visit={visit} hold={hold} at={at} />
    </>
  );
}
/** What is logged of the warmth, in a line; what is still to come. */
function placesWords(hold: Hold): string {
  const names = (when: 'start' | 'end') => [
    ...new Set((hold.places ?? []).filter((p) => p.when === when).map((p) => p.place)),
  ];
  const [start, end] = [names('start'), names('end')];
  if (!start.length) return 'Warmth is taken out of this reading: log pipe and room NOW, two places or more.';
  if (start.length < 2) return `Start: ${start[0]} alone. A second place now, or it can never be Tight.`;
  return end.length
    ? `Logged at the end: ${end.join(', ')}, of ${start.join(', ')}.`
    : `Logged at the start: ${start.join(', ')}. In between, and again at the end.`;
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
