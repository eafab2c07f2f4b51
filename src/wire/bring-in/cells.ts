/** A cell of a table as it is written by spreadsheets and people, and what the house writes for it. */
import { unitInHeading } from '@/core/gauge-log/guess';
import { readNumber } from '@/core/gauge-log/read-log';
import { readTime } from '@/core/gauge-log/read-time';
import { type Dimension, type Unit, unitLabel, UNITS, unitsOf } from '@/core/quantity/unit';

/** What a cell says cannot be taken: the words say what to do. */
export class CellError extends Error {}

const SPELT: readonly (readonly [RegExp, Unit])[] = [
  [/^(litres?|liters?|ltr)$/, 'l'],
  [/^(m³|cubic metres?|cubic meters?|cbm)$/, 'm3'],
  [/^(cu\.? ?ft|cubic feet|ft³)$/, 'ft3'],
  [/^(metres?|meters?)$/, 'm'],
  [/^(feet|foot|′|')$/, 'ft'],
  [/^(inch|inches|″|")$/, 'in'],
  [/^(m²|sqm|sq\.? ?m)$/, 'm2'],
  [/^(ft²|sqft|sq\.? ?ft)$/, 'ft2'],
];
/** The unit a word means, among those that measure this; null where it means none. */
export function unitOf(word: string, dimension: Dimension): Unit | null {
  const text = word.trim().toLowerCase();
  if (!text) return null;
  const all = unitsOf(dimension);
  return (
    all.find((u) => u.toLowerCase() === text || unitLabel(u).toLowerCase() === text) ??
    SPELT.find(([pattern, u]) => pattern.test(text) && UNITS[u].dimension === dimension)?.[1] ??
    (dimension === 'pressure' ? unitInHeading(text) : null)
  );
}
/** The unit a heading names in brackets or as its last word. */
export const headingUnit = (heading: string, dimension: Dimension): Unit | null =>
  unitOf(
    /[([]([^)\]]+)[)\]]/.exec(heading)?.[1] ??
      heading
        .trim()
        .split(/[\s,_]+/)
        .at(-1) ??
      '',
    dimension,
  );

/**
 * A figure with its unit, every digit as it is written: "1.234,50 mbar" is "1234.50 mbar".
 * @param unit of figures that name none; '' where the column says none  @throws CellError
 */
export function figureCell(text: string, dimension: Dimension, decimal: '.' | ',', unit: string): string {
  const parts = /^([+\-−]?[\d.,'\s\u00a0\u202f]*\d)\s*(.*)$/.exec(text.trim());
  const number = parts?.[1] ?? '';
  if (!parts || readNumber(number, decimal) === null)
    throw new CellError(
      `“${text.trim().slice(0, 40)}” is not a figure with a decimal ${decimal === ',' ? 'comma' : 'point'}.`,
    );
  const named = parts[2]!.trim();
  const own = named ? unitOf(named, dimension) : unit;
  if (!own)
    throw new CellError(
      named
        ? `“${named.slice(0, 20)}” is not a unit of ${dimension} here. Write one of: ${unitsOf(dimension).map(unitLabel).join(', ')}.`
        : 'Its unit is not said: choose it for the column, or write it behind the figure.',
    );
  const group = decimal === '.' ? ',' : '.';
  const plain = number
    .replace(/[\s\u00a0\u202f']/g, '')
    .replace('−', '-')
    .replace(/^\+/, '')
    .split(group)
    .join('')
    .replace(decimal, '.');
  return `${plain} ${own}`;
}
/** Both ends of a range: "0 to 130 mbar", "-10…10 mbar"; of a single figure the least is null. @throws CellError */
export function rangeCell(
  text: string,
  dimension: Dimension,
  decimal: '.' | ',',
  unit: string,
): { readonly least: string | null; readonly greatest: string } {
  const both =
    /^\s*([+\-−]?[\d.,]+)\s*([^\d\s.,+\-−–…]*)\s*(?:-|–|…|\.\.+|to|bis)\s*([+\-−]?[\d.,]*\d.*)$/i.exec(text);
  if (!both) return { least: null, greatest: figureCell(text, dimension, decimal, unit) };
  const greatest = figureCell(both[3]!, dimension, decimal, unit);
  const shown = greatest.slice(greatest.indexOf(' ') + 1);
  return { least: figureCell(`${both[1]} ${both[2]}`, dimension, decimal, shown), greatest };
}
/** A day as ISO; '' for an empty cell. @throws CellError */
export function dayCell(text: string, format: 'iso' | 'dmy' | 'mdy'): string {
  if (!text.trim()) return '';
  const day = text.trim().split(/[T ]/)[0]!;
  const read = readTime(day, format, '00:00');
  if (!read)
    throw new CellError(
      `“${text.trim().slice(0, 20)}” is not a day written that way. Choose how days are written.`,
    );
  return new Date(read.ms).toISOString().slice(0, 10);
}
/** Yes or no; null where nobody said. @throws CellError */
export function yesNoCell(text: string): boolean | null {
  const word = text.trim().toLowerCase();
  if (!word || word === '?' || word === 'unknown') return null;
  if (['yes', 'y', 'true', '1', 'x', '✓'].includes(word)) return true;
  if (['no', 'n', 'false', '0', '-', 'none'].includes(word)) return false;
  throw new CellError(`“${text.trim().slice(0, 20)}” is neither yes nor no.`);
}
/** Words for comparing: without capitals, signs and accents; × is x. */
export const alike = (text: string): string =>
  text
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .replace(/×/g, 'x')
    .replace(/[^\p{L}\p{N}.]/gu, '');
