/** What the judged hold could have seen, and how much it measured: printed beside the rule result, never instead of it. */
import { BAROMETER_DRIFT, defaultTemperatureUncertainty } from '@/core/adequacy/gas';
import { LOGGED_KELVIN } from '@/core/adequacy/rate';
import { freeSurface, systemStiffness, volumeUncertainty } from '@/core/installation/section';
import { type Gauge, LEVEL_MARK } from '@/core/instrument/gauge';
import type { HoldStage } from '@/core/kinds';
import { leakRate } from '@/core/medium/gas';
import { caseOf, type Plan, ruleOf } from '@/core/plan/plan';
import { type Exact, magnitude, parseWithUnit, showExact, subtract, toNumber } from '@/core/quantity/exact';
import { decimalsFor, type Figure, figureNumber, showFigure } from '@/core/quantity/figure';
import { pascal } from '@/core/quantity/pascal';
import { SOURCES } from '@/core/quantity/sources';
import { convert, toKelvin, unitLabel, UNITS } from '@/core/quantity/unit';
import { holdSees } from '@/core/run/hold-sees';
import { volumeOf } from '@/core/run/hold-setting';
import { leakThatMatters } from '@/core/run/hold-spec';
import { gaugeOfHold } from '@/core/run/read';
import { sectionNow } from '@/core/run/section-now';
import type { DialWatch, Hold, RunState, Visit } from '@/core/run/state';
import { fallLimit } from '@/core/run/water-limits';
import { steadyRate } from '@/core/verdict/judge-rate';

export interface Adequacy {
  readonly figure: Figure;
  readonly enough: boolean;
  readonly neededMinutes: number | null;
  readonly matters: string;
  readonly text: string;
  /** The figure is what could hide, not what would have shown. */
  readonly hides?: boolean;
}

export function adequacyOf(
  plan: Plan,
  state: RunState,
  hold: Hold | null,
  part: string | null,
): Adequacy | null {
  if (!hold?.judgement || hold.role === 'strength') return null;
  if (hold.role === 'make-up' && plan.format < 2) return null;
  // a pressure that would not stand was not held: nothing is said of what a hold could have shown
  if (hold.role === 'settle') return null;
  const level = hold.gauge === LEVEL_MARK.id;
  const pressure = level ? undefined : convert(toNumber(hold.start.figure), hold.start.figure.unit, 'Pa');
  const gauge = gaugeOfHold(plan, hold);
  if (pressure !== undefined && pressure <= 0) return null;
  const logged = hold.temperature.start && hold.temperature.end && ruleOf(plan, part).fills === 'liquid';
  const sees = holdSees(plan, state, part, gauge, pressure, logged ? LOGGED_KELVIN : undefined);
  if (!sees) return null;
  // what a stretching pipe is allowed to fall, or to recover, a leak may hide in
  const stage = stageOfHold(plan, state, hold);
  const hidden = stage && gauge ? hiddenInStretch(plan, state, stage, hold, gauge) : null;
  const figure = hidden ?? sees.figure(hold.judgement.elapsedMs / 60000);
  const matters = leakThatMatters(plan, part);
  const needed = hidden ? null : sees.needed(toNumber(matters));
  const enough = figure.value <= toNumber(matters);
  const text =
    plan.format < 2
      ? firstFormatText(figure, enough, showExact(matters), hidden !== null, needed)
      : hidden
        ? `A leak up to ${showFigure(figure)} could hide here: ${stage!.role === 'floor' ? 'what recovers and what leaks' : 'stretch and leak'} cannot be told apart. The leak that matters here is ${showExact(matters)}.`
        : enough
          ? `This test could show leaks from ${showFigure(figure)} upward; the leak that matters here is ${showExact(matters)}.`
          : `This test could show leaks from ${showFigure(figure)} upward; the leak that matters here is ${showExact(matters)}. ${needed === null ? 'A day would not be enough with this gauge: take a finer one or a smaller section.' : `For it this gauge and volume need ${needed} min.`}`;
  return { figure, enough, neededMinutes: needed, matters: showExact(matters), text, hides: hidden !== null };
}
/** The words as records of the first format carry them. */
function firstFormatText(
  figure: Figure,
  enough: boolean,
  matters: string,
  hidden: boolean,
  needed: number | null,
): string {
  return enough
    ? `This hold could have shown a leak of ${showFigure(figure)}; the leak that matters here is ${matters}.`
    : `This hold could not have seen a leak below ${showFigure(figure)}; the leak that matters here is ${matters}. ${hidden ? 'Stretch and leak cannot be told apart inside the permitted fall.' : needed === null ? 'A day would not be enough with this gauge: take a finer one or a smaller section.' : `This gauge and volume need ${needed} min.`}`;
}

const stageOfHold = (plan: Plan, state: RunState, hold: Hold): HoldStage | null => {
  const visit = state.visits.find((v) => v.holds.includes(hold));
  const stage = visit && plan.procedure.stages[visit.stage];
  return stage?.kind === 'hold' ? stage : null;
};
/**
 * How much of a bleed-down stretched plastic pipe may give back: its wall creeps from about 0.8 GPa at once to 0.6 GPa over
 * hours, a third of what it stretched by. House figure from the two published moduli of PE-X.
 */
const RECOVERS = 1 / 3;
/**
 * What a leak may hide in on stretched pipe, and is therefore not seen: the fall that is permitted; or, where it was let down
 * and recovers, all that it may recover and what is left above the floor at the end. q = C x that / t. Null for other holds.
 */
function hiddenInStretch(
  plan: Plan,
  state: RunState,
  stage: HoldStage,
  hold: Hold,
  gauge: Gauge,
): Figure | null {
  if (stage.role !== 'stretch' && stage.role !== 'floor') return null;
  const full = systemStiffness(sectionOf(plan, state), pascal(hold.start.figure));
  if (!full) return null;
  const low = stage.role === 'floor' ? hold.judgement!.accept?.low?.value : undefined;
  const fall =
    stage.role === 'stretch'
      ? fallLimit(stage, gauge).value
      : low && hold.end
        ? subtract(hold.end.figure, low)
        : null;
  if (!fall || (fall.digits <= 0 && stage.role === 'stretch')) return null;
  const highest = state.visits
    .flatMap((v) => [...v.pumped.map((p) => p.reached), ...v.fills])
    .filter((r) => UNITS[r.figure.unit].dimension === 'pressure' && r.readMoment <= hold.start.readMoment)
    .reduce((most, r) => Math.max(most, pascal(r.figure)), pascal(hold.start.figure));
  const recovers =
    stage.role === 'floor' && plan.format > 1 ? RECOVERS * (highest - pascal(hold.start.figure)) : 0;
  if (plan.format < 2 && fall.digits <= 0) return null;
  const minutes = hold.judgement!.elapsedMs / 60_000;
  // a wall that creeps gives back as the pressure falls: it is softer than at once, by as much as it may recover
  const softer = plan.format > 1 ? 1 + RECOVERS : 1;
  const value = (softer * full.c * (Math.max(0, pascal(fall)) + recovers) * 1000 * 60) / minutes;
  return {
    name:
      stage.role === 'stretch'
        ? 'leak that would stay inside the permitted fall'
        : recovers
          ? 'leak that could hide in what stretched pipe recovers'
          : 'leak that would have stayed above the floor',
    value,
    unit: 'l/h',
    decimals: decimalsFor(value),
    formula:
      stage.role === 'stretch'
        ? plan.format > 1
          ? 'q = 4/3 C × permitted fall / t'
          : 'q = C × permitted fall / t'
        : recovers
          ? 'q = 4/3 C × ((p_raised − p_start) / 3 + end − floor) / t'
          : 'q = C × (end − floor) / t',
    inputs: [
      { name: 'C, stiffness of the full section', value: `${(full.c / 1e-11).toPrecision(3)} ml/bar` },
      { name: stage.role === 'stretch' ? 'permitted fall' : 'end − floor', value: showExact(fall) },
      ...(recovers
        ? [
            {
              name: 'let down by, of which a third may come back',
              value: `${(convert(highest, 'Pa', fall.unit) - toNumber(hold.start.figure)).toFixed(fall.scale)} ${unitLabel(fall.unit)}`,
            },
          ]
        : []),
      { name: 't', value: `${minutes.toFixed(1)} min` },
    ],
    source: SOURCES.elastic,
  };
}
/** The section with the air that this run found in it; records of the first format counted none. */
const sectionOf = (plan: Plan, state: RunState) => (plan.format < 2 ? plan.system : sectionNow(plan, state));

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
  const hours = (dial.watched ?? dial.endedAt - dial.startedAt) / 3_600_000;
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
  if (fills) return liquidRate(plan, state, hold, fills);
  if (plan.format > 1) return gasRate(plan, state, hold, part);
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
/**
 * What a gas hold lost, at working pressure with its 95 % interval; a re-adjusted settling period counts what was put back.
 * Null after a rise, and for a hold that began without pressure: there is no loss to name.
 */
function gasRate(plan: Plan, state: RunState, hold: Hold, part: string | null): Figure | null {
  const { judgement, end } = hold;
  const gauge = gaugeOfHold(plan, hold);
  if (!judgement || !end || !gauge || judgement.direction === 'rise') return null;
  const pa = (figure: Exact) => convert(toNumber(figure), figure.unit, 'Pa');
  const start = pa(hold.start.figure);
  const back = hold.topUps.reduce((sum, t) => sum + pa(t.after) - pa(t.before), 0);
  const seconds = judgement.elapsedMs / 1000;
  if (!(start > 0) || pa(end.figure) - back > start) return null;
  const { start: t0, end: t1 } = hold.temperature;
  const { start: b0, end: b1 } = hold.barometer;
  const atTest = leakRate(volumeOf(plan, state, part).value, start, pa(end.figure) - back, seconds, {
    ...(t0 && t1 ? { temperature: [kelvin(t0), kelvin(t1)] as const } : {}),
    ...(b0 && b1 ? { atmosphere: [pa(b0), pa(b1)] as const } : {}),
  });
  const d = ruleOf(plan, part).temperatureDefault;
  const { rate, low, high } = steadyRate(
    atTest,
    Math.max((start + Math.max(0, pa(end.figure))) / 2, pa(gauge.resolution)),
    pa(plan.system.workingPressure),
    state.volume?.uncertainty ?? volumeUncertainty(plan.system, caseOf(plan, part).appliances),
    {
      volume: volumeOf(plan, state, part).value,
      resolution: pa(gauge.resolution),
      temperature: t0 && t1 ? LOGGED_KELVIN : defaultTemperatureUncertainty(seconds / 60, d),
      barometer: b0 && b1 ? 0 : BAROMETER_DRIFT * seconds,
      seconds,
    },
  );
  const printed = (value: number) => figureNumber({ value, decimals: rate.decimals });
  return { ...rate, note: `95 %: ${printed(Math.max(0, low))} to ${printed(high)} l/h` };
}
const kelvin = (t: Exact): number => toKelvin(toNumber(t), t.unit);

/** What a movement of water means as a loss, at the pressure of the hold: Q = C dp/t, or the fall of the surfaces. */
function liquidRate(plan: Plan, state: RunState, hold: Hold, fills: 'liquid' | 'level'): Figure | null {
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
      source: SOURCES.makeUp,
    };
  }
  const seconds = judgement.elapsedMs / 1000;
  const unit = judgement.change.unit;
  // what was pumped back in while it settled was lost too
  const back =
    plan.format > 1 ? hold.topUps.reduce((sum, t) => sum + toNumber(t.after) - toNumber(t.before), 0) : 0;
  const fall = back - toNumber(judgement.change);
  if (fall < 0) return null;
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
      source: SOURCES.surfaces,
    };
  }
  if (UNITS[unit].dimension !== 'pressure') return null;
  const start = hold.start.figure;
  const full = systemStiffness(sectionOf(plan, state), convert(toNumber(start), start.unit, 'Pa'));
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
    source: SOURCES.elastic,
  };
}

/** A class bound in words: "below 1 l/h". */
export const classBound = (below: string | undefined): string =>
  below === undefined ? 'no upper bound' : `below ${showExact(parseWithUnit(below))}`;
