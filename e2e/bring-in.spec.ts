import { expect, test } from '@playwright/test';
import { BASE, expectAccessible, signIn } from './support';

const NAME = 'Carders’ Row';
const KINDS = [
  ['gas', 'diaphragm U6 / G4', '22 x 0,9', '12,5', 'boiler, 2 hob'],
  ['propane', '', '22 × 0.9', '8', '"heater; hob"'],
  ['heating', '', '22', '40', ''],
] as const;
/** 200 rows as an office keeps them, five of them with something wrong. */
function table(): Buffer {
  const rows = Array.from({ length: 200 }, (_, i) => {
    const n = i + 1;
    const [what, meter, size, length, things] = KINDS[n % 3]!;
    return [
      `${NAME} ${n}`,
      `${n} ${NAME}, Hollin`,
      'Tenants',
      `${what} ${n}`,
      what,
      meter,
      size,
      length,
      things,
    ];
  });
  rows[16]![0] = '';
  rows[29]![4] = 'steam';
  rows[32]![7] = 'twelve';
  rows[39]![7] = '';
  rows[42]![8] = '"heater; robot"';
  const head = 'Site;Street;Client;Installation;Type;Meter;Size;Length (m);Appliances';
  return Buffer.from(
    [`Hollin & Tarrow;;;;;;;;`, head, ...rows.map((r) => r.join(';')), ''].join('\r\n'),
    'utf8',
  );
}

test('a table of 200 places with errors: every row is read or listed, entered once, and what is left comes back as a table @further', async ({
  page,
}) => {
  // a house of its own: 200 places would stand before those of the other journeys
  await signIn(page, 'maren', 'carding.example');
  await page.goto(`${BASE}/bring-in`);
  const file = { name: 'rows.csv', mimeType: 'text/csv', buffer: table() };
  await page.getByLabel('Table (CSV)').setInputFiles(file);
  await expect(page.getByText('199 places of 200 rows, 4 without an installation.')).toBeVisible();
  const rows = page.getByRole('region', { name: 'Rows' });
  for (const [row, words] of [
    [19, 'Place: is empty, and needed'],
    [32, 'What it is: “steam” is nothing that is tested here'],
    [35, 'Length of all pipe: “twelve” is not a figure with a decimal comma'],
    [42, 'Length of all pipe: is needed: the volume, and with it every limit'],
    [45, 'What stands on it: “robot” is none of what is counted here'],
  ] as const)
    await expect(rows.getByRole('listitem').filter({ hasText: `Row ${row},` })).toContainText(words);
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Enter 199 places' }).click();
  await expect(
    page.getByText('199 places entered, 0 here already and left as they are, 0 not entered.'),
  ).toBeVisible({
    timeout: 120_000,
  });
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Rows with something left, as a table' }).click(),
  ]);
  const left: Buffer[] = [];
  for await (const piece of await download.createReadStream()) left.push(piece as Buffer);
  const text = Buffer.concat(left).toString('utf8');
  expect(text.trim().split(/\r\n/)).toHaveLength(2 + 5);
  expect(text).toContain('Why');
  expect(text).toContain('steam');

  // the same table once more: the headings are known, and nothing is entered twice
  await page.reload();
  await page.getByLabel('Table (CSV)').setInputFiles(file);
  await expect(page.getByText(/read here the last time/)).toBeVisible();
  await page.getByRole('button', { name: 'Enter 199 places' }).click();
  await expect(
    page.getByText('0 places entered, 199 here already and left as they are, 0 not entered.'),
  ).toBeVisible({
    timeout: 120_000,
  });

  // one of them, and another like it in a flat of its own
  await page.getByRole('link', { name: 'To the places' }).click();
  // a page of them, and the next: none twice, all counted
  const places = page.locator('main ul > li h2');
  await expect(page.getByText(/^\d+ places in all/)).toBeVisible();
  const first = await places.allTextContents();
  expect(first).toHaveLength(60);
  await page.getByRole('link', { name: 'Next 60' }).click();
  await expect(page.getByRole('link', { name: 'From the beginning' })).toBeVisible();
  const next = await places.allTextContents();
  expect(next.filter((n) => first.includes(n))).toEqual([]);
  expect(next).toHaveLength(60);
  await page.getByRole('textbox', { name: /^Find a place/ }).fill('carders row 3, hollin');
  await page.getByRole('button', { name: 'Find', exact: true }).click();
  await page.getByRole('link', { name: /^gas 3\b/ }).click();
  await page.getByRole('link', { name: 'Another like it' }).click();
  await page.getByLabel('Its name').fill('Gas, flat 4');
  await page.getByLabel('Where it is').selectOption({ label: 'a new place …' });
  await page.getByRole('button', { name: 'Enter it' }).click();
  await expect(page.getByText('Type the name of the new place.')).toBeVisible();
  await page.getByLabel('Name of the new place').fill(`${NAME} 3, flat 4`);
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Enter it' }).click();
  await expect(page.getByRole('heading', { name: 'Gas, flat 4' })).toBeVisible();
  await expect(page.getByText('12.5 m').first()).toBeVisible();
});
