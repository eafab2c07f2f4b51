'use client';
import { createContext, useContext, type ReactNode } from 'react';
import { moment } from '@/ui/kit/words';

const Zone = createContext('UTC');
/** Where the viewer stands: whose days and times a page shows. Known to the server too, so that both say the same. */
export function ZoneProvider({ zone, children }: { zone: string; children: ReactNode }) {
  return <Zone value={zone}>{children}</Zone>;
}
export const useZone = (): string => useContext(Zone);

/** A moment as the viewer's own clock and calendar have it. */
export function Moment({ at }: { at: number | string | Date }) {
  return <>{moment(at, useZone())}</>;
}
