/* Keeps the bench's page and the hashed assets, nothing else: data lives in the device's store, never in this cache. */
const CACHE = 'vast-stone-2';
const BENCH = /^\/bench\/[0-9a-f-]{36}$/;
/** Pages that are the same for everyone and work without a signal. */
const KEPT = /^\/(desk|guide)$/;
const ASSET = /\/_next\/static\/[^"'\\\s)]+/g;

self.addEventListener('install', () => self.skipWaiting());
self.addEventListener('activate', (event) => {
  event.waitUntil(
    caches
      .keys()
      .then((names) =>
        Promise.all(names.filter((n) => n !== CACHE && n !== SHARED).map((n) => caches.delete(n))),
      )
      .then(() => self.clients.claim()),
  );
});

self.addEventListener('message', (event) => {
  const wanted = Array.isArray(event.data?.keep) ? event.data.keep : [];
  event.waitUntil(
    caches
      .open(CACHE)
      .then((cache) =>
        Promise.all(
          wanted.map((path) =>
            path.startsWith('/_next/static/') ? keepAsset(cache, path) : keepPage(cache, path),
          ),
        ).then(() => keepShell(cache)),
      ),
  );
});

// an alarm of the server's own timers: shown whatever is open, in place of the one before it of the same run
self.addEventListener('push', (event) => {
  let said = {};
  try {
    said = event.data?.json() ?? {};
  } catch {
    /* not ours: it is shown as an alarm all the same */
  }
  const { title = 'Vast Stone', body = 'Look at the bench.', tag = 'alarm', path = '/today' } = said;
  event.waitUntil(
    self.registration.showNotification(title, {
      body,
      tag,
      renotify: true,
      requireInteraction: true,
      vibrate: [200, 150, 200, 150, 200],
      icon: '/icon.svg',
      data: { path },
    }),
  );
});
self.addEventListener('notificationclick', (event) => {
  event.notification.close();
  const { href, origin } = new URL(event.notification.data?.path ?? '/today', self.location.origin);
  if (origin !== self.location.origin) return;
  event.waitUntil(
    self.clients.matchAll({ type: 'window', includeUncontrolled: true }).then((open) => {
      const there = open.find((c) => c.url === href);
      if (there) return there.focus();
      return self.clients.openWindow(href);
    }),
  );
});

async function keepAsset(cache, path) {
  if (await cache.match(path)) return true;
  const response = await fetch(path, { credentials: 'same-origin' }).catch(() => null);
  if (!response?.ok) return false;
  await cache.put(path, response);
  return true;
}
async function keepPage(cache, path) {
  // a page that is kept says nothing of who asked for it: whoever opens it later is who signed in last
  const response = await fetch(path, {
    credentials: 'same-origin',
    headers: { 'x-vast-keep': '1' },
  }).catch(() => null);
  if (!response?.ok || response.redirected) return;
  if (KEPT.test(path) || path === '/offline') await keepAssets(cache, response.clone());
  await cache.put(path, response);
}

/** Written at build: what the pages that open without a signal load, also later and by need, and everything the build has. */
const MANIFEST = '/_next/static/shell.json';
const SHELL = '/kept-shell';
/**
 * Keeps what the shell needs. With a new build the kept pages are fetched anew, and assets that neither it nor the build
 * before it has are dropped; one build back stays, for a page that is still open.
 */
async function keepShell(cache) {
  const response = await fetch(MANIFEST, { cache: 'no-store' }).catch(() => null);
  const now = response?.ok ? await response.json().catch(() => null) : null;
  if (!now?.shell) return;
  const before = await (await cache.match(SHELL))?.json();
  const kept = await Promise.all(now.shell.map((path) => keepAsset(cache, path)));
  if (before?.build === now.build || !kept.every(Boolean)) return;
  const stays = new Set([...now.all, ...(before?.all ?? [])]);
  for (const request of await cache.keys()) {
    const { pathname } = new URL(request.url);
    if (pathname === SHELL) continue;
    if (!pathname.startsWith('/_next/static/')) await keepPage(cache, pathname);
    else if (!stays.has(pathname)) await cache.delete(request);
  }
  const list = JSON.stringify({ build: now.build, all: now.all });
  await cache.put(SHELL, new Response(list, { headers: { 'content-type': 'application/json' } }));
}

/** What another program shared is laid aside until the page takes it up; what was shared before and left is gone. */
const SHARED = 'vast-stone-shared';
async function keepShared(request) {
  const files = (await request.formData()).getAll('files').filter((f) => f instanceof File && f.size);
  await caches.delete(SHARED);
  const cache = await caches.open(SHARED);
  await Promise.all(
    files.slice(0, 20).map((file, i) =>
      cache.put(
        `/shared/${i}`,
        new Response(file, {
          headers: {
            'content-type': file.type || 'application/octet-stream',
            'x-name': encodeURIComponent(file.name.slice(0, 120)),
          },
        }),
      ),
    ),
  );
  return Response.redirect('/shared', 303);
}

self.addEventListener('fetch', (event) => {
  const url = new URL(event.request.url);
  if (event.request.method === 'POST' && url.origin === self.location.origin && url.pathname === '/share') {
    event.respondWith(keepShared(event.request).catch(() => Response.redirect('/shared', 303)));
    return;
  }
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
