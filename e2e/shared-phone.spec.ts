import { readFileSync } from 'node:fs';
import path from 'node:path';
import { expect, test, type Page } from '@playwright/test';
import { BASE, BenchPage, fillSignIn, takeClocks } from './support';

const PHOTO = path.join(import.meta.dirname, 'plate.jpg');
const signInHere = async (page: Page, who: string) => {
  await page.goto(`${BASE}/sign-in`);
  await fillSignIn(page, who);
  await page.waitForURL('**/today');
};
const signOut = async (page: Page, name: RegExp) => {
  await page.goto(`${BASE}/today`);
  await page.getByRole('button', { name }).first().click();
  await page.getByRole('button', { name: 'Sign out', exact: true }).click();
  await page.waitForURL('**/sign-in');
};
/** Everything this browser holds: stores with how much lies in them, pages in the cache, what is written beside. */
const held = (page: Page) =>
  page.evaluate(async () => {
    const stores: Record<string, number> = {};
    for (const { name } of await indexedDB.databases()) {
      if (!name) continue;
      const db = await new Promise<IDBDatabase>((resolve, reject) => {
        const ask = indexedDB.open(name);
        ask.onsuccess = () => resolve(ask.result);
        ask.onerror = () => reject(ask.error as Error);
      });
      for (const store of db.objectStoreNames) {
        const n = await new Promise<number>((resolve) => {
          const ask = db.transaction(store).objectStore(store).count();
          ask.onsuccess = () => resolve(ask.result);
        });
        stores[`${name} ${store}`] = n;
      }
      db.close();
    }
    const pages: string[] = [];
    for (const name of await caches.keys())
      for (const r of await (await caches.open(name)).keys()) {
        const { pathname } = new URL(r.url);
        if (!pathname.startsWith('/_next/')) pages.push(pathname);
      }
    const who = JSON.parse(localStorage.getItem('vast-stone.who') ?? 'null') as { name: string } | null;
    const drafts = Object.keys(localStorage).filter((k) => k.startsWith('vast-stone.draft.')).length;
    return { stores, pages: pages.sort(), who: who?.name ?? null, drafts };
  });

test('a phone that goes from hand to hand: after signing out nothing of the person is left on it, and nothing opens from a cache', async ({
  page,
}) => {
  await takeClocks(page);
  await signInHere(page, 'imre');
  const bench = new BenchPage(page);
  await bench.begin({ case: /Pipework alone/ });
  const { run } = bench;
  await bench.upToRunningLetBy();
  await expect.poll(async () => (await bench.counts()).office).toBe((await bench.counts()).here);
  await expect.poll(async () => (await held(page)).pages).toContain(`/bench/${run}`);
  // what is kept of the page says nothing of who asked for it
  const kept = await page.evaluate((run) => caches.match(`/bench/${run}`).then((r) => r!.text()), run);
  expect(kept).not.toContain('Imre');
  // a photo of a place, as the browser keeps it
  const place = await page.evaluate(async () => {
    const { lines } = await (await fetch('/api/ledger?source=own')).json();
    return (lines as { system: string }[]).find((l) => l.system)!.system;
  });
  const picture = await page.evaluate(
    async ([system, bytes]) => {
      const data = Uint8Array.from(atob(bytes!), (c) => c.charCodeAt(0));
      const hash = [...new Uint8Array(await crypto.subtle.digest('SHA-256', data))]
        .map((b) => b.toString(16).padStart(2, '0'))
        .join('');
      const page = await (await fetch(`/places/${system}/drawing`)).text();
      const part = /\\"id\\":\\"([\w-]+)\\",\\"kind/.exec(page)?.[1] ?? 'supply';
      const put = await fetch(`/api/systems/${system}/photos/${hash}?part=${part}`, {
        method: 'PUT',
        body: data,
      });
      const url = `/api/systems/${system}/photos/${hash}`;
      return { url, put: put.status, said: put.ok ? '' : await put.text() };
    },
    [place, readFileSync(PHOTO).toString('base64')],
  );
  expect([picture.put, picture.said]).toEqual([200, '']);
  const look = () =>
    page.evaluate(async (url) => {
      const answer = await fetch(url, { cache: 'force-cache' }).catch(() => null);
      return [answer?.status ?? 0, answer?.headers.get('cache-control') ?? ''] as const;
    }, picture.url);
  expect(await look()).toEqual([200, 'private, no-cache']);

  await signOut(page, /Imre/);
  const left = await held(page);
  expect(left.who).toBeNull();
  expect(left.drafts).toBe(0);
  expect(Object.entries(left.stores).filter(([, n]) => n > 0)).toEqual([]);
  expect(left.pages.filter((p) => p.startsWith('/bench/'))).toEqual([]);
  expect((await look())[0]).toBe(401);

  // the next one on this phone, without a signal: the colleague's run is not there, and the phone knows who holds it
  await signInHere(page, 'ngaire');
  await page.evaluate(() => navigator.serviceWorker.ready.then(() => undefined));
  await page.context().setOffline(true);
  await page.goto(`${BASE}/bench/${run}`);
  await expect(page.getByText(/not opened on this device before/)).toBeVisible();
  await page.goto(`${BASE}/ledger`);
  await expect(page.getByText('No run was opened on this device yet.')).toBeVisible();
  expect((await held(page)).who).toBe('Ngaire Dalbø');
  await page.context().setOffline(false);
});

test('a sign-in that was ended elsewhere leaves its entries on the phone for that person alone; a kept page makes nobody of the next @further', async ({
  page,
}) => {
  await takeClocks(page);
  await signInHere(page, 'imre');
  const bench = new BenchPage(page);
  await bench.begin({ case: /Pipework alone/ });
  const { run } = bench;
  await bench.upToRunningLetBy();
  await expect.poll(async () => (await held(page)).pages).toContain(`/bench/${run}`);
  await expect.poll(async () => (await bench.counts()).office).toBe((await bench.counts()).here);
  // an entry without a signal, then the sign-in is gone
  await page.context().setOffline(true);
  await page.getByRole('button', { name: 'Reading', exact: true }).click();
  await bench.enter('9.11', /Save the reading/);
  await expect.poll(async () => (await bench.counts()).here - (await bench.counts()).office).toBe(1);
  await page.context().clearCookies({ name: 'vast_session' });
  await page.context().setOffline(false);
  await signInHere(page, 'ngaire');
  await page.context().setOffline(true);
  await page.goto(`${BASE}/bench/${run}`);
  await expect(page.getByText(/not opened on this device before/)).toBeVisible();
  expect((await held(page)).who).toBe('Ngaire Dalbø');
  await page.context().setOffline(false);
  // with a signal she sees the run as the office has it, without the entry that is not hers to send
  await page.goto(`${BASE}/bench/${run}`);
  await expect(page.getByRole('timer').first()).toBeVisible();
  const { here, office } = await bench.counts();
  expect(here).toBe(office);
  await signOut(page, /Ngaire/);
  // and who made it finds it, and it goes out
  await signInHere(page, 'imre');
  await page.goto(`${BASE}/bench/${run}`);
  await expect.poll(async () => (await bench.counts()).office).toBe(office + 1);
});
