/* Keeps the bench's page and the hashed assets, nothing else: data lives in the device's store, never in this cache. */
const CACHE = 'vast-stone-1';
const BENCH = /^\/bench\/[0-9a-f-]{36}$/;
/** Pages that are the same for everyone and work without a signal. */
const KEPT = /^\/desk$/;
const ASSET = /\/_next\/static\/[^"'\\\s)]+/g;

self.addEventListener('install', () => self.skipWaiting());
self.addEventListener('activate', (event) => {
  event.waitUntil(
    caches
      .keys()
      .then((names) => Promise.all(names.filter((n) => n !== CACHE).map((n) => caches.delete(n))))
      .then(() => self.clients.claim()),
  );
});

self.addEventListener('message', (event) => {
  const wanted = Array.isArray(event.data?.keep) ? event.data.keep : [];
  event.waitUntil(
    caches.open(CACHE).then((cache) =>
      Promise.all(
        wanted.map(async (path) => {
          const hashed = path.startsWith('/_next/static/');
          if (hashed && (await cache.match(path))) return;
          const response = await fetch(path, { credentials: 'same-origin' }).catch(() => null);
          if (!response?.ok || response.redirected) return;
          if (KEPT.test(path) || path === '/offline') await keepAssets(cache, response.clone());
          await cache.put(path, response);
        }),
      ),
    ),
  );
});

self.addEventListener('fetch', (event) => {
  const url = new URL(event.request.url);
  if (event.request.method !== 'GET' || url.origin !== self.location.origin) return;
  // a worker finds its own parts by the address it was started with, which an answer from a cache does not carry
  if (event.request.destination === 'worker') return;
  if (url.pathname.startsWith('/_next/static/')) {
    event.respondWith(
      caches.match(event.request).then(
        (hit) =>
          hit ||
          fetch(event.request).then((response) => {
            if (response.ok) {
              const copy = response.clone();
              event.waitUntil(caches.open(CACHE).then((cache) => cache.put(event.request, copy)));
            }
            return response;
          }),
      ),
    );
    return;
  }
  if (event.request.mode === 'navigate') {
    event.respondWith(
      fetchWithin(event.request, 6000)
        .then((response) =>
          response.status >= 502 && response.status <= 504 ? Promise.reject(new Error('away')) : response,
        )
        .catch(async () => {
          const cache = await caches.open(CACHE);
          const exact =
            BENCH.test(url.pathname) || KEPT.test(url.pathname) ? await cache.match(url.pathname) : undefined;
          return (
            exact ||
            (await cache.match('/offline')) ||
            new Response('No signal, and this page was not opened on this device before.', {
              status: 503,
              headers: { 'content-type': 'text/plain' },
            })
          );
        }),
    );
  }
});

/** Scripts, styles and faces that a kept page names, so that it opens cold. */
async function keepAssets(cache, page) {
  const names = [...new Set((await page.text()).match(ASSET) ?? [])];
  await Promise.all(
    names.map(async (name) => {
      if (await cache.match(name)) return;
      const response = await fetch(name, { credentials: 'same-origin' }).catch(() => null);
      if (response?.ok) await cache.put(name, response);
    }),
  );
}

function fetchWithin(request, ms) {
  return new Promise((resolve, reject) => {
    const timer = setTimeout(() => reject(new Error('slow')), ms);
    fetch(request).then(
      (r) => {
        clearTimeout(timer);
        resolve(r);
      },
      (e) => {
        clearTimeout(timer);
        reject(e);
      },
    );
  });
}
