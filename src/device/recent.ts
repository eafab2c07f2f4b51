import type { Found } from '@/wire/find';
import type { Identity } from '@/wire/role';

/** So many things that were found and opened are offered again. */
const MOST = 8;
const key = (who: Identity): string => `vast-stone.recent.${who.org}.${who.person}`;
/** What this person found and opened on this device, the newest first. */
export function readRecent(who: Identity): readonly Found[] {
  try {
    return JSON.parse(localStorage.getItem(key(who)) ?? '[]') as readonly Found[];
  } catch {
    return [];
  }
}
export function noteRecent(who: Identity, found: Found): void {
  const kept = [found, ...readRecent(who).filter((f) => f.href !== found.href)].slice(0, MOST);
  try {
    localStorage.setItem(key(who), JSON.stringify(kept));
  } catch {
    /* no room: it is not offered again */
  }
}
export const dropRecent = (who: Identity): void => localStorage.removeItem(key(who));
