import { expect, test, type Page } from '@playwright/test';
import { BASE, BenchPage, expectAccessible, pass, signIn, takeClocks } from './support';

/** Counts every press a person makes on the page, over every page of the journey. */
async function countTaps(page: Page): Promise<() => Promise<number>> {
  await page.addInitScript(() => {
    addEventListener(
      'click',
      (e) => {
        // a label passes its click on to its field: one press
        if (!e.isTrusted || (e.target as Element).closest('label') !== null) {
          if (!(e.target as Element).matches('input')) return;
        }
        sessionStorage.setItem('taps', String(Number(sessionStorage.getItem('taps') ?? 0) + 1));
      },
      true,
    );
  });
  return () => page.evaluate(() => Number(sessionStorage.getItem('taps') ?? 0));
}
const running = (page: Page) => page.locator('[data-hold=running]');

test(
  'a known place: from Today to the running let-by, three appliances, in eighteen presses',
  { tag: '@both' },
  async ({ page }) => {
    await takeClocks(page);
    await signIn(page, 'imre');
    const bench = new BenchPage(page);
    // the last time: with a gauge, and left
    await bench.begin();
    await bench.upToRunningLetBy();
    await page.getByRole('button', { name: 'STOP' }).click();
    await page.getByRole('button', { name: /given up/ }).click();
    const taps = await countTaps(page);
    await page.goto(`${BASE}/today`);
    await page.evaluate(() => sessionStorage.removeItem('taps'));
    await page
      .getByRole('region', { name: 'Test' })
      .getByRole('link', { name: /Bakery gas/ })
      .click();
    const again = page.getByRole('button', { name: /^Again: staged low-pressure test, G-02/ });
    // what permits more than another case is never carried: it is said first
    await expect(again).toBeDisabled();
    await expectAccessible(page);
    await page.getByRole('button', { name: /^Today too/ }).click();
    await again.click();
    await page.waitForURL(/\/bench\//);
    await expect(page.getByRole('group', { name: /Do you smell gas now/ })).toBeVisible();
    await bench.checks();
    await page.getByRole('button', { name: /Nothing is connected, open to air: it shows 0.00/ }).click();
    await bench.fill('9.10');
    await expect(running(page)).toBeVisible();
    expect(await taps()).toBeLessThanOrEqual(18);
  },
);
test(
  'a step just made is taken back: the run stands where it stood, and a sign wants its reason',
  { tag: '@both' },
  async ({ page }) => {
    await takeClocks(page);
    await signIn(page, 'imre');
    const bench = new BenchPage(page);
    await bench.begin();
    await bench.checks();
    const undo = page.locator('[data-undo]');
    await expect(page.getByRole('heading', { name: /Zero the gauge/ })).toBeVisible();
    await expect(undo).toBeVisible();
    // what is said of the step never lies over what the stage says
    const bottom = await undo.evaluate((e) => e.getBoundingClientRect().bottom);
    expect(bottom).toBeLessThanOrEqual(
      await page.locator('main').evaluate((e) => e.getBoundingClientRect().top),
    );
    await undo.getByRole('button', { name: /Take back/ }).click();
    await expect(page.getByText('left. The last one leads on.')).toBeVisible();
    await expect(undo).toHaveCount(0);
    await bench.checks();
    await pass(page, 11);
    await expect(undo).toHaveCount(0);
    await page.getByRole('button', { name: 'STOP' }).click();
    await undo.getByRole('button', { name: /Take back/ }).click();
    await expect(undo.getByRole('button', { name: 'Take it back' })).toBeDisabled();
    await undo.getByLabel(/Why it is taken back/).fill('caught it with a sleeve');
    await expectAccessible(page);
    await undo.getByRole('button', { name: 'Take it back' }).click();
    await expect(page.getByRole('heading', { name: /Zero the gauge/ })).toBeVisible();
  },
);
test(
  'from nothing: an owner, what stands before them, and the let-by runs',
  { tag: ['@phone', '@further'] },
  async ({ page }) => {
    const base = process.env.VAST_E2E_EMPTY!;
    const taps = await countTaps(page);
    const began = Date.now();
    await page.goto(`${base}/begin`);
    for (const [label, value] of [
      ['Organisation', 'Hollin & Tarrow'],
      ['Your name', 'Tamsin Hollin'],
      ['Your e-mail address', 'tamsin@hollin-tarrow.example'],
      ['Password', 'four words of wool'],
    ] as const)
      await page.getByLabel(new RegExp(`^${label}`)).fill(value);
    await page.getByRole('button', { name: 'Make the organisation' }).click();
    await page.waitForURL('**/today');
    await expect(page.getByRole('heading', { name: 'Test now: what stands before you?' })).toBeVisible();
    await page.getByRole('button', { name: /Gas, small house meter/ }).click();
    await page.getByRole('button', { name: 'One hob more' }).click();
    await page.getByRole('textbox', { name: /^Length of all pipe/ }).fill('8');
    await page.getByRole('textbox', { name: /^Its name, as you call it/ }).fill('My gauge');
    await page.getByRole('textbox', { name: /^It shows up to/ }).fill('200');
    await page.getByRole('textbox', { name: /^In steps of/ }).fill('0.01');
    await page.getByRole('button', { name: /^Begin: existing installation/ }).click();
    await page.waitForURL(/\/bench\//);
    const bench = new BenchPage(page);
    await bench.checks();
    await page.getByRole('button', { name: /Nothing is connected, open to air: it shows 0.00/ }).click();
    await bench.fill('9.10');
    await expect(running(page)).toBeVisible();
    expect(await taps()).toBeLessThanOrEqual(15);
    expect(Date.now() - began).toBeLessThan(60_000);

    // what is missing is said before anybody signs, and can be entered there
    await page.getByRole('button', { name: 'STOP' }).click();
    await page.getByRole('button', { name: /given up/ }).click();
    const papers = page.getByRole('region', { name: 'As it stands this is not a certificate' });
    await expect(papers).toContainText('The calibration of My gauge is not entered.');
    await expectAccessible(page);
    await papers.getByLabel('Its address').fill('2 Fulling Yard');
    await papers.getByLabel('Customer').fill('A. Baker');
    await papers.getByRole('button', { name: 'Keep place and customer' }).click();
    await papers.getByLabel(/calibrated on/).fill('2026-02-01');
    await papers.getByLabel('Valid until').fill('2036-02-01');
    await papers.getByRole('button', { name: 'Keep its calibration' }).click();
    await expect(papers).toHaveCount(0);
    await page.goto(`${base}/cabinet`);
    await expect(page.getByText(/Fri,? 1 Feb 2036/)).toBeVisible();
    await page.goto(`${base}/places`);
    await expect(page.getByText('2 Fulling Yard')).toBeVisible();

    // practice stands ready, without a question
    await page.goto(`${base}/today`);
    await page.getByRole('button', { name: 'Practise now' }).click();
    await page.waitForURL(/\/bench\//);
    await expect(page.getByText('practice, simulated')).toBeVisible();
  },
);
