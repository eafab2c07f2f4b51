/** Every page as a browser has it: how soon it can be used, what it loads, whether it jumps, and what axe says of it. */
import { readFileSync } from 'node:fs';
import AxeBuilder from '@axe-core/playwright';
import { chromium, type Browser, type Page } from '@playwright/test';
import { launchOptions } from '../scripts/chromium.mjs';
import type { Report } from './run';

/** Pages name no more script than this, compressed kB; those that are worked on at length a little more. */
const MOST_SCRIPT = 180;
const MOST_SCRIPT_OF: Readonly<Record<string, number>> = {
  bench: 200,
};
const MOST_MS = 1000;
/** A page shifts by no more than this part of the screen while it comes. */
const MOST_SHIFT = 0.05;
const TRIES = 3;
const SIZES = [
  ['wide', 1280, 800],
  ['phone', 390, 844],
] as const;

async function signedIn(browser: Browser, url: string, options: object): Promise<Page> {
  const context = await browser.newContext({ serviceWorkers: 'block', ...options });
  const page = await context.newPage();
  const [demo] = JSON.parse(readFileSync('.run/demo-people.json', 'utf8')) as {
    email: string;
    password: string;
  }[];
  await page.goto(`${url}/sign-in`);
  await page.getByLabel('E-mail').fill(demo!.email);
  await page.getByLabel('Password').fill(demo!.password);
  await page.getByRole('button', { name: 'Sign in', exact: true }).click();
  await page.waitForURL('**/today');
  return page;
}
/** Every page that somebody signed in comes to, by name. */
async function pagesOf(page: Page, url: string): Promise<(readonly [name: string, path: string])[]> {
  const first = async (from: string, link: string) => {
    await page.goto(url + from);
    return (await page.locator(link).first().getAttribute('href'))!;
  };
  const run = await first('/today', 'a[href^="/bench/"]');
  const system = await first('/places', 'a[href^="/places/0"]');
  const record = await first('/ledger', 'main li a[href^="/ledger/"]');
  const pack = await first('/rules', 'main a[href^="/rules/"]');
  const visit = await first('/plan', 'main a[href^="/plan/"]').catch(() => null);
  return [
    ['today', '/today'],
    ['test now', '/test'],
    ['places', '/places'],
    ['new place', '/places/new'],
    ['system', system],
    ['system, edit', `${system}/edit`],
    ['system, drawing', `${system}/drawing`],
    ['system, copy', `${system}/copy`],
    ['bring in', '/bring-in'],
    ['scan', '/scan'],
    ['cabinet', '/cabinet'],
    ['labels', '/cabinet/labels'],
    ['ledger', '/ledger'],
    ['record', record],
    ['reading in', '/ledger/import'],
    ['recall', '/ledger/recall'],
    ['plan', '/plan'],
    ...(visit ? [['visit', visit] as const] : []),
    ['rules', '/rules'],
    ['rule pack', pack],
    ['desk', '/desk'],
    ['organisation', '/organisation'],
    ['devices', '/devices'],
    ['outbox', '/outbox'],
    ['shared', '/shared'],
    ['yard', '/yard'],
    ['yard, questions', '/yard/questions'],
    ['yard, why it is so', '/yard/shown'],
    ['yard, training', '/yard/board'],
    ['yard, scenario', '/yard/scenarios/gas-sound'],
    ['bench', run],
  ];
}

/** First use of a page with an empty cache: ms, kB of the scripts the page names and of all until it can be used, shift of the layout. */
async function firstUse(
  page: Page,
  address: string,
): Promise<{ ms: number; kB: number; first: number; shift: number }> {
  const cdp = await page.context().newCDPSession(page);
  await cdp.send('Network.enable');
  await cdp.send('Network.clearBrowserCache');
  let bytes = 0;
  const scripts = new Map<string, string>();
  const sizes = new Map<string, number>();
  cdp.on('Network.responseReceived', (e) => {
    if (e.type === 'Script') scripts.set(e.requestId, new URL(e.response.url).pathname);
  });
  cdp.on('Network.loadingFinished', (e) => {
    const name = scripts.get(e.requestId);
    if (!name) return;
    bytes += e.encodedDataLength;
    sizes.set(name, e.encodedDataLength);
  });
  const began = performance.now();
  await page.goto(address, { waitUntil: 'commit' });
  await page.locator('h1').first().waitFor();
  // interactive: React has attached its handlers to the document's controls
  await page.waitForFunction(() =>
    [...document.querySelectorAll('button, a')].some((b) =>
      Object.keys(b).some((k) => k.startsWith('__reactProps')),
    ),
  );
  const ms = performance.now() - began;
  const first = bytes;
  await page.waitForLoadState('load');
  const html = await (await page.request.get(address)).text();
  const named = new Set([...html.matchAll(/src="(\/_next\/static\/[^"?]+\.js)/g)].map((m) => m[1]!));
  const kB = [...sizes].reduce((sum, [name, size]) => sum + (named.has(name) ? size : 0), 0) / 1000;
  await page.waitForTimeout(700);
  const shift = await page.evaluate(() => (globalThis as unknown as { shifted: number }).shifted);
  await cdp.detach();
  return { ms, kB, first: first / 1000, shift };
}

export async function pages(report: Report, url: string): Promise<void> {
  const browser = await chromium.launch(launchOptions);
  const page = await signedIn(browser, url, { viewport: { width: 1280, height: 800 } });
  await page.addInitScript(() => {
    const here = globalThis as unknown as { shifted: number };
    here.shifted = 0;
    new PerformanceObserver((list) => {
      for (const e of list.getEntries() as unknown as { value: number; hadRecentInput: boolean }[])
        if (!e.hadRecentInput) here.shifted += e.value;
    }).observe({ type: 'layout-shift', buffered: true });
  });
  const all = await pagesOf(page, url);
  for (const [name, path] of all) {
    const uses: Awaited<ReturnType<typeof firstUse>>[] = [];
    for (let i = 0; i < TRIES; i++) uses.push(await firstUse(page, url + path));
    const middle = (of: (u: (typeof uses)[number]) => number) =>
      uses.map(of).sort((a, b) => a - b)[Math.floor(TRIES / 2)]!;
    report(
      `time to interactive, ${name}`,
      middle((u) => u.ms),
      'ms',
      MOST_MS,
    );
    report(
      `script the page names, compressed, ${name}`,
      middle((u) => u.kB),
      'kB',
      MOST_SCRIPT_OF[name] ?? MOST_SCRIPT,
    );
    report(
      `script until it can be used, ${name}`,
      middle((u) => u.first),
      'kB',
    );
    report(`layout shift, ${name}`, middle((u) => u.shift) * 100, '% of the screen', MOST_SHIFT * 100);
  }
  await page.context().close();
  for (const [size, width, height] of SIZES)
    for (const colorScheme of ['light', 'dark'] as const) {
      const seen = await signedIn(browser, url, { viewport: { width, height }, colorScheme });
      for (const [name, path] of all) {
        await seen.goto(url + path);
        await seen.locator('h1').first().waitFor();
        await seen.waitForLoadState('load');
        const { violations } = await new AxeBuilder({ page: seen })
          .withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'])
          .analyze();
        report(`axe, ${name}, ${size}, ${colorScheme}`, violations.length, 'rules broken', 0);
        for (const v of violations)
          console.log(
            `      ${v.id}: ${v.nodes
              .map((n) => n.target.join(' '))
              .slice(0, 4)
              .join(' | ')}`,
          );
      }
      await seen.context().close();
    }
  await browser.close();
}
