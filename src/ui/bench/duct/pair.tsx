'use client';
import { entryStep, type Gauge } from '@/core/instrument/gauge';
import type { FanStage } from '@/core/kinds/fan/asked';
import type { ChosenFan } from '@/core/kinds/fan/state';
import { exact, type Exact, formatExact, parseFigure, showExact } from '@/core/quantity/exact';
import { unitLabel } from '@/core/quantity/unit';
import { Button } from '@/ui/kit/button';
import { useState } from 'react';
import { Keypad } from '../keypad';
import type { PanelProps } from '../shared';

type Way = 'flow' | 'at-fan' | 'below';
const WAYS: readonly (readonly [Way, string])[] = [
  ['flow', 'Flow'],
  ['at-fan', 'Pressure at the fan'],
  ['below', 'Below range'],
];
/** Pressure and flow read together: one reading. Where the gauge sends both, both are taken in one tap. */
export function PairEntry({
  view,
  act,
  stage,
  gauge,
  fan,
  onSaved,
  onCancel,
}: Pick<PanelProps, 'view' | 'act'> & {
  stage: FanStage;
  gauge: Gauge;
  fan: ChosenFan;
  onSaved: () => void;
  onCancel?: () => void;
}) {
  const [way, setWay] = useState<Way>('flow');
  const [typed, setTyped] = useState('');
  const { unit } = fan.range.least;
  const { live } = view;
  const both = live?.gauge === gauge.id && live.flow ? live : null;
  const send = async (
    figure: Exact,
    more: { flow?: Exact; atFan?: Exact; below?: true; streamed?: true },
  ) => {
    const answer = await act({ kind: 'fan-read', figure, steady: true, ...more });
    if (!answer.accepted) return answer.text;
    setTyped('');
    setWay('flow');
    onSaved();
    return null;
  };
  const takeBoth = () => {
    const { digits, scale, flow } = both!;
    void send(exact(digits, scale, gauge.resolution.unit), {
      streamed: true,
      ...(flow!.digits === null
        ? { below: true }
        : { flow: exact(flow!.digits, flow!.scale, flow!.unit as 'CFM') }),
    });
  };
  return (
    <div className="flex flex-[1_0_auto] flex-col gap-2">
      {both && (
        <Button className="min-h-14 shrink-0" onClick={takeBoth}>
          <span>
            Both stand still: take{' '}
            <span className="figure">
              {formatExact(exact(both.digits, both.scale, gauge.resolution.unit))}{' '}
              {unitLabel(gauge.resolution.unit)}
            </span>{' '}
            with{' '}
            <span className="figure">
              {both.flow!.digits === null
                ? 'flow below range'
                : showExact(exact(both.flow!.digits, both.flow!.scale, both.flow!.unit as 'CFM'))}
            </span>
            {both.simulated ? ', simulated' : ''}
          </span>
        </Button>
      )}
      <Keypad
        gauge={gauge}
        label={stage.of === 'hose' ? 'Pressure in the closed hose' : 'Pressure in the ducts'}
        save="Take this reading"
        live={live}
        signed
        {...(onCancel ? { onCancel } : {})}
        confirm="Both stood still, read together"
        aside={
          <div className="grid gap-1">
            <div role="group" aria-label="What the fan shows" className="grid grid-cols-3 gap-1">
              {WAYS.filter(([w]) => w !== 'at-fan' || fan.range.k).map(([w, words]) => (
                <Button
                  key={w}
                  className="min-h-11 px-1 text-sm leading-tight"
                  tone={way === w ? 'act' : 'plain'}
                  aria-pressed={way === w}
                  onClick={() => setWay(w)}
                >
                  {words}
                </Button>
              ))}
            </div>
            {way === 'below' ? (
              <p className="py-2 text-sm">
                {fan.range.name} begins at <span className="figure">{showExact(fan.range.least)}</span>: it is
                known to be less, no more.
              </p>
            ) : (
              <label className="flex items-baseline gap-2 border-b-2 border-lake">
                <span className="sr-only">{way === 'flow' ? 'Flow' : 'Pressure at the fan'}</span>
                <input
                  className="figure w-full min-w-0 bg-transparent text-3xl outline-none"
                  inputMode="decimal"
                  autoComplete="off"
                  placeholder={way === 'flow' ? 'flow' : 'at the fan'}
                  value={typed}
                  onChange={(e) => setTyped(e.target.value)}
                />
                <span className="figure text-lg whitespace-nowrap">
                  {way === 'flow' ? unitLabel(unit) : 'Pa'}
                </span>
              </label>
            )}
          </div>
        }
        onSave={async ({ figure, streamed }) => {
          if (way === 'below') return send(figure, { below: true });
          if (!typed.trim())
            return way === 'flow'
              ? 'Type the flow that stood there at the same moment, or press Below range.'
              : 'Type what the gauge at the fan showed at the same moment.';
          try {
            const read = parseFigure(typed, way === 'flow' ? unit : 'Pa');
            return await send(figure, {
              ...(way === 'flow' ? { flow: read } : { atFan: read }),
              ...(streamed ? { streamed: true } : {}),
            });
          } catch (error) {
            return (error as Error).message;
          }
        }}
      />
    </div>
  );
}
/** The gauge with the fan off and shut: what wind and stack make is taken out of every reading. */
export function FanOff({ view, act, gauge }: Pick<PanelProps, 'view' | 'act'> & { gauge: Gauge }) {
  return (
    <Keypad
      gauge={gauge}
      label="Fan off and shut: the gauge shows"
      save="Take it: start the fan slowly"
      live={view.live}
      previous={exact(0, entryStep(gauge).scale, gauge.resolution.unit)}
      signed
      onSave={async ({ figure }) => {
        const answer = await act({ kind: 'fan-off', pressure: figure });
        return answer.accepted ? null : answer.text;
      }}
    />
  );
}
