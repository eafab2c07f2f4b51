/** The gauge read open to air. */
import { type Stage } from '@/core/kinds';
import { type Plan, ruleOf } from '@/core/plan/plan';
import { breaks, compare, exact, type Exact, magnitude, showExact, toNumber } from '@/core/quantity/exact';
import { convert, UNITS } from '@/core/quantity/unit';
import type { Course } from '@/core/run/course';
import { type Fold } from '@/core/run/fold';
import { onGauge } from '@/core/run/gate';
import { gaugeOf, perceptibleOf } from '@/core/run/read';
import { type RunState, type Visit } from '@/core/run/state';
import { follow, no, type Refusal } from '@/core/run/transition';

export const zeroFold: Fold<'zero' | 'at-air'> = {
  zero: {
    transition: true,
    entered: 'zero',
    misfit: (event, on) => onGauge(on, event.figure),
    apply: (event, { plan, state, visit, stage, at }) => zero(plan, state, visit, stage, event.figure, at),
    words: (event) => `zero open to air: ${showExact(event.figure)}`,
  },
  'at-air': {
    transition: true,
    entered: 'open to air',
    misfit: (event, on) => (event.figure ? onGauge(on, event.figure) : null),
    apply: (event, { plan, state, visit, stage, at }) => atAir(plan, state, visit, stage, event.figure, at),
    words: (event) =>
      `absolute gauge open to air: ${event.figure ? showExact(event.figure) : 'over its range'}`,
  },
};

/** What the atmosphere can be where people work, Pa: from 3000 m up to a winter's high. House figure */
const ATMOSPHERE = [65_000, 108_000] as const;
function atAir(
  plan: Plan,
  state: RunState,
  visit: Visit,
  stage: Stage,
  figure: Exact | undefined,
  at: number,
): Refusal | null {
  if (stage.kind !== 'zero' || !stage.absolute)
    return no('wrong-step', 'This step asks for a gauge that is zeroed open to air.');
  const gauge = gaugeOf(plan, state);
  if (!gauge) return no('no-gauge', 'Choose the gauge first.');
  if (UNITS[gauge.resolution.unit].dimension !== 'absolute')
    return no('unit', `${gauge.name} does not read absolutely. Choose a vacuum gauge.`);
  const greatest = convert(toNumber(gauge.greatest), gauge.greatest.unit, 'Pa(abs)');
  const shown = figure && convert(toNumber(figure), figure.unit, 'Pa(abs)');
  const good =
    shown === undefined ? greatest < ATMOSPHERE[1] : shown >= ATMOSPHERE[0] && shown <= ATMOSPHERE[1];
  const kept = figure ?? gauge.greatest;
  visit.zeros.push({ gauge: gauge.id, figure: kept, at, good, ...(figure ? {} : { over: true as const }) });
  if (stage.when === 'after') follow(plan, state, good ? 'zeroed' : 'off-zero', at);
  else if (good) follow(plan, state, 'zeroed', at);
  return null;
}

function zero(
  plan: Plan,
  state: RunState,
  visit: Visit,
  stage: Stage,
  figure: Exact,
  at: number,
): Refusal | null {
  if (stage.kind !== 'zero' || stage.absolute)
    return no('wrong-step', 'The gauge is zeroed open to air before it is connected.');
  const gauge = gaugeOf(plan, state);
  if (!gauge) return no('no-gauge', 'Choose the gauge first.');
  const size = magnitude(figure);
  const tolerance = exact(
    gauge.resolution.digits * ruleOf(plan, stage.part).zeroTolerance.steps,
    gauge.resolution.scale,
    gauge.resolution.unit,
  );
  const good = compare(size, tolerance) <= 0;
  visit.zeros.push({ gauge: gauge.id, figure, at, good });
  if (stage.when === 'after')
    follow(plan, state, breaks(size, perceptibleOf(plan, gauge, stage.part)) ? 'off-zero' : 'zeroed', at);
  else if (good) follow(plan, state, 'zeroed', at);
  return null;
}

/** What a gauge showed open to air. */
export const zeroWords = (z: { readonly figure: Exact; readonly over?: true }): string =>
  z.over ? 'over its range' : showExact(z.figure);

export const zeroCourse: Course = (visit) => {
  const last = visit.zeros[visit.zeros.length - 1];
  return {
    word:
      visit.outcome === 'zeroed'
        ? last?.over || UNITS[last!.figure.unit].dimension === 'absolute'
          ? 'shows the atmosphere'
          : 'zero'
        : visit.outcome === 'off-zero'
          ? 'off zero'
          : 'open',
    text: last ? `${zeroWords(last)} open to air` : '',
  };
};
