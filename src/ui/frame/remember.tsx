'use client';
import { useEffect } from 'react';
import { keepIdentity } from '@/device/identity';
import { startWorker } from '@/device/worker';
import type { Identity } from '@/wire/role';

/** Keeps on the device who is signed in, so that a bench opens without a signal, and starts the service worker. */
export function Remember({ who }: { who: Identity }) {
  useEffect(() => {
    keepIdentity(who);
    void startWorker();
    document.cookie = `vast_zone=${encodeURIComponent(Intl.DateTimeFormat().resolvedOptions().timeZone || 'UTC')}; path=/; max-age=31536000; samesite=lax`;
  }, [who]);
  return null;
}
