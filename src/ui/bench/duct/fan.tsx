'use client';
import { warmMinutes } from '@/core/kinds/smoke/fold';
import {
  answerOf,
  blankOf,
  countsStill,
  editionsOf,
  fanVisitOf,
  type FanStage,
  flowWords,
  isPushed,
  rangesFor,
  referenceOf,
} from '@/core/kinds/fan/asked';
import { notYet } from '@/core/kinds/fan/fold';
import type { Answer } from '@/core/kinds/fan/judge';
import type { FanVisit } from '@/core/kinds/fan/state';
import { showExact } from '@/core/quantity/exact';
import { gaugeOf } from '@/core/run/read';
import { Button } from '@/ui/kit/button';
import { useState } from 'react';
import { Line } from '../line';
import type { PanelProps } from '../shared';
import { ChooseFan } from './choose-fan';
import { FanDrawn, FanLimits, FanReadings } from './limits';
import { FanOff, PairEntry } from './pair';
import { SmokeWarm } from './smoke-warm';

/** A fan blows: which ring, what the gauge shows with it off, pressure and flow together, and what that comes to. */
export function FanPanel(props: PanelProps) {
  const stage = props.stage as FanStage;
  const { view, act } = props;
  const { plan, state } = view;
  const [choosing, setChoosing] = useState(false);
  const [more, setMore] = useState(false);
  const gauge = gaugeOf(plan, state);
  const reference = referenceOf(plan, stage);
  if (!gauge) return <p role="alert">Choose and zero the gauge first.</p>;
  if (reference === null) return <p role="alert">{notYet(null)}</p>;
  const { chosen } = state.rooms.fan;
  const visit: FanVisit = fanVisitOf(state.rooms.fan, props.visit.ordinal) ?? {
    visit: props.visit.ordinal,
    of: stage.of,
    title: stage.title,
    readings: [],
  };
  const editions = editionsOf(plan, stage);
  const limit = editions.find((e) => e.judges)?.limit?.flow ?? null;
  const unit = chosen?.range.least.unit ?? 'CFM';
  const answer = visit.readings.some((r) => !r.struck)
    ? answerOf(plan, state, stage, props.visit.ordinal)
    : null;
  const entering = !answer || more || (answer && 'next' in answer);
  return (
    <div className="flex flex-1 flex-col gap-3 lg:grid lg:min-h-0 lg:grid-cols-[minmax(0,1fr)_minmax(0,1.15fr)]">
      <div className="flex flex-col gap-2 max-lg:contents lg:min-h-0 lg:overflow-auto">
        <div className="max-lg:order-1">
          <FanLimits
            stage={stage}
            editions={editions}
            reference={reference}
            blank={blankOf(plan, state, stage, reference)}
            unit={unit}
          />
          {chosen && !choosing && (
            <p className="flex items-center justify-between gap-2 border-b border-seam py-1 text-sm">
              <span>
                {chosen.name}, {chosen.range.name},{' '}
                <span className="figure-narrow">
                  {showExact(chosen.range.least)} to {showExact(chosen.range.greatest)}
                </span>
                {visit.off ? (
                  <>
                    ; fan off <span className="figure-narrow">{showExact(visit.off.pressure)}</span>
                  </>
                ) : null}
              </span>
              <Button className="min-h-11 shrink-0 px-3" onClick={() => setChoosing(true)}>
                Other ring
              </Button>
            </p>
          )}
        </div>
        {visit.readings.length > 0 && (
          <div className="flex flex-col gap-2 max-lg:order-3 lg:min-h-0 lg:flex-1">
            <FanDrawn visit={visit} at={answer?.at ?? null} limit={limit} reference={reference} unit={unit} />
            <FanReadings visit={visit} view={view} act={act} />
          </div>
        )}
        {stage.of === 'system' && warmMinutes(plan) !== null && (
          <div className="max-lg:order-4">
            <SmokeWarm {...props} />
          </div>
        )}
      </div>
      <div className="flex flex-col gap-3 max-lg:order-2 lg:min-h-0 lg:overflow-auto">
        {!chosen || choosing ? (
          <ChooseFan
            view={view}
            act={act}
            stage={stage}
            limit={limit}
            reference={reference}
            onDone={() => setChoosing(false)}
          />
        ) : stage.of === 'system' && !visit.off ? (
          <FanOff view={view} act={act} gauge={gauge} />
        ) : (
          <>
            {stage.of === 'hose' && !visit.readings.length && <Dated {...props} />}
            {answer && <Next {...props} answer={answer} fan={visit} limit={limit} reference={reference} />}
            {entering ? (
              <PairEntry
                view={view}
                act={act}
                stage={stage}
                gauge={gauge}
                fan={chosen}
                onSaved={() => setMore(false)}
              />
            ) : (
              <Button className="min-h-14" onClick={() => setMore(true)}>
                Read once more
              </Button>
            )}
            <Cannot
              {...props}
              half={answer !== null && 'next' in answer && answer.next === 'half'}
              decided={answer !== null && 'outcome' in answer}
            />
          </>
        )}
      </div>
    </div>
  );
}
/** Own kit with a test that still counts: it is taken in one tap. */
function Dated({ view, stage, act }: PanelProps) {
  const kit = view.plan.ownKit?.find((k) => k.id === view.state.rooms.fan.chosen?.kit);
  if (!countsStill(kit, stage as FanStage)) return null;
  const { on, days, flow, pressure, below } = kit.through;
  return (
    <Button tone="act" className="min-h-16" onClick={() => void act({ kind: 'fan-kept' })}>
      <span>
        Take its test of {on}
        <span className="block text-base font-normal">
          {below ? 'less than ' : ''}
          <span className="figure">{showExact(flow)}</span> at{' '}
          <span className="figure">{showExact(pressure)}</span>, {days} day{days === 1 ? '' : 's'} ago
        </span>
      </span>
    </Button>
  );
}
/** What stands so far, and the next move. */
function Next({
  view,
  stage,
  act,
  answer,
  fan,
  limit,
  reference,
}: PanelProps & { answer: Answer; fan: FanVisit; limit: number | null; reference: number }) {
  const { plan, state } = view;
  const rule = stage as FanStage;
  const unit = state.rooms.fan.chosen?.range.least.unit ?? 'CFM';
  if ('outcome' in answer)
    return (
      <Button
        tone="act"
        data-primary
        className="min-h-20 text-xl"
        onClick={() => void act({ kind: 'fan-judge' })}
      >
        <span>
          Judge what was read
          <span className="figure block text-base font-normal">
            {answer.at.bound ? 'at most ' : ''}
            {flowWords(answer.at.flow, unit, limit ?? undefined)} at {reference.toFixed(0)} Pa
          </span>
        </span>
      </Button>
    );
  const newest = [...fan.readings].reverse().find((r) => !r.struck && r.flow !== null);
  const half = newest && (isPushed(plan, rule) ? 1 : -1) * (newest.net / 2) + offOf(fan);
  const kit = plan.ownKit?.find((k) => k.id === state.rooms.fan.chosen?.kit);
  const fits = rangesFor(kit?.ranges ?? [state.rooms.fan.chosen!.range], limit, reference);
  const smaller = fits.find((f) => f.fits === 'reads');
  const raise = fits.find((f) => f.range.name === state.rooms.fan.chosen!.range.name);
  return (
    <div role="status" className="border-l-4 border-ochre pl-3 text-lg">
      <p>{notYet(answer)}</p>
      {answer.next === 'half' && half !== undefined && (
        <p>
          Turn the fan down until the gauge shows about <span className="figure">{half.toFixed(1)} Pa</span>,
          and leave the ring as it is.
        </p>
      )}
      {answer.next === 'range' && (
        <p>
          {smaller && <>{smaller.range.name} reads the limit. </>}
          {raise?.fits === 'raise' && (
            <>
              With this ring: blow to <span className="figure">{Math.ceil(raise.pressure * 10) / 10} Pa</span>
              ; what is below the range there is within the limit, whatever the openings.
            </>
          )}
        </p>
      )}
    </div>
  );
}
const offOf = (visit: FanVisit): number =>
  visit.off ? visit.off.pressure.digits / 10 ** visit.off.pressure.scale : 0;
/** The way on where it cannot be had: with its reason, which is printed. */
function Cannot({ act, half, decided }: PanelProps & { half: boolean; decided: boolean }) {
  const [open, setOpen] = useState(false);
  const [why, setWhy] = useState('');
  if (decided) return null;
  const words = half ? 'No second pressure can be had' : 'No reading that decides can be had';
  if (!open)
    return (
      <Button className="min-h-14 shrink-0" onClick={() => setOpen(true)}>
        {words}
      </Button>
    );
  return (
    <div className="grid gap-2">
      <Line value={why} onChange={setWhy} most={200}>
        {words}. Why? It is printed
      </Line>
      <div className="grid grid-cols-2 gap-3">
        <Button className="min-h-14" onClick={() => setOpen(false)}>
          Back
        </Button>
        <Button
          tone="act"
          className="min-h-14"
          disabled={!why.trim()}
          onClick={() => void act({ kind: 'fan-cannot', what: half ? 'second' : 'reading', why: why.trim() })}
        >
          Go on without
        </Button>
      </div>
    </div>
  );
}
