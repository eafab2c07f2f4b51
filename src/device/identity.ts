import { uuid7 } from '@/wire/uuid7';
import type { Identity } from '@/wire/role';
import { now } from './clock';

const WHO = 'vast-stone.who';
const DEVICE = 'vast-stone.device';
/** Said in the page that keeps it; other pages hear of it from the storage. */
const HERE = 'vast-identity';

/** Who is signed in on this device, kept so that a bench opens without a signal. */
export function readIdentity(): Identity | null {
  try {
    return JSON.parse(localStorage.getItem(WHO) ?? 'null') as Identity | null;
  } catch {
    return null;
  }
}
export function keepIdentity(who: Identity): void {
  const text = JSON.stringify(who);
  if (text === localStorage.getItem(WHO)) return;
  localStorage.setItem(WHO, text);
  globalThis.dispatchEvent?.(new Event(HERE));
}
export const forgetIdentity = (): void => localStorage.removeItem(WHO);
/** Calls when somebody signs out or in on this device, or is used to something else. @returns how to stop */
export function onIdentityChange(changed: () => void): () => void {
  const heard = (event: StorageEvent) => {
    if (event.key === WHO) changed();
  };
  addEventListener('storage', heard);
  addEventListener(HERE, changed);
  return () => {
    removeEventListener('storage', heard);
    removeEventListener(HERE, changed);
  };
}

/** The id of this browser as a device. */
export function deviceId(): string {
  let id = localStorage.getItem(DEVICE);
  if (!id) {
    id = uuid7(now());
    localStorage.setItem(DEVICE, id);
  }
  return id;
}
let load: string | null = null;
/** The id of this page load: monotonic times compare only within one. */
export const pageLoad = (): string => (load ??= uuid7(now()));
