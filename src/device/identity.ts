import { uuid7 } from '@/wire/uuid7';
import type { Identity } from '@/wire/role';
import { now } from './clock';

const WHO = 'vast-stone.who';
const DEVICE = 'vast-stone.device';

/** Who is signed in on this device, kept so that a bench opens without a signal. */
export function readIdentity(): Identity | null {
  try {
    return JSON.parse(localStorage.getItem(WHO) ?? 'null') as Identity | null;
  } catch {
    return null;
  }
}
export const keepIdentity = (who: Identity): void => localStorage.setItem(WHO, JSON.stringify(who));
export const forgetIdentity = (): void => localStorage.removeItem(WHO);
/** Calls when somebody signs out or in on this device in another page. @returns how to stop */
export function onIdentityChange(changed: () => void): () => void {
  const heard = (event: StorageEvent) => {
    if (event.key === WHO) changed();
  };
  addEventListener('storage', heard);
  return () => removeEventListener('storage', heard);
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
