/** How the columns of a gauge's log are read: what a person says once and the office remembers. */
import type { Unit } from '@/core/quantity/unit';

/** How a moment is written. The order of day and month is said, never guessed from one row. */
export const TIME_FORMATS = {
  iso: 'year-month-day, like 2026-11-24 08:15:30',
  dmy: 'day/month/year, like 24.11.2026 08:15:30',
  mdy: 'month/day/year, like 11/24/2026 8:15:30 AM',
  unix: 'seconds or milliseconds since 1970',
  elapsed: 'time since the log began, like 0:15:30 or 930',
} as const;
export type TimeFormat = keyof typeof TIME_FORMATS;
export interface LogMapping {
  readonly delimiter: string;
  readonly decimal: '.' | ',';
  /** Rows before the first reading: the names of the columns stand in the last of them. */
  readonly headerRows: number;
  readonly time: {
    readonly column: number;
    /** A column of its own for the clock time, where day and time stand apart. */
    readonly clock?: number;
    readonly format: TimeFormat;
  };
  readonly pressure: { readonly column: number; readonly unit: Unit };
  readonly temperature?: { readonly column: number; readonly unit: 'C' | 'F' };
  /** Seconds by which the gauge's clock was ahead of the right time; they are taken off. */
  readonly aheadSeconds: number;
}
/** A reading of the log: right time, ms UTC; pressure as a whole number of steps of 10^-scale. */
export interface LogPoint {
  readonly at: number;
  readonly digits: number;
  readonly temperature?: number;
}
/** A row that could not be read: its number in the file (the first is 1), the column's name, and what to do. */
export interface RowError {
  readonly row: number;
  readonly column: string;
  readonly text: string;
}
export interface LogRead {
  readonly points: readonly LogPoint[];
  readonly unit: Unit;
  readonly scale: number;
  readonly errors: readonly RowError[];
  /** How many errors there were in all; the list stops at the first 200. */
  readonly errorCount: number;
  readonly rows: number;
}
