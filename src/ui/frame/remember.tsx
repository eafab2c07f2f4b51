'use client';
import { deviceZone } from '@/device/clock';
import { usePathname } from 'next/navigation';
import { useEffect } from 'react';
import { keepIdentity, onIdentityChange, readIdentity } from '@/device/identity';
import { startWorker } from '@/device/worker';
import type { Identity } from '@/wire/role';

/** Where what everything is made from is changed. */
const HOUSE = /^\/(cabinet|rules)\b/;
/** Keeps on the device who is signed in and takes along what they work with, so that it opens without a signal; starts the service worker. */
export function Remember({ who }: { who: Identity }) {
  const path = usePathname();
  useEffect(() => {
    const system = /^\/places\/([0-9a-f-]{36})(\/|$)/.exec(path)?.[1] ?? null;
    // when the page stands: nothing that is carried is in a hurry
    const later = setTimeout(
      () =>
        void import('@/device/carried')
          .then(async ({ noteSeen, freshen }) => {
            if (system) await noteSeen(who, system);
            await freshen(who, system, HOUSE.test(path));
          })
          .catch(() => undefined),
      1500,
    );
    return () => clearTimeout(later);
  }, [who, path]);
  useEffect(() => {
    keepIdentity(who);
    void startWorker();
    document.cookie = `vast_zone=${encodeURIComponent(deviceZone())}; path=/; max-age=31536000; samesite=lax`;
    // signed out, or another signed in, in another page of this browser: this one goes with it
    return onIdentityChange(() => {
      if (readIdentity()?.person !== who.person) location.assign('/today');
    });
  }, [who]);
  return null;
}
