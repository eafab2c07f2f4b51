/** When the barometer counts in a hold: where what it may do over the hold reaches the smallest movement that counts. */
import type { Gauge } from '@/core/instrument/gauge';
import type { Stage } from '@/core/kinds';
import { fillingOf } from '@/core/plan/filling';
import { type Plan } from '@/core/plan/plan';
import { compare, exact, type Exact, inUnit, scaled, showExact, toNumber } from '@/core/quantity/exact';
import { convert, UNITS, unitLabel } from '@/core/quantity/unit';
import { type HoldRole, roleOf } from '@/core/roles';
import { gaugeOf, perceptibleOf } from './read';
import type { Hold, RunState } from './state';
import { no, type Refusal } from './transition';

/**
 * What the barometer may do in a gas hold of so many minutes, at 1 mbar an hour, in the gauge's unit; null where that stays
 * below the perceptible movement, where no gas is held, and for plans of the first format. Source: general rules of judging
 */
export function barometerShare(
  plan: Plan,
  part: string | null | undefined,
  gauge: Gauge,
  role: HoldRole,
  minutes: number,
): Exact | null {
  const unit = gauge.resolution.unit;
  if (plan.format < 2 || !roleOf(role).moves || !fillingOf(plan, part).barometer) return null;
  if (UNITS[unit].dimension !== 'pressure') return null;
  const pm = perceptibleOf(plan, gauge, part).value;
  const share = inUnit(exact(Math.ceil((minutes * 1000) / 60), 3, 'mbar'), unit, pm.scale + 2, 'up');
  return compare(share, pm) >= 0 ? share : null;
}
/**
 * Whether a running hold still lacks the barometer at start and end that its length, or its pack, asks for.
 * @param minutes how long it was, where it is ended; absent: as planned
 */
export function barometerNeeded(
  plan: Plan,
  state: RunState,
  stage: Stage,
  hold: Hold,
  minutes = hold.minutes,
): boolean {
  const { none, start, end } = hold.barometer;
  if (none || (start && end)) return false;
  // a hold that begins with an earlier reading has no barometer of its start: what it may have done is counted in
  if (stage.kind === 'hold' && stage.since) return false;
  if (stage.kind === 'hold' && stage.barometerOver !== undefined && minutes > stage.barometerOver)
    return true;
  const gauge = gaugeOf(plan, state);
  return !!gauge && barometerShare(plan, stage.part, gauge, hold.role, minutes) !== null;
}
/** Why a barometer reading is too coarse to judge this hold by: a step may be at most half of what counts. */
export function coarseBarometer(
  plan: Plan,
  state: RunState,
  stage: Stage,
  hold: Hold,
  figure: Exact,
): Refusal | null {
  const gauge = gaugeOf(plan, state);
  if (!gauge || !barometerShare(plan, stage.part, gauge, hold.role, hold.minutes)) return null;
  const pm = perceptibleOf(plan, gauge, stage.part).value;
  const most = convert(toNumber(scaled(pm, 1, 2, pm.scale + 1, 'down')), pm.unit, 'Pa');
  const step = convert(10 ** -figure.scale, figure.unit, 'Pa');
  if (step <= most * (1 + 1e-9)) return null;
  const decimals = Math.max(0, Math.ceil(-Math.log10(convert(most, 'Pa', figure.unit)) - 1e-9));
  return no(
    'coarse',
    `This hold counts ${showExact(pm)}: type the barometer with ${decimals} ${decimals === 1 ? 'decimal' : 'decimals'} in ${unitLabel(figure.unit === 'mbar' ? 'hPa' : figure.unit)}, or say that there is none at hand.`,
  );
}
