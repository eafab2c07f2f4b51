import type { Identity } from '@/wire/role';
import { dropDraftsOf } from './drafts';
import { dropRecent } from './recent';
import { dropShared } from './shared-files';
import { forgetIdentity } from './identity';
import { dropStore } from './store';

/** Pages that were kept for one person's runs; those that are the same for everybody stay. */
const OWN_PAGE = /^\/bench\//;

/**
 * Leaves nothing of a person on this device after they signed out: runs, entries, photos, drafts, kept pages, and who they
 * are. Called when nothing is left to send; what was not sent stays with its person and is never shown to another.
 */
export async function leaveDevice(who: Identity): Promise<void> {
  forgetIdentity();
  dropDraftsOf(who);
  dropRecent(who);
  await dropStore(who).catch(() => undefined);
  if (!('caches' in globalThis)) return;
  await dropShared();
  for (const name of await caches.keys()) {
    const cache = await caches.open(name);
    for (const request of await cache.keys())
      if (OWN_PAGE.test(new URL(request.url).pathname)) await cache.delete(request);
  }
}
