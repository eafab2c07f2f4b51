/** The gauge read open to air. */
import { type Stage } from '@/core/kinds';
import { type Plan, ruleOf } from '@/core/plan/plan';
import { breaks, compare, exact, type Exact, magnitude, showExact } from '@/core/quantity/exact';
import type { Course } from '@/core/run/course';
import { type Fold } from '@/core/run/fold';
import { onGauge } from '@/core/run/gate';
import { gaugeOf, perceptibleOf } from '@/core/run/read';
import { type RunState, type Visit } from '@/core/run/state';
import { follow, no, type Refusal } from '@/core/run/transition';

export const zeroFold: Fold<'zero'> = {
  zero: {
    transition: true,
    entered: 'zero',
    misfit: (event, on) => onGauge(on, event.figure),
    apply: (event, { plan, state, visit, stage, at }) => zero(plan, state, visit, stage, event.figure, at),
    words: (event) => `zero open to air: ${showExact(event.figure)}`,
  },
};

function zero(
  plan: Plan,
  state: RunState,
  visit: Visit,
  stage: Stage,
  figure: Exact,
  at: number,
): Refusal | null {
  if (stage.kind !== 'zero')
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

export const zeroCourse: Course = (visit) => {
  const last = visit.zeros[visit.zeros.length - 1];
  return {
    word: visit.outcome === 'zeroed' ? 'zero' : visit.outcome === 'off-zero' ? 'off zero' : 'open',
    text: last ? `${showExact(last.figure)} open to air` : '',
  };
};
