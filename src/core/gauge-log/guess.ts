/** A first reading of how a log is written, from its first rows: offered to a person, never taken as said. */
import type { Unit } from '@/core/quantity/unit';
import type { LogMapping, TimeFormat } from './mapping';
import { readNumber } from './read-log';
import { readClock, readTime } from './read-time';

const PRESSURE_UNITS: readonly (readonly [RegExp, Unit])[] = [
  [/\bmbar\s*\(?abs/i, 'mbar(abs)'],
  [/\bmicrons?\b/i, 'micron'],
  [/\btorr\b/i, 'Torr'],
  [/\bmbar\b/i, 'mbar'],
  [/\bhpa\b/i, 'hPa'],
  [/\bkpa\b/i, 'kPa'],
  [/\bmpa\b/i, 'MPa'],
  [/\bbar\b/i, 'bar'],
  [/\bpsi/i, 'psi'],
  [/in\s*(h2o|wc|\.?\s*wc)|"\s*wc/i, 'inWC'],
  [/mm\s*(h2o|wc)/i, 'mmWC'],
  [/\bpa\b/i, 'Pa'],
];
/** The unit a heading names, or null. */
export const unitInHeading = (heading: string): Unit | null =>
  PRESSURE_UNITS.find(([pattern]) => pattern.test(heading.replace(/_/g, ' ')))?.[1] ?? null;

const isTimeLike = (text: string, format: TimeFormat, clock?: string) =>
  readTime(text, format, clock) !== null;
const share = (rows: readonly (readonly string[])[], good: (row: readonly string[]) => boolean): number =>
  rows.length ? rows.filter(good).length / rows.length : 0;

/** Rows before the first one in which something is a number and something else too, or a time. */
function headerRowsOf(rows: readonly (readonly string[])[]): number {
  const reads = (row: readonly string[]) => {
    const numbers = row.filter((c) => readNumber(c, '.') !== null || readNumber(c, ',') !== null).length;
    const times = row.filter(
      (c) => (['iso', 'dmy', 'mdy'] as const).some((f) => isTimeLike(c, f)) || readClock(c) !== null,
    ).length;
    return row.length > 1 && (numbers >= 2 || (numbers >= 1 && times >= 1));
  };
  const first = rows.findIndex(reads);
  return first < 0 ? 0 : first;
}

/**
 * The likeliest mapping of a log. @param rows its first rows, some dozens are enough  @param unit of the gauge the log
 * is said to come from, for columns whose heading names none
 */
export function guessMapping(
  rows: readonly (readonly string[])[],
  delimiter: string,
  unit: Unit = 'mbar',
): LogMapping {
  const headerRows = headerRowsOf(rows);
  const header = rows[headerRows - 1] ?? [];
  const body = rows.slice(headerRows).filter((r) => r.some((c) => c.trim()));
  const width = Math.max(1, ...body.map((r) => r.length));
  const columns = Array.from({ length: width }, (_, i) => i);
  const commas = body.flat().filter((c) => /^\s*[+-]?\d+,\d+\s*$/.test(c)).length;
  const points = body.flat().filter((c) => /^\s*[+-]?\d+\.\d+\s*$/.test(c)).length;
  const decimal = delimiter !== ',' && commas > points ? ',' : '.';
  const time = guessTime(body, columns, header, decimal);
  const taken = new Set([time.column, time.clock]);
  const numeric = columns.filter(
    (c) => !taken.has(c) && share(body, (r) => readNumber(r[c] ?? '', decimal) !== null) > 0.6,
  );
  const warm = numeric.find((c) => /temp|°\s*[cf]|deg/i.test(header[c] ?? ''));
  const isCounter = (c: number) =>
    body.length > 2 &&
    body.slice(1).every((r, i) => Number(r[c]) - Number(body[i]![c]) === 1) &&
    !unitInHeading(header[c] ?? '');
  const pressure =
    numeric.find((c) => c !== warm && unitInHeading(header[c] ?? '')) ??
    numeric.find((c) => c !== warm && /press|druck|pression/i.test(header[c] ?? '')) ??
    numeric.find((c) => c !== warm && !isCounter(c)) ??
    numeric.find((c) => c !== warm) ??
    Math.min(1, width - 1);
  return {
    delimiter,
    decimal,
    headerRows,
    time,
    pressure: { column: pressure, unit: unitInHeading(header[pressure] ?? '') ?? unit },
    ...(warm === undefined
      ? {}
      : {
          temperature: {
            column: warm,
            unit: /f\b/i.test(header[warm] ?? '') && !/c\b/i.test(header[warm] ?? '') ? 'F' : 'C',
          } as const,
        }),
    aheadSeconds: 0,
  };
}
function guessTime(
  body: readonly (readonly string[])[],
  columns: readonly number[],
  header: readonly string[],
  decimal: '.' | ',',
): LogMapping['time'] {
  for (const format of ['iso', 'dmy', 'mdy'] as const)
    for (const c of columns) {
      if (share(body, (r) => isTimeLike(r[c] ?? '', format)) >= 0.7) return { column: c, format };
      const clock = columns.find(
        (k) =>
          k !== c &&
          share(body, (r) => readClock(r[k] ?? '') !== null && isTimeLike(r[c] ?? '', format, r[k])) >= 0.7,
      );
      if (clock !== undefined) return { column: c, clock, format };
    }
  const unix = columns.find((c) => share(body, (r) => isTimeLike(r[c] ?? '', 'unix')) >= 0.7);
  if (unix !== undefined) return { column: unix, format: 'unix' };
  const named = columns.find((c) => /time|elapsed|zeit|sec|^s$|^t\b/i.test(header[c] ?? ''));
  const rising = columns.find(
    (c) =>
      body.length > 1 &&
      body.every((r, i) => {
        const v = readNumber(r[c] ?? '', decimal);
        return v !== null && (i === 0 || v > readNumber(body[i - 1]![c] ?? '', decimal)!);
      }),
  );
  return { column: named ?? rising ?? 0, format: 'elapsed' };
}
/** What a kind of log is known by: its delimiter, its width and its headings. */
export const shapeOf = (rows: readonly (readonly string[])[], delimiter: string): string => {
  const header = rows[headerRowsOf(rows) - 1];
  return `${delimiter}|${rows[headerRowsOf(rows)]?.length ?? 0}|${(header ?? []).map((h) => h.trim().toLowerCase()).join('|')}`.slice(
    0,
    400,
  );
};
