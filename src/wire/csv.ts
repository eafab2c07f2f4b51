import Papa from 'papaparse';

/**
 * Rows as CSV (RFC 4180, comma, CRLF). A text that a spreadsheet would take for a formula gets an apostrophe before it, also
 * behind spaces and line ends, which some strip, and with full-width signs, which some turn into plain ones; numbers, also
 * negative ones, stay as they are.
 */
export const writeCsv = (rows: readonly (readonly string[])[]): string =>
  rows.length
    ? `${Papa.unparse(
        rows.map((r) => r.map(guarded)),
        { newline: '\r\n' },
      )}\r\n`
    : '';
const guarded = (cell: string): string =>
  /^[\t\r\n]|^[\s\p{Cc}\p{Cf}]*[=+\-@＝＋－﹣−＠]/u.test(cell) && !/^[+-]?\d+([.,]\d+)?$/.test(cell)
    ? `'${cell}`
    : cell;

/** Rows of a text with a known delimiter; quoted cells may hold delimiters and line ends. */
export const readCsv = (text: string, delimiter: string): string[][] =>
  Papa.parse<string[]>(text.replace(/^\ufeff/, ''), { delimiter }).data;
/** The delimiter a text is written with, from its first lines. */
export function delimiterOf(text: string): string {
  const head = text
    .replace(/^\ufeff/, '')
    .split(/\r\n|\n|\r/)
    .slice(0, 60);
  const widths = (d: string) =>
    head.map((line) => (Papa.parse<string[]>(line, { delimiter: d }).data[0] ?? []).length);
  let best = { delimiter: ',', score: 0 };
  for (const d of [';', '\t', ',', '|']) {
    const counts = widths(d).filter((n) => n > 1);
    if (!counts.length) continue;
    const usual = [...counts].sort((a, b) => a - b)[Math.floor(counts.length / 2)]!;
    const score = counts.filter((n) => n === usual).length * (d === ',' ? 0.9 : 1);
    if (score > best.score) best = { delimiter: d, score };
  }
  return best.delimiter;
}
