'use client';
import { useSyncExternalStore } from 'react';

/** As the style sheets have it: `lg`. */
const WIDE = '(min-width: 64rem)';
const listen = (changed: () => void) => {
  const media = window.matchMedia?.(WIDE);
  media?.addEventListener('change', changed);
  return () => media?.removeEventListener('change', changed);
};
/** Whether two columns have room: for what may stand in one of two places, but not in both. */
export const useWide = (): boolean =>
  useSyncExternalStore(
    listen,
    () => window.matchMedia?.(WIDE).matches ?? false,
    () => false,
  );
