'use client';
import { valvesOf } from '@/core/installation/section';
import { sparesOf } from '@/core/instrument/spare';
import type { Stage } from '@/core/kinds';
import { fillingOf } from '@/core/plan/filling';
import { goodPath } from '@/core/plan/good-path';
import { dayOf } from '@/core/plan/plan';
import { showExact } from '@/core/quantity/exact';
import { showFigure } from '@/core/quantity/figure';
import { roleOf } from '@/core/roles';
import { foldOf } from '@/core/run/folds';
import { leakThatMatters } from '@/core/run/hold-spec';
import { gaugeOf, owedWords, partNow } from '@/core/run/read';
import { verdictOf } from '@/core/verdict/verdict';
import type { BenchView } from '@/device/bench';
import { seeing, standing } from '@/ui/bench/facts-figures';
import { Why } from '@/ui/kit/why';
import { clockTime, minutesWords } from '@/ui/kit/words';
import { type ComponentType, lazy, Suspense, useMemo } from 'react';
import { Limits } from './facts-limits';

// loaded beside the run; without it (no signal, never loaded) the facts stand without the drawing
const SectionDrawn = lazy<ComponentType<{ view: BenchView }>>(() =>
  import('./section-drawn').catch(() => ({ default: () => null })),
);

const H = 'text-sm text-quiet';

/** Facts that must not scroll away: gauge with its zero, limits with their source, what is owed. */
export function Facts({ view }: { view: BenchView }) {
  const { plan, state } = view;
  const part = partNow(plan, state);
  // the stages this plan goes through: another school's limits are not this run's
  const stages = useMemo(() => {
    const way = new Set([...goodPath(plan).map((p) => p.stage), ...state.visits.map((v) => v.stage)]);
    return Object.entries(plan.procedure.stages)
      .filter(([key, s]) => way.has(key) && (!part || s.part === part))
      .map(([, s]) => s);
  }, [plan, part, state.visits]);
  const judged = stages.find((s) => s.kind === 'hold' && roleOf(s.role).proves);
  return (
    <div className="grid gap-4 text-base">
      <section>
        <h2 className={H}>The section now</h2>
        <Suspense fallback={<div className="min-h-32" />}>
          <SectionDrawn view={view} />
        </Suspense>
      </section>
      <Judging view={view} />
      {!view.plan.procedure.unpressed && <Limits view={view} part={part} stages={stages} judged={judged} />}
      <SeenByHold view={view} part={part} judged={judged} />
      <PutBack view={view} />
      {!view.plan.procedure.unpressed && <AtThisPressure view={view} part={part} />}
      <MeasuredVolume view={view} />
      <ValvesNow view={view} />
      <PackLine view={view} />
    </div>
  );
}

/** The gauge with its zero, and its spares. */
function Judging({ view: { plan, state } }: { view: BenchView }) {
  const gauge = gaugeOf(plan, state);
  const zero = state.visits
    .flatMap((v) => v.zeros)
    .filter((z) => z.gauge === state.gauge)
    .pop();
  const spares = gauge && !gauge.simulated ? sparesOf(gauge, plan.gauges, dayOf(plan)) : [];
  return (
    <section>
      <h2 className={H}>Gauge that judges</h2>
      {gauge ? (
        <>
          <p className="font-semibold">
            {gauge.name}
            {gauge.simulated ? ' (simulated)' : gauge.kind === 'level' ? '' : `, serial ${gauge.serial}`}
          </p>
          <p>
            steps of <span className="figure-narrow">{showExact(gauge.resolution)}</span>
          </p>
          <p>
            {gauge.kind === 'level' ? (
              `a height over the ${plan.procedure.levelOver ?? 'slab'}`
            ) : zero ? (
              <>
                zero <span className="figure-narrow">{showExact(zero.figure)}</span> at{' '}
                {clockTime(zero.at, plan.made.zone)}
                {zero.good ? '' : ', off zero'}
              </>
            ) : (
              'not zeroed yet'
            )}
          </p>
          {spares.length > 0 && (
            <p className="text-sm text-quiet">Spare for a swap: {spares.map((g) => g.name).join(', ')}</p>
          )}
        </>
      ) : (
        <p>not chosen yet</p>
      )}
    </section>
  );
}
/** The smallest leak this hold could show. */
function SeenByHold({
  view: { plan, state },
  part,
  judged,
}: {
  view: BenchView;
  part: string | null;
  judged: Stage | undefined;
}) {
  const seen = useMemo(() => seeing(plan, state, part, judged), [plan, state, part, judged]);
  if (!seen) return null;
  return (
    <section>
      <h2 className={H}>What this hold can see</h2>
      <p>
        <Why guide="smallest-leak" facts={{ title: seen.leak.name, ...seen.leak }}>
          <span className="figure-narrow">{showFigure(seen.leak)}</span>
        </Why>
        ; what matters: <span className="figure-narrow">{showExact(leakThatMatters(plan, part))}</span>
      </p>
      <p className="text-sm text-quiet">
        Rule {minutesWords(seen.rule)}
        {seen.house !== null && <>, house {minutesWords(seen.house)}</>}; needed for this gauge and volume{' '}
        {seen.needed === null ? 'over a day: finer gauge or smaller section' : minutesWords(seen.needed)}.
      </p>
    </section>
  );
}
/** What is owed before the run can be closed. */
function PutBack({ view: { plan, state } }: { view: BenchView }) {
  const owed = state.debts.filter((d) => !d.cleared);
  // the same for every line: judged once, and only where something is owed
  const use = owed.length ? verdictOf(plan, state)?.use : undefined;
  return (
    <section>
      <h2 className={H}>To put back</h2>
      {owed.length ? (
        <ul>
          {owed.map((d) => (
            <li key={`${d.key}${d.subject ?? ''}`} className="border-l-4 border-ochre py-0.5 pl-2">
              {owedWords(plan, d, use)}
            </li>
          ))}
        </ul>
      ) : (
        <p>nothing owed</p>
      )}
    </section>
  );
}
/** What a kelvin and a millilitre show as, and what is stored. */
function AtThisPressure({ view: { plan }, part }: { view: BenchView; part: string | null }) {
  const stands = useMemo(() => standing(plan, part), [plan, part]);
  if (!stands)
    return fillingOf(plan, part).pumped ? (
      <p className="text-sm text-quiet">
        What a millilitre and a kelvin show as is not known here: choose each pipe from a table on the system
        page.
      </p>
    ) : null;
  return (
    <section>
      <h2 className={H}>At this pressure</h2>
      <p>
        {'perMillilitre' in stands ? (
          <>
            1 ml of loss shows as <span className="figure-narrow">{stands.perMillilitre}</span>, 1 K of warmth
            as <span className="figure-narrow">{stands.perKelvin}</span>.{' '}
          </>
        ) : (
          <>
            1 K moves it by <span className="figure-narrow">{stands.perKelvin}</span>, 1 mbar of barometer by{' '}
            <span className="figure-narrow">{stands.perMillibar}</span>.{' '}
          </>
        )}
        Stored:{' '}
        <Why guide="energy" facts={stands.why}>
          <span className="figure-narrow">{stands.energy}</span>
        </Why>
        , {stands.level}.
      </p>
    </section>
  );
}
/** The volume that was measured in this run. */
function MeasuredVolume({ view: { state } }: { view: BenchView }) {
  if (!state.volume) return null;
  return (
    <section>
      <h2 className={H}>Volume, measured</h2>
      <p>
        <Why guide="volume" facts={{ title: state.volume.figure.name, ...state.volume.figure }}>
          <span className="figure-narrow">{(state.volume.figure.value * 1000).toFixed(1)} l</span>
        </Why>
      </p>
    </section>
  );
}
/** Valves that were turned, and how they stand. */
function ValvesNow({ view: { plan, state } }: { view: BenchView }) {
  const valves = valvesOf(plan.system).filter((v) => state.valves[v.id]);
  if (!valves.length) return null;
  return (
    <section>
      <h2 className={H}>Valves now</h2>
      <table className="w-full">
        <tbody>
          {valves.map((v) => (
            <tr key={v.id} className="border-t border-seam">
              <th scope="row" className="py-0.5 pr-2 text-left font-normal">
                {v.name}
              </th>
              <td className="py-0.5 font-semibold">{state.valves[v.id]}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
/** By which pack and edition it is judged. */
function PackLine({ view: { plan } }: { view: BenchView }) {
  return (
    <>
      <p className="text-sm text-quiet">
        {plan.pack.school}, {plan.pack.edition}, pack {plan.pack.id} {plan.pack.version}
        {plan.engine && `, judgement ${plan.engine}`}
        {plan.pack.basedOn && <>, house pack from {plan.pack.basedOn.title}</>}. Check the edition in force
        where you work.
      </p>
      {plan.pack.loosened && plan.pack.loosened.length > 0 && (
        <p className="border-l-4 border-ochre pl-2 text-sm">
          This house pack permits more than its original in {plan.pack.loosened.length}{' '}
          {plan.pack.loosened.length === 1 ? 'place' : 'places'}; the record prints each.
        </p>
      )}
    </>
  );
}
/** The newest figures, each with where it is: on this device only, or with the office. */
export function Entries({ view }: { view: BenchView }) {
  const figures = view.events
    .flatMap((e) => ('figure' in e && e.figure ? [{ ...e, figure: e.figure }] : []))
    .slice(-6)
    .reverse();
  if (!figures.length) return null;
  return (
    <section className="mt-4 text-base">
      <h2 className="text-sm text-quiet">Newest figures</h2>
      <ul>
        {figures.map((e) => (
          <li key={e.id} className="flex justify-between gap-3 border-t border-seam py-1">
            <span>
              <span className="figure-narrow">{showExact(e.figure)}</span>{' '}
              <span className="text-sm text-quiet">
                {foldOf(e).entered ?? ''} {clockTime(e.at + e.offset, view.plan.made.zone)}
              </span>
            </span>
            <span className={`text-sm ${e.position === undefined ? 'text-ochre' : 'text-quiet'}`}>
              {e.position === undefined ? 'on this device' : 'with the office'}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
