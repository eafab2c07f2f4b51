/** Reads a gauge's log off the main thread: a day at one reading a second is 86 400 rows. */
import { guessMapping, shapeOf } from '@/core/gauge-log/guess';
import type { LogMapping, LogRead } from '@/core/gauge-log/mapping';
import { readLog } from '@/core/gauge-log/read-log';
import type { Unit } from '@/core/quantity/unit';
import { delimiterOf, readCsv } from '@/wire/csv';
import { serve } from './serve';

export interface LogRequest {
  readonly text: string;
  /** Null: guess from the first rows. */
  readonly mapping: LogMapping | null;
  readonly zone: string;
  readonly began?: number;
  readonly to?: { readonly unit: Unit; readonly scale: number };
  readonly unit: Unit;
}
export interface LogAnswer {
  readonly mapping: LogMapping;
  readonly shape: string;
  /** The first rows as they stand in the file. */
  readonly head: readonly (readonly string[])[];
  readonly read: LogRead;
  readonly ms: number;
}
const HEAD = 60;
/** The last text read, in rows: a changed mapping does not split it again. */
let last: { text: string; delimiter: string; rows: string[][] } | null = null;

export function answerLog(request: LogRequest): LogAnswer {
  const began = performance.now();
  const delimiter = request.mapping?.delimiter ?? delimiterOf(request.text);
  const rows =
    last && last.text === request.text && last.delimiter === delimiter
      ? last.rows
      : readCsv(request.text, delimiter);
  last = { text: request.text, delimiter, rows };
  const head = rows.slice(0, HEAD);
  const mapping = request.mapping ?? guessMapping(head, delimiter, request.unit);
  const read = readLog(rows, mapping, {
    zone: request.zone,
    ...(request.began === undefined ? {} : { began: request.began }),
    ...(request.to ? { to: request.to } : {}),
  });
  return {
    mapping,
    shape: shapeOf(head, delimiter),
    head: head.slice(0, 8),
    read,
    ms: performance.now() - began,
  };
}
serve(answerLog);
