/** What the judged hold could have seen, and how much it measured: printed beside the rule result, never instead of it. */
import { LOGGED_KELVIN } from '@/core/adequacy/rate';
import { fullSection } from '@/core/fillings/liquid/moves';
import { movesOf } from '@/core/fillings/moves';
import { systemStiffness } from '@/core/installation/section';
import { type Gauge, LEVEL_MARK } from '@/core/instrument/gauge';
import type { HoldStage } from '@/core/kinds';
import { type Plan } from '@/core/plan/plan';
import { parseWithUnit, showExact, subtract, toNumber } from '@/core/quantity/exact';
import { decimalsFor, type Figure, showFigure } from '@/core/quantity/figure';
import { pascal } from '@/core/quantity/pascal';
import { SOURCES } from '@/core/quantity/sources';
import { convert, unitLabel, UNITS } from '@/core/quantity/unit';
import { holdSees } from '@/core/run/hold-sees';
import { leakThatMatters, mattersWords } from '@/core/run/hold-spec';
import { tradeOf } from '@/core/trades';
import { gaugeOfHold } from '@/core/run/read';
import type { DialWatch, Hold, RunState, Visit } from '@/core/run/state';
import { fallLimit } from '@/core/run/water-limits';

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
  if (!hold?.judgement || hold.role === 'strength' || hold.role === 'vacuum') return null;
  if (hold.role === 'make-up' && plan.format < 2) return null;
  // a pressure that would not stand was not held: nothing is said of what a hold could have shown
  if (hold.role === 'settle') return null;
  const level = hold.gauge === LEVEL_MARK.id;
  const pressure = level ? undefined : convert(toNumber(hold.start.figure), hold.start.figure.unit, 'Pa');
  const gauge = gaugeOfHold(plan, hold);
  if (pressure !== undefined && pressure <= 0) return null;
  const logged = hold.temperature.start && hold.temperature.end;
  const sees = holdSees(plan, state, part, gauge, pressure, logged ? LOGGED_KELVIN : undefined);
  if (!sees) return null;
  // what a stretching pipe is allowed to fall, or to recover, a leak may hide in
  const stage = stageOfHold(plan, state, hold);
  const hidden = stage && gauge ? hiddenInStretch(plan, state, stage, hold, gauge) : null;
  const figure = hidden ?? sees.figure(hold.judgement.elapsedMs / 60000);
  const matters = leakThatMatters(plan, part);
  const needed = hidden ? null : sees.needed(toNumber(matters));
  const enough = figure.value <= toNumber(matters);
  const asMass = tradeOf(plan.system).massOf?.(figure.value, plan.system);
  const mass = asMass ? ` (${asMass})` : '';
  const text =
    plan.format < 2
      ? firstFormatText(figure, enough, showExact(matters), hidden !== null, needed)
      : hidden
        ? `A leak up to ${showFigure(figure)} could hide here: ${stage!.role === 'floor' ? 'what recovers and what leaks' : 'stretch and leak'} cannot be told apart. The leak that matters here is ${showExact(matters)}.`
        : enough
          ? `This test could show leaks from ${showFigure(figure)}${mass} upward; the leak that matters here is ${mattersWords(plan, part)}.`
          : `This test could show leaks from ${showFigure(figure)}${mass} upward; the leak that matters here is ${mattersWords(plan, part)}. ${needed === null ? (asMass ? 'No gauge shows that in a day: leak fluid on every joint does, and a detector once it is charged.' : 'A day would not be enough with this gauge: take a finer one or a smaller section.') : `For it this gauge and volume need ${needed} min.`}`;
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
  const full = systemStiffness(fullSection(plan, state), pascal(hold.start.figure));
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
  return movesOf(plan, part).rate(plan, state, hold, part);
}

/** A class bound in words: "below 1 l/h". */
export const classBound = (below: string | undefined): string =>
  below === undefined ? 'no upper bound' : `below ${showExact(parseWithUnit(below))}`;
