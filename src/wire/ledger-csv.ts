import { writeCsv } from './csv';
import { FILE_COLUMNS, type FileColumn } from './ledger';
import { cellOf, type LedgerCells } from './ledger-cells';

const rows = (
  lines: readonly LedgerCells[],
  columns: readonly FileColumn[],
  gauges: ReadonlyMap<string, string>,
): string[][] => lines.map((l) => columns.map((c) => cellOf(l, c, gauges)));
export const ledgerCsv = (
  lines: readonly LedgerCells[],
  columns: readonly FileColumn[],
  gauges: ReadonlyMap<string, string>,
): string =>
  writeCsv([
    columns.map((c) => (c === 'sealed' ? 'Sealed (UTC)' : FILE_COLUMNS[c])),
    ...rows(lines, columns, gauges),
  ]);
/** Further lines of the same table, without its headings. */
export const moreCsv: typeof ledgerCsv = (lines, columns, gauges) =>
  lines.length ? writeCsv(rows(lines, columns, gauges)) : '';
/** The columns named in an address, in their order; the usual ones where none is. */
export const columnsFrom = (text: string | null, usual: readonly FileColumn[]): FileColumn[] => {
  const asked = new Set((text ?? '').split(','));
  const known = (Object.keys(FILE_COLUMNS) as FileColumn[]).filter((c) => asked.has(c));
  return known.length ? known : [...usual];
};
