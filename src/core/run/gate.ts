/**
 * The one gate for figures: each figure of an event is checked against the instrument or the quantity it belongs to before
 * it takes effect. What does not fit is set aside with its reason and never reaches arithmetic. Gauge pressure, absolute
 * pressure, temperature, volume and level are different quantities, whatever unit they share.
 */
import { checkRange, entryStep, type Gauge } from '@/core/instrument/gauge';
import type { Plan } from '@/core/plan/plan';
import { type Exact, FigureError, isStep, showExact, toNumber } from '@/core/quantity/exact';
import { convert, toKelvin, unitLabel, UNITS } from '@/core/quantity/unit';
import type { EventOf, RunEvent } from './events';
import { gaugeOf } from './read';
import type { Reading, RunState } from './state';
import { no, type Refusal } from './transition';

/** Pipe and gas temperatures that a test can meet, degrees C. House figures: colder or warmer is a wrong unit or key. */
const COLDEST = -60;
const WARMEST = 150;
/** Barometer on the ground, Pa: from 5 km up to the highest ever read at sea level, with room. House figures. */
const LEAST_BAROMETER = 50_000;
const MOST_BAROMETER = 110_000;

/** Why a figure is not a display of this gauge; null when it is. */
export function notOfGauge(figure: Exact, gauge: Gauge): Refusal | null {
  const step = entryStep(gauge);
  if (figure.unit !== step.unit)
    return no(
      'unit',
      `${showExact(figure)} is not in the unit of ${gauge.name}: it reads ${unitLabel(step.unit)}. Type what its display shows.`,
    );
  if (figure.scale > step.scale || !isStep(figure, step))
    return no('step', `${gauge.name} moves in steps of ${showExact(step)}; ${showExact(figure)} is not one.`);
  try {
    checkRange(figure, gauge);
  } catch (error) {
    if (error instanceof FigureError) return no(error.code, error.message);
    throw error;
  }
  return null;
}
/** Why a figure is no temperature of a pipe or of gas; null when it is. A difference (K) is another quantity. */
export function notTemperature(figure: Exact): Refusal | null {
  if (figure.unit !== 'C' && figure.unit !== 'F')
    return no(
      'unit',
      `${showExact(figure)} is not a temperature in °C or °F. Type what the thermometer shows.`,
    );
  const celsius = toKelvin(toNumber(figure), figure.unit) - 273.15;
  return celsius < COLDEST || celsius > WARMEST
    ? no('range', `${showExact(figure)} is no temperature of a pipe here. Check the figure and its unit.`)
    : null;
}
/** Why a figure is no barometer reading; null when it is. It is absolute, about 1000 hPa, never a gauge pressure. */
export function notBarometer(figure: Exact): Refusal | null {
  const text = `${showExact(figure)} is no barometer reading: it is absolute, between 500 and 1100 hPa. Type the station's own pressure, not the one reduced to sea level.`;
  if (UNITS[figure.unit].dimension !== 'pressure') return no('unit', text);
  const pascal = convert(toNumber(figure), figure.unit, 'Pa');
  return pascal < LEAST_BAROMETER || pascal > MOST_BAROMETER ? no('range', text) : null;
}
/** Volumes that a person can pump, draw or drain in a test, m3. House figure: more is a wrong unit or key. */
const MOST_VOLUME = 1000;
export function notVolume(figure: Exact): Refusal | null {
  if (UNITS[figure.unit].dimension !== 'volume' || figure.digits < 0)
    return no(
      'volume',
      `${showExact(figure)} is not a volume of zero or more. Type litres, gallons or cubic feet.`,
    );
  return convert(toNumber(figure), figure.unit, 'm3') > MOST_VOLUME
    ? no('range', `${showExact(figure)} is more than a test can take. Check the figure and its unit.`)
    : null;
}

/** The reading that a correction names, with the gauge it was read on where that is known. */
function corrected(state: RunState, id: string): Reading | null {
  for (const visit of state.visits) {
    const found = visit.readings.find((r) => r.id === id);
    if (found) return found;
  }
  return null;
}

/** Why one of these is not a display of the gauge that judges; null where all are. */
export function onGauge(
  { plan, state }: { readonly plan: Plan; readonly state: RunState },
  ...figures: readonly (Exact | undefined)[]
): Refusal | null {
  const gauge = gaugeOf(plan, state);
  for (const figure of figures) {
    if (!figure) continue;
    if (!gauge) return no('no-gauge', 'Choose and zero the gauge first.');
    const refused = notOfGauge(figure, gauge);
    if (refused) return refused;
  }
  return null;
}
/** A correction is in the unit and the steps of the reading it names. */
export function fitsReading(state: RunState, event: EventOf<'correction'>): Refusal | null {
  const reading = corrected(state, event.of);
  return reading && (event.figure.unit !== reading.figure.unit || event.figure.scale !== reading.figure.scale)
    ? no('unit', `The reading was ${showExact(reading.figure)}: correct it in the same unit and steps.`)
    : null;
}
/** A stream is in the unit and the steps of the gauge it comes from. */
export function fitsStream(plan: Plan, event: EventOf<'stream'>): Refusal | null {
  const own = plan.gauges.find((g) => g.id === event.gauge)?.resolution;
  const { flows } = event;
  if (flows && (UNITS[flows.unit].dimension !== 'flow' || flows.digits.length !== event.points.length))
    return no('unit', 'Each point has its flow, in a unit of flow.');
  return own && (event.unit !== own.unit || event.scale !== own.scale)
    ? no('unit', 'The stream is not in the unit and the steps of the gauge that judges.')
    : null;
}

/** A reading is made before it is entered; so much later is what a clock may jitter, ms. */
const AHEAD_MS = 2_000;
/** A reading cannot be later than its own entry. */
export const notAhead = (event: RunEvent): Refusal | null =>
  'readAt' in event && event.readAt > event.at + AHEAD_MS
    ? no('ahead', 'This reading claims to be later than its own entry. Read the gauge now.')
    : null;
