import type { TimeFormat } from './mapping';

/** A moment as it is written on a clock, without a zone: ms as if it were UTC. */
const wall = (y: number, mo: number, d: number, ms: number): number | null => {
  if (mo < 1 || mo > 12 || d < 1 || d > 31) return null;
  const at = Date.UTC(y, mo - 1, d);
  return new Date(at).getUTCDate() === d ? at + ms : null;
};
const YEAR = (text: string): number => (text.length === 2 ? 2000 + Number(text) : Number(text));
const CLOCK = /^(\d{1,2}):(\d{2})(?::(\d{2})(?:[.,](\d{1,3}))?)?\s*([AaPp])?\.?(?:[Mm]\.?)?$/;

/** Clock time of a day, ms since midnight; null when it is none. "8:15:30 PM" and "20:15" alike. */
export function readClock(text: string): number | null {
  const m = CLOCK.exec(text.trim());
  if (!m) return null;
  const [, h = '', min = '', s = '0', fraction = '', half] = m;
  let hours = Number(h);
  if (half) {
    if (hours < 1 || hours > 12) return null;
    hours = (hours % 12) + (half.toLowerCase() === 'p' ? 12 : 0);
  }
  if (hours > 23 || Number(min) > 59 || Number(s) > 59) return null;
  return ((hours * 60 + Number(min)) * 60 + Number(s)) * 1000 + Number(fraction.padEnd(3, '0'));
}

/** Time that has passed, ms: "930", "930.5", "15:30", "0:15:30", "26:00:00". */
export function readElapsed(text: string): number | null {
  const clean = text.trim().replace(',', '.');
  if (/^\d+(\.\d+)?$/.test(clean)) return Math.round(Number(clean) * 1000);
  const m = /^(?:(\d+):)?(\d{1,2}):(\d{2})(\.\d+)?$/.exec(clean);
  if (!m) return null;
  const [, h = '0', min = '', s = '', fraction = ''] = m;
  if (Number(s) > 59) return null;
  return ((Number(h) * 60 + Number(min)) * 60 + Number(s)) * 1000 + Math.round(Number(`0${fraction}`) * 1000);
}

/**
 * What a written moment means.
 * @param clockText the clock's own column, where day and time stand apart
 * @returns `absolute`: ms UTC already, because the text carries its zone or counts from 1970; `wall`: as on a clock;
 *   `elapsed`: since the log began; null when it is not written that way
 */
export function readTime(
  text: string,
  format: TimeFormat,
  clockText?: string,
): { readonly kind: 'absolute' | 'wall' | 'elapsed'; readonly ms: number } | null {
  const day = text.trim();
  if (format === 'elapsed') {
    const ms = readElapsed(day);
    return ms === null ? null : { kind: 'elapsed', ms };
  }
  if (format === 'unix') {
    if (!/^\d{9,13}([.,]\d+)?$/.test(day)) return null;
    const n = Number(day.replace(',', '.'));
    return { kind: 'absolute', ms: Math.round(n < 1e11 ? n * 1000 : n) };
  }
  const m =
    format === 'iso'
      ? /^(\d{4})[-/.](\d{1,2})[-/.](\d{1,2})(?:[T ]+(.*?))?(Z|[+-]\d{2}:?\d{2})?$/.exec(day)
      : /^(\d{1,2})[-/.](\d{1,2})[-/.](\d{4}|\d{2})(?:[T, ]+(.*?))?(Z|[+-]\d{2}:?\d{2})?$/.exec(day);
  if (!m) return null;
  const [, a = '', b = '', c = '', inDay, zone] = m;
  const clock = clockText !== undefined ? readClock(clockText) : inDay ? readClock(inDay) : null;
  if (clock === null) return null;
  const [y, mo, d] =
    format === 'iso'
      ? [Number(a), Number(b), Number(c)]
      : format === 'dmy'
        ? [YEAR(c), Number(b), Number(a)]
        : [YEAR(c), Number(a), Number(b)];
  const ms = wall(y, mo, d, clock);
  if (ms === null) return null;
  if (!zone) return { kind: 'wall', ms };
  const z = /^([+-])(\d{2}):?(\d{2})$/.exec(zone);
  const shift = z ? (z[1] === '-' ? -1 : 1) * (Number(z[2]) * 60 + Number(z[3])) * 60_000 : 0;
  return { kind: 'absolute', ms: ms - shift };
}
