'use client';
import { type Gauge, gaugeFit } from '@/core/instrument/gauge';
import type { ZeroStage } from '@/core/kinds';
import { zeroWords } from '@/core/kinds/zero/fold';
import { fitTarget } from '@/core/plan/limits';
import { dayOf, type Plan } from '@/core/plan/plan';
import { exact, showExact } from '@/core/quantity/exact';
import type { Payload } from '@/core/run/events';
import { gaugeOf } from '@/core/run/read';
import { Scan } from '@/ui/codes/scan';
import { Button } from '@/ui/kit/button';
import { compact } from '@/wire/ledger';
import { byNeed } from '@/ui/kit/by-need';
import { Suspense, useState } from 'react';
import { Keypad } from '../keypad';
import { OwnKitChoice } from '../own-kit';
import type { PanelProps } from '../shared';

const PairGauge = byNeed(() => import('@/ui/kit/pair-gauge').then((m) => m.PairGauge));

/** The gauges of the plan, those that fit first, of them those in the unit of the test; what cannot be used stands last. */
function fittingFirst(plan: Plan, part: string | undefined) {
  const target = fitTarget(plan, part);
  const rank = (blocked: boolean, misfits: number, own: boolean) =>
    (blocked ? 4 : 0) + (misfits ? 2 : 0) + (own ? 0 : 1);
  return plan.gauges
    .map((gauge) => {
      const misfits = gaugeFit(gauge, target, dayOf(plan));
      const blocked = misfits.some((m) => m.blocks);
      const own = gauge.resolution.unit === target.pressure.unit;
      return { gauge, misfits, blocked, rank: rank(blocked, misfits.length, own) };
    })
    .sort((a, b) => a.rank - b.rank);
}
/** What is said with a zero: how the gauge stands when it is read. */
const zeroSaid = (gauge: Gauge): string =>
  gauge.kind === 'liquid'
    ? 'Nothing is connected, open to air; both legs level, the right fluid in them'
    : 'Nothing is connected, open to air';
/** Chooses the one gauge that judges, and proves its zero open to air. */
export function ZeroPanel(props: PanelProps) {
  const { plan, state } = props.view;
  const [another, setAnother] = useState(false);
  const gauge = gaugeOf(plan, state);
  if (gauge) return <ReadZero {...props} gauge={gauge} meant={false} />;
  // the one that was meant when the test was begun stands ready; by its zero it is chosen
  const meant = another
    ? undefined
    : fittingFirst(plan, props.stage.part).find((f) => f.gauge.id === plan.gaugeMeant && !f.blocked);
  return meant ? (
    <>
      <OwnKitChoice view={props.view} act={props.act} />
      {meant.misfits.map((m) => (
        <p key={m.code} className="text-ochre">
          {m.text}
        </p>
      ))}
      <ReadZero {...props} gauge={meant.gauge} meant onAnother={() => setAnother(true)} />
    </>
  ) : (
    <ChooseGauge {...props} />
  );
}

function ChooseGauge({ view, stage, act }: PanelProps) {
  const { plan } = view;
  const found = fittingFirst(plan, stage.part);
  const usable = found.filter((f) => !f.blocked);
  const blocked = found.filter((f) => f.blocked);
  const take = (id: string) => void act({ kind: 'gauge', gauge: id });
  return (
    <div className="shrink-0 lg:min-h-0 lg:flex-1 lg:shrink lg:overflow-auto">
      {(stage as ZeroStage).when === 'before' && <OwnKitChoice view={view} act={act} />}
      {usable.length === 0 && (
        <p role="alert" className="mb-3 border-l-4 border-rust pl-3">
          No gauge of the cabinet can judge this test. Enter one that does under{' '}
          <a className="text-lake underline" href="/cabinet">
            Cabinet
          </a>
          , or what is wrong with those below; then begin the test anew.
        </p>
      )}
      {usable.length > 1 && (
        <div className="mb-3">
          <Scan
            label="Scan its label"
            onCode={(code, text) => {
              const scanned = found.find(({ gauge: g }) =>
                code.kind === 'label' ? g.id === code.id : compact(g.serial) === compact(text),
              );
              if (!scanned)
                return 'That is no gauge of this test. It may have been entered after it was begun.';
              if (scanned.blocked)
                return `${scanned.gauge.name} cannot judge here: ${scanned.misfits.find((m) => m.blocks)!.text}`;
              take(scanned.gauge.id);
              return '';
            }}
          />
        </div>
      )}
      <ul data-judged-in="*" className="grid content-start gap-3" aria-label="Gauges in the cabinet">
        {usable.map((f) => (
          <GaugeLine key={f.gauge.id} {...f} onTake={() => take(f.gauge.id)} />
        ))}
      </ul>
      {blocked.length > 0 && (
        <details className="mt-3" open={usable.length === 0}>
          <summary className="min-h-11 cursor-pointer py-2 text-lake">
            {blocked.length} that cannot be used, and why
          </summary>
          <ul data-judged-in="*" className="grid content-start gap-3" aria-label="Gauges that cannot be used">
            {blocked.map((f) => (
              <GaugeLine key={f.gauge.id} {...f} />
            ))}
          </ul>
        </details>
      )}
    </div>
  );
}
function GaugeLine({
  gauge: g,
  misfits,
  onTake,
}: Pick<ReturnType<typeof fittingFirst>[number], 'gauge' | 'misfits'> & { onTake?: () => void }) {
  return (
    <li className="grid items-center gap-3 border border-seam bg-panel p-3 sm:grid-cols-[1fr_auto]">
      <span>
        <span className="block text-lg font-semibold">
          {g.name}
          {g.simulated ? ' (simulated)' : ''}
        </span>
        <span className="block text-sm text-quiet">
          serial {g.serial}, {g.kind}, steps of{' '}
          <span className="figure-narrow">{showExact(g.resolution)}</span>, to{' '}
          <span className="figure-narrow">{showExact(g.greatest)}</span>,{' '}
          {g.calibrationDue ? `calibrated to ${g.calibrationDue}` : 'calibration not entered'}
        </span>
        {misfits.map((m) => (
          <span key={m.code} className={`mt-1 block ${m.blocks ? 'text-rust' : 'text-ochre'}`}>
            {m.text}
          </span>
        ))}
        {!misfits.length && <span className="mt-1 block text-moss">Fits this test.</span>}
      </span>
      {onTake && (
        <Button tone="act" className="min-h-16 min-w-40" onClick={onTake}>
          Use this gauge
        </Button>
      )}
    </li>
  );
}

function ReadZero({
  view,
  visit,
  stage,
  act,
  gauge,
  meant,
  onAnother,
}: PanelProps & {
  gauge: Gauge;
  /** It is chosen with its zero. */
  meant: boolean;
  onAnother?: () => void;
}) {
  const { when, absolute } = stage as ZeroStage;
  const before = when === 'before';
  const last = visit.zeros[visit.zeros.length - 1];
  const enter = async (entry: Payload) => {
    const answer = meant
      ? await act({ kind: 'gauge', gauge: gauge.id }, (_, n) => (n === 1 ? entry : null))
      : await act(entry);
    return answer.accepted ? null : answer.text;
  };
  return (
    <div className="flex flex-[1_0_auto] flex-col">
      {last && !last.good && before && absolute && (
        <p role="alert" className="mb-3 border-l-4 border-ochre pl-3">
          {zeroWords(last)} is not what the air presses with. Take another gauge under More.
        </p>
      )}
      {last && !last.good && before && !absolute && (
        <p role="alert" className="mb-3 border-l-4 border-ochre pl-3">
          {showExact(last.figure)} open to air is off zero. Press zero on the gauge with nothing connected and
          read again, or take another gauge.
        </p>
      )}
      {before && !view.plan.practice && gauge.kind === 'digital' && view.live?.gauge !== gauge.id && (
        <SendsByItself gauge={gauge.id} />
      )}
      <Keypad
        gauge={gauge}
        label={`${gauge.name}, open to air, shows`}
        save={absolute ? 'It shows the air' : before ? 'Zero is proved' : 'Zero after the test'}
        signed={!absolute}
        live={view.live}
        {...(absolute
          ? {}
          : {
              expected: {
                figure: exact(0, gauge.resolution.scale, gauge.resolution.unit),
                words: `${zeroSaid(gauge)}: it shows`,
              },
            })}
        confirm={zeroSaid(gauge)}
        onSave={({ figure }) =>
          enter(absolute ? { kind: 'at-air', figure } : { kind: 'zero', figure, openToAir: true })
        }
        {...(onAnother ? { other: { words: 'Another gauge', onClick: onAnother } } : {})}
      />
      {absolute && (
        <Button className="min-h-16" onClick={() => void enter({ kind: 'at-air', over: true })}>
          It shows over range
        </Button>
      )}
    </div>
  );
}

/** Whose gauge streams: paired here once, it comes to every test that it judges. */
function SendsByItself({ gauge }: { gauge: string }) {
  const [open, setOpen] = useState(false);
  return (
    <details className="mb-2" onToggle={(e) => setOpen(e.currentTarget.open)}>
      <summary className="min-h-11 cursor-pointer py-2 text-lake">It sends what it shows by itself?</summary>
      {open && (
        <Suspense fallback={null}>
          <PairGauge gauge={gauge} />
        </Suspense>
      )}
    </details>
  );
}
