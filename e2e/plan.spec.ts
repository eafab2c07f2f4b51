import { expect, test, type Page } from '@playwright/test';
import { BASE, BenchPage, expectAccessible, pass, signIn, takeClocks } from './support';

const phone = (page: Page) => (page.viewportSize()?.width ?? 1280) < 500;
/** Fills a figure of a form: the number beside its unit. */
const figure = (page: Page, label: string, value: string) =>
  page.getByLabel(label, { exact: true }).fill(value);

/** A new place with one system, entered as a person enters it. */
async function enterPlace(page: Page, name: string): Promise<void> {
  await page.goto(`${BASE}/places`);
  await page.getByRole('link', { name: 'New place' }).click();
  await page.getByRole('button', { name: /Save the place/ }).click();
  await expect(page.getByText('Address is needed.')).toBeVisible(); // nothing is lost, the field says what
  await page.getByLabel('Name of the place').fill(name);
  await page.getByLabel('Address').fill('7 Tenter Yard, Millrace Quarter');
  await page.getByLabel('Customer').fill('Saoirse Adeyemi');
  await page.getByRole('button', { name: /Save the place/ }).click();
  await page.waitForURL('**/places/site/**');
  await page.getByRole('button', { name: 'Enter everything by hand' }).click();
  await page.getByLabel('Name of the system').fill(`${name} gas`);
  await page.getByLabel(/^Class/).selectOption('diaphragm-U6-G4');
  await page
    .getByLabel(/^Volume inside/)
    .first()
    .fill('8');
  await page.getByRole('button', { name: 'Add a pipe' }).click();
  await page.getByRole('button', { name: 'Save the system' }).click();
  await expect(page.getByText(/Something is missing or wrong/)).toBeVisible();
  const pipe = page.getByRole('group', { name: 'Pipe 1' });
  await pipe.getByLabel('Size').selectOption('28 × 0.9');
  await pipe.getByLabel('Length', { exact: true }).fill('14');
  await expect(page.getByText(/Volume of the section/)).toContainText('15.5 l'); // 8 + 7.55 l
  await page.getByRole('button', { name: 'Save the system' }).click();
  await expect(page.getByRole('heading', { name: `${name} gas` })).toBeVisible();
}
async function planTest(page: Page, kind: RegExp): Promise<void> {
  await page
    .getByRole('radio', { name: /^Staged low-pressure test/ })
    .first()
    .check();
  await page.getByRole('group', { name: 'What is being tested?' }).getByRole('radio', { name: kind }).check();
  await page.getByRole('button', { name: /Plan it/ }).click();
  await page.waitForURL('**/plan?**');
}

test(
  'from a new place to its plan, onto a visit, along the time band and to the bench',
  { tag: '@both' },
  async ({ page }) => {
    await takeClocks(page);
    await signIn(page, 'imre');
    const name = phone(page) ? 'Tenter loft' : 'Fulling loft';
    await enterPlace(page, name);

    // the section drawn: a closed valve hides nothing yet, the source is out
    await page.getByRole('link', { name: 'Section drawn' }).click();
    await expect(page.getByText('Bounded by')).toBeVisible();
    await expect(
      page.getByText(/supply valve at the meter, closed; closed end: each a suspect/),
    ).toBeVisible();
    await page.getByRole('button', { name: /^valve supply valve/ }).click();
    await page.getByRole('button', { name: /closed in the test: open it/ }).click();
    await expect(page.getByText(/stands open to the section/)).toBeVisible();
    await page.getByRole('button', { name: /open in the test: close it/ }).click();
    await page.getByRole('button', { name: 'Save', exact: true }).click();
    await expect(page.getByText(/The drawing is saved/)).toBeVisible();
    await expectAccessible(page);
    await page.goBack();

    // the plan: pressure, hold and what it sees, gauges as sentences
    await planTest(page, /Existing installation/);
    await expect(page.getByRole('heading', { name: 'Test pressure' })).toBeVisible();
    await expect(page.getByRole('row', { name: /Rule, at least planned/ })).toContainText('2 min');
    await expect(page.getByText('proposed')).toBeVisible();
    await page.getByText(/Why the other \d+ cannot judge it/).click();
    await expect(page.getByText(/G-00 is out of use/)).toBeVisible();
    await page.getByRole('radio', { name: /^G-02/ }).check();
    await expect(page.getByText(/Spare of the same size for a swap: .*G-03/)).toBeVisible();
    await expect(page.getByText(/J with gas, .* if it were full of water/)).toBeVisible();
    await expectAccessible(page);
    await page.getByLabel('Send to').fill('saoirse@tenter.example');
    await page.getByRole('button', { name: /simulated outbox/ }).click();
    await expect(page.getByText(/nothing left this machine/)).toBeVisible();

    // a visit of its own, with the kiln's long hold beside it
    await page.getByLabel('Visit', { exact: true }).selectOption({ label: 'a new visit' });
    await page.getByRole('button', { name: 'Put it on the visit' }).click();
    await page.waitForURL(/\/plan\/[0-9a-f-]{36}$/);
    const visit = page.url();
    await expect(page.getByText(/No order is shorter/)).toBeVisible();
    await page.goto(`${BASE}/places`);
    await page
      .getByRole('link', { name: /Kiln annexe gas|Kiln.*gas/ })
      .first()
      .click();
    await page
      .getByRole('radio', { name: /^Air test of pipework/ })
      .first()
      .check();
    await page.getByRole('group', { name: 'What is being tested?' }).getByRole('radio').last().check();
    await page.getByRole('button', { name: /Plan it/ }).click();
    await page.waitForURL('**/plan?**');
    await expect(page.getByRole('row', { name: /House standard/ })).toContainText('60 min');
    const option = page.getByLabel('Visit', { exact: true }).locator('option', { hasText: name });
    await page.getByLabel('Visit', { exact: true }).selectOption(await option.getAttribute('value'));
    await page.getByRole('button', { name: 'Put it on the visit' }).click();
    await page.waitForURL(visit);
    const length = page.locator('p', { hasText: 'On site' }).first();
    await expect(length).toContainText('No order is shorter');
    await expectAccessible(page);

    // a finger moves the bakery-like test later; what must come after stays after
    const band = page.locator('[data-band]');
    const hand = band.locator('[data-task="hand-over"]');
    const first = band.locator('[data-task$=".1"]').first();
    const box = (await first.boundingBox())!;
    const clockOf = async (el: typeof first) =>
      /(\d\d:\d\d) to (\d\d:\d\d)/.exec((await el.getAttribute('aria-label'))!)!.slice(1);
    const before = await clockOf(first);
    await first.scrollIntoViewIfNeeded();
    const at = (await first.boundingBox())!;
    await page.mouse.move(at.x + Math.min(6, at.width / 2), at.y + at.height / 2);
    await page.mouse.down();
    for (let i = 1; i <= 6; i++)
      await page.mouse.move(at.x + 6 + i * (box.width > 60 ? 10 : 6), at.y + at.height / 2);
    await page.mouse.up();
    await expect(page.getByText('Laid by hand.')).toBeVisible();
    await expect.poll(async () => (await clockOf(first))[0]! > before[0]!).toBe(true);
    expect((await clockOf(hand))[0]! >= (await clockOf(first))[1]!).toBe(true);
    await page.reload();
    await expect(page.getByText('Laid by hand.')).toBeVisible(); // kept with the office
    await page.getByRole('button', { name: /Lay it anew/ }).click();
    await expect(page.getByText(/No order is shorter/)).toBeVisible();

    // to the bench, and back: the visit shows what runs
    const row = page
      .getByRole('listitem')
      .filter({ hasText: `${name}:` })
      .filter({ has: page.getByRole('button', { name: 'Begin at the bench' }) });
    await row.first().getByRole('button', { name: 'Begin at the bench' }).click();
    await page.waitForURL(/\/bench\//);
    const bench = new BenchPage(page);
    await bench.upToRunningLetBy();
    await expect(page.locator('[data-live]')).toBeAttached();
    await pass(page, 20);
    await page.getByRole('button', { name: 'Reading', exact: true }).click();
    await bench.enter('9.11', /Save|Keep|Enter|reading/i);
    await expect(page.getByText(/Heading for/)).toBeVisible();
    await page.goto(visit);
    await expect(page.getByRole('link', { name: /^Bench: Let-by/ })).toBeVisible();
  },
);

test('the cabinet: a gauge entered, dropped, off zero, good again; a hose tested by itself @further', async ({
  page,
}) => {
  await takeClocks(page);
  await signIn(page, 'tamsin');
  await page.goto(`${BASE}/cabinet`);
  const name = phone(page) ? 'X-08' : 'X-07';
  await page.getByRole('button', { name: 'New gauge' }).click();
  await page.getByLabel('Name', { exact: true }).fill(name);
  await page.getByLabel('Serial number').fill('HT-9907');
  await figure(page, 'Range to', '100');
  await figure(page, 'Display step or smallest division', '200');
  await page.getByLabel('Calibrated on').fill('2026-05-01');
  await page.getByLabel('Next calibration').fill('2027-05-01');
  await page.getByRole('button', { name: 'Save the gauge' }).click();
  await expect(page.getByText('The step must be smaller than the range.')).toBeVisible();
  await figure(page, 'Display step or smallest division', '0.1');
  await page.getByRole('button', { name: 'Save the gauge' }).click();
  const row = page.locator(`[data-gauge="${name}"]`);
  await expect(row).toContainText('no zero on record');
  await row.getByRole('button', { name: new RegExp(name) }).click();
  await row.getByRole('button', { name: 'Dropped' }).click();
  await row.getByRole('button', { name: 'Write it down' }).click();
  await expect(row).toContainText('Cannot judge until it shows zero');
  const zero = async (value: string) => {
    await row.getByRole('button', { name: 'Zero check' }).click();
    await row.getByLabel('What it shows').fill(value);
    await row.getByRole('button', { name: 'Write it down' }).click();
    await expect(row.getByText('A zero is taken open to air')).toBeVisible();
    await row.getByLabel(/Open to air/).check();
    await row.getByRole('button', { name: 'Write it down' }).click();
  };
  await zero('0.3');
  await expect(row.getByText(/cannot judge until it shows zero again/)).toBeVisible();
  await zero('0.1');
  await expect(row.getByText('Cannot judge until')).toBeHidden();
  await expectAccessible(page);
  const hose = page.locator('[data-kit="H-2 test rig"]');
  await expect(hose).toContainText(/make it again|days old/);
  await hose.getByRole('button', { name: /H-2/ }).click();
  await hose.getByRole('button', { name: 'Tested by itself' }).click();
  await hose.getByLabel('Pressure', { exact: true }).fill('100');
  await hose.getByLabel('Lost', { exact: true }).fill('0');
  await hose.getByLabel('Minutes').fill('10');
  await hose.getByRole('button', { name: 'Write it down' }).click();
  await expect(hose).toContainText('0 days old');
});

test('the Desk, signed out: a figure changed, its twin, its link, a wrong entry; then without a signal', async ({
  page,
  context,
}) => {
  await page.goto(`${BASE}/desk`);
  await expectAccessible(page);
  await page.getByLabel(/Find a formula/).fill('leak rate fall');
  await page.getByRole('button', { name: /^Leak rate from a fall/ }).click();
  const line = page.locator('[data-desk="leak-rate"]');
  await expect(line.locator('[data-result="Q"]')).toHaveText('0.2961 l/h');
  await line.getByLabel('V, volume of the section', { exact: true }).fill('40');
  await expect(line.locator('[data-result="Q"]')).toHaveText('0.5922 l/h');
  await line.getByLabel('Unit of p0, start').selectOption('inWC');
  await line.getByLabel('p0, start', { exact: true }).fill('8.24');
  await expect(line.locator('[data-result="Q"]')).toHaveText('0.6217 l/h');
  await line.getByLabel('V, volume of the section', { exact: true }).fill('0');
  await expect(line.getByRole('alert')).toContainText('must be above zero');
  await line.getByLabel('V, volume of the section', { exact: true }).fill('40');
  await expect.poll(() => page.url()).toContain('V=40l');
  const link = page.url();
  expect(link).toContain('p0=8.24inWC');
  await page.evaluate(() => navigator.serviceWorker.ready.then(() => undefined));
  await expect.poll(() => page.evaluate(async () => Boolean(await caches.match('/desk')))).toBe(true);
  await page.reload(); // from here on the worker stands between page and network
  await expect(line.locator('[data-result="Q"]')).toHaveText('0.6217 l/h');
  await context.setOffline(true);
  await page.goto(link.replace('V=40l', 'V=20l'));
  await page.reload();
  await expect(page.locator('[data-desk="leak-rate"] [data-result="Q"]')).toHaveText('0.3108 l/h');
  await context.setOffline(false);
});

test('the form of a place is filled in the HTML itself, before any script runs @further', async ({
  page,
}) => {
  await signIn(page, 'imre');
  await page.goto(`${BASE}/places`);
  await page.getByRole('link', { name: /^Bakery gas/ }).click();
  await page.waitForURL(/places\/[0-9a-f-]{36}$/);
  await page.goto(`${page.url()}/edit`);
  const html = await (await page.request.get(page.url())).text();
  const field = (name: string) =>
    new RegExp(`<(input|select)[^>]*name="${name}"[^>]*>`).exec(html)?.[0] ?? '';
  expect(field('name')).toContain('value="Bakery gas"');
  expect(field('supplyValve')).toMatch(/value="[^"]+"/);
  // the page is long: only what is looked for is said when it is not there
  expect(html.includes('<option selected="">natural gas</option>')).toBe(true);
});
