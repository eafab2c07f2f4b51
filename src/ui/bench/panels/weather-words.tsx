import { sensitivityOf } from '@/core/plan/sensitivity';
import type { Plan } from '@/core/plan/plan';
import { type Exact, showExact } from '@/core/quantity/exact';
import { significantText } from '@/core/quantity/figure';
import { unitLabel } from '@/core/quantity/unit';
import { type HoldRole, roleOf } from '@/core/roles';
import type { Gauge } from '@/core/instrument/gauge';

/** Before a hold that is judged by movement: what one kelvin and one millibar of barometer do, beside what counts. */
export function WeatherWords({
  plan,
  part,
  gauge,
  role,
  start,
}: {
  plan: Plan;
  part: string | null | undefined;
  gauge: Gauge;
  role: HoldRole;
  start: Exact;
}) {
  if (!roleOf(role).moves && role !== 'slopes') return null;
  const s = sensitivityOf(plan, part ?? null, gauge, start);
  if (!s) return null;
  const unit = unitLabel(s.unit);
  return (
    <p className="mb-2 leading-tight text-quiet" data-weather>
      One kelvin:{' '}
      <span className="figure-narrow text-ink">
        {significantText(s.perKelvin, 2)} {unit}
      </span>
      {s.perMillilitre === undefined && (
        <>
          ; one mbar of barometer:{' '}
          <span className="figure-narrow text-ink">
            {significantText(s.perMillibar, 2)} {unit}
          </span>
        </>
      )}
      . What counts here: <span className="figure-narrow text-ink">{showExact(s.limit.value)}</span>.
    </p>
  );
}
