import { writeCsv } from './csv';
import { LEDGER_COLUMNS, type LedgerColumn } from './ledger';
import { cellOf, type LedgerCells } from './ledger-cells';

export const ledgerCsv = (
  lines: readonly LedgerCells[],
  columns: readonly LedgerColumn[],
  gauges: ReadonlyMap<string, string>,
): string =>
  writeCsv([
    columns.map((c) => (c === 'sealed' ? 'Sealed (UTC)' : LEDGER_COLUMNS[c])),
    ...lines.map((l) => columns.map((c) => cellOf(l, c, gauges))),
  ]);
/** Further lines of the same table, without its headings. */
export const moreCsv = (
  lines: readonly LedgerCells[],
  columns: readonly LedgerColumn[],
  gauges: ReadonlyMap<string, string>,
): string => (lines.length ? writeCsv(lines.map((l) => columns.map((c) => cellOf(l, c, gauges)))) : '');
/** The columns named in an address, in their order; the usual ones where none is. */
export const columnsFrom = (text: string | null, usual: readonly LedgerColumn[]): LedgerColumn[] => {
  const asked = new Set((text ?? '').split(','));
  const known = (Object.keys(LEDGER_COLUMNS) as LedgerColumn[]).filter((c) => asked.has(c));
  return known.length ? known : [...usual];
};
