import { readFileSync } from 'node:fs';
import { expect, test } from '@playwright/test';
import { BASE, BenchPage, expectAccessible, signIn, takeClocks, openedRecord } from './support';

const bellJar = readFileSync('e2e/bell-jar.json', 'utf8');
const file = (text: string) => ({
  name: 'pack.json',
  mimeType: 'application/json',
  buffer: Buffer.from(text),
});

test('a made-up procedure comes in as a file and runs on the bench to a certificate @further', async ({
  page,
}) => {
  await takeClocks(page);
  await signIn(page, 'tamsin');
  await page.goto(`${BASE}/rules`);
  await expectAccessible(page);
  const chooser = page.getByLabel('Rule pack, JSON file');
  await chooser.setInputFiles(file(bellJar.replace('"to": "puff"', '"to": "pouf"')));
  await expect(page.getByRole('alert').filter({ hasText: 'stages.zero.on.zeroed' })).toContainText(
    'There is no stage "pouf"',
  );
  await chooser.setInputFiles(file(bellJar));
  await expect(page.getByText('Bell jars of the glass row, version 1, is in.')).toBeVisible();
  await chooser.setInputFiles(file(bellJar.replace('Grease the rim', 'Wet the rim')));
  await expect(page.getByText(/exists already and may stand on records/)).toBeVisible();

  const bench = new BenchPage(page);
  await bench.begin({ procedure: /^Bell-jar stillness/, case: /A jar on its plate/ });
  await bench.checks();
  await bench.gauge('G-02');
  await bench.zero();
  await bench.fill('6.00');
  await bench.holdFor(61, '6.00', '6.00');
  await bench.zero();
  await expect(page.getByRole('heading', { name: 'Tight', exact: true })).toBeVisible();
  await bench.sign();
  await bench.seal();
  await page.getByRole('link', { name: 'Open the certificate' }).click();
  await openedRecord(page);
  await expect(page.getByRole('heading', { name: 'Bell-jar certificate' })).toBeVisible();
});

test('@further the owner names edition and clause of a source, and they stand beside the limit at the bench', async ({
  page,
}) => {
  await takeClocks(page);
  await signIn(page, 'tamsin');
  await page.goto(`${BASE}/rules/gas-metric`);
  await page.getByRole('button', { name: /^Name edition and clause: Everything in this pack/ }).click();
  await page.getByRole('textbox', { name: 'Where it is in force' }).fill('Quarter county');
  await page
    .getByRole('button', { name: /^Name edition and clause: Perceptible movement, metric school/ })
    .click();
  await page.getByRole('textbox', { name: 'Edition' }).fill('2024');
  await page.getByRole('textbox', { name: 'Clause' }).fill('5.3');
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Keep 2 sources' }).click();
  await expect(page.getByText(/Kept\. It stands beside/)).toBeVisible();
  const bench = new BenchPage(page);
  await bench.begin();
  await bench.checks();
  await page.getByRole('button', { name: 'Say which' }).click();
  await page.getByRole('checkbox', { name: /P-2 air pump/ }).click();
  await expect(page.getByText('P-2 air pump', { exact: true })).toBeVisible();
  await bench.gauge('G-02');
  await page.locator('div:has(> dt:text("Perceptible movement"))').getByRole('button').click();
  await expect(page.getByText(/works to edition 2024, clause 5\.3\)/)).toBeVisible();
  await page.getByRole('button', { name: 'Close' }).click();
  await expect(page.getByText(/works to Quarter county\)/)).toBeVisible();
  await bench.zero();
  // the reading that raises it also begins the let-by: what speaks against the own kit stands before it
  await page.getByRole('button', { name: /P-2 air pump: never tested by itself/ }).click();
  await expect(page.getByText(/what it loses counts against the section/).first()).toBeVisible();
});

test('@further the owner copies a pack, loosens a figure only with a reason, and every record of it says so', async ({
  page,
}) => {
  await takeClocks(page);
  await signIn(page, 'tamsin');
  await page.goto(`${BASE}/rules/gas-metric`);
  await expect(page.getByText('metric school').first()).toBeVisible();
  await page.getByLabel('Short name').fill('house-bakeries');
  await page.getByRole('button', { name: 'Copy' }).click();
  await page.waitForURL('**/rules/house-bakeries');
  await page.getByLabel('Find a line').fill('U6 / G4, pipe up to 28');
  const drop = page.getByLabel('diaphragm U6 / G4, pipe up to 28 mm');
  const keep = page.getByRole('button', { name: /Keep 1 edit/ });
  const trouble = page.getByRole('alert');
  await drop.fill('5 bar');
  await keep.click();
  await expect(trouble.filter({ hasText: 'Check the unit' })).toBeVisible();
  await drop.fill('4 mm');
  await keep.click();
  await expect(trouble.filter({ hasText: 'is not a pressure' })).toBeVisible();
  await drop.fill('3 mbar');
  await keep.click();
  await expect(page.getByText('Kept as version 2')).toBeVisible(); // stricter needs no words
  await expect(page.getByRole('heading', { name: /Permits more than/ })).toHaveCount(0);
  await page.getByLabel('Find a line').fill('Tightness');
  await page.getByLabel('Minutes', { exact: true }).first().fill('1');
  await keep.click();
  await expect(trouble.filter({ hasText: 'Give the reason' })).toBeVisible();
  await page.getByLabel(/Reason, if it permits more/).fill('small flats, agreed with the network');
  await keep.click();
  await expect(page.getByRole('heading', { name: /Permits more than Fuel gas/ })).toBeVisible();
  await expect(page.getByText(/small flats, agreed with the network/).first()).toBeVisible();
  await expectAccessible(page);

  await page.getByLabel('Compare with').selectOption({ index: 1 });
  await page.getByRole('button', { name: 'Show', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'Side by side' })).toBeVisible();
  await expect(page.getByText('permits more', { exact: true }).first()).toBeVisible();

  const bench = new BenchPage(page);
  await page.goto(`${BASE}/places`);
  await page.getByRole('link', { name: /Flat gas/ }).click();
  await page.getByRole('radio', { name: /Staged low-pressure test.*house pack/ }).check();
  await page.getByRole('radio', { name: /Pipework alone/ }).check();
  await page.getByRole('button', { name: 'Start the test' }).click();
  await page.waitForURL(/\/bench\//);
  await bench.upToLetBy();
  await bench.raiseAndHold('20.35', '20.35');
  await bench.zero();
  await bench.putBack();
  await bench.sign();
  await bench.seal();
  await page.getByRole('link', { name: 'Open the certificate' }).click();
  await openedRecord(page);
  await expect(page.getByText(/Tightness: Minutes: 2 to 1. Reason: small flats/)).toBeVisible();
});

test('a tester reads the rules and cannot change them', async ({ page }) => {
  await signIn(page, 'imre');
  await page.goto(`${BASE}/rules/propane?procedure=lpg-vehicle`);
  await expect(page.getByRole('heading', { name: 'Vehicle or trailer' })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Copy' })).toHaveCount(0);
  const refused = await page.request.post(`${BASE}/api/packs?copy`, {
    data: { pack: 'propane', version: '2026.1', id: 'house-mine' },
  });
  expect(refused.status()).toBe(403);
  expect(await refused.text()).toContain('Only the owner');
});
