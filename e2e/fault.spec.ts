import { chromium, expect, test, type BrowserContext } from '@playwright/test';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { BASE, BenchPage, fillSignIn, signIn } from './support';

/**
 * Really kills: server, browser and database, with -9, in the middle of entering. Afterwards every entry that was
 * shown as saved stands in the office's log, once. Needs the control port of scripts/check.mjs.
 */
const CONTROL = process.env.VAST_E2E_CONTROL;
const control = async (what: string) => {
  const r = await fetch(`${CONTROL}/${what}`, { method: 'POST' });
  expect(r.status).toBe(200);
};

test('kill -9 of server, database and browser while readings are entered: none lost, none doubled', async () => {
  test.skip(!CONTROL, 'run by ./check, which owns the servers');
  const profile = mkdtempSync(path.join(tmpdir(), 'bench-profile-'));
  const options = test.info().project.use.launchOptions!;
  const launch = () =>
    chromium.launchPersistentContext(profile, {
      ...options,
      args: [...(options.args ?? []), '--remote-debugging-port=0'],
      viewport: { width: 1280, height: 800 },
    });
  let context: BrowserContext = await launch();
  let page = context.pages()[0] ?? (await context.newPage());
  await signIn(page, 'imre');
  let bench = new BenchPage(page);
  await bench.begin({ case: /Pipework alone/ });
  await bench.upToRunningLetBy();
  const url = page.url();
  const run = bench.run;
  const figures: string[] = [];
  const read = async (figure: string) => {
    const before = (await bench.counts()).here;
    await page.getByRole('button', { name: 'Reading', exact: true }).click();
    await bench.enter(figure, /Save the reading/);
    await expect.poll(async () => (await bench.counts()).here).toBe(before + 1);
    figures.push(figure);
  };
  await read('9.11');
  await control('kill-server');
  await read('9.12');
  await read('9.13');
  await expect
    .poll(async () => (await bench.counts()).here - (await bench.counts()).office, { timeout: 40_000 })
    .toBe(0);
  await control('kill-database');
  await read('9.14');
  await read('9.15');
  const saved = await bench.storedIds();
  expect(saved.length).toBe((await bench.counts()).here);
  // the browser: its whole process tree, right after "saved"
  await control(`kill-browser?profile=${encodeURIComponent(profile)}`);
  await context.close().catch(() => undefined);
  context = await launch();
  page = context.pages()[0] ?? (await context.newPage());
  await page.goto(url);
  // a browser killed within seconds of signing in may have lost its cookie; the entries are in the store all the same
  if (page.url().includes('/sign-in')) {
    await fillSignIn(page, 'imre');
    await page.waitForURL(url);
  }
  bench = new BenchPage(page);
  await expect
    .poll(async () => (await bench.counts()).here, { timeout: 40_000 })
    .toBeGreaterThanOrEqual(saved.length);
  expect((await bench.storedIds()).sort()).toEqual(saved.sort());
  await read('9.16');
  await expect
    .poll(async () => (await bench.counts()).here - (await bench.counts()).office, { timeout: 60_000 })
    .toBe(0);
  const here = await bench.storedIds();
  const log = (await (await page.request.get(`${BASE}/api/runs/${run}`)).json()) as {
    events: { id: string; kind: string; position: number; figure?: { digits: number } }[];
  };
  expect(log.events.map((e) => e.id).sort()).toEqual(here.sort());
  expect(new Set(log.events.map((e) => e.id)).size).toBe(log.events.length);
  expect(log.events.map((e) => e.position)).toEqual(log.events.map((_, i) => i + 1));
  expect(
    log.events.filter((e) => e.kind === 'reading').map((e) => (e.figure!.digits / 100).toFixed(2)),
  ).toEqual(figures);
  await context.close();
});
