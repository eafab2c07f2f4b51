import { mediumOf } from '@/core/plan/cautions';
import type { Plan } from '@/core/plan/plan';
import type { PartProspect } from '@/core/plan/prospect';
import { inUnit, showExact } from '@/core/quantity/exact';
import { twinOf } from '@/core/quantity/unit';
import { Why } from '@/ui/kit/why';

/** Test pressure with its working, the weakest element named, the medium and its reason; the impossible explained. */
export function PressurePart({ plan, prospect }: { plan: Plan; prospect: PartProspect }) {
  const { pressure: p } = prospect;
  const medium = mediumOf(plan);
  const twin = p.pressure && twinOf(p.pressure.unit);
  return (
    <div>
      <h3 className="text-lg font-semibold">Test pressure</h3>
      <div className="mt-1 grid gap-x-8 gap-y-2 border-t border-seam pt-2 sm:grid-cols-[auto_1fr]">
        <div>
          {p.pressure ? (
            <Why
              guide="test-pressure"
              facts={{
                title: 'Test pressure',
                source: `${plan.pack.title}, ${plan.pack.edition}`,
                text: p.working?.text ?? 'The figure of the rule pack.',
                ...(p.working ? { formula: p.working.formula, inputs: p.working.inputs } : {}),
              }}
            >
              <span className="figure text-3xl">{showExact(p.pressure)}</span>
            </Why>
          ) : (
            <p className="border-l-4 border-ochre pl-3">{p.missing}</p>
          )}
          {p.pressure && twin && (
            <p className="figure-narrow text-quiet">{showExact(inUnit(p.pressure, twin, 2, 'up'))}</p>
          )}
        </div>
        <div>
          {p.working && <p className="figure-narrow text-sm">{p.working.formula}</p>}
          <p>
            {p.weakest ? (
              <>
                Weakest element in scope: {p.weakest.name},{' '}
                <span className="figure-narrow">{showExact(p.weakest.most)}</span>{' '}
                <span className="text-sm text-quiet">({p.weakest.why})</span>
              </>
            ) : (
              'No part with a lower permitted pressure is entered.'
            )}
          </p>
          <p className="mt-1">
            With {medium.medium}. <span className="text-sm text-quiet">{medium.reason}</span>
          </p>
        </div>
      </div>
      {p.impossible && (
        <p role="alert" className="mt-2 border-l-4 border-rust pl-3 font-semibold">
          No test is possible as entered. {p.impossible}
        </p>
      )}
    </div>
  );
}
