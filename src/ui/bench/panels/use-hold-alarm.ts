import type { Hold } from '@/core/run/state';
import { notify, sound } from '@/device/alarm';
import { useEffect, useRef } from 'react';

/** Sounds and says it once 15 s before a hold's time is up, and when it is. */
export function useHoldAlarm(hold: Hold | null, left: number, title: string): void {
  const alarmed = useRef('');
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
}
