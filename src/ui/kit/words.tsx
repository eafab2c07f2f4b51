import { zoned } from '@/core/quantity/in-zone';
import type { RecordStatus } from '@/core/record/status';
import type { VerdictWord } from '@/core/verdict/verdict';

export const VERDICT_COLOUR: Record<VerdictWord, string> = {
  tight: 'text-moss',
  'within-allowance': 'text-lichen',
  'not-tight': 'text-rust',
  void: 'text-slate',
  inconclusive: 'text-ochre',
  refer: 'text-heather',
};
/** The same colours as values, for drawing. */
export const VERDICT_INK: Record<VerdictWord, string> = {
  tight: 'var(--moss)',
  'within-allowance': 'var(--lichen)',
  'not-tight': 'var(--rust)',
  void: 'var(--slate)',
  inconclusive: 'var(--ochre)',
  refer: 'var(--heather)',
};
export const STATUS_WORDS: Record<RecordStatus, string> = {
  certificate: 'certificate',
  'not-a-certificate': 'not a certificate',
  practice: 'practice record, not a certificate',
};

/** Where a moment is shown: day, time and zone in words. */
export function moment(ms: number | string | Date, zone: string): string {
  return zoned(zone, {
    day: 'numeric',
    month: 'short',
    year: 'numeric',
    hour: '2-digit',
    minute: '2-digit',
    timeZoneName: 'short',
  }).format(new Date(ms));
}
export const clockTime = (ms: number, zone?: string): string =>
  zoned(zone, {
    hour: '2-digit',
    minute: '2-digit',
    second: '2-digit',
  }).format(new Date(ms));
/** mm:ss, or h:mm:ss from an hour. */
export function countdown(ms: number): string {
  const s = Math.max(0, Math.ceil(ms / 1000));
  const h = Math.floor(s / 3600);
  const rest = `${String(Math.floor((s % 3600) / 60)).padStart(h ? 2 : 1, '0')}:${String(s % 60).padStart(2, '0')}`;
  return h ? `${h}:${rest}` : rest;
}

/** Minutes as a person says them: "90 min" or "2 h 30 min". */
export const minutesWords = (minutes: number): string =>
  minutes < 120
    ? `${Number(minutes.toFixed(1))} min`
    : `${Math.floor(minutes / 60)} h${minutes % 60 ? ` ${Math.round(minutes % 60)} min` : ''}`;

/** The day something is due, so many days after a moment: "22 Dec 2026". */
export const dueDate = (from: number, days: number, zone: string): string =>
  zoned(zone, {
    day: 'numeric',
    month: 'short',
    year: 'numeric',
  }).format(new Date(from + days * 86_400_000));
