/** Reads a table off the main thread: places, appliances or gauges by the hundred. */
import { delimiterOf, readCsv } from '@/wire/csv';
import { guessTable, shapeOfTable } from '@/wire/bring-in/guess';
import { type MeterClass, readTable, type TableRead } from '@/wire/bring-in/read-table';
import type { TableKey, TableMapping } from '@/wire/bring-in/tables';
import { serve } from './serve';

export interface TableRequest {
  readonly text: string;
  /** Null: guess from the first rows. */
  readonly mapping: TableMapping | null;
  /** What the file holds, where a person said it. */
  readonly table?: TableKey;
  readonly meters: readonly MeterClass[];
}
export interface TableAnswer {
  readonly mapping: TableMapping;
  readonly shape: string;
  /** The first rows as they stand in the file. */
  readonly head: readonly (readonly string[])[];
  readonly rows: readonly (readonly string[])[];
  readonly read: TableRead;
}
const HEAD = 60;

export function answerTable({ text, mapping, table, meters }: TableRequest): TableAnswer {
  const rows = readCsv(text, mapping?.delimiter ?? delimiterOf(text));
  const head = rows.slice(0, HEAD);
  const used = mapping ?? guessTable(head, delimiterOf(text), table);
  return {
    mapping: used,
    shape: shapeOfTable(head, used.headerRows),
    head: head.slice(0, 6),
    rows,
    read: readTable(rows, used, meters),
  };
}
serve(answerTable);
