import { expect, test, type Page } from '@playwright/test';
import { BASE, BenchPage, expectAccessible, signIn, takeClocks, takenAlong } from './support';

const field = (page: Page) => page.getByRole('combobox', { name: 'Find anything' });
/** The keys are heard once the page's script runs: pressed before, they are pressed again, as a person would. */
async function open(page: Page, by = () => page.keyboard.press('Control+k')): Promise<void> {
  await expect(async () => {
    if (!(await field(page).isVisible())) await by();
    await expect(field(page)).toBeVisible({ timeout: 3_000 });
  }).toPass();
}
async function ask(page: Page, words: string): Promise<void> {
  await field(page).fill(words);
  await expect(page.locator('[data-found=found]')).toBeVisible();
}

test('anything is found by the keyboard alone: a place, a serial, a gauge, a record, a person, a procedure, a formula @further', async ({
  page,
}) => {
  await signIn(page, 'tamsin');
  for (const [words, under, opens, says] of [
    ['boat shed propane', 'Installations', /\/places\/[0-9a-f-]{36}/, 'Shed propane tank'],
    ['quay street', 'Places', /\/places\?find=Bakery/, 'Bakery'],
    ['quay street loaves', 'Customers', /\/places\?find=/, 'Bakery'],
    ['G-02', 'Gauges and kit', /\/cabinet#item-/, 'G-02'],
    ['VS-00001', 'Records', /\/ledger\/[0-9a-f-]{36}/, 'VS-00001'],
    ['castellane', 'People', /\/organisation/, 'Imre Castellane'],
    ['staged low-pressure', 'Procedures', /\/guide#procedure\//, 'Staged low-pressure test'],
    ['trapped air', 'Guide', /\/guide#formula\/trapped-air/, 'Trapped air from the first strokes'],
    ['audit', 'Pages', /\/organisation\/audit/, 'Who did what'],
  ] as const) {
    await open(page);
    await ask(page, words);
    const group = page.getByRole('group', { name: under });
    await expect(group).toBeVisible();
    const first = group.getByRole('option').first();
    for (let n = 0; n < 40 && (await first.getAttribute('aria-selected')) !== 'true'; n++)
      await page.keyboard.press('ArrowDown');
    await page.keyboard.press('Enter');
    await expect(page).toHaveURL(opens);
    await expect(page.getByText(says).first()).toBeVisible();
  }
  // what was opened last is offered first; Escape goes back to where one was
  await open(page);
  await expect(page.getByRole('group', { name: 'Opened last' }).getByRole('option').first()).toContainText(
    'Who did what',
  );
  await expectAccessible(page);
  await page.keyboard.press('Escape');
  await expect(field(page)).toHaveCount(0);
});
test(
  'on the phone: found from Today; a why leads to the guide, which opens without a signal, as the search does @further',
  { tag: '@phone' },
  async ({ page, context }) => {
    await takeClocks(page);
    await signIn(page, 'imre');
    await takenAlong(page, [/Bakery gas/]);
    await page.goto(`${BASE}/today`);
    await open(page, () => page.getByRole('button', { name: 'Find anything' }).first().click());
    await ask(page, 'let-by');
    await page.getByRole('group', { name: 'Guide' }).getByRole('option').first().click();
    await expect(page.getByRole('heading', { name: 'let-by', level: 1 })).toBeVisible();
    await expectAccessible(page);
    await page.getByRole('link', { name: 'All of the guide' }).click();
    await page.getByRole('searchbox', { name: /Find a word/ }).fill('stiffness');
    await page.getByRole('link', { name: 'Stiffness of a full section' }).first().click();
    await expect(page.getByText('C = V (1/K + D/(E e)) + V_air / P').first()).toBeVisible();

    const bench = new BenchPage(page);
    await bench.begin();
    await bench.checks();
    await bench.gauge();
    await page.getByRole('button', { name: 'More', exact: true }).first().click();
    const stage = page.getByRole('link', { name: 'The guide on this stage' });
    const href = await stage.getAttribute('href');
    expect(href).toMatch(/^\/guide#procedure\/gas-metric\/gas-lowpressure-staged\//);
    await expect.poll(() => page.evaluate(async () => Boolean(await caches.match('/guide')))).toBe(true);

    await context.setOffline(true);
    await page.goto(`${BASE}${href}`);
    await expect(page.getByRole('heading', { name: 'Staged low-pressure test' })).toBeVisible();
    await page.goto(`${BASE}/guide#why/leak-rate`);
    await page.reload();
    await expect(page.getByRole('heading', { name: 'Leak rate from a fall', level: 1 })).toBeVisible();
    await page.getByRole('button', { name: 'More', exact: true }).click();
    await page.getByRole('button', { name: 'Find anything' }).click();
    await field(page).fill('bakery');
    await expect(page.locator('[data-found=here]')).toBeVisible();
    await page.getByRole('option', { name: /Bakery gas/ }).click();
    await expect(page.getByRole('heading', { name: /Bakery gas/ })).toBeVisible();
    await context.setOffline(false);
  },
);
