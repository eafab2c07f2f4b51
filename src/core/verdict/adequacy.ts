/** What the judged hold could have seen, and how much it measured: printed beside the rule result, never instead of it. */
import { neededMinutes, smallestVisibleLeak } from '@/core/adequacy/gas';
import { leakRate } from '@/core/medium/gas';
import { ruleOf, type Plan } from '@/core/plan/plan';
import { parseWithUnit, showExact, toNumber, type Exact } from '@/core/quantity/exact';
import { decimalsFor, showFigure, type Figure } from '@/core/quantity/figure';
import { convert } from '@/core/quantity/unit';
import { holdSetting, leakThatMatters, volumeOf } from '@/core/run/hold-spec';
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
  if (!hold?.judgement || hold.role === 'strength') return null;
  const pressure = convert(toNumber(hold.start.figure), hold.start.figure.unit, 'Pa');
  const gauge = gaugeOfHold(plan, hold);
  const setting = holdSetting(plan, state, hold.judgement.elapsedMs / 60000, part, pressure, gauge);
  if (!setting || pressure <= 0) return null;
  const d = ruleOf(plan, part).temperatureDefault;
  const figure = smallestVisibleLeak(setting, d);
  const matters = leakThatMatters(plan, part);
  const needed = neededMinutes(setting, toNumber(matters), d);
  const enough = figure.value <= toNumber(matters);
  const text = enough
    ? `This hold could have shown a leak of ${showFigure(figure)}; the leak that matters here is ${showExact(matters)}.`
    : `This hold could not have seen a leak below ${showFigure(figure)}; the leak that matters here is ${showExact(matters)}. ${needed === null ? 'A day would not be enough with this gauge: take a finer one or a smaller section.' : `This gauge and volume need ${needed} min.`}`;
  return { figure, enough, neededMinutes: needed, matters: showExact(matters), text };
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
/** A class bound in words: "below 1 l/h". */
export const classBound = (below: string | undefined): string =>
  below === undefined ? 'no upper bound' : `below ${showExact(parseWithUnit(below))}`;
