import { expect, test } from '@playwright/test';
import { BASE, expectAccessible, signIn } from './support';

test('a visit is somebody’s: seen among theirs alone, in one week whole, and printed as the sheet of its day @further', async ({
  page,
}) => {
  await signIn(page, 'yun');
  await page.goto(`${BASE}/plan`);
  const title = `Round of the lane ${Date.now() % 10_000}`;
  await page.getByLabel('Title').fill(title);
  await expect(async () => {
    await page.getByRole('button', { name: 'Make the visit' }).click();
    await page.waitForURL(/\/plan\/[0-9a-f-]{36}/, { timeout: 10_000 });
  }).toPass();
  // a visit without a test yet has its day and its people all the same
  await expect(page.getByRole('group', { name: 'Who goes' })).toBeVisible();
  const saved = page.waitForResponse((r) => r.request().method() === 'PUT' && r.ok());
  await page.getByRole('checkbox', { name: 'Imre Castellane' }).check();
  await saved;
  const shows = async (who: string) => {
    await page.goto(`${BASE}/plan`);
    await page.getByLabel('Visits of').selectOption({ label: who });
    await page.getByRole('button', { name: 'Show', exact: true }).click();
    await expect(page).toHaveURL(/who=[0-9a-f-]{36}/);
    return page.getByRole('link', { name: new RegExp(title) }).count();
  };
  expect(await shows('Imre Castellane')).toBeGreaterThan(0);
  expect(await shows('Piet Marangoni')).toBe(0);
  await shows('Imre Castellane');
  await page.getByRole('link', { name: 'One week' }).click();
  await expect(page).toHaveURL(/weeks=1/);
  await expect(page.locator('[data-day]')).toHaveCount(7);
  await expectAccessible(page);
  await page
    .locator('[data-day]')
    .filter({ hasText: title })
    .getByRole('link', { name: /^sheet/ })
    .click();
  await expect(page).toHaveURL(/\/plan\/day\?day=/);
  await expect(page.getByRole('heading', { name: title })).toContainText('Imre Castellane');
  await expect(page.getByText('no test on it yet')).toBeVisible();
  await expectAccessible(page);
});

test(
  'trends: results by month and procedure, minutes by step of another procedure, zeros; a table for each drawing',
  {
    tag: '@both',
  },
  async ({ page }) => {
    await signIn(page, 'tamsin');
    await page.goto(`${BASE}/ledger`);
    await page.getByRole('link', { name: 'Trends' }).click();
    await expect(page.getByRole('heading', { name: 'Results by month' })).toBeVisible();
    await expect(page.getByRole('heading', { name: 'Zeros of gauges' })).toBeVisible();
    await expectAccessible(page);
    const select = page.getByLabel('Procedure');
    const before = await select.inputValue();
    const others = await select
      .locator('option')
      .evaluateAll((all) => all.map((o) => (o as HTMLOptionElement).value));
    const other = others.find((v) => v !== before)!;
    await select.selectOption(other);
    await page.getByRole('button', { name: 'Show', exact: true }).click();
    await expect(page).toHaveURL(new RegExp(`procedure=${other}`));
    await expect(page.getByLabel('Procedure')).toHaveValue(other);
    await page.getByText('As a table').first().click();
    await expect(page.getByRole('columnheader', { name: /Again within 30 days/ })).toBeVisible();
  },
);
