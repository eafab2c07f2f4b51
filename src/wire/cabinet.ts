import * as yup from 'yup';
import type { Gauge } from '@/core/instrument/gauge';
import { KIT_KINDS, type KitFacts, type LogEntry } from '@/core/instrument/kit';
import { compare, parseWithUnit } from '@/core/quantity/exact';
import { figure, free, gaugeFigure, maybeDay, list, optionalFigure, shape, text, uuid } from './figure';

/** A gauge as it is entered. */
export const gaugeFormSchema = shape({
  id: uuid(),
  name: text(40),
  serial: text(40),
  kind: text(10).oneOf(['digital', 'dial', 'liquid', 'chart']),
  least: gaugeFigure(),
  greatest: gaugeFigure(),
  resolution: gaugeFigure('above zero'),
  accuracy: free(60),
  /** Both may follow; until then nothing it reads is a certificate. */
  calibrated: maybeDay(),
  calibrationDue: maybeDay(),
}).test('range', (v, context) => {
  try {
    const [least, greatest, step] = [v.least, v.greatest, v.resolution].map(parseWithUnit) as [
      never,
      never,
      never,
    ];
    const units = [v.least, v.greatest, v.resolution].map((x) => x.trim().split(/\s+/)[1]);
    if (new Set(units).size > 1)
      return context.createError({
        path: 'greatest',
        message: 'Range and step must be in the same unit: the one it shows.',
      });
    if (compare(least, greatest) >= 0)
      return context.createError({ path: 'greatest', message: 'The range must end above where it begins.' });
    if (compare(step, greatest) >= 0)
      return context.createError({ path: 'resolution', message: 'The step must be smaller than the range.' });
  } catch {
    return true; // the field itself says what is wrong
  }
  if (!v.calibrated !== !v.calibrationDue)
    return context.createError({
      path: v.calibrated ? 'calibrationDue' : 'calibrated',
      message: 'Enter both days, or neither for now.',
    });
  return !v.calibrationDue || v.calibrationDue > v.calibrated
    ? true
    : context.createError({
        path: 'calibrationDue',
        message: 'The next calibration must lie after the last.',
      });
});
export type GaugeForm = yup.InferType<typeof gaugeFormSchema>;
export function gaugeFromForm(f: GaugeForm, before: Gauge | null): Gauge {
  return {
    ...(before ?? {}),
    id: f.id,
    name: f.name,
    serial: f.serial,
    kind: f.kind as Gauge['kind'],
    least: parseWithUnit(f.least),
    greatest: parseWithUnit(f.greatest),
    resolution: parseWithUnit(f.resolution),
    calibrated: f.calibrated,
    calibrationDue: f.calibrationDue,
    ...(f.accuracy ? { accuracy: f.accuracy } : {}),
    simulated: false,
  };
}

/** k or m as the sheet of a fan prints it; empty where it prints none. */
const sheetNumber = () =>
  free(12).matches(
    /^(\d{1,6}(\.\d{1,6})?)?$/,
    'is a number above zero as the sheet prints it, like 8.8, or empty',
  );
/** A range begins below where it ends, in one unit; k and m come together. */
function rangeTrouble(
  v: { least?: string; greatest?: string; k?: string; m?: string },
  context: yup.TestContext,
): true | yup.ValidationError {
  const lacks = (path: string, message: string) =>
    context.createError({ path: `${context.path}.${path}`, message });
  if (Boolean(v.k) !== Boolean(v.m))
    return lacks(v.k ? 'm' : 'k', 'k and m come together: flow = k × (pressure at the fan, Pa)^m.');
  if (v.k && (Number(v.k) <= 0 || Number(v.m) < 0.3 || Number(v.m) > 1))
    return lacks('m', 'k is above zero, m between 0.3 and 1: look at the sheet of the fan again.');
  try {
    const [least, greatest] = [parseWithUnit(v.least ?? ''), parseWithUnit(v.greatest ?? '')];
    if (least.unit !== greatest.unit)
      return lacks('greatest', 'Both ends of a range are in the same unit: the one it shows.');
    if (compare(least, greatest) >= 0) return lacks('greatest', 'The range must end above where it begins.');
  } catch {
    return true; // the field itself says what is wrong
  }
  return true;
}
/** Any other thing of the cabinet. */
export const kitFormSchema = shape({
  id: uuid(),
  kind: text(20).oneOf(Object.keys(KIT_KINDS)),
  name: text(60),
  serial: free(40),
  due: maybeDay(),
  interval: yup.number().strict(true).integer().min(1).max(3650).nullable().defined(),
  note: free(200),
  resolution: free(40),
  stroke: optionalFigure('volume', 'above zero'),
  rating: optionalFigure('pressure', 'above zero'),
  volume: optionalFigure('volume', 'above zero'),
  size: free(80),
  batch: free(60),
  accuracy: optionalFigure('none', 'above zero'),
  ranges: list(
    shape({
      name: text(20),
      least: figure('flow', 'zero'),
      greatest: figure('flow', 'above zero'),
      k: sheetNumber(),
      m: sheetNumber(),
    }).test('sheet', (v, context) => rangeTrouble(v, context)),
    8,
  ),
}).test('resolution', (v, context) => {
  if (!v.resolution) return true;
  try {
    parseWithUnit(v.resolution);
    return true;
  } catch (error) {
    return context.createError({ path: 'resolution', message: (error as Error).message });
  }
});
export type KitForm = yup.InferType<typeof kitFormSchema>;
export function kitFromForm(f: KitForm): KitFacts {
  const maybe = (key: 'resolution' | 'stroke' | 'rating' | 'volume' | 'accuracy') =>
    f[key] ? { [key]: parseWithUnit(f[key]) } : {};
  return {
    id: f.id,
    kind: f.kind as KitFacts['kind'],
    name: f.name,
    serial: f.serial,
    due: f.due,
    interval: f.interval,
    note: f.note,
    ...maybe('resolution'),
    ...maybe('stroke'),
    ...maybe('rating'),
    ...maybe('volume'),
    ...maybe('accuracy'),
    ...(f.size ? { size: f.size } : {}),
    ...(f.batch ? { batch: f.batch } : {}),
    ...(f.ranges.length
      ? {
          ranges: f.ranges.map((r) => ({
            name: r.name,
            least: parseWithUnit(r.least),
            greatest: parseWithUnit(r.greatest),
            ...(r.k && r.m ? { k: r.k, m: r.m } : {}),
          })),
        }
      : {}),
  };
}

/** What a person writes into the log of a thing. */
export const logSchema = shape({
  id: uuid(),
  what: text(20).oneOf([
    'zero',
    'blank',
    'through',
    'calibrated',
    'dropped',
    'over-ranged',
    'rejected',
    'returned',
    'note',
  ]),
  figure: optionalFigure('pressure'),
  openToAir: yup.boolean().strict(true).optional(),
  pressure: optionalFigure('pressure', 'above zero'),
  loss: optionalFigure('pressure', 'zero'),
  flow: optionalFigure('flow', 'above zero'),
  below: yup.boolean().strict(true).optional(),
  minutes: yup.number().strict(true).min(0.5).max(10_000).optional(),
  on: maybeDay(),
  due: maybeDay(),
  text: free(200),
}).test('parts', (v, context) => {
  const lacks = (path: string, message: string) => context.createError({ path, message });
  if (v.what === 'zero' && !v.figure) return lacks('figure', 'Type what the gauge shows, open to air.');
  if (v.what === 'zero' && !v.openToAir)
    return lacks('openToAir', 'A zero is taken open to air, with nothing connected.');
  if (v.what === 'blank' && (!v.pressure || !v.loss || !v.minutes))
    return lacks('loss', 'Enter pressure, loss and minutes of the own-kit test.');
  if (v.what === 'through' && (!v.pressure || !v.flow))
    return lacks(
      'flow',
      'Enter the pressure and the flow that still passed, or the least flow of the range.',
    );
  if (v.what === 'calibrated' && (!v.on || !v.due))
    return lacks('due', 'Enter when it was calibrated and until when it holds.');
  if (v.what === 'calibrated' && v.due <= v.on)
    return lacks('due', 'The next calibration must lie after the last.');
  if (['rejected', 'returned', 'note'].includes(v.what) && !v.text?.trim())
    return lacks('text', 'Say why, in a few words.');
  return true;
});
export type LogForm = yup.InferType<typeof logSchema>;
/** @param good whether a zero is within the tolerance of its gauge */
export function entryFromForm(f: LogForm, good: boolean): LogEntry {
  switch (f.what) {
    case 'zero':
      return { what: 'zero', figure: parseWithUnit(f.figure), good };
    case 'blank':
      return {
        what: 'blank',
        pressure: parseWithUnit(f.pressure),
        loss: parseWithUnit(f.loss),
        minutes: f.minutes!,
      };
    case 'through':
      return {
        what: 'through',
        pressure: parseWithUnit(f.pressure),
        flow: parseWithUnit(f.flow),
        below: f.below === true,
      };
    case 'calibrated':
      return { what: 'calibrated', on: f.on, due: f.due, certificate: f.text };
    default:
      return { what: f.what as 'note', text: f.text };
  }
}
