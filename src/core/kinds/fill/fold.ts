/** Raised, or let down, into a band. */
import { wanted } from '@/core/formula';
import { type Stage } from '@/core/kinds';
import { inBand } from '@/core/plan/limits';
import { type Plan } from '@/core/plan/plan';
import { compare, parseWithUnit, showExact } from '@/core/quantity/exact';
import { UNITS } from '@/core/quantity/unit';
import type { Course } from '@/core/run/course';
import type { EventOf } from '@/core/run/events';
import { type Fold } from '@/core/run/fold';
import { onGauge } from '@/core/run/gate';
import { stageBand } from '@/core/run/hold-spec';
import { currentCycle } from '@/core/run/read';
import { keep, passedCap, readingFrom } from '@/core/run/readings';
import { type RunState, type Visit } from '@/core/run/state';
import { follow, no, type Refusal } from '@/core/run/transition';

export const fillFold: Fold<'fill'> = {
  fill: {
    transition: true,
    entered: 'source shut',
    misfit: (event, on) => onGauge(on, event.figure),
    apply: (event, { plan, state, visit, stage, at }) => fill(plan, state, visit, stage, event, at),
    words: (event) =>
      UNITS[event.figure.unit].dimension === 'absolute'
        ? `pumped down to ${showExact(event.figure)}`
        : `raised to ${showExact(event.figure)}, closed`,
  },
};

function fill(
  plan: Plan,
  state: RunState,
  visit: Visit,
  stage: Stage,
  event: EventOf<'fill'>,
  at: number,
): Refusal | null {
  if (stage.kind !== 'fill' && stage.kind !== 'isolate-and-repeat')
    return no('wrong-step', 'This stage raises nothing.');
  const found = stageBand(plan, state, stage);
  if ('missing' in found) return no('missing', found.missing);
  const band = found.value;
  const reading = readingFrom(event, at);
  visit.fills.push(reading);
  if (event.figure.unit !== band.low.unit) return no('unit', 'The gauge and the rule use different units.');
  if (!inBand(event.figure, band)) {
    const over = compare(event.figure, band.high) > 0;
    const advice =
      (stage.kind === 'fill' && (over ? stage.over : stage.under)) ||
      (stage.kind === 'fill' && stage.evacuates
        ? 'Pump on; if it will not come down, say so.'
        : over
          ? 'Bleed down and raise again.'
          : 'Raise a little more.');
    return no(
      over ? 'over-band' : 'under-band',
      `${showExact(event.figure)} is ${over ? 'above' : 'below'} the band ${showExact(band.low)} to ${showExact(band.high)}. ${advice}`,
    );
  }
  const cap = passedCap(plan, event.figure);
  if (cap) return no('above-weakest', cap);
  if (stage.kind === 'fill') {
    const late =
      stage.within !== undefined && reading.readMoment > visit.entered + stage.within.minutes * 60_000;
    keep(state, stage.keeps, reading);
    if (
      stage.finding &&
      compare(event.figure, wanted(parseWithUnit(stage.finding.above), event.figure.unit, 'up')) > 0
    )
      state.findings.push(`${showExact(event.figure)}: ${stage.finding.text}`);
    if (stage.leaves && state.gauge)
      state.watch = { figure: event.figure, gauge: state.gauge, at: reading.readMoment };
    follow(plan, state, late ? 'late' : 'in-band', at);
  } else currentCycle(visit)!.fill = reading;
  return null;
}

export const fillCourse: Course = (visit) => ({
  word: visit.outcome === 'in-band' ? 'in band' : 'open',
  text: visit.fills.length ? showExact(visit.fills[visit.fills.length - 1]!.figure) : '',
});
