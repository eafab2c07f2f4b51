/** What the judged hold could have seen, and how much it measured: printed beside the rule result, never instead of it. */
import { LEVEL_MARK, type Gauge } from '@/core/instrument/gauge';
import { freeSurface, systemStiffness } from '@/core/installation/section';
import type { HoldStage } from '@/core/pack/types';
import { leakRate } from '@/core/medium/gas';
import { ruleOf, type Plan } from '@/core/plan/plan';
import { magnitude, parseWithUnit, showExact, subtract, toNumber, type Exact } from '@/core/quantity/exact';
import { decimalsFor, showFigure, type Figure } from '@/core/quantity/figure';
import { convert, UNITS } from '@/core/quantity/unit';
import { fallLimit } from '@/core/run/water-limits';
import { holdSees } from '@/core/run/hold-sees';
import { leakThatMatters, volumeOf } from '@/core/run/hold-spec';
import { gaugeOfHold } from '@/core/run/read';
import type { DialWatch, Hold, RunState, Visit } from '@/core/run/state';

export interface Adequacy {
  readonly figure: Figure;
  readonly enough: boolean;
  readonly neededMinutes: number | null;
  readonly matters: string;
  readonly text: string;
}

export function adequacyOf(
  plan: Plan,
  state: RunState,
  hold: Hold | null,
  part: string | null,
): Adequacy | null {
  if (!hold?.judgement || hold.role === 'strength' || hold.role === 'make-up') return null;
  const level = hold.gauge === LEVEL_MARK.id;
  const pressure = level ? undefined : convert(toNumber(hold.start.figure), hold.start.figure.unit, 'Pa');
  const gauge = gaugeOfHold(plan, hold);
  if (pressure !== undefined && pressure <= 0) return null;
  const logged = hold.temperature.start && hold.temperature.end && ruleOf(plan, part).fills === 'liquid';
  const sees = holdSees(plan, state, part, gauge, pressure, logged ? LOGGED_KELVIN : undefined);
  if (!sees) return null;
  // what a stretching pipe is allowed to fall, a leak may hide in
  const stage = stageOfHold(plan, state, hold);
  const hidden = stage && gauge ? hiddenInStretch(plan, stage, hold, gauge) : null;
  const figure = hidden ?? sees.figure(hold.judgement.elapsedMs / 60000);
  const matters = leakThatMatters(plan, part);
  const needed = hidden ? null : sees.needed(toNumber(matters));
  const enough = figure.value <= toNumber(matters);
  const text = enough
    ? `This hold could have shown a leak of ${showFigure(figure)}; the leak that matters here is ${showExact(matters)}.`
    : `This hold could not have seen a leak below ${showFigure(figure)}; the leak that matters here is ${showExact(matters)}. ${hidden ? 'Stretch and leak cannot be told apart inside the permitted fall.' : needed === null ? 'A day would not be enough with this gauge: take a finer one or a smaller section.' : `This gauge and volume need ${needed} min.`}`;
  return { figure, enough, neededMinutes: needed, matters: showExact(matters), text };
}

/** Standard uncertainty of a temperature difference read twice on one thermometer of 0.1 K, K. */
const LOGGED_KELVIN = 0.1;
const stageOfHold = (plan: Plan, state: RunState, hold: Hold): HoldStage | null => {
  const visit = state.visits.find((v) => v.holds.includes(hold));
  const stage = visit && plan.procedure.stages[visit.stage];
  return stage?.kind === 'hold' ? stage : null;
};
/**
 * What a leak may hide in on stretched pipe, and is therefore not seen: the fall that is permitted, or what is left
 * above the floor at the end. q = C x that / t. Null for other holds.
 */
function hiddenInStretch(plan: Plan, stage: HoldStage, hold: Hold, gauge: Gauge): Figure | null {
  if (stage.role !== 'stretch' && stage.role !== 'floor') return null;
  const pressure = convert(toNumber(hold.start.figure), hold.start.figure.unit, 'Pa');
  const full = systemStiffness(plan.system, pressure);
  if (!full) return null;
  const low = stage.role === 'floor' ? hold.judgement!.accept?.low?.value : undefined;
  const fall =
    stage.role === 'stretch'
      ? fallLimit(stage, gauge).value
      : low && hold.end
        ? subtract(hold.end.figure, low)
        : null;
  if (!fall || fall.digits <= 0) return null;
  const minutes = hold.judgement!.elapsedMs / 60_000;
  const value = (full.c * convert(toNumber(fall), fall.unit, 'Pa') * 1000 * 60) / minutes;
  return {
    name:
      stage.role === 'stretch'
        ? 'leak that would stay inside the permitted fall'
        : 'leak that would have stayed above the floor',
    value,
    unit: 'l/h',
    decimals: decimalsFor(value),
    formula: stage.role === 'stretch' ? 'q = C × permitted fall / t' : 'q = C × (end − floor) / t',
    inputs: [
      { name: 'C, stiffness of the full section', value: `${(full.c / 1e-11).toPrecision(3)} ml/bar` },
      { name: stage.role === 'stretch' ? 'permitted fall' : 'end − floor', value: showExact(fall) },
      { name: 't', value: `${minutes.toFixed(1)} min` },
    ],
    source: 'Elastic water and pipe wall; measurement chapter 7.2',
  };
}

/** Smallest leak a watched dial can show: the part of a turn an eye sees x volume per turn / time. */
export function dialAdequacy(
  plan: Plan,
  visit: Visit,
  dial: DialWatch,
  part: string | null,
): Adequacy | null {
  const stage = plan.procedure.stages[visit.stage];
  const perTurn = plan.system.meter.testDial;
  if (stage?.kind !== 'dial' || !perTurn || dial.endedAt === undefined) return null;
  const hours = (dial.endedAt - dial.startedAt) / 3_600_000;
  const litres = Number(stage.visible) * convert(toNumber(perTurn), perTurn.unit, 'l');
  const value = litres / hours;
  const matters = leakThatMatters(plan, part);
  const needed = Math.ceil((litres / toNumber(matters)) * 60);
  const enough = value <= toNumber(matters);
  const figure: Figure = {
    name: 'smallest leak this watch can show',
    value,
    unit: 'l/h',
    decimals: decimalsFor(value),
    formula: 'q_min = visible part of a turn × volume per turn / time',
    inputs: [
      { name: 'visible part of a turn', value: stage.visible },
      { name: 'volume per turn', value: showExact(perTurn) },
      { name: 'time', value: `${(hours * 60).toFixed(1)} min` },
    ],
    source: stage.visibleSource,
  };
  const text = enough
    ? `This watch could have shown a leak of ${showFigure(figure)}; the leak that matters here is ${showExact(matters)}.`
    : `This watch could not have seen a leak below ${showFigure(figure)}; the leak that matters here is ${showExact(matters)}. This dial would need ${needed} min.`;
  return { figure, enough, neededMinutes: needed, matters: showExact(matters), text };
}

/** Measured rate at working pressure: of a leak-rate hold with its interval, otherwise from the fall of the hold. */
export function measuredRate(
  plan: Plan,
  state: RunState,
  hold: Hold | null,
  part: string | null,
): Figure | null {
  const judgement = hold?.judgement;
  if (!hold || !judgement || !hold.end || judgement.elapsedMs <= 0 || hold.role === 'strength') return null;
  if (judgement.rate) return judgement.rate.rate;
  const fills = ruleOf(plan, part).fills;
  if (fills) return liquidRate(plan, hold, fills);
  const pa = (figure: Exact) => convert(toNumber(figure), figure.unit, 'Pa');
  const start = pa(hold.start.figure);
  const atTest = leakRate(
    volumeOf(plan, state, part).value,
    start,
    pa(hold.end.figure),
    judgement.elapsedMs / 1000,
  );
  const working = pa(plan.system.workingPressure);
  const value = start > 0 ? atTest.value * (working / start) : atTest.value;
  return {
    ...atTest,
    name: 'leak rate at working pressure',
    value,
    decimals: decimalsFor(value),
    formula: `${atTest.formula} × p_working/p_test`,
    inputs: [...atTest.inputs, { name: 'p_working / p_test', value: (working / start).toFixed(3) }],
  };
}
/** What a movement of water means as a loss, at the pressure of the hold: Q = C dp/t, or the fall of the surfaces. */
function liquidRate(plan: Plan, hold: Hold, fills: 'liquid' | 'level'): Figure | null {
  const judgement = hold.judgement!;
  if (judgement.makeUp) {
    const hours = judgement.elapsedMs / 3_600_000;
    const value = toNumber(judgement.makeUp.added) / hours;
    return {
      name: 'make-up at test pressure',
      value,
      unit: 'l/h',
      decimals: decimalsFor(value),
      formula: 'Q = water added / t',
      inputs: [
        { name: 'water added', value: showExact(judgement.makeUp.added) },
        { name: 't', value: `${hours.toFixed(2)} h` },
      ],
      source: 'Make-up at test pressure; water chapter 3.6',
    };
  }
  const seconds = judgement.elapsedMs / 1000;
  const fall = -toNumber(judgement.change);
  if (fall < 0) return null;
  const unit = judgement.change.unit;
  if (fills === 'level') {
    const surface = freeSurface(plan.system);
    if (!(surface > 0) || UNITS[unit].dimension !== 'length') return null;
    const value = ((surface * convert(fall, unit, 'm')) / seconds) * 1000 * 3600;
    return {
      name: 'loss by the level',
      value,
      unit: 'l/h',
      decimals: decimalsFor(value),
      formula: 'Q = Σ free surfaces × fall / t',
      inputs: [
        { name: 'Σ free surfaces', value: `${surface.toFixed(4)} m²` },
        { name: 'fall', value: showExact(magnitude(judgement.change)) },
        { name: 't', value: `${(seconds / 60).toFixed(1)} min` },
      ],
      source: 'All free surfaces at the level; water chapter 3.2',
    };
  }
  if (UNITS[unit].dimension !== 'pressure') return null;
  const start = hold.start.figure;
  const full = systemStiffness(plan.system, convert(toNumber(start), start.unit, 'Pa'));
  if (!full) return null;
  const value = ((full.c * convert(fall, unit, 'Pa')) / seconds) * 1000 * 3600;
  return {
    name: 'loss at test pressure, were the whole fall a leak',
    value,
    unit: 'l/h',
    decimals: decimalsFor(value),
    formula: 'Q = C × Δp / t',
    inputs: [
      { name: 'C, stiffness of the full section', value: `${(full.c / 1e-11).toPrecision(3)} ml/bar` },
      { name: 'Δp', value: showExact(judgement.change) },
      { name: 't', value: `${(seconds / 60).toFixed(1)} min` },
    ],
    source: 'Elastic water and pipe wall; measurement chapter 7.2',
  };
}

/** A class bound in words: "below 1 l/h". */
export const classBound = (below: string | undefined): string =>
  below === undefined ? 'no upper bound' : `below ${showExact(parseWithUnit(below))}`;
