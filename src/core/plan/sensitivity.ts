/** What one kelvin and one millibar do to a hold, beside what counts. */
import { movesOf } from '@/core/fillings/moves';
import type { Gauge } from '@/core/instrument/gauge';
import { type Exact, type Limit, toNumber } from '@/core/quantity/exact';
import { gaugePascal } from '@/core/quantity/pascal';
import { convert, type Unit } from '@/core/quantity/unit';
import { perceptibleOf } from '@/core/run/read';
import { allowanceOf } from './limits';
import type { Plan } from './plan';

export interface Sensitivity {
  readonly unit: Unit;
  /** change of the reading per millilitre lost, for a section full of water, in the gauge's unit */
  readonly perMillilitre?: number;
  /** change of the reading per kelvin and per mbar of barometer, in the gauge's unit */
  readonly perKelvin: number;
  readonly perMillibar: number;
  readonly limit: Limit;
  /** kelvin that alone move the reading by the limit */
  readonly kelvinToLimit: number;
}
/** What weather does to a hold at a pressure, beside its limit. */
export function sensitivityOf(
  plan: Plan,
  part: string | null,
  gauge: Gauge,
  pressure: Exact,
): Sensitivity | null {
  const unit = gauge.resolution.unit;
  const pa = gaugePascal(pressure);
  const weather = pa === null ? null : movesOf(plan, part).weather(plan.system, pa);
  if (!weather) return null;
  const perKelvin = convert(weather.perKelvin, 'Pa', unit);
  const allowance = allowanceOf(plan, part).limit;
  const limit = allowance ?? perceptibleOf(plan, gauge, part);
  return {
    unit,
    perKelvin,
    ...(weather.stiffness ? { perMillilitre: convert(1e-6 / weather.stiffness, 'Pa', unit) } : {}),
    perMillibar: convert(1, 'mbar', unit),
    limit,
    kelvinToLimit: Math.abs(convert(toNumber(limit.value), limit.value.unit, unit) / perKelvin),
  };
}
