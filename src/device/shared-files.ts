/** Files that another program shared with this one: the service worker lays them here (public/sw.js), the page takes them up. */
const CACHE = 'vast-stone-shared';

export const sharedFiles = async (): Promise<File[]> => {
  if (!('caches' in globalThis)) return [];
  const cache = await caches.open(CACHE);
  const found: File[] = [];
  for (const request of await cache.keys()) {
    const response = (await cache.match(request))!;
    const name = decodeURIComponent(response.headers.get('x-name') ?? '') || 'shared';
    const type = response.headers.get('content-type') ?? '';
    found.push(new File([await response.blob()], name, { type }));
  }
  return found;
};
/** Nothing of it is kept longer than it is needed. */
export const dropShared = async (): Promise<void> => {
  if ('caches' in globalThis) await caches.delete(CACHE);
};
/** The file that this page was opened for from those that were shared; null for none. */
export async function sharedHere(): Promise<File | null> {
  const place = new URLSearchParams(location.search).get('shared');
  return place === null ? null : ((await sharedFiles())[Number(place)] ?? null);
}
