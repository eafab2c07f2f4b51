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
  }, [who]);
  return null;
}
