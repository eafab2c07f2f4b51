import { type VacuumPoint, vacuumFit } from '@/core/medium/vacuum';
import {
  compare,
  exact,
  type Exact,
  type Limit,
  parseWithUnit,
  subtract,
  toNumber,
} from '@/core/quantity/exact';
import { wanted } from '@/core/formula/formula';
import { convert, toKelvin } from '@/core/quantity/unit';
import type { Hold, RunState } from '@/core/run/state';
import { measure } from '@/core/verdict/judge';
import type { Gauge } from '@/core/instrument/gauge';
import type { RoleJudge, RoleLimits } from '../judging';

const absolute = (a: Exact): number => convert(toNumber(a), a.unit, 'Pa(abs)');

/** Everything that was read of a standing vacuum, in its order: start, display, readings, end. */
export function vacuumPoints(state: RunState, hold: Hold, gauge: Gauge): VacuumPoint[] {
  const visit = state.visits.find((v) => v.holds.includes(hold));
  const { scale, unit } = gauge.resolution;
  const from = hold.start.readMoment;
  const read = [
    ...(visit?.readings ?? []).map((r) => ({ at: r.readMoment, figure: (r.corrected ?? r).figure })),
    ...(visit?.trace ?? []).map(([at, digits]) => ({ at, figure: exact(digits, scale, unit) })),
    ...(hold.end ? [{ at: hold.end.readMoment, figure: hold.end.figure }] : []),
  ]
    .filter((r) => r.figure.unit === unit && r.at > from && r.at <= (hold.end?.readMoment ?? Infinity))
    .sort((a, b) => a.at - b.at);
  return [
    { seconds: 0, pa: absolute(hold.start.figure) },
    ...read.map((r) => ({ seconds: (r.at - from) / 1000, pa: absolute(r.figure) })),
  ];
}
/** The coldest that was logged, °C: moisture cannot rise above its vapour pressure there. */
export function coldest(hold: Hold): number | null {
  const logged = [hold.temperature.start, hold.temperature.end].flatMap((t) =>
    t ? [toKelvin(toNumber(t), t.unit) - 273.15] : [],
  );
  return logged.length ? Math.min(...logged) : null;
}
/** The pack's bounds in the gauge's unit. */
const boundsOf = (own: NonNullable<Parameters<RoleJudge>[0]['own']>, gauge: Gauge) => {
  const { most, leakRise } = own.vacuum!;
  const { unit } = gauge.resolution;
  return {
    most: wanted(parseWithUnit(most), unit, 'down'),
    leakRise: wanted(parseWithUnit(leakRise), unit, 'down'),
  };
};

/**
 * A standing vacuum. It falls: void, for a closed circuit does not pump itself. At or below the bound and level or flattening: held.
 * An even rise of so much or more: a leak. Flattening above the bound: moisture. All else is not clear yet.
 */
export const judge: RoleJudge = ({ state, hold, facts, gauge, perceptible, own }) => {
  const { amount: _, ...m } = measure(facts, perceptible);
  if (!own?.vacuum) return { ...m, limit: null, outcome: 'unclear' };
  const { most, leakRise } = boundsOf(own, gauge);
  const points = vacuumPoints(state, hold, gauge);
  const fit = vacuumFit(points, absolute(gauge.resolution), absolute(perceptible.value), coldest(hold));
  const low = compare(facts.end, most) <= 0;
  const rise = subtract(facts.end, facts.start);
  const outcome =
    fit.cause === 'falls'
      ? 'fell'
      : fit.cause === 'leak' && compare(rise, leakRise) >= 0
        ? 'leak'
        : low && (fit.cause === 'level' || fit.cause === 'moisture')
          ? 'held'
          : !low && fit.cause === 'moisture'
            ? 'moisture'
            : 'unclear';
  const limit: Limit = { value: most, broken: 'above', source: own.vacuum.source };
  return { ...m, limit, outcome, vacuum: { ...fit, readings: points.length } };
};
/** Drawn and said while it stands: up to where it may rise. */
export const limits: RoleLimits = ({ stage, gauge, hold, pm }) => {
  if (!stage.vacuum || !hold) return { fall: pm, rise: pm, nil: false };
  const most = wanted(parseWithUnit(stage.vacuum.most), gauge.resolution.unit, 'down');
  const rise = subtract(most, hold.start.figure);
  return {
    fall: pm,
    rise: { value: rise.digits > 0 ? rise : pm.value, broken: 'above', source: stage.vacuum.source },
    nil: false,
  };
};
