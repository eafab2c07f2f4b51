'use client';
import { useEffect, useRef } from 'react';
import type { urgentOwed } from '@/core/run/beside';
import { notify, sound } from '@/device/alarm';
import { minutesWords } from '@/ui/kit/words';

/** Rings while something is owed that must not be forgotten, again and again until it is confirmed. */
export function useUrgentAlarm(owed: ReturnType<typeof urgentOwed>, at: number, place: string): void {
  const rung = useRef('');
  useEffect(() => {
    if (!owed) return;
    const times = Math.floor((at - owed.since) / owed.everyMs);
    const key = `${owed.since}:${times}`;
    if (times < 1 || rung.current === key) return;
    rung.current = key;
    sound(2);
    notify(`${place}: still owed: ${owed.text}.`);
  }, [owed, at, place]);
}

export const isLate = (owed: NonNullable<ReturnType<typeof urgentOwed>>, at: number): boolean =>
  at - owed.since >= owed.everyMs;

export function UrgentLine({ owed, at }: { owed: NonNullable<ReturnType<typeof urgentOwed>>; at: number }) {
  const late = isLate(owed, at);
  return (
    <p
      role={late ? 'alert' : undefined}
      data-urgent={late ? 'late' : 'owed'}
      className={`border-b border-seam px-4 py-2 ${late ? 'bg-ochre font-bold text-on-accent' : 'bg-panel'}`}
    >
      Still owed: {owed.text}.{' '}
      {late
        ? 'It rings until this is confirmed.'
        : `It rings after ${minutesWords(owed.everyMs / 60_000)} without an entry.`}
    </p>
  );
}
