'use client';
import { gaugeFit } from '@/core/instrument/gauge';
import type { ZeroStage } from '@/core/kinds';
import { zeroWords } from '@/core/kinds/zero/fold';
import { fitTarget } from '@/core/plan/limits';
import { dayOf, type Plan } from '@/core/plan/plan';
import { showExact } from '@/core/quantity/exact';
import { gaugeOf } from '@/core/run/read';
import { Button } from '@/ui/kit/button';
import { Keypad } from '../keypad';
import { OwnKitChoice } from '../own-kit';
import type { PanelProps } from '../shared';

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
/** Chooses the one gauge that judges, and proves its zero open to air. */
export function ZeroPanel({ view, visit, stage, act }: PanelProps) {
  const { plan, state } = view;
  const gauge = gaugeOf(plan, state);
  const { when, absolute } = stage as ZeroStage;
  const before = when === 'before';
  const last = visit.zeros[visit.zeros.length - 1];
  if (!gauge)
    return (
      <div className="shrink-0 lg:min-h-0 lg:flex-1 lg:shrink lg:overflow-auto">
        {before && <OwnKitChoice view={view} act={act} />}
        <ul className="grid content-start gap-3" aria-label="Gauges in the cabinet">
          {fittingFirst(plan, stage.part).map(({ gauge: g, misfits, blocked }) => {
            return (
              <li
                key={g.id}
                className="grid items-center gap-3 border border-seam bg-panel p-3 sm:grid-cols-[1fr_auto]"
              >
                <span>
                  <span className="block text-lg font-semibold">
                    {g.name}
                    {g.simulated ? ' (simulated)' : ''}
                  </span>
                  <span className="block text-sm text-quiet">
                    serial {g.serial}, {g.kind}, steps of{' '}
                    <span className="figure-narrow">{showExact(g.resolution)}</span>, to{' '}
                    <span className="figure-narrow">{showExact(g.greatest)}</span>, calibrated to{' '}
                    {g.calibrationDue}
                  </span>
                  {misfits.map((m) => (
                    <span key={m.code} className={`mt-1 block ${m.blocks ? 'text-rust' : 'text-ochre'}`}>
                      {m.text}
                    </span>
                  ))}
                  {!misfits.length && <span className="mt-1 block text-moss">Fits this test.</span>}
                </span>
                <Button
                  tone="act"
                  className="min-h-16 min-w-40"
                  disabled={blocked}
                  onClick={() => void act({ kind: 'gauge', gauge: g.id })}
                >
                  Use this gauge
                </Button>
              </li>
            );
          })}
        </ul>
      </div>
    );
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
      <Keypad
        gauge={gauge}
        label={`${gauge.name}, open to air, shows`}
        save={absolute ? 'It shows the air' : before ? 'Zero is proved' : 'Zero after the test'}
        signed={!absolute}
        live={view.live}
        confirm={
          gauge.kind === 'liquid'
            ? 'Nothing is connected, open to air; both legs level, the right fluid in them'
            : 'Nothing is connected, open to air'
        }
        onSave={async ({ figure }) => {
          const answer = await act(
            absolute ? { kind: 'at-air', figure } : { kind: 'zero', figure, openToAir: true },
          );
          return answer.accepted ? null : answer.text;
        }}
      />
      {absolute && (
        <Button className="min-h-16" onClick={() => void act({ kind: 'at-air', over: true })}>
          It shows over range
        </Button>
      )}
    </div>
  );
}
