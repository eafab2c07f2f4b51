/** Drained into a measured vessel. */
import { known, volumeOfCall } from '@/core/formula';
import { type DrawDownStage, type Stage } from '@/core/kinds';
import { decayFactors } from '@/core/medium/liquid';
import { applies, type Plan } from '@/core/plan/plan';
import {
  breaks,
  compare,
  exact,
  inUnit,
  magnitude,
  showExact,
  subtract,
  toNumber,
} from '@/core/quantity/exact';
import { decimalsFor, showFigure } from '@/core/quantity/figure';
import { pascal } from '@/core/quantity/pascal';
import { convert, UNITS } from '@/core/quantity/unit';
import type { Course } from '@/core/run/course';
import type { EventOf } from '@/core/run/events';
import { type Fold } from '@/core/run/fold';
import { notVolume, onGauge } from '@/core/run/gate';
import { contextOf, gaugeOf, perceptibleOf } from '@/core/run/read';
import { readingFrom } from '@/core/run/readings';
import { type RunState, type Visit } from '@/core/run/state';
import { follow, no, type Refusal } from '@/core/run/transition';

export const drawDownFold: Fold<'draw-down'> = {
  'draw-down': {
    transition: true,
    entered: 'let down',
    misfit: (event, on) => onGauge(on, event.figure) ?? notVolume(event.volume),
    apply: (event, { plan, state, visit, stage, at }) => drawDown(plan, state, visit, stage, event, at),
    words: (event) => `drained down to ${showExact(event.figure)}: ${showExact(event.volume)}`,
  },
};

function drawDown(
  plan: Plan,
  state: RunState,
  visit: Visit,
  stage: Stage,
  event: EventOf<'draw-down'>,
  at: number,
): Refusal | null {
  if (stage.kind !== 'draw-down') return no('wrong-step', 'Nothing is drained in this stage.');
  const from = state.keptReadings[stage.from];
  const to = state.keptReadings[stage.to];
  const gauge = gaugeOf(plan, state);
  if (!from || !to || !gauge) return no('missing', 'The two pressures of the fall have not been read yet.');
  if (UNITS[event.volume.unit].dimension !== 'volume' || event.volume.digits <= 0)
    return no('volume', 'Type what ran into the vessel: a volume above zero.');
  const off = subtract(event.figure, to.figure);
  if (breaks(magnitude(off), perceptibleOf(plan, gauge, stage.part)))
    return no(
      'not-there',
      off.digits > 0
        ? `Drain down to ${showExact(to.figure)}, where it had fallen to, and read there; the gauge shows ${showExact(event.figure)}.`
        : `The gauge shows ${showExact(event.figure)}, below the ${showExact(to.figure)} it had fallen to: too much was drained. Pump back to ${showExact(from.figure)}, empty the vessel, and drain again.`,
    );
  const minutes = (to.readMoment - from.readMoment) / 60_000;
  if (!(minutes > 0) || compare(from.figure, to.figure) <= 0)
    return no('no-fall', 'It did not fall between the two readings: there is no decay loss to measure.');
  const litres = convert(toNumber(event.volume), event.volume.unit, 'l');
  const rate = litres / (minutes / 60);
  const factors = decayFactors(pascal(from.figure), pascal(to.figure));
  visit.drawn = {
    from: from.figure,
    to: to.figure,
    volume: event.volume,
    minutes,
    rate: {
      name: 'decay loss',
      value: rate,
      unit: 'l/h',
      decimals: decimalsFor(rate),
      formula:
        'Q = V_drained / t; at the test pressure × p_0 ln(p_0/p_1)/(p_0 − p_1) to × 2√p_0/(√p_0 + √p_1)',
      inputs: [
        { name: 'V_drained', value: showExact(event.volume) },
        { name: 't, from the first to the second reading', value: `${minutes.toFixed(1)} min` },
        { name: 'p_0', value: showExact(from.figure) },
        { name: 'p_1', value: showExact(to.figure) },
        { name: 'laminar', value: `× ${factors.laminar.toFixed(3)}` },
        { name: 'orifice', value: `× ${factors.orifice.toFixed(3)}` },
      ],
      source: stage.source,
      note: 'averages over the fall and understates the loss at the test pressure',
    },
    scaled: { laminar: rate * factors.laminar, orifice: rate * factors.orifice },
  };
  visit.readings.push(readingFrom(event, at));
  follow(plan, state, drawnOutcome(plan, state, visit, stage), at);
  return null;
}

/** What was drawn off against the limit of a school that compares it; 'measured' where none does. */
function drawnOutcome(plan: Plan, state: RunState, visit: Visit, stage: DrawDownStage): string {
  const rule = stage.permitted?.find((p) => applies(plan, stage.part, p.when));
  if (!rule) return 'measured';
  const { from, to, volume, minutes } = visit.drawn!;
  const found = known(() =>
    volumeOfCall(rule.volume, {
      ...contextOf(plan, state, stage.part),
      hold: { mean: (pascal(from) + pascal(to)) / 2, minutes },
    }),
  );
  if ('missing' in found) return 'measured';
  const limit = exact(Math.floor(found.value.litres * 1000 + 1e-9), 3, 'l');
  visit.drawn = {
    ...visit.drawn!,
    limit: { value: limit, source: rule.source, working: found.value.working },
  };
  return compare(inUnit(volume, 'l', 6, 'up'), limit) > 0 ? 'beyond' : 'within';
}

export const drawDownCourse: Course = ({ drawn }) => ({
  word: drawn ? 'measured' : 'open',
  text: drawn ? `${showExact(drawn.volume)}: ${showFigure(drawn.rate)}` : '',
});
