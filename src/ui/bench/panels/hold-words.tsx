'use client';
import { known } from '@/core/formula';
import type { HoldStage } from '@/core/kinds';
import { acceptOf } from '@/core/plan/limits';
import { vacuumFit } from '@/core/medium/vacuum';
import {
  type Exact,
  type Limit,
  parseWithUnit,
  showChange,
  showExact,
  toNumber,
} from '@/core/quantity/exact';
import { convert } from '@/core/quantity/unit';
import { roleOf } from '@/core/roles';
import type { RoleRule } from '@/core/roles/role';
import type { holdSpec } from '@/core/run/hold-spec';
import { coldest, vacuumPoints } from '@/core/roles/vacuum/judge';
import { contextOf, gaugeOf, perceptibleOf } from '@/core/run/read';
import type { Hold } from '@/core/run/state';
import { madeUp, makeUpLimit } from '@/core/run/water-limits';
import { Why } from '@/ui/kit/why';
import type { ComponentType } from 'react';
import type { PanelProps } from '../shared';

type Limits = { readonly fall: Limit; readonly rise: Limit; readonly nil: boolean };
interface WordsProps extends Pick<PanelProps, 'view' | 'stage' | 'at'> {
  readonly hold: Hold;
  readonly limits: Limits;
  readonly spec: NonNullable<ReturnType<typeof holdSpec>>;
}

const BandWords = ({ spec, stage }: WordsProps) => (
  <>
    {spec.band && (
      <>
        keep between <span className="figure">{showExact(spec.band.low)}</span> and{' '}
        <span className="figure">{showExact(spec.band.high)}</span>
      </>
    )}
    {stage.kind === 'hold' && stage.until === 'steady' && <>, until it stands still</>}
  </>
);
const BoundsWords = (props: WordsProps) => (
  <>
    {roleOf(props.hold.role).says} <AcceptWords {...props} />
  </>
);
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
            guide="make-up"
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

const SHAPES = {
  level: 'it stands still',
  falls: 'it FALLS: is the pump shut off?',
  leak: 'it rises evenly',
  moisture: 'it rises and flattens',
  both: 'not clear yet',
  few: 'a few more readings show it',
} as const;
/** Up to where a vacuum may stand, which rise is a leak, and what its shape is so far. */
function ShapeWords({ view, stage, hold }: WordsProps) {
  const { plan, state } = view;
  const gauge = gaugeOf(plan, state);
  if (stage.kind !== 'hold' || !stage.vacuum || !gauge) return null;
  const pm = perceptibleOf(plan, gauge, stage.part).value;
  const pa = (e: Exact) => convert(toNumber(e), e.unit, 'Pa(abs)');
  const { cause } = vacuumFit(vacuumPoints(state, hold, gauge), pa(gauge.resolution), pa(pm), coldest(hold));
  const { most, leakRise, source } = stage.vacuum;
  return (
    <>
      <Why
        guide="vacuum"
        facts={{
          title: 'What a standing vacuum is judged by',
          source,
          text: `At or below ${most.replace('(abs)', ' abs')} and level or flattening it holds. An even rise of ${leakRise.replace('(abs)', ' abs')} or more is a leak. Flattening above is moisture.`,
        }}
      >
        <span>
          at most <span className="figure">{showExact(parseWithUnit(most))}</span>, even rise below{' '}
          <span className="figure">{showExact(parseWithUnit(leakRise))}</span>
        </span>
      </Why>
      . So far: <strong>{SHAPES[cause]}</strong>.
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
          guide="permitted"
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

/** The movement that counts, and from where it is counted. */
function LimitWords({ hold, limits, stage }: WordsProps) {
  const { role } = hold;
  const { says } = roleOf(role);
  return (
    <Why guide={role === 'let-by' ? 'valve-difference' : 'permitted'} facts={whyLimit(limits, role)}>
      <span>
        {says ??
          (stage.kind === 'hold' && stage.judge
            ? 'without what warmth does, a fall of'
            : limits.nil
              ? 'nil: a fall of'
              : 'permitted drop')}{' '}
        <span className="figure">{showExact(role === 'let-by' ? limits.rise.value : limits.fall.value)}</span>
        {limits.nil || role === 'stretch'
          ? limits.rise.broken === 'at'
            ? ' or more counts'
            : ', more than it counts'
          : ', more is not tight'}
      </span>
    </Why>
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

const AGAINST: Readonly<Record<NonNullable<RoleRule['against']>, ComponentType<WordsProps>>> = {
  band: BandWords,
  bounds: BoundsWords,
  water: MakeUpWords,
  shape: ShapeWords,
  nothing: ({ hold }) => <>{roleOf(hold.role).says}</>,
};
/** The movement so far, and what it is watched against. */
export function ChangeWords({
  change,
  className,
  ...props
}: WordsProps & { change: Exact; className: string }) {
  const { against } = roleOf(props.hold.role);
  const Against = against ? AGAINST[against] : LimitWords;
  return (
    <p className={className}>
      Change <span className="figure font-semibold">{showChange(change)}</span>; <Against {...props} />
    </p>
  );
}
