import { expect, test } from '@playwright/test';
import { BASE, expectAccessible, signIn } from './support';

test('twelve owed things are handed on at once, found again by who has them, and one is closed with what was done @further', async ({
  page,
}) => {
  await signIn(page, 'yun');
  await page.getByRole('link', { name: 'All that is owed' }).click();
  await page.waitForURL('**/owed');
  await expectAccessible(page);
  const lines = page.locator('[data-owed]');
  const boxes = lines.getByRole('checkbox');
  expect(await lines.count()).toBeGreaterThan(12);
  for (let n = 0; n < 12; n++) await boxes.nth(n).check();
  await expect(page.getByRole('heading', { name: 'With 12 of them' })).toBeVisible();
  await page.getByLabel('Hand on to').selectOption({ label: 'Imre Castellane' });
  await page.getByRole('button', { name: 'Hand on', exact: true }).click();
  await expect(page.getByText('12 were seen to.')).toBeVisible();
  await page.getByLabel('Who sees to it').selectOption({ label: 'Imre Castellane' });
  await expect(page).toHaveURL(/owner=[0-9a-f-]{36}/);
  await expect.poll(() => lines.count()).toBeGreaterThanOrEqual(12);
  await expect(page.getByText('Nobody sees to it yet')).toHaveCount(0);
  await page.getByLabel('In groups by').selectOption({ label: 'person' });
  await expect(page.getByRole('region')).toHaveCount(2); // his, and what is done with them
  // a calibration goes off the list by itself; anything else may be closed
  await page.getByLabel('Kind').selectOption({ label: 'repair' });
  await expect(page).toHaveURL(/kind=repair/);
  const repairs = await lines.count();
  await lines.getByRole('checkbox').first().check();
  await page.getByLabel('What was done').fill('Union remade, tested good');
  await page.getByRole('button', { name: 'Close with that' }).click();
  await expect(page.getByText('One was seen to.')).toBeVisible();
  await expect(lines).toHaveCount(repairs - 1);
});
test('a due test is drawn onto a day and becomes a visit; another is picked up and put down by the keyboard @further', async ({
  page,
}) => {
  await signIn(page, 'yun');
  await page.goto(`${BASE}/plan`);
  await expectAccessible(page);
  const due = page.locator('[data-due]');
  const days = page.locator('[data-day]');
  const title = await due.first().locator('span').first().innerText();
  await due.first().dragTo(days.nth(17));
  await expect(page.getByRole('status').filter({ hasText: `${title} stands on` })).toBeVisible();
  await page.getByRole('link', { name: 'Open the visit' }).click();
  await page.waitForURL(/\/plan\/[0-9a-f-]{36}/);
  await expect(page.getByRole('heading', { level: 1 })).toContainText(title.slice(0, 20));
  await page.goto(`${BASE}/plan`);
  await expect(
    days.nth(17).getByRole('link', { name: new RegExp(`08:00 ${title.slice(0, 12)}`) }),
  ).toBeVisible();

  const second = due.filter({ hasText: 'Cold store' }).first();
  await second.getByRole('button', { name: 'Pick it up' }).focus();
  await page.keyboard.press('Enter');
  await expect(page.getByText('Choose the day for Cold store')).toBeVisible();
  await days.nth(18).getByRole('button').focus();
  await page.keyboard.press('Enter');
  await expect(
    page.getByRole('status').filter({ hasText: 'Cold store' }).filter({ hasText: 'stands on' }),
  ).toBeVisible();
  await expect(days.nth(18)).toContainText('Cold store');
  // an apprentice sees the days and moves nothing
  await page.context().clearCookies();
  await signIn(page, 'piet');
  await page.goto(`${BASE}/plan`);
  await expect(days.nth(18)).toContainText('Cold store');
  await expect(due).toHaveCount(0);
});
