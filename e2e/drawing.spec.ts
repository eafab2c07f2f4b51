import { expect, test, type Page } from '@playwright/test';
import { BASE, expectAccessible, picture, signIn, takeClocks } from './support';

const phone = (page: Page) => (page.viewportSize()?.width ?? 1280) < 500;

const add = (page: Page, kind: string) => page.getByRole('button', { name: kind, exact: true }).click();
const chosen = (page: Page) => page.getByRole('region', { name: 'What is chosen' });

test(
  'a place drawn from a few facts, then changed by hand: what the drawing says is what rules and lists say',
  { tag: ['@both', '@further'] },
  async ({ page }) => {
    await takeClocks(page);
    await signIn(page, 'imre');
    const name = phone(page) ? 'Carding loft' : 'Teasel loft';
    await page.goto(`${BASE}/places/new`);
    await page.getByLabel('Name of the place').fill(name);
    await page.getByLabel('Address').fill('9 Fulling Yard, Millrace Quarter');
    await page.getByLabel('Customer').fill('Runa Teasel');
    await page.getByRole('button', { name: /Save the place/ }).click();
    await page.waitForURL('**/places/site/**');

    // a few facts, and nothing else
    await page.getByLabel('Name of the system').fill(`${name} gas`);
    await page.getByLabel(/Meter, by its badge/).selectOption('diaphragm-U6-G4');
    await page.getByRole('button', { name: 'Draw it from these' }).click();
    await expect(page.getByText(/Length of all pipe is needed/)).toBeVisible();
    await page.getByLabel(/^Length of all pipe/).fill('10');
    await page.getByRole('button', { name: 'One boiler more' }).click();
    await page.getByRole('button', { name: 'One hob more' }).click();
    await expectAccessible(page);
    await page.getByRole('button', { name: 'Draw it from these' }).click();
    await expect(page.getByText(/Volume of the section/)).toContainText('l ±');
    await page.getByRole('button', { name: 'Save it so' }).click();
    await expect(page.getByRole('heading', { name: `${name} gas` })).toBeVisible();
    await expect(page.getByRole('row', { name: /^Boiler/ })).toBeVisible();

    // a second boiler beside the first, a strainer in the main run
    await page.getByRole('link', { name: 'Section drawn' }).click();
    const volume = page.getByText(/Volume of the section/);
    const before = await volume.innerText();
    await page
      .getByRole('button', { name: /^valve isolating valve/ })
      .first()
      .click();
    await page.getByRole('button', { name: 'Copy this branch' }).click();
    await expect(page.getByRole('button', { name: /^appliance Boiler/ })).toHaveCount(2);
    await expect(volume).not.toHaveText(before);
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(page.getByRole('button', { name: /^appliance Boiler/ })).toHaveCount(1);
    await expect(volume).toHaveText(before);
    await page.getByRole('button', { name: 'Redo' }).click();
    await page
      .getByRole('button', { name: /^Pipe 22 × 0.9/ })
      .first()
      .press('Enter');
    await add(page, 'part that permits less');
    await chosen(page)
      .getByLabel(/^Name of/)
      .fill('Strainer');
    await expect(page.getByText(/Strainer: what does it permit/)).toBeVisible();
    await chosen(page)
      .getByLabel(/^Permits at most/)
      .fill('100');
    await expect(page.getByText(/Strainer: what does it permit/)).toBeHidden();
    await expectAccessible(page);

    // a closed valve hides an appliance: it is said before it is saved, and it is moved by keys
    await page
      .getByRole('button', { name: /^valve isolating valve/ })
      .first()
      .click();
    await chosen(page)
      .getByRole('button', { name: /open in the test/ })
      .click();
    await expect(page.getByText(/is not reached: whatever leaks there stays unseen/)).toBeVisible();
    await page.keyboard.press('Control+z');
    await expect(page.getByText(/is not reached/)).toBeHidden();

    // nothing drawn is lost with the page
    await page.reload();
    await expect(page.getByText(/A drawing begun here/)).toBeVisible();
    await page.getByRole('button', { name: 'Put it back' }).click();
    await page.getByRole('button', { name: 'Save', exact: true }).click();
    await expect(page.getByText(/The drawing is saved/)).toBeVisible();

    // a photo hangs on the strainer, and is seen on the place
    await page.getByRole('button', { name: /^part that permits less Strainer/ }).click();
    await chosen(page)
      .getByLabel(/^Photo of it/)
      .setInputFiles({ name: 'strainer.jpg', mimeType: 'image/jpeg', buffer: await picture() });
    const photo = page.getByRole('img', { name: /^Strainer, \d{4}/ });
    await expect(photo).toBeVisible();
    await expect.poll(() => photo.evaluate((i: HTMLImageElement) => i.naturalWidth)).toBe(360);
    await expectAccessible(page);
    await page.goBack();
    await expect(photo).toBeVisible();
    await expect(page.getByRole('row', { name: /^Boiler/ })).toHaveCount(2);
    await expect(page.getByText('Permits at most: Strainer')).toBeVisible();
  },
);
