'use client';
import { useEffect, useRef, useState } from 'react';
import { notify, sound } from '@/device/alarm';
import { otherHolds, type OtherHold } from '@/device/other-holds';
import { openStore } from '@/device/store';
import { countdown } from '@/ui/kit/words';
import type { Identity } from '@/wire/role';

const EVERY_MS = 5000;

/** Holds of other runs on this device, each with its own countdown and alarm, while this bench is open. */
export default function OtherHolds({
  who,
  run,
  at,
  beside,
}: {
  who: Identity;
  run: string;
  at: number;
  /** Runs side by side with this one: they ring here, and stand in a line of their own. */
  beside: readonly string[];
}) {
  const [holds, setHolds] = useState<readonly OtherHold[]>([]);
  const rung = useRef(new Set<string>());
  useEffect(() => {
    let gone = false;
    const look = () =>
      void openStore(who)
        .then((s) => otherHolds(s, run))
        .then((found) => {
          if (!gone) setHolds(found);
        });
    look();
    const timer = setInterval(look, EVERY_MS);
    return () => {
      gone = true;
      clearInterval(timer);
    };
  }, [who, run]);
  useEffect(() => {
    for (const h of holds) {
      const key = `${h.run}:${h.ends}`;
      if (at < h.ends || rung.current.has(key)) continue;
      rung.current.add(key);
      if (at > h.ends + EVERY_MS * 2) continue; // over before this bench was opened
      sound(3);
      notify(`${h.place}, ${h.stage}: the time has run out. Read the gauge.`);
    }
  }, [holds, at]);
  const listed = holds.filter((h) => !beside.includes(h.run));
  if (!listed.length) return null;
  return (
    <ul
      className="flex flex-wrap gap-x-6 border-b border-seam bg-panel px-4 text-sm"
      aria-label="Other holds"
    >
      {listed.map((h) => (
        <li key={h.run}>
          <a className="inline-flex min-h-11 items-center gap-2 hover:text-lake" href={`/bench/${h.run}`}>
            {h.place}, {h.stage}
            <span className={`figure text-base ${at < h.ends ? '' : 'font-bold text-ochre'}`} role="timer">
              {at < h.ends ? countdown(h.ends - at) : 'read the gauge'}
            </span>
          </a>
        </li>
      ))}
    </ul>
  );
}
