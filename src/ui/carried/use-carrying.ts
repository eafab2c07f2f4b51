'use client';
import { type Carrying, carrying } from '@/device/carried';
import { CHANGED, errandsOf } from '@/device/errands';
import { type Errand, openStore } from '@/device/store';
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
const NOTHING: readonly Errand[] = [];
const readErrands = async (who: Identity): Promise<readonly Errand[]> => errandsOf(await openStore(who));
/** What waits for the office on this device; undefined until it is read. */
export const useErrands = (who: Identity): readonly Errand[] | undefined =>
  useHere(who, readErrands, NOTHING);
/** What this device took along; null for nothing, undefined until it is read. */
export const useCarrying = (who: Identity): Carrying | null | undefined =>
  useHere<Carrying | null>(who, carrying, null);
