import { readingRows, SOURCE_WORDS } from '@/core/record/readings';
import { restoreBody } from '@/core/record/restore';
import { formatExact } from '@/core/quantity/exact';
import { reduce } from '@/core/run/reduce';
import { writeCsv } from './csv';

export const READING_COLUMNS = [
  'stage',
  'what',
  'value',
  'unit',
  'read_utc',
  'device_clock_utc',
  'received_utc',
  'source',
  'late',
  'corrected_value',
  'reason',
  'by',
] as const;
const iso = (ms: number | null): string => (ms === null ? '' : new Date(ms).toISOString());
/** A figure as digits alone, with the plain minus sign that programs read. */
const plain = (text: string): string => text.replace('−', '-').replace(/[\s\u00a0\u202f]/g, '');

/** Every reading of a sealed record, typed, streamed and read in, one a row. @param body sealed text */
export function readingsCsv(body: string): string {
  const { plan, events } = restoreBody(body);
  const rows = readingRows(plan, reduce(plan, events), events, true);
  return writeCsv([
    READING_COLUMNS,
    ...rows.map((r) => [
      r.stage,
      r.what,
      plain(formatExact(r.figure)),
      r.figure.unit,
      iso(r.read),
      iso(r.device),
      iso(r.received),
      SOURCE_WORDS[r.source],
      r.late ? 'late' : '',
      r.corrected ? plain(formatExact(r.corrected)) : '',
      r.reason,
      r.by,
    ]),
  ]);
}
