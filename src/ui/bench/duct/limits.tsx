'use client';
import { blankOf, type Edition, flowWords, type FanStage } from '@/core/kinds/fan/asked';
import type { FanResult, FanVisit } from '@/core/kinds/fan/state';
import type { AtReference } from '@/core/kinds/fan/judge';
import { readingWords } from '@/core/kinds/fan/fold';
import type { Plan } from '@/core/plan/plan';
import type { RunState } from '@/core/run/state';
import type { Unit } from '@/core/quantity/unit';
import { convert, unitLabel } from '@/core/quantity/unit';
import type { PanelProps } from '../shared';
import type { FlowRequest } from '@/chart/flow';
import { FlowPlot } from '@/ui/charts/flow-plot';
import { Button } from '@/ui/kit/button';
import { useSize } from '@/ui/kit/use-size';
import { Why } from '@/ui/kit/why';
import { useMemo, useState } from 'react';
import { Line } from '../line';

/** What the flow is held against, and what own kit passes by itself. */
export function FanLimits({
  stage,
  editions,
  reference,
  unit,
  plan,
  state,
}: {
  stage: FanStage;
  editions: readonly Edition[];
  reference: number;
  unit: Unit;
  plan: Plan;
  state: RunState;
}) {
  const own = editions.find((e) => e.judges);
  const limit = own?.limit;
  const blank = blankOf(plan, state, stage, reference);
  return (
    <dl className="grid grid-cols-2 gap-x-4 leading-tight max-sm:text-sm sm:flex sm:gap-x-6">
      <div>
        <dt className="text-sm text-quiet">Limit at {reference.toFixed(0)} Pa</dt>
        <dd>
          <Why
            guide="duct-limit"
            facts={{
              title: own?.title ?? 'No edition chosen',
              source: own?.source ?? stage.law.source,
              text: limit ? own.label : own?.missing || NO_FIGURE,
              ...(limit ? { formula: limit.working.formula, inputs: limit.working.inputs } : {}),
            }}
          >
            <span className="figure">{limit ? flowWords(limit.flow, unit) : 'none in this edition'}</span>
          </Why>
        </dd>
      </div>
      {stage.of === 'system' && (
        <div>
          <dt className="text-sm text-quiet">Own hose and ring</dt>
          <dd>
            <Why
              guide="kit-loss"
              facts={{
                title: 'Own kit',
                source: stage.ownKit.source,
                text: 'Printed beside the flow, never taken off it. Between the limit and the limit with own kit nobody can say whose loss it is.',
              }}
            >
              <span className="figure">{blank === null ? 'not tested' : flowWords(blank, unit)}</span>
            </Why>
          </dd>
        </div>
      )}
    </dl>
  );
}
const NO_FIGURE =
  'This edition gives no figure for this case: the flow is printed, and somebody else judges it.';

const inUnit = (flow: number, unit: Unit) => convert(flow, 'm3/s', unit);
/** What was read drawn, with the law through it and the limit. */
export function FanDrawn({
  visit,
  at,
  limit,
  reference,
  unit,
}: {
  visit: FanVisit;
  at: AtReference | FanResult['at'];
  limit: number | null;
  reference: number;
  unit: Unit;
}) {
  const [box, size] = useSize();
  const request = useMemo((): FlowRequest => {
    const standing = visit.readings.filter((r) => !r.struck);
    const from = at?.from;
    const worst = at?.measured;
    return {
      width: size.width,
      height: size.height,
      unit: unitLabel(unit),
      reference,
      limit: limit === null ? null : inUnit(limit, unit),
      points: standing.map((r) => ({
        id: r.id,
        pressure: r.net,
        flow: inUnit(r.flow ?? r.least, unit),
        bound: r.flow === null,
      })),
      law: from
        ? {
            from: { pressure: from.net, flow: inUnit(from.flow ?? from.least, unit) },
            n: at.n,
            low: Math.max(0.5, worst?.low ?? 0.5),
            high: Math.min(1, worst?.high ?? 1),
          }
        : null,
    };
  }, [visit, at, limit, reference, unit, size]);
  const words = at
    ? `${at.bound ? 'At most ' : ''}${flowWords(at.flow, unit)} at ${reference.toFixed(0)} Pa, exponent ${at.n.toFixed(2)}${at.measured ? ` measured, ${at.measured.low.toFixed(2)} to ${at.measured.high.toFixed(2)}` : ', assumed'}`
    : 'Nothing read yet';
  return (
    <figure className="m-0">
      <div ref={box} className="h-48 lg:h-56">
        {size.width > 60 && <FlowPlot request={request} label={words} />}
      </div>
      <figcaption className="text-sm">{words}</figcaption>
    </figure>
  );
}

/** Every reading of this step; one that was wrong is struck with its reason, and stays. */
export function FanReadings({ visit, view, act }: { visit: FanVisit } & Pick<PanelProps, 'view' | 'act'>) {
  const [striking, setStriking] = useState<string | null>(null);
  const [why, setWhy] = useState('');
  if (!visit.readings.length) return null;
  return (
    <ol aria-label="Readings" className="border-t border-seam text-sm">
      {visit.readings.map((r) => (
        <li key={r.id} className="border-b border-seam py-1">
          <div className="flex items-center justify-between gap-2">
            <span className={r.struck ? 'text-quiet line-through' : ''}>
              {readingWords(r, view.state.rooms.fan)}
            </span>
            {!r.struck && (
              <Button
                className="min-h-11 shrink-0 px-2 text-sm"
                onClick={() => {
                  setStriking(striking === r.id ? null : r.id);
                  setWhy('');
                }}
              >
                Strike
              </Button>
            )}
          </div>
          {striking === r.id && (
            <div className="grid gap-2 pb-2 sm:grid-cols-[1fr_auto] sm:items-end">
              <Line value={why} onChange={setWhy} most={200}>
                What was wrong with it? It is printed
              </Line>
              <Button
                tone="act"
                className="min-h-14"
                disabled={!why.trim()}
                onClick={() => {
                  void act({ kind: 'fan-struck', reading: r.id, reason: why.trim() });
                  setStriking(null);
                }}
              >
                Strike it
              </Button>
            </div>
          )}
        </li>
      ))}
    </ol>
  );
}
