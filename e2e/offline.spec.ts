import { expect, test, type Page } from '@playwright/test';
import {
  BASE,
  BenchPage,
  expectAccessible,
  pass,
  picture,
  shot,
  signIn,
  takeClocks,
  takenAlong,
  openedRecord,
} from './support';

const line = (page: Page) => page.getByRole('status').filter({ hasText: /signal/ });

test(
  'without a signal from the first tap: a known place from cold, its plan, the whole test signed; then sealed',
  { tag: '@phone' },
  async ({ page }) => {
    await takeClocks(page);
    await signIn(page, 'imre');
    await takenAlong(page, [/Bakery gas/]);
    const place = page.url();
    await page.context().setOffline(true);
    await page.goto(`${BASE}/today`);
    await expect(line(page)).toContainText('No signal. As the office gave it');
    await expectAccessible(page);
    await shot(page, 'offline-today');
    await page
      .getByRole('link', { name: /^Places/ })
      .last()
      .click();
    await page.getByLabel('Find one of those on this device').fill('bakery gas');
    await expectAccessible(page);
    await page.getByRole('link', { name: /Bakery gas/ }).click();
    await expect(page).toHaveURL(place);
    await expectAccessible(page);
    await page
      .getByRole('radio', { name: /^Staged low-pressure test/ })
      .first()
      .check();
    await page.getByRole('radio', { name: /Existing installation, appliances/ }).check();
    // its plan, made here
    await page.getByRole('button', { name: /^Plan it/ }).click();
    await expect(page.getByRole('heading', { level: 1, name: 'Plan: Bakery gas' })).toBeVisible();
    await expect(page.getByText('What to load')).toBeVisible();
    await page
      .getByRole('button', { name: /Begin at the bench|Start/ })
      .first()
      .click();
    await page.waitForURL(/\/bench\//);
    const bench = new BenchPage(page);
    await bench.upToLetBy();
    await expect(page.locator('[data-here]').first()).toContainText('No signal');
    await shot(page, 'offline-bench');
    // closed in the middle and opened again, still without a signal
    await page.reload();
    await bench.raiseAndHold('20.50', '20.50');
    await bench.zero();
    await bench.putBack();
    await bench.sign();
    expect((await bench.counts()).office).toBe(0);
    await page.goto(`${BASE}/today`);
    await expect(page.getByText('Kept here, not yet with the office')).toBeVisible();
    await page.getByRole('link', { name: /Staged low-pressure test; begun here/ }).click();

    await page.context().setOffline(false);
    await pass(page, 6);
    await expect.poll(async () => (await bench.counts()).office).toBeGreaterThan(30);
    const number = await bench.seal();
    await page.getByRole('link', { name: 'Open the certificate' }).click();
    await openedRecord(page);
    await expect(page.getByText(/Begun without a signal from what the office gave the device/)).toBeVisible();
    await expect(page.getByText(/Nothing stood otherwise at the office then/)).toBeVisible();
    expect(number).toMatch(/^VS-\d{5}$/);
    await page.goto(`${BASE}/today`);
    await expect(page.locator('[data-waiting]')).toHaveCount(0);
  },
);
test(
  'what was never entered: a new place with its gauge, a visit and a gauge wait in one list; what the office changed meanwhile is said',
  { tag: ['@phone', '@further'] },
  async ({ page, browser }) => {
    await takeClocks(page);
    await signIn(page, 'imre');
    await takenAlong(page, [/Bakery gas/]);
    const place = page.url();
    const mine = `Pocket ${Date.now() % 100_000}`;
    await page.context().setOffline(true);

    // what stands before them, and a gauge nobody has entered
    await page.goto(`${BASE}/test`);
    await page
      .getByRole('button', { name: /^Gas, small house meter/ })
      .first()
      .click();
    await page.getByRole('textbox', { name: 'Length of all pipe' }).fill('9');
    const cabinet = page.getByLabel('From the cabinet');
    if (await cabinet.count()) await cabinet.selectOption('');
    await page.getByLabel('Its name, as you call it').fill(mine);
    await page.getByRole('textbox', { name: 'It shows up to' }).fill('60');
    await page.getByRole('textbox', { name: 'In steps of' }).fill('0.01');
    await shot(page, 'offline-test');
    await page
      .getByRole('button', { name: /^Begin: existing/ })
      .first()
      .click();
    await page.waitForURL(/\/bench\//);
    const fresh = new BenchPage(page);
    await fresh.checks();
    await expect(page.getByText(mine).first()).toBeVisible();
    const first = fresh.run;

    // a known place, and on the way a visit
    await page.goto(place);
    await page
      .getByRole('radio', { name: /^Staged low-pressure test/ })
      .first()
      .check();
    await page.getByRole('radio', { name: /Existing installation, appliances/ }).check();
    await page.getByRole('button', { name: 'Start the test' }).click();
    await page.waitForURL(/\/bench\//);
    const second = fresh.run;
    await fresh.checks();
    await page.goto(`${BASE}/plan`);
    await page.getByLabel('Title').fill('Back to the mill');
    await page.getByRole('button', { name: 'Make the visit' }).click();
    await expect(page.getByRole('heading', { name: 'Back to the mill' })).toBeVisible();
    await page.goto(`${BASE}/cabinet`);
    await expect(page.getByText(mine)).toBeVisible();
    await page.goto(`${BASE}/places`);
    await expect(page.getByText(/^New place, 20/).first()).toBeVisible();
    const waiting = page.locator('[data-waiting="4"]');
    await expect(waiting).toContainText('Test on a new place');
    await expect(waiting).toContainText('Visit: Back to the mill');
    await shot(page, 'offline-waiting');
    await expectAccessible(page);
    // nobody signs out over it
    await page.getByRole('button', { name: 'Imre' }).click();
    await page.getByRole('button', { name: 'Sign out', exact: true }).click();
    await expect(
      page.getByText(/^On this device and not with the office yet: Test on a new place/),
    ).toBeVisible();
    await page.keyboard.press('Escape');

    // meanwhile somebody at the office changes the customer of the bakery
    const office = await browser.newContext();
    const other = await office.newPage();
    await signIn(other, 'tamsin');
    await other.goto(`${BASE}/places?find=Bakery`);
    await other.getByRole('link', { name: 'Change Bakery', exact: true }).click();
    await other.waitForURL(/places\/site\//);
    const customer = other.getByLabel('Customer');
    const before = await customer.inputValue();
    await customer.fill('Fen Quarry Bread');
    await other.getByRole('button', { name: 'Save the place' }).click();
    await other.waitForURL('**/places');

    await page.context().setOffline(false);
    await pass(page, 25);
    await page.goto(`${BASE}/today`);
    for (const [run, words] of [
      [second, 'name, address or customer of the place'],
      [first, undefined],
    ] as const) {
      const asked = () => page.request.get(`${BASE}/api/runs/${run}`);
      await expect.poll(async () => (await asked()).status()).toBe(200);
      const { plan } = (await (await asked()).json()) as {
        plan: { carried: { given: string | null; changed: string[] } };
      };
      expect([plan.carried.given === null, plan.carried.changed]).toEqual(
        words ? [false, [words]] : [true, []],
      );
    }
    await expect(page.locator('[data-waiting]')).toHaveCount(0);
    // the entries are there too, for everybody
    await other.goto(`${BASE}/bench/${first}`);
    await expect(other.getByRole('heading', { name: /Zero the gauge/ })).toBeVisible();
    await page.goto(`${BASE}/plan`);
    await expect(page.getByRole('link', { name: /Back to the mill/ }).first()).toBeVisible();
    await other.goto(`${BASE}/places?find=Bakery`);
    await other.getByRole('link', { name: 'Change Bakery', exact: true }).click();
    await other.waitForURL(/places\/site\//);
    await other.getByLabel('Customer').fill(before);
    await other.getByRole('button', { name: 'Save the place' }).click();
    await other.waitForURL('**/places');
    await office.close();
  },
);
test(
  'a table and a photo are shared from another program: the table is read in, the photo stands with the run @further',
  { tag: '@phone' },
  async ({ page }) => {
    await takeClocks(page);
    await signIn(page, 'imre');
    const bench = new BenchPage(page);
    await bench.begin();
    await takenAlong(page, []);
    const photo = (await picture(400, 300)).toString('base64');
    await page.evaluate((jpeg) => {
      const binary = Uint8Array.from(atob(jpeg), (c) => c.charCodeAt(0));
      const files = new DataTransfer();
      files.items.add(new File(['name,serial\nG-44,HT-44\n'], 'gauges.csv', { type: 'text/csv' }));
      files.items.add(new File([binary], 'plate.jpg', { type: 'image/jpeg' }));
      const form = Object.assign(document.createElement('form'), {
        method: 'post',
        enctype: 'multipart/form-data',
        action: '/share',
      });
      const field = Object.assign(document.createElement('input'), {
        type: 'file',
        name: 'files',
        multiple: true,
      });
      form.append(field);
      field.files = files.files;
      document.body.append(form);
      form.submit();
    }, photo);
    await page.waitForURL('**/shared');
    await expect(page.getByText('gauges.csv')).toBeVisible();
    await expectAccessible(page);
    await shot(page, 'shared');
    await page.getByRole('button', { name: 'Keep it there' }).click();
    await expect(page.getByText(/It stands with the run/)).toBeVisible();
    await page.getByRole('link', { name: /A table of places/ }).click();
    await expect(page.getByText('HT-44')).toBeVisible();
    await page.goto(`${BASE}/shared`);
    await page.getByRole('button', { name: 'Done with these' }).click();
    await expect(page.getByText(/Nothing came along/)).toBeVisible();
  },
);
