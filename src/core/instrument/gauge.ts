import {
  compare,
  exact,
  FigureError,
  isStep,
  parseFigure,
  showExact,
  type Exact,
  type Limit,
} from '@/core/quantity/exact';
import { unitLabel } from '@/core/quantity/unit';

export type GaugeKind = 'digital' | 'dial' | 'liquid';

/** A gauge as the cabinet knows it, copied into the plan. `resolution`: display step, or the dial's smallest division. */
export interface Gauge {
  readonly id: string;
  readonly name: string;
  readonly serial: string;
  readonly kind: GaugeKind;
  readonly least: Exact;
  readonly greatest: Exact;
  readonly resolution: Exact;
  readonly calibrated: string;
  readonly calibrationDue: string;
  readonly simulated: boolean;
}

/** Gauge class a pack's table of perceptible movement is keyed by. */
export type GaugeClass = 'liquid' | 'two-decimal' | 'one-decimal' | 'dial' | 'whole';
/** The class: liquid column, dial, or a digital display by its decimals. */
export function gaugeClass(gauge: Gauge): GaugeClass {
  if (gauge.kind === 'liquid') return 'liquid';
  if (gauge.kind === 'dial') return 'dial';
  return gauge.resolution.scale >= 2 ? 'two-decimal' : gauge.resolution.scale === 1 ? 'one-decimal' : 'whole';
}

/** Half of the gauge's resolution, exact: what a dial's entries snap to. */
const half = (a: Exact): Exact => exact(a.digits * 5, a.scale + 1, a.unit);

/**
 * Smallest movement this gauge can honestly show. The pack's figure for the gauge class where it has one; otherwise
 * digital = the larger of two display steps and 0.1 % of scale, dial = half the smallest division (handbook of the
 * trade, general rules of judging). Broken AT equality.
 */
export function perceptibleMovement(gauge: Gauge, table: Partial<Record<GaugeClass, Limit>>): Limit {
  const fromPack = table[gaugeClass(gauge)];
  if (fromPack && fromPack.value.unit === gauge.resolution.unit) return fromPack;
  if (gauge.kind === 'dial')
    return {
      value: half(gauge.resolution),
      broken: 'at',
      source: 'General rule: half the smallest division of a dial',
    };
  const twoSteps = exact(gauge.resolution.digits * 2, gauge.resolution.scale, gauge.resolution.unit);
  const thousandth = exact(gauge.greatest.digits, gauge.greatest.scale + 3, gauge.greatest.unit);
  return compare(twoSteps, thousandth) >= 0
    ? { value: twoSteps, broken: 'at', source: 'General rule: two display steps' }
    : { value: thousandth, broken: 'at', source: 'General rule: 0.1 % of scale' };
}

/** The step entries must fall on: the display step, or half a division of a dial. */
export const entryStep = (gauge: Gauge): Exact =>
  gauge.kind === 'dial' ? half(gauge.resolution) : gauge.resolution;

/**
 * Reads a figure typed for this gauge: unit fixed, decimals of the display, inside the range.
 * Missing decimals are filled ("20.3" on a two-decimal gauge is 20.30).
 * @throws FigureError with a text that says what to do. Below the range is an error of its own: it is a state, not zero.
 */
export function parseReading(text: string, gauge: Gauge): Exact {
  const typed = parseFigure(text, gauge.resolution.unit);
  const step = entryStep(gauge);
  if (typed.scale > step.scale)
    throw new FigureError(
      'decimals',
      `This gauge shows ${step.scale === 0 ? 'whole numbers' : `${step.scale} decimal${step.scale > 1 ? 's' : ''}`}; ${text.trim()} has more. Type what the display shows.`,
    );
  const value = exact(typed.digits * 10 ** (step.scale - typed.scale), step.scale, typed.unit);
  if (!isStep(value, step)) throw new FigureError('step', `This gauge moves in steps of ${showExact(step)}.`);
  checkRange(value, gauge);
  return value;
}

/** @throws FigureError when the figure lies outside the gauge's range. */
export function checkRange(value: Exact, gauge: Gauge): void {
  if (compare(value, gauge.greatest) > 0)
    throw new FigureError(
      'range',
      `${showExact(value)} is above this gauge's range (${showExact(gauge.greatest)}). Check the figure and the unit (${unitLabel(gauge.resolution.unit)}).`,
    );
  if (compare(value, gauge.least) < 0)
    throw new FigureError(
      'below-range',
      `${showExact(value)} is below this gauge's range (${showExact(gauge.least)}). If the gauge shows "below range", write a note; it is not a number.`,
    );
}

/** One way in which a gauge does not fit the work, in a sentence. */
export interface Misfit {
  readonly code: 'unit' | 'range' | 'resolution' | 'calibration' | 'dial-part';
  readonly text: string;
  readonly blocks: boolean;
}
/**
 * How a gauge fits a test: unit, range, resolution at most half of the limit, calibration valid on the day, and for
 * dials a test pressure between a quarter and three quarters of scale.
 * @param day ISO date of the test (YYYY-MM-DD)
 */
export function gaugeFit(gauge: Gauge, test: { pressure: Exact; limit?: Exact }, day: string): Misfit[] {
  const misfits: Misfit[] = [];
  const unit = gauge.resolution.unit;
  if (unit !== test.pressure.unit) {
    misfits.push({
      code: 'unit',
      blocks: true,
      text: `${gauge.name} reads ${unitLabel(unit)}; this test is judged in ${unitLabel(test.pressure.unit)}. Choose a gauge that reads ${unitLabel(test.pressure.unit)}.`,
    });
    return misfits;
  }
  if (compare(test.pressure, gauge.greatest) > 0)
    misfits.push({
      code: 'range',
      blocks: true,
      text: `${gauge.name} ends at ${showExact(gauge.greatest)}; the test needs ${showExact(test.pressure)}. Choose one with a larger range.`,
    });
  if (gauge.kind === 'dial') {
    const quarter = exact(gauge.greatest.digits * 25, gauge.greatest.scale + 2, unit);
    const threeQuarters = exact(gauge.greatest.digits * 75, gauge.greatest.scale + 2, unit);
    if (compare(test.pressure, quarter) < 0 || compare(test.pressure, threeQuarters) > 0)
      misfits.push({
        code: 'dial-part',
        blocks: false,
        text: `${showExact(test.pressure)} is not in the middle half of this dial (${showExact(quarter)} to ${showExact(threeQuarters)}).`,
      });
  }
  if (test.limit) {
    const twice = exact(gauge.resolution.digits * 2, gauge.resolution.scale, unit);
    if (compare(twice, test.limit) > 0)
      misfits.push({
        code: 'resolution',
        blocks: true,
        text: `${gauge.name} moves in steps of ${showExact(gauge.resolution)}, too coarse for a limit of ${showExact(test.limit)}: a step may be at most half of it.`,
      });
  }
  if (gauge.calibrationDue < day)
    misfits.push({
      code: 'calibration',
      blocks: true,
      text: `The calibration of ${gauge.name} ran out on ${gauge.calibrationDue}. Use another gauge; have this one recalibrated or discard it.`,
    });
  return misfits;
}
