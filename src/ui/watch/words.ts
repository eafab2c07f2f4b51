import { zoned } from '@/core/quantity/in-zone';
import type { WatchState } from '@/core/watch/watch';

/** "24 Nov" at midnight, otherwise "14:05": for the marks of a time axis. */
export const tickWords = (ms: number, zone: string): string => {
  const part = (options: Intl.DateTimeFormatOptions) => zoned(zone, options).format(ms);
  const clock = part({ hour: '2-digit', minute: '2-digit' });
  return clock === '00:00' ? part({ day: 'numeric', month: 'short' }) : clock;
};
/** "24 Nov, 14:05" in a zone. */
export const momentWords = (ms: number, zone: string): string =>
  zoned(zone, {
    day: 'numeric',
    month: 'short',
    hour: '2-digit',
    minute: '2-digit',
  }).format(new Date(ms));

/** What a watch says, in one sentence. */
export function watchWords(state: WatchState, zone: string): string {
  const say = (ms: number) => momentWords(ms, zone);
  if (state.lost) {
    const names = [...new Set(state.onSite.map((o) => [o.who, o.trade].filter(Boolean).join(', ')))];
    return `Held until ${say(state.lost.from)}, lost between ${say(state.lost.from)} and ${say(state.lost.to)}.${names.length ? ` On site then: ${names.join('; ')}.` : ''}`;
  }
  const last = state.readings[state.readings.length - 1];
  if (state.ended)
    return `Over since ${say(state.ended.at)}: ${state.ended.text || 'ended'}. Held until then.`;
  if (last?.doubt)
    return `Figure and temperature disagree at the last reading, ${say(last.at)}: have somebody look.`;
  return last ? `Holds: last read ${say(last.at)}.` : 'Not read yet since it was left.';
}
