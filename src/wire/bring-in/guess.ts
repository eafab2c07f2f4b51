/** A first reading of how a table is written, from its headings: offered to a person, never taken as said. */
import { readTime } from '@/core/gauge-log/read-time';
import { headingUnit } from './cells';
import { columnsOf, TABLE_KEYS, type TableKey, type TableMapping } from './tables';

const clean = (heading: string) =>
  heading
    .replace(/[([][^)\]]*[)\]]/g, ' ')
    .replace(/[_\s]+/g, ' ')
    .trim();
/** Which column of the file each column of the table is, by the headings; each is taken once. */
function columnsBy(table: TableKey, headings: readonly string[]): Record<string, number> {
  const at: Record<string, number> = {};
  const taken = new Set<number>();
  const take = (key: string, i: number) => {
    if (i < 0 || taken.has(i)) return;
    at[key] = i;
    taken.add(i);
  };
  const words = headings.map(clean);
  // a heading in our own words first
  for (const c of columnsOf(table))
    take(
      c.key,
      words.findIndex((w) => w.toLowerCase() === c.title.toLowerCase()),
    );
  for (const c of columnsOf(table))
    if (at[c.key] === undefined)
      take(
        c.key,
        words.findIndex((w, i) => !taken.has(i) && c.heading.test(w)),
      );
  return at;
}
const lacking = (table: TableKey, at: Readonly<Record<string, number>>) =>
  columnsOf(table).filter((c) => c.needed && at[c.key] === undefined).length;

/** @param rows the first rows of the file, some dozens  @param table what it holds, where somebody said so */
export function guessTable(
  rows: readonly (readonly string[])[],
  delimiter: string,
  table?: TableKey,
): TableMapping {
  const found = rows.slice(0, 10).flatMap((row, i) =>
    (table ? [table] : TABLE_KEYS).map((key) => {
      const at = columnsBy(key, row);
      return { key, i, at, score: Object.keys(at).length - 3 * lacking(key, at) };
    }),
  );
  const best = found.reduce((a, b) => (b.score > a.score ? b : a), {
    key: table ?? TABLE_KEYS[0]!,
    i: 0,
    at: {} as Record<string, number>,
    score: -Infinity,
  });
  const header = rows[best.i] ?? [];
  const body = rows.slice(best.i + 1);
  const cells = body.flat();
  const commas = cells.filter((c) => /\d,\d{1,2}(\D|$)/.test(c)).length;
  const points = cells.filter((c) => /\d\.\d{1,2}(\D|$)/.test(c)).length;
  const days = columnsOf(best.key)
    .filter((c) => c.day && best.at[c.key] !== undefined)
    .flatMap((c) => body.map((row) => row[best.at[c.key]!]?.trim() ?? ''))
    .filter(Boolean);
  const day = (['iso', 'dmy', 'mdy'] as const).find((f) =>
    days.every((d) => readTime(d.split(/[T ]/)[0]!, f, '00:00')),
  );
  return {
    table: best.key,
    delimiter,
    decimal: delimiter !== ',' && commas > points ? ',' : '.',
    headerRows: best.i + 1,
    day: day ?? 'iso',
    at: best.at,
    units: Object.fromEntries(
      columnsOf(best.key).flatMap((c) => {
        const i = best.at[c.key];
        const unit = c.unit && i !== undefined ? headingUnit(header[i] ?? '', c.unit) : null;
        return unit ? [[c.key, unit]] : [];
      }),
    ),
  };
}
/** What a table is known by when the next of its kind comes. */
export const shapeOfTable = (rows: readonly (readonly string[])[], headerRows: number): string =>
  `table|${(rows[headerRows - 1] ?? []).map((h) => h.trim().toLowerCase()).join('|')}`.slice(0, 400);
