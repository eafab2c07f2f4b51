import { expect, test } from '@playwright/test';
import { BASE, BenchPage, expectAccessible, signIn, takeClocks } from './support';

test(
  'labels are printed, and a photo of one chooses the gauge, opens the installation, or says why not @further',
  { tag: '@phone' },
  async ({ page }) => {
    await takeClocks(page);
    await signIn(page, 'imre');
    await page.goto(`${BASE}/cabinet/labels`);
    const photo = (name: RegExp) =>
      page
        .getByRole('list', { name: 'As they are printed' })
        .getByRole('listitem')
        .filter({ hasText: name })
        .first()
        .screenshot({ scale: 'css' });
    // as on paper: nothing of the screen lies over them
    await page.getByRole('checkbox', { name: /^Bakery gas/ }).check();
    await expectAccessible(page);
    await page.evaluate(() => document.querySelectorAll('nav').forEach((n) => n.remove()));
    const gauge = await photo(/^G-02/);
    const other = await photo(/^N-60/);
    const place = await photo(/^Bakery gas/);

    const scan = async (buffer: Buffer) =>
      page.getByLabel('Or a photo of it').setInputFiles({ name: 'photo.png', mimeType: 'image/png', buffer });
    const bench = new BenchPage(page);
    await bench.begin();
    await bench.checks();
    await page.getByRole('button', { name: 'Scan its label' }).click();
    await expectAccessible(page);
    await scan(other);
    await expect(page.getByText(/N-60 cannot judge here/)).toBeVisible();
    await scan(place);
    await expect(page.getByText(/That is no gauge of this test/)).toBeVisible();
    await scan(gauge);
    await bench.zero();
    await expect(page.getByRole('heading', { name: /Raise/ })).toBeVisible();

    await page.goto(`${BASE}/scan`);
    // a file that is chosen before the page listens is lost, as it is for a person: it is chosen once more
    await expect(async () => {
      await scan(Buffer.from('no picture'));
      await expect(page.getByText('That file is no picture.')).toBeVisible({ timeout: 5_000 });
    }).toPass({ timeout: 45_000 });
    await scan(await page.locator('h1').screenshot());
    await expect(page.getByText('No code could be read in it.')).toBeVisible();
    await scan(place);
    await expect(page.getByRole('heading', { level: 1, name: 'Bakery gas' })).toBeVisible();
    // any phone’s own camera opens the address of a label
    const href = page.url().split('/').pop();
    await page.goto(`${BASE}/l/s/${href}`);
    await expect(page.getByRole('heading', { level: 1, name: 'Bakery gas' })).toBeVisible();
    await page.goto(`${BASE}/l/x/${href}`);
    await expect(page.getByText(/not|No /).first()).toBeVisible();
  },
);
