'use client';
import { valvesOf } from '@/core/installation/section';
import { sparesOf } from '@/core/instrument/spare';
import { fillingOf } from '@/core/plan/filling';
import { goodPath } from '@/core/plan/good-path';
import { allowanceOf } from '@/core/plan/limits';
import { dayOf, outsideDomain, ruleOf } from '@/core/plan/plan';
import { enteredCaps } from '@/core/plan/weakest';
import { breachWords, showExact, trimmed } from '@/core/quantity/exact';
import { showFigure } from '@/core/quantity/figure';
import { roleOf } from '@/core/roles';
import { foldOf } from '@/core/run/folds';
import { leakThatMatters } from '@/core/run/hold-spec';
import {
  gaugeOf,
  letByLimit,
  openJoints,
  owedWords,
  partNow,
  perceptibleOf,
  permittedDrop,
  runningHold,
} from '@/core/run/read';
import { classBound } from '@/core/verdict/adequacy';
import { verdictOf } from '@/core/verdict/verdict';
import type { BenchView } from '@/device/bench';
import { ownLimit, seeing, standing } from '@/ui/bench/facts-figures';
import { Why } from '@/ui/kit/why';
import { clockTime, minutesWords } from '@/ui/kit/words';
import { type ComponentType, lazy, Suspense, useMemo } from 'react';

// loaded beside the run; without it (no signal, never loaded) the facts stand without the drawing
const SectionDrawn = lazy<ComponentType<{ view: BenchView }>>(() =>
  import('./section-drawn').catch(() => ({ default: () => null })),
);

/** Facts that must not scroll away: gauge with its zero, limits with their source, what is owed. */
export function Facts({ view }: { view: BenchView }) {
  const { plan, state } = view;
  const gauge = gaugeOf(plan, state);
  const zero = state.visits
    .flatMap((v) => v.zeros)
    .filter((z) => z.gauge === state.gauge)
    .pop();
  const part = partNow(plan, state);
  const rule = ruleOf(plan, part);
  const filling = fillingOf(plan, part);
  const allowance = allowanceOf(plan, part);
  const drop = permittedDrop(plan, state, part);
  const denied = allowance.conditions.filter((c) => state.denied.includes(c.key));
  // the stages this plan goes through: another school's limits are not this run's
  const stages = useMemo(() => {
    const way = new Set([...goodPath(plan).map((p) => p.stage), ...state.visits.map((v) => v.stage)]);
    return Object.entries(plan.procedure.stages)
      .filter(([key, s]) => way.has(key) && (!part || s.part === part))
      .map(([, s]) => s);
  }, [plan, part, state.visits]);
  const letBy = stages.find((s) => s.kind === 'hold' && s.role === 'let-by');
  const judged = stages.find((s) => s.kind === 'hold' && roleOf(s.role).proves);
  const owed = state.debts.filter((d) => !d.cleared);
  // the same for every line: judged once, and only where something is owed
  const use = owed.length ? verdictOf(plan, state)?.use : undefined;
  const outside = outsideDomain(plan, part);
  const seen = useMemo(() => seeing(plan, state, part, judged), [plan, state, part, judged]);
  const spares = gauge && !gauge.simulated ? sparesOf(gauge, plan.gauges, dayOf(plan)) : [];
  const [cap = null] = enteredCaps(plan);
  const stands = useMemo(() => standing(plan, part), [plan, part]);
  const valves = valvesOf(plan.system).filter((v) => state.valves[v.id]);
  const h = 'text-sm text-quiet';
  return (
    <div className="grid gap-4 text-base">
      <section>
        <h2 className={h}>The section now</h2>
        <Suspense fallback={<div className="min-h-32" />}>
          <SectionDrawn view={view} />
        </Suspense>
      </section>
      <section>
        <h2 className={h}>Gauge that judges</h2>
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
      <section>
        <h2 className={h}>Limits</h2>
        <dl className="grid gap-2">
          {gauge &&
            letBy?.kind === 'hold' &&
            (() => {
              const limit = letByLimit(plan, letBy, gauge);
              return (
                <div>
                  <dt className="inline">Let-by rise: </dt>
                  <dd className="inline">
                    <Why
                      facts={{
                        title: 'Let-by limit',
                        source: limit.source,
                        text: `A rise of ${breachWords(limit)} counts. ${letBy.why ?? ''}`,
                      }}
                    >
                      <span className="figure-narrow">{breachWords(limit)}</span>
                    </Why>
                  </dd>
                </div>
              );
            })()}
          {gauge &&
            (() => {
              const pm = perceptibleOf(plan, gauge, part);
              return (
                <div>
                  <dt className="inline">Perceptible movement: </dt>
                  <dd className="inline">
                    <Why
                      facts={{
                        title: 'Perceptible movement',
                        source: pm.source,
                        text: `The smallest movement this gauge can honestly show. ${breachWords(pm)} counts as movement.`,
                      }}
                    >
                      <span className="figure-narrow">{showExact(trimmed(pm.value))}</span>
                    </Why>
                  </dd>
                </div>
              );
            })()}
          {rule.classes?.map((c) => (
            <div key={c.key}>
              <dt className="inline">{c.title}: </dt>
              <dd className="inline">
                <Why
                  facts={{
                    title: c.title,
                    source: c.source,
                    text: 'The class of the upper end of the 95 % interval: an interval that touches a bound falls into the worse class.',
                  }}
                >
                  <span className="figure-narrow">{classBound(c.below)}</span>
                </Why>
              </dd>
            </div>
          ))}
          {stages
            .flatMap((s) => (s.kind === 'hold' ? [s] : []))
            .map((s) => {
              const own = ownLimit(plan, state, s, gauge);
              return own ? (
                <div key={s.title}>
                  <dt className="inline">{own.name}: </dt>
                  <dd className="inline">
                    <Why facts={own.why}>
                      <span className="figure-narrow">{own.value}</span>
                    </Why>
                  </dd>
                </div>
              ) : null;
            })}
          {!rule.classes && (judged?.kind === 'hold' ? judged.role === 'tightness' : !part) && (
            <div>
              <dt className="inline">Permitted drop: </dt>
              <dd className="inline">
                <Why
                  facts={{
                    title: 'Permitted drop',
                    source: drop?.source ?? rule.nilSource ?? rule.allowance?.source ?? rule.title,
                    text: allowance.conditions.length
                      ? `Row: ${allowance.row}. Applies only when all hold: ${allowance.conditions.map((c) => c.text).join(', ')}. Exactly the permitted drop is still met.`
                      : 'No drop is permitted: any movement the gauge can show counts.',
                  }}
                >
                  <span className="figure-narrow">{drop ? showExact(drop.value) : 'nil'}</span>
                </Why>
                {denied.length > 0 && (
                  <span className="block text-ochre">Not met: {denied.map((d) => d.text).join(', ')}</span>
                )}
              </dd>
            </div>
          )}
          {cap && (
            <div>
              <dt className="inline">Never above: </dt>
              <dd className="inline">
                <span className="figure-narrow">{showExact(cap.most)}</span>, {cap.name}
              </dd>
            </div>
          )}
          {outside.map((o) => (
            <div key={o} className="border-l-4 border-heather pl-2">
              {o} {rule.domain.outside}
            </div>
          ))}
        </dl>
      </section>
      {seen && (
        <section>
          <h2 className={h}>What this hold can see</h2>
          <p>
            <Why facts={{ title: seen.leak.name, ...seen.leak }}>
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
      )}
      <section>
        <h2 className={h}>To put back</h2>
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
      {runningHold(state) && (
        <section>
          <h2 className={h}>While it waits</h2>
          <ul className="text-base">
            {filling.of === 'water' ? (
              filling.joints && <li>{filling.joints}</li>
            ) : (
              <li>
                {state.joints.length
                  ? `${openJoints(state).length} of ${state.joints.length} joints still to see with leak fluid`
                  : 'leak fluid on the joints touched today'}
                , under More
              </li>
            )}
            {plan.procedure.inventory && (
              <li>appliance inventory, {state.inventory.length} written down, under More</li>
            )}
            <li>photos of gauge and boundary; the next line</li>
          </ul>
        </section>
      )}
      {stands && (
        <section>
          <h2 className={h}>At this pressure</h2>
          <p>
            {'perMillilitre' in stands ? (
              <>
                1 ml of loss shows as <span className="figure-narrow">{stands.perMillilitre}</span>, 1 K of
                warmth as <span className="figure-narrow">{stands.perKelvin}</span>.{' '}
              </>
            ) : (
              <>
                1 K moves it by <span className="figure-narrow">{stands.perKelvin}</span>, 1 mbar of barometer
                by <span className="figure-narrow">{stands.perMillibar}</span>.{' '}
              </>
            )}
            Stored:{' '}
            <Why facts={stands.why}>
              <span className="figure-narrow">{stands.energy}</span>
            </Why>
            , {stands.level}.
          </p>
        </section>
      )}
      {filling.pumped && !stands && (
        <p className="text-sm text-quiet">
          What a millilitre and a kelvin show as is not known here: choose each pipe from a table on the
          system page.
        </p>
      )}
      {state.volume && (
        <section>
          <h2 className={h}>Volume, measured</h2>
          <p>
            <Why facts={{ title: state.volume.figure.name, ...state.volume.figure }}>
              <span className="figure-narrow">{(state.volume.figure.value * 1000).toFixed(1)} l</span>
            </Why>
          </p>
        </section>
      )}
      {valves.length > 0 && (
        <section>
          <h2 className={h}>Valves now</h2>
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
      )}
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
    </div>
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
