'use client';
import { movesOf } from '@/core/fillings/moves';
import type { Plan } from '@/core/plan/plan';
import { showExact } from '@/core/quantity/exact';
import { significantText } from '@/core/quantity/figure';
import { inZone } from '@/core/quantity/in-zone';
import { gaugePascal } from '@/core/quantity/pascal';
import { convert, unitLabel } from '@/core/quantity/unit';

/** What the test before left in, since when, and what a kelvin does to it: enough to tell warmth from a loss. */
export function LeftIn({ plan }: { plan: Plan }) {
  const { after } = plan;
  if (!after?.left)
    return (
      <p className="border-l-4 border-ochre pl-3">Nothing is on record as left in by the test before.</p>
    );
  const { figure, at } = after.left;
  const pa = gaugePascal(figure);
  const weather = pa === null ? null : movesOf(plan).weather(plan.system, pa);
  const each = weather && convert(weather.perKelvin, 'Pa', figure.unit);
  return (
    <p className="border-l-4 border-lake pl-3 text-lg">
      Left in by {after.number}: <span className="figure font-semibold">{showExact(figure)}</span>, since{' '}
      {inZone(Date.parse(at), plan.made.zone)}.
      {each !== null && (
        <>
          {' '}
          One kelvin warmer or colder is{' '}
          <span className="figure">
            {significantText(each, 2)} {unitLabel(figure.unit)}
          </span>
          .
        </>
      )}
    </p>
  );
}
