/** What a person was typing into a form or a note: kept on this device until it is sent or thrown away. */
import { now } from './clock';
import { readIdentity } from './identity';

export interface Draft<T> {
  readonly value: T;
  /** When it was typed, ms. */
  readonly at: number;
}
const BEGINS = 'vast-stone.draft.';
/** Older than this nobody comes back to it. */
const KEPT_MS = 30 * 86_400_000;
/** One person's typing is never offered to another. */
const keyOf = (of: string): string | null => {
  const who = readIdentity();
  return who ? `${BEGINS}${who.org}.${who.person}.${of}` : null;
};
const parsed = <T>(text: string | null): Draft<T> | null => {
  try {
    const draft = JSON.parse(text ?? 'null') as Draft<T> | null;
    return draft && typeof draft.at === 'number' && now() - draft.at < KEPT_MS ? draft : null;
  } catch {
    return null;
  }
};

/** Keeps a draft; where the device has no room it is left out, typing goes on. @returns whether it is kept */
export function keepDraft<T>(of: string, value: T): boolean {
  const key = keyOf(of);
  if (!key) return false;
  try {
    localStorage.setItem(key, JSON.stringify({ value, at: now() }));
    return true;
  } catch {
    return false;
  }
}
export function readDraft<T>(of: string): Draft<T> | null {
  const key = keyOf(of);
  try {
    return key ? parsed<T>(localStorage.getItem(key)) : null;
  } catch {
    return null;
  }
}
export function dropDraft(of: string): void {
  const key = keyOf(of);
  try {
    if (key) localStorage.removeItem(key);
  } catch {
    /* nothing is kept on this device */
  }
}
/** Throws away everything one person was typing. */
export function dropDraftsOf(who: { readonly org: string; readonly person: string }): void {
  try {
    for (const key of Object.keys(localStorage))
      if (key.startsWith(`${BEGINS}${who.org}.${who.person}.`)) localStorage.removeItem(key);
  } catch {
    /* nothing is kept on this device */
  }
}
/** Throws away what is older than a month, of everybody. */
export function sweepDrafts(): void {
  try {
    for (const key of Object.keys(localStorage))
      if (key.startsWith(BEGINS) && !parsed(localStorage.getItem(key))) localStorage.removeItem(key);
  } catch {
    /* nothing is kept on this device */
  }
}
