/** What keeps a hold from ending: not settled, too close to its limit to tell, a dial that must be tapped; and what may end it early. */
import { entryStep, type Gauge } from '@/core/instrument/gauge';
import { type Stage } from '@/core/kinds';
import { factsOf, judged } from '@/core/kinds/hold/judged';
import { inBand } from '@/core/plan/limits';
import { type Plan, ruleOf } from '@/core/plan/plan';
import {
  breaks,
  compare,
  type Exact,
  type Limit,
  magnitude,
  parseWithUnit,
  showExact,
  subtract,
  toNumber,
} from '@/core/quantity/exact';
import { convert } from '@/core/quantity/unit';
import { roleOf } from '@/core/roles';
import { holdLimits } from '@/core/run/hold-limits';
import { heldAfter, stageBand, steadyWindow } from '@/core/run/hold-spec';
import { perceptibleOf } from '@/core/run/read';
import { type Hold, type Reading, type RunState, type Visit } from '@/core/run/state';
import { no, type Refusal } from '@/core/run/transition';

/**
 * Whether a fall already puts the whole 95 % interval into the worst class: waiting for a finer figure would only let
 * more gas out.
 */
export function worstClassCertain(
  plan: Plan,
  state: RunState,
  stage: Stage,
  hold: Hold,
  end: Reading,
  elapsedMs: number,
): boolean {
  const classes = ruleOf(plan, stage.part).classes ?? [];
  const bound = classes[classes.length - 2]?.below;
  if (!bound || elapsedMs <= 0) return false;
  const {
    temperature: _t,
    barometer: _b,
    ...facts
  } = factsOf(plan, state, stage, hold, end.figure, elapsedMs);
  const rate = judged(plan, state, stage, hold, facts).rate;
  const figure = parseWithUnit(bound);
  return rate !== undefined && rate.low >= convert(toNumber(figure), figure.unit, 'l/h');
}

/** What keeps a settling period from ending: outside the band, or (where it must be steady) still moving. */
export function unsettled(
  plan: Plan,
  state: RunState,
  visit: Visit,
  stage: Stage,
  hold: Hold,
  end: Reading,
  gauge: Gauge,
): Refusal | null {
  if (stage.kind !== 'hold' && stage.kind !== 'isolate-and-repeat') return null;
  const found = stageBand(plan, state, stage);
  const band = 'missing' in found ? null : found.value;
  if (band && !inBand(end.figure, band)) {
    visit.readings.push(end);
    return no(
      'out-of-band',
      `${showExact(end.figure)} is outside the band ${showExact(band.low)} to ${showExact(band.high)}. Re-adjust into it (it is logged), then read again; or say that it will not stand.`,
    );
  }
  if (stage.kind !== 'hold' || stage.until !== 'steady') return null;
  const window = steadyWindow(heldAfter(plan, state, stage, hold.minutes));
  const lastTopUp = hold.topUps[hold.topUps.length - 1];
  const since = lastTopUp?.at ?? 0;
  const unit = end.figure.unit;
  // each refused end reading stays as a reading, so that the next one can be compared with it
  const read = [
    ...(lastTopUp
      ? [{ figure: lastTopUp.after, at: lastTopUp.at }]
      : [{ figure: hold.start.figure, at: hold.start.readMoment }]),
    ...visit.readings
      .filter((r) => !r.late && r.readMoment >= Math.max(since, hold.start.readMoment))
      .map((r) => ({ figure: (r.corrected ?? r).figure, at: r.readMoment })),
  ]
    .filter((r) => r.at <= end.readMoment && r.figure.unit === unit)
    .sort((a, b) => a.at - b.at);
  const covers = [...read].reverse().find((r) => end.readMoment - r.at >= window);
  visit.readings.push(end);
  if (!covers)
    return no(
      'not-steady-yet',
      `Steady is shown by readings ${window / 1000} s apart with no re-adjustment between them. This one is kept; read again in ${window / 1000} s.`,
    );
  // everything read since then counts: a fall and a rise in one window are movement too
  const inside = [...read.filter((r) => r.at >= covers.at).map((r) => r.figure), end.figure];
  const least = inside.reduce((x, y) => (compare(y, x) < 0 ? y : x));
  const most = inside.reduce((x, y) => (compare(y, x) > 0 ? y : x));
  const moved = subtract(most, least);
  if (breaks(moved, perceptibleOf(plan, gauge, stage.part)))
    return no(
      'not-steady',
      `It still moves: ${showExact(moved)} in the last ${Math.round((end.readMoment - covers.at) / 1000)} s. This reading is kept; wait and read again, or say that it will not stand.`,
    );
  return null;
}

/** A dial this close to its limit is tapped and read again: one step of its entries. */
export function nearLimit(gauge: Gauge, change: Exact, limit: Limit): boolean {
  const step = entryStep(gauge);
  return compare(magnitude(subtract(magnitude(change), limit.value)), step) <= 0;
}

/**
 * The end reading that judges. A dial within one step of its limit is tapped and read again within 10 s; both are kept and
 * the larger fall judges (where a rise is looked for, the larger rise). Source: general rules of judging
 */
export function tappedEnd(
  plan: Plan,
  state: RunState,
  visit: Visit,
  stage: Stage,
  hold: Hold,
  end: Reading,
  gauge: Gauge,
): Reading | Refusal {
  const first = state.tapped;
  if (first) {
    state.tapped = null;
    const looksForRise = hold.role === 'let-by';
    const order = compare(first.figure, end.figure);
    visit.readings.push(end);
    return order !== 0 && order > 0 === looksForRise ? first : end;
  }
  if (plan.format < 2 || gauge.kind !== 'dial' || !roleOf(hold.role).tapped) return end;
  const limits = holdLimits(plan, state, stage, gauge, hold);
  const change = subtract(end.figure, hold.start.figure);
  const limit = change.digits > 0 ? limits.rise : limits.fall;
  if (change.digits === 0 || !nearLimit(gauge, change, limit)) return end;
  state.tapped = end;
  visit.readings.push(end);
  return no(
    'tap',
    `${showExact(end.figure)} is within one step of the limit. Tap the dial and read it again within 10 s: both readings are kept, the larger movement judges.`,
  );
}
