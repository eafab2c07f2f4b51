'use client';
import {
  answerOf,
  countsStill,
  editionsOf,
  fanVisitOf,
  type FanStage,
  flowWords,
  isPushed,
  limitOf,
  pascalOf,
  rangesFor,
  referenceOf,
} from '@/core/kinds/fan/asked';
import { notYet } from '@/core/kinds/fan/fold';
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

/** What the panels of this step share, or why there is nothing to enter yet. */
function useFan(props: PanelProps) {
  const stage = props.stage as FanStage;
  const { plan, state } = props.view;
  const reference = referenceOf(plan, stage);
  const { chosen } = state.rooms.fan;
  const visit: FanVisit = fanVisitOf(state.rooms.fan, props.visit.ordinal) ?? {
    visit: props.visit.ordinal,
    of: stage.of,
    title: stage.title,
    readings: [],
  };
  const editions = editionsOf(plan, stage);
  return {
    stage,
    reference,
    chosen,
    fan: visit,
    editions,
    limit: limitOf(plan, stage),
    unit: chosen?.range.least.unit ?? ('CFM' as const),
    answer: visit.readings.some((r) => !r.struck) ? answerOf(plan, state, stage, props.visit.ordinal) : null,
  };
}
type Fan = ReturnType<typeof useFan> & { readonly reference: number };

/** A fan blows: which ring, what the gauge shows with it off, pressure and flow together, and what that comes to. */
export function FanPanel(props: PanelProps) {
  const { view, act } = props;
  const { reference, ...found } = useFan(props);
  const [choosing, setChoosing] = useState(false);
  const [reading, setReading] = useState(false);
  const gauge = gaugeOf(view.plan, view.state);
  if (!gauge) return <p role="alert">Choose and zero the gauge first.</p>;
  if (reference === null) return <p role="alert">{notYet(null)}</p>;
  const fan: Fan = { ...found, reference };
  const { stage, chosen, fan: visit } = fan;
  if (!chosen || choosing)
    return (
      <div className="grid content-start gap-3 lg:min-h-0 lg:flex-1 lg:overflow-auto">
        <FanLimits {...fan} plan={view.plan} state={view.state} />
        <ChooseFan
          {...props}
          stage={stage}
          limit={stage.of === 'hose' ? null : fan.limit}
          reference={reference}
          onDone={() => setChoosing(false)}
        />
      </div>
    );
  const top = <Using {...props} fan={fan} onOther={() => setChoosing(true)} />;
  if (stage.of === 'system' && !visit.off)
    return (
      <div className="flex flex-[1_0_auto] flex-col gap-2">
        {top}
        <FanOff view={view} act={act} gauge={gauge} />
      </div>
    );
  const none = !visit.readings.length;
  if (none || reading)
    return (
      <div className="flex flex-[1_0_auto] flex-col gap-2">
        {top}
        {none && stage.of === 'hose' && <Dated {...props} />}
        <PairEntry
          view={view}
          act={act}
          stage={stage}
          gauge={gauge}
          fan={chosen}
          {...(none ? {} : { onCancel: () => setReading(false) })}
          onSaved={() => setReading(false)}
        />
        {none && <Cannot {...props} fan={fan} />}
      </div>
    );
  return (
    <div className="flex flex-1 flex-col gap-3 lg:min-h-0">
      {top}
      <div className="grid content-start gap-3 lg:min-h-0 lg:flex-1 lg:grid-cols-[minmax(0,1fr)_minmax(0,1fr)] lg:overflow-auto">
        <div className="grid content-start gap-2 max-lg:order-2">
          <FanDrawn
            visit={visit}
            at={fan.answer?.at ?? null}
            limit={fan.limit}
            reference={reference}
            unit={fan.unit}
          />
          <FanReadings visit={visit} view={view} act={act} />
        </div>
        <div className="grid content-start gap-3">
          <Next {...props} fan={fan} onRead={() => setReading(true)} onOther={() => setChoosing(true)} />
          <Cannot {...props} fan={fan} />
          {stage.of === 'system' && <SmokeWarm {...props} />}
        </div>
      </div>
    </div>
  );
}
/** What it is held against, and with which fan and ring: in little height. */
function Using({ view, fan, onOther }: PanelProps & { fan: Fan; onOther: () => void }) {
  const { chosen, fan: visit } = fan;
  return (
    <div className="flex flex-wrap items-center justify-between gap-x-4 gap-y-1 border-y border-seam py-1">
      <FanLimits {...fan} plan={view.plan} state={view.state} />
      <Button className="min-h-12 shrink-0 px-3 text-sm" onClick={onOther}>
        <span className="text-left">
          {chosen!.range.name},{' '}
          <span className="figure-narrow">
            {showExact(chosen!.range.least)} to {showExact(chosen!.range.greatest)}
          </span>
          <span className="block font-normal">
            {visit.off && (
              <>
                fan off <span className="figure-narrow">{showExact(visit.off.pressure)}</span>;{' '}
              </>
            )}
            another ring
          </span>
        </span>
      </Button>
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
  act,
  view,
  fan,
  onRead,
  onOther,
}: PanelProps & { fan: Fan; onRead: () => void; onOther: () => void }) {
  const { answer, unit, limit, reference } = fan;
  if (answer && 'outcome' in answer)
    return (
      <>
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
        <Button className="min-h-14" onClick={onRead}>
          Read once more
        </Button>
      </>
    );
  return (
    <>
      <div role="status" className="border-l-4 border-ochre pl-3 text-lg">
        <p>{notYet(answer)}</p>
        <Move fan={fan} view={view} />
      </div>
      <Button tone="act" data-primary className="min-h-20 text-xl" onClick={onRead}>
        Read both again
      </Button>
      {answer && 'next' in answer && answer.next === 'range' && (
        <Button className="min-h-14" onClick={onOther}>
          Another ring
        </Button>
      )}
    </>
  );
}
/** To which pressure the fan goes next, or which ring serves. */
function Move({ fan, view }: { fan: Fan } & Pick<PanelProps, 'view'>) {
  const { answer, fan: visit, chosen, stage, limit, reference } = fan;
  const { plan } = view;
  if (!answer || 'outcome' in answer) return null;
  if (answer.next === 'half') {
    const newest = [...visit.readings].reverse().find((r) => !r.struck && r.flow !== null);
    if (!newest) return null;
    const off = visit.off ? pascalOf(visit.off.pressure) : 0;
    const half = (isPushed(plan, stage) ? 1 : -1) * (newest.net / 2) + off;
    return (
      <p>
        Turn the fan down until the gauge shows about <span className="figure">{half.toFixed(1)} Pa</span>,
        and leave the ring as it is.
      </p>
    );
  }
  const kit = plan.ownKit?.find((k) => k.id === chosen!.kit);
  const fits = rangesFor(kit?.ranges ?? [chosen!.range], limit, reference);
  const smaller = fits.find((f) => f.fits === 'reads');
  const raise = fits.find((f) => f.range.name === chosen!.range.name);
  return (
    <p>
      {smaller && <>{smaller.range.name} reads the limit. </>}
      {raise?.fits === 'raise' && (
        <>
          With this ring: blow to <span className="figure">{Math.ceil(raise.pressure * 10) / 10} Pa</span>;
          what is below the range there is within the limit, whatever the openings.
        </>
      )}
    </p>
  );
}
/** The way on where it cannot be had: with its reason, which is printed. */
function Cannot({ act, fan: { answer } }: PanelProps & { fan: Fan }) {
  const [open, setOpen] = useState(false);
  const [why, setWhy] = useState('');
  if (answer && 'outcome' in answer) return null;
  const half = answer !== null && answer.next === 'half';
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
