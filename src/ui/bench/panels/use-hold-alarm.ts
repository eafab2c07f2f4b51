import type { Hold } from '@/core/run/state';
import { notify, sound } from '@/device/alarm';
import { say } from '@/device/speech';
import { useEffect, useRef } from 'react';

/** Moments before the end at which it is said aloud, s, with the words. House figures. */
const SPOKEN = [
  [300, 'Five minutes to go.'],
  [60, 'A minute to go.'],
  [30, 'Thirty seconds.'],
  [10, 'Ten seconds.'],
  [0, 'Time is up. Read the gauge.'],
] as const;
/** A moment that passed this long ago is not said any more, ms: the page was opened in between. */
const STALE_MS = 5_000;

/** Sounds and says it once 15 s before a hold's time is up, and when it is and at some moments before it, aloud; the app's badge counts down. */
export function useHoldAlarm(hold: Hold | null, left: number, title: string): void {
  const alarmed = useRef('');
  const aloud = useRef(new Set<string>());
  const over = hold !== null && left <= 0;
  const soon = left < 15_000;
  useEffect(() => {
    if (!hold) return;
    const mark = `${hold.start.id}:${over ? 'end' : soon && hold.minutes >= 1 ? 'soon' : ''}`;
    if (mark === alarmed.current || mark.endsWith(':')) return;
    alarmed.current = mark;
    if (over) {
      sound(3);
      notify(`${title}: the time has run out. Read the gauge.`);
    } else {
      sound(1);
      notify(`${title}: 15 s to go. Back to the gauge.`);
    }
  }, [hold, over, soon, title]);
  useEffect(() => {
    if (!hold) return;
    for (const [seconds, words] of SPOKEN) {
      const past = seconds * 1000 - left;
      const mark = `${hold.start.id}:${seconds}`;
      if (past < 0 || hold.minutes * 60 <= seconds || aloud.current.has(mark)) continue;
      aloud.current.add(mark);
      if (past < STALE_MS) say(words);
    }
  }, [hold, left]);
  const minutes = hold && !over ? Math.ceil(left / 60_000) : 0;
  useEffect(() => {
    // where there is a badge: the minutes that are left, and a mark without a number once it is over
    void (over ? navigator.setAppBadge?.() : minutes ? navigator.setAppBadge?.(minutes) : undefined)?.catch(
      () => undefined,
    );
    return () => void navigator.clearAppBadge?.().catch(() => undefined);
  }, [over, minutes]);
}
