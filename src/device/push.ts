/** Alarms that reach a pocket: this device at its browser's push service, and what the office keeps of it. */
import { office } from './office';

export type Pocket =
  | { readonly state: 'none'; readonly why: string }
  | { readonly state: 'off' }
  | { readonly state: 'on'; readonly endpoint: string; readonly minutes: readonly number[] };

const NO_PUSH =
  'This browser rings only while a page of Vast Stone is open. On some phones that changes once it stands on the home screen: share, then add it there.';
const REFUSED =
  'This browser was told not to show notices of this site. Allow them in its settings, then come back here.';

const ours = () => navigator.serviceWorker.register('/sw.js').then(() => navigator.serviceWorker.ready);
const subscription = async () => (await ours()).pushManager.getSubscription();

/** Whether this device is rung for whoever is signed in. */
export async function pocket(): Promise<Pocket> {
  if (!('serviceWorker' in navigator) || !('PushManager' in globalThis) || !('Notification' in globalThis))
    return { state: 'none', why: NO_PUSH };
  if (Notification.permission === 'denied') return { state: 'none', why: REFUSED };
  const here = await subscription();
  if (!here) return { state: 'off' };
  const { minutes } = await office<{ minutes: number[] | null }>(
    `/api/push?endpoint=${encodeURIComponent(here.endpoint)}`,
  );
  return minutes ? { state: 'on', endpoint: here.endpoint, minutes } : { state: 'off' };
}
/** Turns the alarms of this device on, or changes when it rings. Must be called from a tap: the browser asks. @throws Error */
export async function ringHere(minutes: readonly number[]): Promise<Pocket> {
  if ((await Notification.requestPermission()) !== 'granted') return { state: 'none', why: REFUSED };
  const { key } = await office<{ key: string }>('/api/push');
  const registration = await ours();
  const here =
    (await registration.pushManager.getSubscription()) ??
    (await registration.pushManager
      .subscribe({ userVisibleOnly: true, applicationServerKey: key })
      .catch(() => null));
  if (!here) return { state: 'none', why: NO_PUSH };
  const { endpoint, keys } = here.toJSON();
  await office('/api/push', {
    body: { endpoint, keys: { p256dh: keys?.p256dh ?? '', auth: keys?.auth ?? '' }, minutes },
  });
  return { state: 'on', endpoint: here.endpoint, minutes };
}
/** Turns them off: at the office and in the browser. */
export async function hushHere(): Promise<Pocket> {
  const here = await subscription();
  if (here) {
    await office('/api/push', { method: 'DELETE', body: { endpoint: here.endpoint } });
    await here.unsubscribe().catch(() => false);
  }
  return { state: 'off' };
}
/** Has the office ring this device once, now. */
export const tryHere = (endpoint: string): Promise<unknown> =>
  office('/api/push', { method: 'PUT', body: { endpoint } });
