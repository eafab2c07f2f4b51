import {
  compare,
  exact,
  FigureError,
  inUnit,
  isStep,
  magnitude,
  parseFigure,
  scaled,
  showExact,
  toNumber,
  type Exact,
  type Limit,
} from '@/core/quantity/exact';
import { unitLabel, UNITS } from '@/core/quantity/unit';

/** Kinds the cabinet holds; a level mark is a rule, at hand everywhere. */
export type GaugeKind = 'digital' | 'dial' | 'liquid' | 'chart';
/** Read against a printed scale: half a division is what an eye gives. */
const isPrinted = (gauge: Gauge): boolean => gauge.kind === 'dial' || gauge.kind === 'chart';

/** A gauge as the cabinet knows it, copied into the plan. `resolution`: display step, or the dial's smallest division. */
export interface Gauge {
  readonly id: string;
  readonly name: string;
  readonly serial: string;
  readonly kind: GaugeKind | 'level';
  readonly least: Exact;
  readonly greatest: Exact;
  readonly resolution: Exact;
  /** ISO days; '' both while nobody has entered them. */
  readonly calibrated: string;
  readonly calibrationDue: string;
  readonly simulated: boolean;
  /** Accuracy as its sheet or certificate states it. */
  readonly accuracy?: string;
  /** Taken out of use, with the reason: it cannot judge. */
  readonly withdrawn?: string;
  /** Dropped, over-ranged or off zero when last checked: it must prove its zero before it judges. */
  readonly mustZero?: string;
}

/** Gauge class a pack's table of perceptible movement is keyed by. */
export type GaugeClass = 'liquid' | 'level' | 'two-decimal' | 'one-decimal' | 'dial' | 'whole';
/** The class: liquid column, dial, or a digital display by its decimals. */
export function gaugeClass(gauge: Gauge): GaugeClass {
  if (gauge.kind === 'liquid') return 'liquid';
  if (gauge.kind === 'level') return 'level';
  if (isPrinted(gauge)) return 'dial';
  return gauge.resolution.scale >= 2 ? 'two-decimal' : gauge.resolution.scale === 1 ? 'one-decimal' : 'whole';
}

/** A rule held against a mark: the height of a water level over the slab, to the millimetre. Every kit has one. */
export const LEVEL_MARK: Gauge = {
  id: '00000000-0000-4000-8000-0000000001e0',
  name: 'Level mark and rule',
  serial: '',
  kind: 'level',
  least: exact(-20_000, 0, 'mm'),
  greatest: exact(20_000, 0, 'mm'),
  resolution: exact(1, 0, 'mm'),
  calibrated: '',
  calibrationDue: '9999-12-31',
  simulated: false,
};

/** Half of the gauge's resolution, exact: what a dial's entries snap to. */
const half = (a: Exact): Exact => exact(a.digits * 5, a.scale + 1, a.unit);

/**
 * Smallest movement this gauge can honestly show. The pack's figure for the gauge class where it has one; otherwise
 * digital = the larger of two display steps and 0.1 % of scale, dial = half the smallest division (general rules of
 * judging). Broken AT equality.
 */
export function perceptibleMovement(gauge: Gauge, table: Partial<Record<GaugeClass, Limit>>): Limit {
  const fromPack = table[gaugeClass(gauge)];
  if (fromPack)
    return {
      ...fromPack,
      value: inUnit(fromPack.value, gauge.resolution.unit, gauge.resolution.scale + 1, 'down'),
    };
  if (isPrinted(gauge))
    return {
      value: half(gauge.resolution),
      broken: 'at',
      source: 'General rule: half the smallest division of a dial',
    };
  if (gauge.kind === 'level')
    return { value: exact(2, 0, 'mm'), broken: 'at', source: 'General rule: 2 mm on a level mark' };
  const twoSteps = exact(gauge.resolution.digits * 2, gauge.resolution.scale, gauge.resolution.unit);
  const thousandth = exact(gauge.greatest.digits, gauge.greatest.scale + 3, gauge.greatest.unit);
  return compare(twoSteps, thousandth) >= 0
    ? { value: twoSteps, broken: 'at', source: 'General rule: two display steps' }
    : { value: thousandth, broken: 'at', source: 'General rule: 0.1 % of scale' };
}

/** The step entries must fall on: the display step, or half a division of a dial. */
export const entryStep = (gauge: Gauge): Exact =>
  isPrinted(gauge) ? half(gauge.resolution) : gauge.resolution;

/**
 * Reads a figure typed for this gauge: unit fixed, decimals of the display, inside the range.
 * Missing decimals are filled ("20.3" on a two-decimal gauge is 20.30).
 * @throws FigureError with a text that says what to do. Below the range is an error of its own: it is a state, not zero.
 */
export function parseReading(text: string, gauge: Gauge): Exact {
  const step = entryStep(gauge);
  // "1,234" is no thousand where the range has none and the display three decimals
  const decimal = step.scale >= 3 && toNumber(gauge.greatest) < 1000;
  const typed = parseFigure(
    decimal ? text.replace(/^([^,.]*),(\d+\s*)$/, '$1.$2') : text,
    gauge.resolution.unit,
  );
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

/**
 * Whether a zero, read open to air outside a run, is good: at most one display step off (house figure, as the packs').
 */
export const zeroTolerance = (gauge: Gauge, figure: Exact): boolean =>
  compare(magnitude(figure), gauge.resolution) <= 0;

/** One way in which a gauge does not fit the work, in a sentence. */
export interface Misfit {
  readonly code:
    | 'unit'
    | 'range'
    | 'resolution'
    | 'calibration'
    | 'dial-part'
    | 'dial-scale'
    | 'withdrawn'
    | 'zero';
  readonly text: string;
  readonly blocks: boolean;
}
/** Rules on the gauge that a procedure adds to the general ones. */
export interface FitRules {
  /** A mechanical gauge's full scale is at most so many times the test pressure. */
  readonly dialScaleMost?: number;
  readonly dialScaleSource?: string;
  /** Smallest movements the rule counts, by gauge class: a gauge of another unit must be able to show them. */
  readonly perceptible?: Partial<Record<GaugeClass, Limit>>;
}
/**
 * How a gauge fits a test: unit, range, resolution at most half of the limit, calibration valid on the day, and for
 * dials a test pressure between a quarter and three quarters of scale.
 * @param day ISO date of the test (YYYY-MM-DD)
 */
/** Whether a gauge may still be taken by its calibration: no day is entered yet, or it is not past. @param day ISO */
export const calibrationHolds = (gauge: Pick<Gauge, 'calibrationDue'>, day: string): boolean =>
  gauge.calibrationDue === '' || gauge.calibrationDue >= day;
export function gaugeFit(
  gauge: Gauge,
  asked: FitRules & { pressure: Exact; limit?: Exact },
  day: string,
): Misfit[] {
  const misfits: Misfit[] = [];
  const unit = gauge.resolution.unit;
  if (UNITS[unit].dimension !== UNITS[asked.pressure.unit].dimension) {
    misfits.push({
      code: 'unit',
      blocks: true,
      text: `${gauge.name} reads ${unitLabel(unit)}; this test is judged in ${unitLabel(asked.pressure.unit)}. Choose a gauge that reads ${unitLabel(asked.pressure.unit)}.`,
    });
    return misfits;
  }
  const test = {
    pressure: inUnit(asked.pressure, unit, asked.pressure.scale + 2, 'up'),
    limit: asked.limit && inUnit(asked.limit, unit, asked.limit.scale + 2, 'down'),
  };
  const counts = asked.perceptible?.[gaugeClass(gauge)];
  if (
    counts &&
    counts.value.unit !== unit &&
    compare(gauge.resolution, inUnit(counts.value, unit, gauge.resolution.scale + 2, 'down')) > 0
  )
    misfits.push({
      code: 'resolution',
      blocks: true,
      text: `${gauge.name} moves in steps of ${showExact(gauge.resolution)}, too coarse for a rule that counts ${showExact(counts.value)}. Choose a finer one.`,
    });
  if (isPrinted(gauge) && asked.dialScaleMost) {
    const most = scaled(test.pressure, asked.dialScaleMost, 1, test.pressure.scale, 'down');
    if (compare(gauge.greatest, most) > 0)
      misfits.push({
        code: 'dial-scale',
        blocks: true,
        text: `This dial ends at ${showExact(gauge.greatest)}, more than ${asked.dialScaleMost} times the test pressure of ${showExact(asked.pressure)}: a small fall would not be seen. Choose a dial that ends at ${showExact(most)} or below (${asked.dialScaleSource}).`,
      });
  }
  if (compare(test.pressure, gauge.greatest) > 0)
    misfits.push({
      code: 'range',
      blocks: true,
      text: `${gauge.name} ends at ${showExact(gauge.greatest)}; the test needs ${showExact(test.pressure)}. Choose one with a larger range.`,
    });
  // a code's own rule on the scale takes the place of the general one
  if (isPrinted(gauge) && !asked.dialScaleMost) {
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
  if (gauge.withdrawn)
    misfits.push({
      code: 'withdrawn',
      blocks: true,
      text: `${gauge.name} is out of use: ${gauge.withdrawn}. Use another gauge.`,
    });
  if (gauge.mustZero)
    misfits.push({
      code: 'zero',
      blocks: false,
      text: `${gauge.name} was ${gauge.mustZero}: it cannot judge before it shows zero, open to air.`,
    });
  if (!gauge.calibrationDue)
    misfits.push({
      code: 'calibration',
      blocks: false,
      text: `The calibration of ${gauge.name} is not entered. It can follow until the record is signed; without it this is no certificate.`,
    });
  else if (gauge.calibrationDue < day)
    misfits.push({
      code: 'calibration',
      blocks: true,
      text: `The calibration of ${gauge.name} ran out on ${gauge.calibrationDue}. Use another gauge; have this one recalibrated or discard it.`,
    });
  return misfits;
}
