'use client';
import { deviceZone } from '@/device/clock';
import { useEffect } from 'react';
import { keepIdentity, onIdentityChange, readIdentity } from '@/device/identity';
import { startWorker } from '@/device/worker';
import type { Identity } from '@/wire/role';

/** Keeps on the device who is signed in, so that a bench opens without a signal, and starts the service worker. */
export function Remember({ who }: { who: Identity }) {
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
