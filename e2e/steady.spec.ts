import { expect, test, type Page } from '@playwright/test';
import { BASE, BenchPage, pass, signIn, takeClocks } from './support';

/** Most a page may move under the eyes while it loads (sum of layout shifts). */
const MOST_SHIFT = 0.05;

async function watchShifts(page: Page): Promise<void> {
  await page.addInitScript(() => {
    const w = window as unknown as { shifts: { value: number; what: string }[] };
    w.shifts = [];
    new PerformanceObserver((list) => {
      for (const e of list.getEntries() as unknown as {
        value: number;
        hadRecentInput: boolean;
        sources: { node: Element | null }[];
      }[])
        if (!e.hadRecentInput)
          w.shifts.push({
            value: e.value,
            what: e.sources.map((s) => (s.node?.textContent ?? '').trim().slice(0, 40)).join(' | '),
          });
    }).observe({ type: 'layout-shift', buffered: true });
  });
}
const shifts = (page: Page) =>
  page.evaluate(() => (window as unknown as { shifts: { value: number; what: string }[] }).shifts);
/** What stands out to the side, widest first. */
const sideways = (page: Page) =>
  page.evaluate(() => {
    const root = document.documentElement;
    // the bench scrolls in its own frame
    const frames = [root, ...document.querySelectorAll('main')];
    if (frames.every((f) => f.scrollWidth <= f.clientWidth)) return [];
    return [...document.querySelectorAll('body *')]
      .filter((e) => e.getBoundingClientRect().right > root.clientWidth + 1)
      .map((e) => `${e.tagName} ${e.className} ${(e.textContent ?? '').trim().slice(0, 30)}`.slice(0, 110))
      .slice(0, 3);
  });

/** Pages by name; those of one thing are found by their first link. */
async function pages(page: Page): Promise<[string, string][]> {
  const first = async (list: string, link: RegExp): Promise<[string, string]> => {
    await page.goto(BASE + list);
    const hrefs = await page
      .locator('main a[href]')
      .evaluateAll((all) => all.map((a) => a.getAttribute('href')!));
    const href = hrefs.find((h) => link.test(h));
    expect(href, `a link like ${link} on ${list}`).toBeTruthy();
    return [`${list} first`, href!];
  };
  return [
    ...[
      '/today',
      '/test',
      '/bring-in',
      '/places',
      '/ledger',
      '/rules',
      '/cabinet',
      '/desk',
      '/organisation',
      '/outbox',
    ].map((p): [string, string] => [p, p]),
    await first('/places', /^\/places\/[0-9a-f-]{36}$/),
    await first('/plan', /^\/plan\/[0-9a-f-]{36}$/),
    await first('/ledger', /^\/ledger\/[0-9a-f-]{36}$/),
    ['/rules one', '/rules/gas-metric'],
  ];
}

test('@both @further no page moves under the eyes while it loads', async ({ page }) => {
  await signIn(page, 'tamsin');
  await watchShifts(page);
  const moved: unknown[] = [];
  for (const [name, path] of await pages(page)) {
    await page.goto(BASE + path);
    await page.waitForLoadState('networkidle');
    const all = await shifts(page);
    const sum = all.reduce((s, x) => s + x.value, 0);
    if (sum >= MOST_SHIFT)
      moved.push([name, sum.toFixed(3), ...all.filter((x) => x.value > 0.005).map((x) => x.what)]);
  }
  expect(moved).toEqual([]);
});

test('@further at 320 px, and with text twice as large, no page has to be scrolled sideways', async ({
  page,
}) => {
  await takeClocks(page);
  await signIn(page, 'tamsin');
  const list = await pages(page);
  const bench = new BenchPage(page);
  await bench.begin();
  list.push(
    ['bench', new URL(page.url()).pathname],
    ['a system entered', `${list.find(([n]) => n === '/places first')![1]}/edit`],
  );
  const wide: unknown[] = [];
  for (const [name, path] of list) {
    await page.setViewportSize({ width: 320, height: 640 });
    await page.goto(BASE + path);
    await page.waitForLoadState('load');
    await page.locator('h1').first().waitFor();
    const narrow = await sideways(page);
    if (narrow.length) wide.push([name, '320 px', ...narrow]);
    await page.setViewportSize({ width: 1280, height: 800 });
    await page.evaluate(() => document.documentElement.style.setProperty('font-size', '200%', 'important'));
    const large = await sideways(page);
    if (large.length) wide.push([name, '200 %', ...large]);
  }
  expect(wide).toEqual([]);
});

/** Folds cautions that were read; then the figure, every key and the one action are in sight, none over another. */
async function standTogether(page: Page, what: string): Promise<void> {
  const read = page.getByRole('button', { name: 'Read', exact: true });
  await expect
    .soft(async () => {
      // asked at each look: the panel may not have come yet at the first
      // the cautions of the step, and of the hold that its reading begins
      while (await read.count()) await read.first().click();
      const found = await page.evaluate(() => {
        // a banner that only a test server has
        document.querySelector('aside[aria-label="Test server"]')?.remove();
        const form = document.querySelector('form[aria-label="Entry"]')!;
        const main = form.closest('main')!;
        scrollTo(0, 0);
        const box = (e: Element) => e.getBoundingClientRect();
        const keys = [...form.querySelectorAll('button[type="button"]')].filter((b) =>
          /^[0-9.]$/.test(b.textContent ?? ''),
        );
        return {
          figure: Math.round(box(form.querySelector('input:not([type=checkbox])')!).top),
          keys: keys.length,
          lowest: Math.round(Math.max(...keys.map((k) => box(k).bottom))),
          smallest: Math.round(Math.min(...keys.map((k) => box(k).height))),
          action: [box(form.querySelector('button[type="submit"]')!)].flatMap((b) => [
            Math.round(b.top),
            Math.round(b.bottom),
          ]),
          height: innerHeight,
          cut: main.scrollWidth - main.clientWidth,
        };
      });
      const whole = [
        found.keys === 11,
        found.figure > 0,
        found.smallest >= 40,
        found.lowest <= found.action[0]! + 1,
        found.action[1]! <= found.height,
        found.cut <= 0,
      ];
      expect(whole, `${what}: ${JSON.stringify(found)}`).toEqual(whole.map(() => true));
    })
    .toPass({ timeout: 5000 });
}
test('@both @further at every panel with keys: figure, keys and the one action stand together', async ({
  page,
}) => {
  await takeClocks(page);
  await signIn(page, 'imre');
  const bench = new BenchPage(page);
  await bench.begin();
  await bench.checks();
  await bench.gauge();
  await standTogether(page, 'zero');
  await bench.zero();
  await standTogether(page, 'fill');
  // what is said of a figure refused takes nothing of it away
  await page.getByRole('button', { name: '3', exact: true }).click();
  await page.getByRole('button', { name: /start the/ }).click();
  await expect(page.getByRole('form', { name: 'Entry' }).getByRole('alert')).toContainText(/below the band/);
  await standTogether(page, 'fill, refused');
  await page.getByRole('button', { name: /last digit/ }).click();
  await bench.fill('9.10');
  await bench.start('9.10');
  await pass(page, 61);
  await page.getByRole('button', { name: 'Read the gauge now' }).click();
  await standTogether(page, 'let-by end');
  await bench.enter('9.10', /end reading/);
  await bench.fill('20.50');
  await bench.start('20.50');
  await pass(page, 61);
  await page.getByRole('button', { name: 'Read the gauge now' }).click();
  await standTogether(page, 'settle end');

  await page.goto(`${BASE}/places`);
  await page.getByRole('link', { name: /Dye house water/ }).click();
  await page.getByRole('radio', { name: /^Pipework with water: raised/ }).check();
  await page
    .getByRole('group', { name: 'What is being tested?' })
    .getByRole('radio', { name: /^Plastic/ })
    .check();
  await page.getByRole('button', { name: 'Start the test' }).click();
  await page.waitForURL(/\/bench\//);
  await bench.checks();
  await bench.gauge('B-16');
  await bench.zero('0.00');
  await bench.checks();
  await expect(page.getByRole('button', { name: /Reached/ })).toBeVisible();
  await standTogether(page, 'pump');
  await bench.enter('1.80', /Reached/);
  await expect(page.getByRole('button', { name: /A joint drips/ })).toBeVisible();
  await standTogether(page, 'look');
});

test('@phone @further in practice the list of gauges stands whole beside the works of the simulated section', async ({
  page,
}) => {
  await takeClocks(page);
  await signIn(page, 'imre');
  const bench = new BenchPage(page);
  await bench.begin({ practice: 'off-zero' });
  await bench.checks();
  const list = page.getByRole('list', { name: 'Gauges in the cabinet' });
  await expect(list.getByRole('button', { name: 'Use this gauge' })).toBeVisible();
  // nothing of it is folded away: it is as high as what it holds
  expect(
    await list.evaluate((e) => e.parentElement!.scrollHeight - e.parentElement!.clientHeight),
  ).toBeLessThanOrEqual(1);
});
