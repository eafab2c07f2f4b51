'use client';
import type { Gauge } from '@/core/instrument/gauge';
import { inUnit, magnitude, showExact, subtract } from '@/core/quantity/exact';
import { UNITS } from '@/core/quantity/unit';
import type { HoldSpec } from '@/core/run/hold-spec';
import type { RunState } from '@/core/run/state';
import { unheldWays } from '@/core/run/unheld';
import { Button } from '@/ui/kit/button';
import { Why } from '@/ui/kit/why';
import { minutesWords } from '@/ui/kit/words';
import { useState } from 'react';
import { Keypad } from '../keypad';
import { LevelWords } from '../level-words';
import type { PanelProps } from '../shared';
import { SideEntry } from '../side';
import type { Side } from '../side-entry';
import { PoorKit, startWords, TimesWords } from './ahead';
import { WeatherWords } from './weather-words';
import { WillNotStand } from './unheld';

/** Before a hold: where it starts, how long and why, the start reading. */
export function HoldStart(
  props: PanelProps & {
    readonly gauge: Gauge;
    readonly spec: HoldSpec;
    readonly side: Side | null;
    readonly onSide: (side: Side | null) => void;
  },
) {
  const { view, stage, act, gauge, spec, side, onSide } = props;
  const { plan, state } = view;
  const [unheld, setUnheld] = useState(false);
  const before = newestFill(state);
  const { band } = spec;
  if (unheld) return <WillNotStand {...props} gauge={gauge} onBack={() => setUnheld(false)} />;
  const falls = unheldWays(state, stage).length > 0;
  return (
    <div className="flex flex-[1_0_auto] flex-col" data-step="start">
      <Length stage={stage} spec={spec} />
      {gauge.kind === 'level' && <LevelWords plan={plan} head />}
      <Noticed view={view} stage={stage} gauge={gauge} spec={spec} />
      <Keypad
        gauge={gauge}
        label={
          gauge.kind === 'level'
            ? `Height of the water over the ${plan.procedure.levelOver ?? 'slab'}, now: the hold starts with it`
            : 'Read the gauge now: it starts the hold'
        }
        save={startWords(spec)}
        previous={before?.figure ?? null}
        live={view.live}
        onSave={async (entered) => {
          const answer = await act({ kind: 'hold-start', ...entered });
          return answer.accepted ? null : answer.text;
        }}
      />
      {side ? (
        <SideEntry {...props} side={side} onDone={() => onSide(null)} onSide={onSide} />
      ) : (
        <Ways
          stage={stage}
          band={band !== null}
          falls={falls}
          onSide={onSide}
          onUnheld={() => setUnheld(true)}
        />
      )}
    </div>
  );
}

/** Where it starts and how long it is, each with its reason; rule, house and need where they differ. */
function Length({ stage, spec }: Pick<PanelProps, 'stage'> & { spec: HoldSpec }) {
  const { times, band } = spec;
  return (
    <>
      <p className="mb-2">
        {band ? (
          <>
            Start between{' '}
            <Why
              guide="band"
              facts={{
                title: 'Band to start in',
                source: band.working?.formula ?? spec.source,
                text: band.working?.text ?? 'A hold starts only inside its band; both ends count as inside.',
                ...(band.working ? { formula: band.working.formula, inputs: band.working.inputs } : {}),
              }}
            >
              <span className="figure">
                {showExact(band.low)} and {showExact(band.high)}
              </span>
            </Why>
            , then{' '}
          </>
        ) : (
          'Wherever it stands, for '
        )}
        <Why
          guide="hold-length"
          facts={{
            title: 'Length of the hold',
            source: spec.source,
            text: stage.why ?? 'The rule’s own minutes.',
            ...(times.working ? { formula: times.working.formula, inputs: times.working.inputs } : {}),
          }}
        >
          <span className="figure">{minutesWords(spec.minutes)}</span>
        </Why>
        .
      </p>
      <TimesWords times={times} />
    </>
  );
}
const newestFill = (state: RunState) => [...state.visits].reverse().flatMap((v) => [...v.fills].reverse())[0];
/** What earlier figures say before this hold begins. */
function Noticed({
  view,
  stage,
  gauge,
  spec,
}: Pick<PanelProps, 'view' | 'stage'> & { gauge: Gauge; spec: HoldSpec }) {
  const { plan, state } = view;
  const { band } = spec;
  const before = newestFill(state);
  const settled = [...state.visits]
    .reverse()
    .flatMap((v) =>
      [
        ...v.cycles.flatMap((c) => (c.settle ? [c.settle] : [])),
        ...v.holds.filter((h) => h.role === 'settle'),
      ].reverse(),
    )[0];
  const unit = gauge.resolution.unit;
  const live = plan.procedure.boundary !== 'separated' && UNITS[unit].dimension === 'pressure';
  const supply = live ? inUnit(plan.system.supplyPressure, unit, gauge.resolution.scale, 'down') : null;
  return (
    <>
      {spec.role === 'let-by' && before && supply && (
        <p className="mb-2">
          Across the valve:{' '}
          <Why
            guide="valve-difference"
            facts={{
              title: 'Difference across the valve',
              text: 'Near-equal pressures would hide a passing valve.',
              inputs: [
                { name: 'supply', value: showExact(supply) },
                { name: 'section', value: showExact(before.figure) },
              ],
              source: spec.source,
            }}
          >
            <span className="figure font-semibold">{showExact(subtract(supply, before.figure))}</span>
          </Why>
          .
        </p>
      )}
      {spec.role === 'tightness' && settled?.judgement && settled.judgement.change.digits < 0 && (
        <p className="mb-2 border-l-4 border-ochre pl-3">
          Stabilisation fell by{' '}
          <span className="figure">{showExact(magnitude(settled.judgement.change))}</span>
          {settled.topUps.length > 0 && ` and was re-adjusted ${settled.topUps.length} times`}: an early hint
          of a leak, not a result.
        </p>
      )}
      {before && (
        <WeatherWords {...{ plan, gauge }} part={stage.part} role={spec.role} start={before.figure} />
      )}
      {band && (
        <PoorKit
          {...{ plan, state, gauge }}
          hold={{ part: stage.part, role: spec.role, minutes: spec.minutes, start: band.low }}
        />
      )}
    </>
  );
}
function Ways({
  stage,
  band,
  falls,
  onSide,
  onUnheld,
}: Pick<PanelProps, 'stage'> & {
  band: boolean;
  falls: boolean;
  onSide: (side: Side) => void;
  onUnheld: () => void;
}) {
  return (
    <div className="mt-2 flex flex-wrap gap-3">
      {band && (
        <Button className="min-h-14" onClick={() => onSide('top-up')}>
          Re-adjust first
        </Button>
      )}
      {falls && (
        <Button className="min-h-14" onClick={onUnheld}>
          {stage.kind === 'hold' && stage.vacuum ? 'It came up again' : 'It will not stand'}
        </Button>
      )}
      {stage.kind === 'hold' && (stage.skip || stage.optional) && (
        <Button className="min-h-14" onClick={() => onSide('skip')}>
          Skip this stage
        </Button>
      )}
      {stage.kind === 'isolate-and-repeat' && stage.optional && (
        <Button className="min-h-14" onClick={() => onSide('skip')}>
          Leave it at that
        </Button>
      )}
      <Button className="min-h-14" onClick={() => onSide('more')}>
        More
      </Button>
    </div>
  );
}
