'use client';
import { neededMinutes, smallestVisibleLeak } from '@/core/adequacy/gas';
import { allowanceOf, outsideDomain } from '@/core/plan/plan';
import { breachWords, showExact, toNumber } from '@/core/quantity/exact';
import { showFigure } from '@/core/quantity/figure';
import { gaugeOf, letByLimit, perceptibleOf } from '@/core/run/read';
import { holdSetting, leakThatMatters } from '@/core/verdict/verdict';
import type { BenchView } from '@/device/bench';
import { Why } from '@/ui/kit/why';
import { clockTime } from '@/ui/kit/words';

/** Facts that must not scroll away: gauge with its zero, limits with their source, what is owed. */
export function Facts({ view }: { view: BenchView }) {
  const { plan, state } = view;
  const gauge = gaugeOf(plan, state);
  const zero = state.visits
    .flatMap((v) => v.zeros)
    .filter((z) => z.gauge === state.gauge)
    .pop();
  const allowance = allowanceOf(plan);
  const denied = allowance.conditions.filter((c) => state.denied.includes(c.key));
  const letBy = Object.values(plan.procedure.stages).find((s) => s.kind === 'hold' && s.role === 'let-by');
  const judged = Object.values(plan.procedure.stages).find(
    (s) => s.kind === 'hold' && s.role === 'tightness',
  );
  const owed = state.debts.filter((d) => !d.cleared);
  const outside = outsideDomain(plan);
  const setting = judged?.kind === 'hold' ? holdSetting(plan, state, judged.minutes) : null;
  const leak = setting && smallestVisibleLeak(setting, plan.procedure.temperatureDefault);
  const needed =
    setting && neededMinutes(setting, toNumber(leakThatMatters(plan)), plan.procedure.temperatureDefault);
  const h = 'text-sm text-quiet';
  return (
    <div className="grid gap-4 text-base">
      <section>
        <h2 className={h}>Gauge that judges</h2>
        {gauge ? (
          <>
            <p className="font-semibold">
              {gauge.name}
              {gauge.simulated ? ' (simulated)' : `, serial ${gauge.serial}`}
            </p>
            <p>
              steps of <span className="figure-narrow">{showExact(gauge.resolution)}</span>
            </p>
            <p>
              {zero ? (
                <>
                  zero <span className="figure-narrow">{showExact(zero.figure)}</span> at{' '}
                  {clockTime(zero.at, plan.made.zone)}
                  {zero.good ? '' : ', off zero'}
                </>
              ) : (
                'not zeroed yet'
              )}
            </p>
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
              const pm = perceptibleOf(plan, gauge);
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
                      <span className="figure-narrow">{showExact(pm.value)}</span>
                    </Why>
                  </dd>
                </div>
              );
            })()}
          <div>
            <dt className="inline">Permitted drop: </dt>
            <dd className="inline">
              <Why
                facts={{
                  title: 'Permitted drop',
                  source: allowance.limit?.source ?? plan.procedure.allowance.source,
                  text: `Row: ${allowance.row}. Applies only when all hold: ${allowance.conditions.map((c) => c.text).join(', ')}. Exactly the permitted drop is still met.`,
                }}
              >
                <span className="figure-narrow">
                  {allowance.limit && !denied.length ? showExact(allowance.limit.value) : 'nil'}
                </span>
              </Why>
              {denied.length > 0 && (
                <span className="block text-ochre">Not met: {denied.map((d) => d.text).join(', ')}</span>
              )}
            </dd>
          </div>
          {outside.map((o) => (
            <div key={o} className="border-l-4 border-heather pl-2">
              {o} {plan.procedure.domain.outside}
            </div>
          ))}
        </dl>
      </section>
      {leak && judged?.kind === 'hold' && (
        <section>
          <h2 className={h}>What this hold can see</h2>
          <p>
            <Why facts={{ title: leak.name, ...leak }}>
              <span className="figure-narrow">{showFigure(leak)}</span>
            </Why>
            ; what matters: <span className="figure-narrow">{showExact(leakThatMatters(plan))}</span>
          </p>
          <p className="text-sm text-quiet">
            Rule {judged.minutes} min; needed for this gauge and volume{' '}
            {needed === null ? 'over a day: finer gauge or smaller section' : `${needed} min`}.
          </p>
        </section>
      )}
      <section>
        <h2 className={h}>To put back</h2>
        {owed.length ? (
          <ul>
            {owed.map((d) => (
              <li key={d.key} className="border-l-4 border-ochre py-0.5 pl-2">
                {plan.procedure.debts[d.key]?.text}
              </li>
            ))}
          </ul>
        ) : (
          <p>nothing owed</p>
        )}
      </section>
      <p className="text-sm text-quiet">
        {plan.pack.school}, {plan.pack.edition}, pack {plan.pack.id} {plan.pack.version}. Check the edition in
        force where you work.
      </p>
    </div>
  );
}

/** The newest figures, each with where it is: on this device only, or with the office. */
export function Entries({ view }: { view: BenchView }) {
  const figures = view.events
    .flatMap((e) => ('figure' in e ? [e] : []))
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
              <span className="text-sm text-quiet">{clockTime(e.at + e.offset, view.plan.made.zone)}</span>
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
