import { expect, test, type Page } from '@playwright/test';
import { BASE, BenchPage, expectAccessible, signIn, takeClocks } from './support';
import { readPdf } from './read-pdf';

/** Figures in metric units that stand where no gauge of theirs judges; drawings and what is typed into aside. */
const metricOn = (page: Page) =>
  page.evaluate(() => {
    const found: string[] = [];
    const walker = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
    for (let node = walker.nextNode(); node; node = walker.nextNode()) {
      const at = node.parentElement!;
      if (at.closest('script,style,svg,select,textarea,[translate="no"],[data-judged-in="*"]')) continue;
      if (!at.checkVisibility()) continue;
      const words = at.textContent ?? '';
      if (/\d[  ](mbar|hPa|bar|kPa|Pa|l|m³|l\/h|ml|mm|cm|m|°C)(?![\w/³²])/.test(words)) found.push(words);
    }
    return [...new Set(found)];
  });
/** The reader's words stand once the page's script runs. */
const isUs = (page: Page) => expect.poll(() => metricOn(page)).toEqual([]);
const METRIC = /24 Mar 2026, 16:05 at 18 °C: 20\.35 mbar in 12\.0 l of pipe/;
const US =
  /Mar 24, 2026, 4:05 pm at 64 °F: 8\.17 inWC in 0\.42\d* ft³ of pipe, 0\.87 in, 46 ft; a leak up to 0\.042 ft³\/h/;
/** Chooses for oneself or for the house; the example shows what it comes to before it is kept. */
async function choose(page: Page, section: string, preset: string, example: RegExp): Promise<void> {
  await page.goto(`${BASE}/usage`);
  const part = page.locator('section').filter({ has: page.getByRole('heading', { name: section }) });
  await expect(async () => {
    await part.getByRole('button', { name: preset }).click();
    await expect(part.locator('[data-example]')).toHaveText(example, { timeout: 2_000 });
  }).toPass();
  await part.getByRole('button', { name: 'Keep' }).click();
  await expect(part.getByText(/^Kept/)).toBeVisible();
}

test('an imperial person meets no millibar that nobody asked for: places, plan, bench, ledger, records, desk, guide @further', async ({
  page,
}) => {
  await takeClocks(page);
  await signIn(page, 'imre');
  await choose(page, 'As you are used to them', 'All US customary', US);
  await expectAccessible(page);
  for (const path of ['/today', '/places', '/owed', '/plan', '/ledger', '/guide', '/desk']) {
    await page.goto(BASE + path);
    await expect(page.getByRole('main')).toContainText(/\w/);
    await isUs(page);
  }
  await page.goto(`${BASE}/places`);
  await page.getByRole('link', { name: /Shed propane tank/ }).click();
  await expect(page.getByText(/\d ft³|\d in³/).first()).toBeVisible();
  await isUs(page);
  await page.getByRole('link', { name: 'Change', exact: true }).first().click();
  await expect(page.getByLabel(/^Unit of/).first()).toBeVisible();
  const bench = new BenchPage(page);
  await bench.begin({
    system: /Shed propane tank/,
    procedure: /^Tank inspection/,
    case: /after the last regulator/,
  });
  await isUs(page);
  await bench.checks();
  await bench.gauge('I-01');
  await isUs(page);
  await bench.zero();
  await isUs(page);
  await bench.fill('0.00');
  await isUs(page);
  // one tap, and every figure has its twin: what the gauge judges is not changed, it only has company
  await page.getByRole('button', { name: 'Both units' }).click();
  await expect(page.getByText(/\d inWC \(\d+(\.\d+)? mbar\)/).first()).toBeVisible();
  await page.getByRole('button', { name: 'One unit' }).click();
  await isUs(page);
  await choose(page, 'As you are used to them', 'All as usual', METRIC);
  await page.goto(`${BASE}/today`);
  await expect(page.getByText(/\b\d{1,2} [A-Z][a-z]{2} 20\d\d/).first()).toBeVisible();
});

test('what the house is used to stands on its papers and on the page a customer opens; the judged figure stays as it was read @further', async ({
  page,
}) => {
  await signIn(page, 'tamsin');
  await choose(page, 'In all of', 'All US customary', US);
  try {
    await page.goto(`${BASE}/ledger?find=VS-00001`);
    await page
      .getByRole('link', { name: /VS-00001/ })
      .first()
      .click();
    await page.waitForURL(/\/ledger\/[0-9a-f-]{36}/);
    const run = page.url().split('/').pop()!;
    const paper = async (more: string) =>
      (await readPdf(await (await page.request.get(`${BASE}/api/runs/${run}/pdf${more}`)).body())).pages.join(
        ' ',
      );
    const us = await paper('');
    expect(us).toMatch(/ft³/);
    expect(us).toMatch(/\d mbar/);
    expect(us).not.toMatch(/\d l of|\d l\/h/);
    expect(await paper('?both=1')).toMatch(/\d mbar \(\d+(\.\d+)? inWC\)/);
    await page.getByRole('button', { name: 'Both units' }).first().click();
    await expect(page.getByText(/\d mbar \(\d+(\.\d+)? inWC\)/).first()).toBeVisible();
    await page.getByRole('button', { name: 'One unit' }).first().click();
  } finally {
    await choose(page, 'In all of', 'All as usual', METRIC);
  }
});
