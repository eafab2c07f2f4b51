import { convert, unitLabel, UNITS, type Unit } from '@/core/quantity/unit';
import type { LogMapping, LogPoint, LogRead, RowError } from './mapping';
import { wallToUtc } from '@/core/quantity/zone';
import { readTime } from './read-time';

/** Errors listed one by one; of more only the number is said. */
const MOST_ERRORS = 200;

/**
 * A number as loggers write it: "20.35", "20,35", "1 013,25", "1,013.25", "-0.02", "2.035e1". Spaces and the other sign
 * of the two may group thousands.
 * @returns null when it is no number  @param decimal which sign stands before the fraction
 */
export function readNumber(text: string, decimal: '.' | ','): number | null {
  const clean = text
    .trim()
    .replace(/−/g, '-')
    .replace(/[\s\u00a0\u202f']/g, '');
  const group = decimal === '.' ? ',' : '.';
  const grouped = group === ',' ? /^[+-]?\d{1,3}(,\d{3})+(\.\d*)?$/ : /^[+-]?\d{1,3}(\.\d{3})+(,\d*)?$/;
  const bare = grouped.test(clean) ? clean.split(group).join('') : clean;
  // a sign that neither groups thousands nor stands before the fraction: it is no number written that way
  if (bare.includes(group)) return null;
  const plain = decimal === ',' ? bare.replace(',', '.') : bare;
  return /^[+-]?(\d+\.?\d*|\.\d+)([eE][+-]?\d+)?$/.test(plain) ? Number(plain) : null;
}
/** Figures after the decimal sign, so that the steps of the log are kept. */
const placesOf = (text: string, decimal: '.' | ','): number => {
  const at = text.lastIndexOf(decimal);
  return at < 0 ? 0 : (/^\d*/.exec(text.slice(at + 1))?.[0].length ?? 0);
};

/**
 * Reads the rows of a log by its mapping. Rows that cannot be read are listed with what is wrong and left out; nothing
 * is guessed. Points come back in the order of time.
 * @param zone where the gauge's clock was read, IANA name, for moments written without a zone
 * @param to unit and places in which the points are wanted; without it those of the log itself
 * @param began moment at which an elapsed log began, ms UTC
 */
export function readLog(
  rows: readonly (readonly string[])[],
  mapping: LogMapping,
  context: {
    readonly zone: string;
    readonly began?: number;
    readonly to?: { readonly unit: Unit; readonly scale: number };
  },
): LogRead {
  const { pressure, time, temperature, decimal, headerRows, aheadSeconds } = mapping;
  const header = rows[headerRows - 1] ?? [];
  const named = (column: number) => header[column]?.trim() || `column ${column + 1}`;
  const errors: RowError[] = [];
  let errorCount = 0;
  const wrong = (row: number, column: number, text: string) => {
    errorCount += 1;
    if (errors.length < MOST_ERRORS) errors.push({ row: row + 1, column: named(column), text });
  };
  const found: { at: number; value: number; temperature?: number }[] = [];
  let places = 0;
  let read = 0;
  let day = '';
  let dayWall: number | null = null;
  for (let i = headerRows; i < rows.length; i++) {
    const row = rows[i]!;
    if (row.every((c) => c.trim() === '')) continue;
    read += 1;
    const text = row[time.column] ?? '';
    const clock = time.clock === undefined ? undefined : (row[time.clock] ?? '');
    const moment = readTime(text, time.format, clock);
    if (!moment) {
      wrong(
        i,
        time.column,
        text.trim()
          ? `“${text.trim().slice(0, 40)}${clock ? ` ${clock.slice(0, 20)}` : ''}” is not a time written that way. Choose another format, or leave the row out.`
          : 'The time is missing.',
      );
      continue;
    }
    const shown = row[pressure.column] ?? '';
    const value = readNumber(shown, decimal);
    if (value === null) {
      wrong(
        i,
        pressure.column,
        shown.trim()
          ? `“${shown.trim().slice(0, 40)}” is not a figure with a decimal ${decimal === ',' ? 'comma' : 'point'}.`
          : 'The pressure is missing.',
      );
      continue;
    }
    let warm: number | undefined;
    const warmText = temperature ? (row[temperature.column] ?? '').trim() : '';
    if (temperature && warmText) {
      const degrees = readNumber(warmText, decimal);
      if (degrees === null)
        wrong(
          i,
          temperature.column,
          `“${warmText.slice(0, 40)}” is not a temperature; the pressure is kept.`,
        );
      else warm = temperature.unit === 'F' ? ((degrees - 32) * 5) / 9 : degrees;
    }
    let at: number;
    if (moment.kind === 'absolute') at = moment.ms;
    else if (moment.kind === 'elapsed') {
      if (context.began === undefined) {
        wrong(i, time.column, 'The log counts from its own beginning: say when it began.');
        continue;
      }
      at = context.began + moment.ms;
    } else {
      // one look at the zone an hour is enough: clocks change on the hour
      const hour = String(Math.floor(moment.ms / 3_600_000));
      if (hour !== day) {
        day = hour;
        dayWall = wallToUtc(moment.ms, context.zone) - moment.ms;
      }
      at = moment.ms + dayWall!;
    }
    places = Math.max(places, placesOf(shown.trim(), decimal));
    found.push({
      at: at - Math.round(aheadSeconds * 1000),
      value,
      ...(warm === undefined ? {} : { temperature: warm }),
    });
  }
  const unit = context.to?.unit ?? pressure.unit;
  const scale = context.to?.scale ?? Math.min(6, places);
  const factor = 10 ** scale;
  const same = unit === pressure.unit;
  const points: LogPoint[] = found.map(({ at, value, temperature: t }) => ({
    at,
    digits: Math.round((same ? value : convert(value, pressure.unit, unit)) * factor),
    ...(t === undefined ? {} : { temperature: t }),
  }));
  for (let i = 1; i < points.length; i++)
    if (points[i]!.at < points[i - 1]!.at) {
      points.sort((a, b) => a.at - b.at);
      break;
    }
  return { points, unit, scale, errors, errorCount, rows: read };
}

/** Why two units cannot stand for each other; '' when they can. */
export const unitTrouble = (from: Unit, to: Unit): string =>
  UNITS[from].dimension === UNITS[to].dimension
    ? ''
    : `${unitLabel(from)} is not a ${UNITS[to].dimension}. Choose the unit that the column is in.`;
