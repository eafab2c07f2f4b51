import type { Plan } from '@/core/plan/plan';
import { sparesOf } from '@/core/instrument/spare';
import type { PartProspect } from '@/core/plan/prospect';
import { showExact } from '@/core/quantity/exact';
import { significantText } from '@/core/quantity/figure';
import { minutesWords } from '@/ui/kit/words';
import { GaugeChoice } from './gauge-choice';

/** Gauges of the cabinet as sentences: which is proposed, why another cannot judge, which is its spare. */
export function GaugesPart({
  plan,
  prospect,
  day,
  chosen,
}: {
  plan: Plan;
  prospect: PartProspect;
  day: string;
  chosen: string | null;
}) {
  const usable = prospect.gauges.filter((g) => g.usable);
  const not = prospect.gauges.filter((g) => !g.usable);
  const judging = plan.gauges.find((g) => g.id === chosen);
  const spares = judging ? sparesOf(judging, plan.gauges, day) : [];
  return (
    <fieldset data-judged-in="*">
      <legend className="text-lg font-semibold">Gauge that judges</legend>
      <div className="mt-1 border-t border-seam">
        {usable.map((g) => (
          <label
            key={g.gauge.id}
            className="flex min-h-12 cursor-pointer items-start gap-3 border-b border-seam py-2"
          >
            <GaugeChoice part={prospect.part ?? ''} id={g.gauge.id} chosen={chosen === g.gauge.id} />
            <span>
              <span className="font-semibold">{g.gauge.name}</span>, {g.gauge.serial}, to{' '}
              <span className="figure-narrow">{showExact(g.gauge.greatest)}</span> in steps of{' '}
              <span className="figure-narrow">{showExact(g.gauge.resolution)}</span>
              {prospect.best === g.gauge.id && (
                <span className="ml-2 text-sm font-semibold text-lake">proposed</span>
              )}
              <span className="block text-sm text-quiet">
                {g.sees !== null && `sees ${significantText(g.sees, 2)} l/h in the planned hold`}
                {g.needed !== null &&
                  `; needs ${g.needed === 'over-a-day' ? 'more than a day' : minutesWords(g.needed)} for the leak that matters`}
              </span>
              {g.misfits.map((m) => (
                <span key={m.code} className="block text-sm text-ochre">
                  {m.text}
                </span>
              ))}
            </span>
          </label>
        ))}
        {usable.length === 0 && (
          <p className="border-b border-seam py-2 text-rust">No gauge of the cabinet may judge this test.</p>
        )}
      </div>
      {judging && (
        <p className="mt-2 text-sm">
          {spares.length
            ? `Spare of the same size for a swap: ${spares.map((g) => `${g.name}, ${g.serial}`).join('; ')}.`
            : 'There is no spare of the same size: an apparent drop could not be told from a bad gauge.'}
        </p>
      )}
      {not.length > 0 && (
        <details className="mt-1 text-sm">
          <summary className="min-h-8 cursor-pointer text-lake">
            Why the other {not.length} cannot judge it
          </summary>
          <ul className="mt-1 grid gap-1">
            {not.map((g) => (
              <li key={g.gauge.id}>
                {g.misfits
                  .filter((m) => m.blocks)
                  .map((m) => m.text)
                  .join(' ')}
              </li>
            ))}
          </ul>
        </details>
      )}
    </fieldset>
  );
}
