/** The meter’s own dial: marked, watched, and counted against a clock. */
import { known } from '@/core/formula';
import { type Stage } from '@/core/kinds';
import { dialFlow } from '@/core/medium/leak';
import { type Plan } from '@/core/plan/plan';
import { duration } from '@/core/quantity/duration';
import { type Exact, showExact, toNumber } from '@/core/quantity/exact';
import { decimalsFor, type Figure, showFigure } from '@/core/quantity/figure';
import { convert, unitLabel } from '@/core/quantity/unit';
import { clockPoint, clockWords, elapsedBetween } from '@/core/run/clock';
import type { Course } from '@/core/run/course';
import { type EventOf } from '@/core/run/events';
import { type Fold, type OnStage } from '@/core/run/fold';
import { minutesFor } from '@/core/run/hold-spec';
import { mark } from '@/core/run/readings';
import { type RunState, type Visit } from '@/core/run/state';
import { follow, no, type Refusal } from '@/core/run/transition';

export const dialFold: Fold<'dial-start' | 'dial-end' | 'dial-input'> = {
  'dial-start': {
    transition: true,
    apply: (event, { plan, state, visit, stage, at }) => startDial(plan, state, visit, stage, event, at),
    words: (event) => `dial marked: ${event.mark}`,
    said: () => true,
  },
  'dial-end': {
    transition: true,
    sign: () => true,
    apply: (event, { plan, state, visit, stage, at }) => endDial(plan, state, visit, stage, event, at),
    words: (event) =>
      `${
        event.moved
          ? `dial moved${event.turns ? ` ${showExact(event.turns)} of a turn` : ''}${event.direction ? `, ${event.direction}` : ''}`
          : 'dial stood still'
      }${event.short ? `; ended before the planned time: ${event.short}` : ''}`,
    said: () => true,
  },
  'dial-input': {
    apply: (event, { plan, visit, stage }) => dialInput(plan, visit, stage, event),
    words: (event, { plan }) =>
      `${plan.system.appliances.find((a) => a.id === event.appliance)?.name ?? event.appliance}: ${showExact(event.turns)} turns in ${showExact(event.seconds)}`,
  },
};
/** Ends a count of what appliances take. */
export function confirmDial({ plan, state, visit, stage, at }: OnStage): Refusal | null {
  if (stage.kind !== 'dial' || stage.role !== 'input')
    return no('wrong-step', 'Look at the dial and say whether it moved.');
  if (!visit.inputs.length) return no('unanswered', 'Measure one appliance, or leave it out with a reason.');
  follow(plan, state, 'done', at);
  return null;
}

function startDial(
  plan: Plan,
  state: RunState,
  visit: Visit,
  stage: Stage,
  event: EventOf<'dial-start'>,
  at: number,
): Refusal | null {
  if (stage.kind !== 'dial' || stage.role !== 'leak') return no('wrong-step', 'No dial is watched here.');
  if (visit.dial) return no('overtaken', 'The dial is already being watched.');
  const found = known(() => minutesFor(plan, state, stage.part, stage.minutes, stage.minutesSource, false));
  if ('missing' in found) return no('missing', found.missing);
  const { planned, rule } = found.value;
  visit.dial = { mark: event.mark, startedAt: at, clock: clockPoint(event), minutes: planned, rule };
  return null;
}

/** Leak rate by the meter's dial: part of a turn x volume per turn / time. Source: a meter dial as a flow meter */
function dialRate(turns: Exact, perTurn: Exact, ms: number): Figure {
  const value = dialFlow(toNumber(turns), convert(toNumber(perTurn), perTurn.unit, 'l'), ms);
  return {
    name: 'flow by the meter dial',
    value,
    unit: 'l/h',
    decimals: Math.max(2, decimalsFor(value)),
    formula: 'Q = part of a turn × volume per turn / time',
    inputs: [
      { name: 'part of a turn', value: `${toNumber(turns)}` },
      { name: 'volume per turn', value: `${toNumber(perTurn)} ${unitLabel(perTurn.unit)}` },
      { name: 'time', value: `${(ms / 1000).toFixed(0)} s` },
    ],
    source: 'Meter dial as a flow meter',
  };
}

function endDial(
  plan: Plan,
  state: RunState,
  visit: Visit,
  stage: Stage,
  event: EventOf<'dial-end'>,
  at: number,
): Refusal | null {
  const dial = visit.dial;
  if (stage.kind !== 'dial' || !dial) return no('no-dial', 'Mark the dial first.');
  const { ms: elapsed, apart } = elapsedBetween(dial.clock, clockPoint(event));
  if (!event.moved) {
    const toGo = dial.rule * 60000 - elapsed;
    if (toGo > 0)
      return no(
        'too-early',
        `${Math.ceil(toGo / 60000)} min too early: a slow leak moves the dial late. Movement can be said at any time.`,
      );
    if (elapsed < dial.minutes * 60000 && !event.short)
      return no(
        'shortened',
        'The rule’s least time has passed, the planned time has not. Wait, or say why it is ended now.',
      );
    if (event.short) dial.short = event.short;
  } else if (!event.turns || event.turns.unit !== '1' || event.turns.digits <= 0)
    return no('turns', 'Say what part of a turn the dial moved, like 0.1.');
  if (apart) mark(state, clockWords(apart));
  dial.endedAt = at;
  dial.watched = elapsed;
  dial.moved = event.moved;
  if (event.direction) dial.direction = event.direction;
  if (event.turns && event.moved) {
    dial.turns = event.turns;
    const perTurn = plan.system.meter.testDial;
    if (perTurn && elapsed > 0) dial.rate = dialRate(event.turns, perTurn, elapsed);
  }
  follow(plan, state, event.moved ? 'moved' : 'still', at);
  return null;
}

/** What an appliance takes: flow by the dial, times the heating value where it is known. */
function dialInput(plan: Plan, visit: Visit, stage: Stage, event: EventOf<'dial-input'>): Refusal | null {
  if (stage.kind !== 'dial' || stage.role !== 'input') return no('wrong-step', 'No input is measured here.');
  const perTurn = plan.system.meter.testDial;
  if (!perTurn) return no('missing', 'Enter the volume of one turn of the test dial on the system page.');
  if (!plan.system.appliances.some((a) => a.id === event.appliance))
    return no('unknown-appliance', 'This appliance is not in the system.');
  if (event.turns.unit !== '1' || event.turns.digits <= 0)
    return no('turns', 'Type the number of turns, like 1.');
  if (event.seconds.unit !== 's' || event.seconds.digits <= 0)
    return no('seconds', 'Type the time in seconds, like 42.');
  const flow = dialRate(event.turns, perTurn, toNumber(event.seconds) * 1000);
  const heating = plan.system.heatingValue;
  let input: Figure | null = null;
  if (heating) {
    const watts = convert(flow.value, 'l/h', 'm3/s') * convert(toNumber(heating), heating.unit, 'J/m3');
    input = {
      name: 'heat input by the dial',
      value: watts / 1000,
      unit: 'kW',
      decimals: 2,
      formula: 'input = flow × heating value',
      inputs: [
        ...flow.inputs,
        { name: 'heating value', value: `${toNumber(heating)} ${unitLabel(heating.unit)}` },
      ],
      source: flow.source,
    };
  }
  visit.inputs.push({ appliance: event.appliance, turns: event.turns, seconds: event.seconds, flow, input });
  return null;
}

export const dialCourse: Course = (visit, plan) => {
  const dial = visit.dial;
  const inputs = visit.inputs.map(
    (i) =>
      `${plan.system.appliances.find((a) => a.id === i.appliance)?.name ?? i.appliance}: ${showFigure(i.input ?? i.flow)}`,
  );
  if (!dial) return { word: visit.outcome === 'done' ? 'measured' : 'open', text: inputs.join('; ') };
  const time = dial.endedAt ? ` in ${duration(dial.endedAt - dial.startedAt)}` : '';
  return {
    word: dial.moved === undefined ? 'open' : dial.moved ? 'moved' : 'stood still',
    text: dial.moved
      ? `${dial.turns ? showExact(dial.turns) : ''} of a turn${time}${dial.rate ? `: ${showFigure(dial.rate)}` : ''}`
      : `mark ${dial.mark}${time}`,
  };
};
