'use client';
import { type Carrying, carrying } from '@/device/carried';
import { CHANGED } from '@/device/errands';
import { type Waits, waitsHere } from '@/device/send-all';
import type { Identity } from '@/wire/role';
import { useEffect, useState } from 'react';

/** Reads something of this device's store, again whenever what waits or what is carried changes. */
function useHere<T>(who: Identity, read: (who: Identity) => Promise<T>, without: T): T | undefined {
  const [found, setFound] = useState<T | undefined>(undefined);
  useEffect(() => {
    let gone = false;
    const look = () =>
      void read(who)
        .catch(() => without) // a store that cannot be opened: the page still says what there is to do
        .then((value) => {
          if (!gone) setFound(value);
        });
    look();
    addEventListener(CHANGED, look);
    return () => {
      gone = true;
      removeEventListener(CHANGED, look);
    };
  }, [who, read, without]);
  return found;
}
const NOTHING: Waits = { errands: [], entries: 0, photos: 0 };
/** What waits for the office on this device. */
export const useWaits = (who: Identity): Waits => useHere(who, waitsHere, NOTHING) ?? NOTHING;
/** What this device took along; null for nothing, undefined until it is read. */
export const useCarrying = (who: Identity): Carrying | null | undefined =>
  useHere<Carrying | null>(who, carrying, null);
