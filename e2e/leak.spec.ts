import { expect, test } from '@playwright/test';
import {
  BASE,
  BenchPage,
  copyOfBakery,
  expectAccessible,
  hold,
  pass,
  shot,
  signIn,
  takeClocks,
} from './support';

test('a hold that leaks: warned of while it runs, its cause named, own kit first and where to part it @both', async ({
  page,
}) => {
  await takeClocks(page);
  await signIn(page, 'imre');
  const bench = new BenchPage(page);
  await bench.begin({ system: /Flat gas/ });
  await bench.upToLetBy();
  await bench.fill('20.50');
  await bench.holdFor(60, '20.50', '20.50');
  await bench.start('20.50');
  const shown = (s: number) => (20.5 * Math.exp(-0.0055 * s)).toFixed(2);
  for (let s = 11; s <= 99; s += 11) {
    await pass(page, 11);
    await page.getByRole('button', { name: 'Reading', exact: true }).click();
    await bench.enter(shown(s), /Save|Keep|Enter|reading/i);
    // three readings carry it on and name no cause
    if (s === 22) {
      await expect(page.getByText(/Heading for/)).toBeVisible();
      await expect(page.getByRole('region', { name: 'What the trace means' })).toHaveCount(0);
    }
  }
  await expect(page.getByText(/It falls beyond the limit before the end\./)).toBeVisible();
  const means = page.getByRole('region', { name: 'What the trace means' });
  // by how long the presses took, another course of a leak may stand beside the straight one
  await expect(means).toContainText(/(leak of|It leaks,) [\d.]+ l\/h \([\d.]+ to [\d.]+\)/);
  await expect(means).toContainText('Next: Soap your own kit first');
  await means.getByRole('button').click();
  await expect(page.getByText('For it', { exact: true })).toBeVisible();
  await expectAccessible(page);
  await page.keyboard.press('Escape');
  await pass(page, 25);
  await bench.end(shown(124));
  const could = page.locator('[data-suspects]');
  await expect(could.locator('summary').first()).toContainText('Your own kit');
  await could.locator('summary').first().click();
  await expect(could).toContainText(/Proof: Leak fluid on it under pressure/);
  await expect(could.getByRole('region', { name: 'Parting the section' })).toContainText(
    /Close the valve of/,
  );
  await expectAccessible(page);

  // the parts by themselves: the hob shut, it falls as before; the pipework alone stands
  await could.getByRole('button', { name: 'Hold parts by themselves' }).click();
  const find = page.getByRole('region', { name: 'Find the part that leaks' });
  await find.getByRole('button', { name: 'Nothing, or nobody knows' }).click();
  await shot(page, 'search-next');
  await expectAccessible(page);
  const close = async (which: string, end: string) => {
    await find.getByRole('combobox').selectOption({ label: which });
    await bench.enter('20.50', /Closed, settled: begin/);
    await expect(find.getByRole('timer')).toBeVisible();
    await pass(page, 125);
    await bench.enter(end, /That part read/);
    await shot(page, 'search-shut');
    await find.getByRole('button', { name: 'It is open again' }).click();
  };
  const options = await find.getByRole('combobox').locator('option').allTextContents();
  await close(options[0]!, shown(124));
  await expect(find).toContainText(/It leaks there\./);
  // while a part is shut nothing of the test is held: a reload comes back to it
  await close(options[1]!, '20.50');
  await shot(page, 'search-said');
  await expect(find.locator('[data-search-said]')).toContainText(/It is .*, (> )?\d+ %/);
  await expect(find).toContainText('It stood.');
  await expectAccessible(page);
  // what was found goes into the book of the place
  await find.getByRole('button', { name: 'Found it: into the leak book' }).click();
  const found = page.getByRole('form', { name: 'A leak that was found' });
  await found.getByLabel('At which part of the drawing, or touch it there').selectOption({ label: 'Hob' });
  await found.getByRole('button', { name: 'pea', exact: true }).click();
  await shot(page, 'leak-form');
  await expectAccessible(page);
  await found.getByRole('button', { name: 'Into the book' }).click();
  await expect(find.getByText('It stands in the book.')).toBeVisible();
  await find.getByRole('button', { name: 'Back to the test' }).click();
  await expect(find).toHaveCount(0);

  await page.goto(`${BASE}/places`);
  await page.getByRole('link', { name: /Flat gas/ }).click();
  await page.getByRole('link', { name: 'Leak book' }).click();
  const leak = page.locator('[data-leak]').first();
  await expect(leak).toHaveAttribute('data-leak', 'open');
  await expect(page.locator('[data-leak-count]')).toContainText(/still open/);
  await leak.getByRole('button', { name: 'Made safe' }).click();
  await leak.getByLabel('How it was made safe').fill('valve shut, vented at the window, labelled');
  await leak.getByRole('button', { name: 'Into the book' }).click();
  await expect(leak).toHaveAttribute('data-leak', 'safe');
  await leak.getByRole('button', { name: 'Mended' }).click();
  await leak.getByRole('button', { name: 'Into the book' }).click();
  await expect(leak.getByRole('alert')).toContainText('Say what was mended.');
  await leak.getByLabel('What was mended').fill('union remade with a new washer');
  await leak.getByLabel('Cost, like 35.50 EUR; may stay empty').fill('12.50 EUR');
  await leak.getByLabel('Time it took, min, may stay empty').fill('25');
  await shot(page, 'leak-mended');
  await leak.getByRole('button', { name: 'Into the book' }).click();
  await expect(leak).toHaveAttribute('data-leak', 'repaired');
  await expect(leak.getByRole('link', { name: 'Test it again' })).toBeVisible();
  await expect(page.locator('[data-leak-count]')).toContainText(/\d+\.50 EUR|\d+\.00 EUR/);
  await shot(page, 'leak-book');
  await expectAccessible(page);

  // another, with a photo and the spot on it
  await page.getByRole('button', { name: 'Write down a leak' }).click();
  await found.getByLabel(/^At which part/).selectOption({ label: 'Boiler' });
  await found.getByLabel(/^Photo of it/).setInputFiles('e2e/plate.jpg');
  await found
    .getByRole('button', { name: 'Touch the photo where it leaks' })
    .click({ position: { x: 60, y: 40 } });
  await found.getByLabel(/^Which joint/).fill('nut at the boiler');
  await shot(page, 'leak-photo');
  await expectAccessible(page);
  await found.getByRole('button', { name: 'Into the book' }).click();
  await expect(leak).toContainText('nut at the boiler');
  await expect(leak.getByRole('img', { name: 'Nut at the boiler, with the leak marked' })).toBeVisible();
  await expect(
    page.getByRole('img', { name: /Leaks on the drawing: .*nut at the boiler, not mended/ }),
  ).toBeVisible();
});

test('a valve that could hide a leak: two holds at two pressures tell both apart, and the record says so @further', async ({
  page,
}) => {
  await takeClocks(page);
  await signIn(page, 'imre');
  const loft = `Loft ${Date.now()}`;
  // before a regulator: the supply stands far above the section
  await copyOfBakery(page, loft);
  await page.goto(`${page.url()}/edit`);
  await page.getByLabel('Supply pressure', { exact: true }).fill('75');
  await page.getByRole('button', { name: 'Save the system' }).click();
  await page.waitForURL((url) => /\/places\/[0-9a-f-]{36}$/.test(url.pathname));

  const bench = new BenchPage(page);
  await bench.begin({ system: new RegExp(loft) });
  await bench.upToLetBy();
  await expect(
    page.getByText(/Let-by and tightness together could leave a leak of up to [\d.]+ l\/h unseen/),
  ).toBeVisible();
  const minutes = Number(/(\d+) min each/.exec((await page.getByText(/min each/).textContent()) ?? '')![1]);
  await shot(page, 'hides');
  await expectAccessible(page);
  await hold(page, /Hold both, and read the temperature/);
  const temperature = async (when: string) => {
    await page.getByRole('button', { name: /^Temperatures?/ }).click();
    await page.getByLabel('pipe now', { exact: true }).fill('19.0');
    await page.getByRole('button', { name: when }).click();
    await expect(page.getByRole('button', { name: when })).toHaveCount(0);
  };
  await bench.start('9.10');
  await temperature('At the start');
  await pass(page, minutes * 60 - 2);
  await temperature('At the end');
  await pass(page, 3);
  await bench.end('9.10');
  await bench.fill('4.50');
  await bench.start('4.50');
  await temperature('At the start');
  await pass(page, minutes * 60 - 2);
  await temperature('At the end');
  await pass(page, 3);
  await bench.end('6.60');
  const apart = page.getByRole('region', { name: 'Valve and leak apart' });
  await expect(apart).toContainText(/l\/h that matters/);
  await expect(page.getByText(/Tight will not stand after it/)).toBeVisible();
  await shot(page, 'apart');
  await expectAccessible(page);

  // the tightness hold goes on for longer than planned: what nobody reads is marked
  await bench.fill('20.50');
  await bench.holdFor(60, '20.50', '20.50');
  await bench.start('20.50');
  await expect(page.getByText(/^One kelvin/)).toHaveCount(0);
  await page.getByRole('button', { name: 'More', exact: true }).click();
  await page.getByRole('button', { name: 'Hold it longer' }).click();
  await page.getByRole('button', { name: '2 h' }).click();
  await page.getByLabel('Why, in a few words').fill('called away');
  await shot(page, 'extend');
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Hold it longer' }).click();
  const timer = page.getByRole('timer').first();
  await expect(timer).toContainText(/2:0\d:\d\d|1:5\d:\d\d/);
  // the barometer from a weather station's file, at the start and now
  await page.getByRole('button', { name: 'Barometer' }).first().click();
  const now = await page.evaluate(() => Date.now());
  const station = [-3_600_000, 0, 3_600_000, 7_200_000, 10_800_000]
    .map(
      (d, i) =>
        `${new Date(now + d).toISOString().replace('T', ' ').slice(0, 19)};${(1012 + i / 100).toFixed(2)}`,
    )
    .join('\n');
  const take = async () =>
    page.getByLabel('Or from the file of a weather station: times and hPa').setInputFiles({
      name: 'station.csv',
      mimeType: 'text/csv',
      buffer: Buffer.from(`time;hPa\n${station}`),
    });
  await take();
  await expect(page.getByText(/^at the start 1012\.\d\d mbar; choose it again at the end\.$/)).toBeVisible();
  await page.getByRole('button', { name: 'Back', exact: true }).click();
  await pass(page, 7330);
  await shot(page, 'unread');
  await page.getByRole('button', { name: 'Barometer' }).first().click();
  await take();
  await expect(page.getByText(/, now 1012\.\d\d mbar\.$/)).toBeVisible();
  await page.getByRole('button', { name: 'Back', exact: true }).click();
  await bench.end('20.50');
  await bench.zero();
  await expect(page.getByRole('heading', { name: 'Inconclusive' })).toBeVisible();
});

test('a table pasted on the Desk is explained, signed in or not', async ({ page }) => {
  await page.goto(`${BASE}/desk`);
  await page.getByRole('link', { name: /A trace explained/ }).click();
  const rows = Array.from(
    { length: 60 },
    (_, i) =>
      `${Math.floor(i / 6)}:${String((i % 6) * 10).padStart(2, '0')}\t${(20.5 * Math.exp(-0.0012 * i * 10)).toFixed(2)}`,
  );
  await page.getByLabel(/^Times and pressures/).fill(['time\tmbar', ...rows].join('\n'));
  await expect(page.getByText('Enter the volume of the section.')).toBeVisible();
  await page.getByRole('textbox', { name: 'Volume of the section' }).fill('20');
  await expect(page.getByRole('region', { name: 'What the trace means' })).toContainText(
    /leak of [\d.]+ l\/h/,
  );
  await expect(page.locator('[data-model]')).toBeVisible();
  await shot(page, 'desk-trace');
  await expectAccessible(page);
});
