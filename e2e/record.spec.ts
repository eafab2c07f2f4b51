import { readFileSync } from 'node:fs';
import { expect, test, type Page } from '@playwright/test';
import sharp from 'sharp';
import { readBundle } from '@/wire/bundle';
import { readPdf } from './read-pdf';
import {
  BASE,
  BenchPage,
  expectAccessible,
  hold,
  pass,
  picture,
  serverShift,
  shot,
  signIn,
  takeClocks,
  openedRecord,
} from './support';

test.describe('the record', () => {
  test(
    '@further photos beside what was entered, taken without a signal; the customer signs on a phone of their own; papers, bundle, void',
    { tag: '@phone' },
    async ({ page, browser }) => {
      await takeClocks(page);
      await signIn(page, 'imre');
      const bench = new BenchPage(page);
      await bench.begin({ case: /Pipework alone/ });
      await bench.upToLetBy();
      await bench.fill('20.35');
      await bench.holdFor(60, '20.35', '20.35');
      await bench.start('20.35');

      // a photo without a signal: what is no photo is refused, what is one waits here and is sent by itself
      await page.getByRole('button', { name: /^More/ }).click();
      await page.getByRole('button', { name: 'Photo', exact: true }).click();
      const field = page.getByLabel(/Photo, by camera/);
      await field.setInputFiles({ name: 'x.jpg', mimeType: 'image/jpeg', buffer: Buffer.from('no photo') });
      await expect(page.getByText(/not a photo that can be read/)).toBeVisible();
      const whole = await picture();
      await field.setInputFiles({ name: 'x.jpg', mimeType: 'image/jpeg', buffer: whole.subarray(0, 40_000) });
      await expect(page.getByText(/not a photo that can be read/)).toBeVisible();
      await page.context().setOffline(true);
      await page.getByRole('button', { name: 'gauge', exact: true }).click();
      await field.setInputFiles({ name: 'gauge.jpg', mimeType: 'image/jpeg', buffer: whole });
      await expect(page.getByText(/1 wait here for a signal/)).toBeVisible();
      await expect(page.getByText(/Tightness, start: 20.35 mbar entered/)).toBeVisible();
      await page.context().setOffline(false);
      await page.clock.fastForward(9000);
      await expect(page.getByText(/all with the office/)).toBeVisible({ timeout: 30_000 });
      await shot(page, 'photo-entry');
      await page.getByRole('button', { name: 'Back', exact: true }).click();
      await pass(page, 121);
      await bench.end('20.35');
      await bench.zero();
      await bench.putBack();
      const { run } = bench;

      // the tester signs here, the customer on a second device, a witness for what was seen
      await expect(page.getByRole('heading', { name: 'Tester’s signature' })).toBeVisible();
      await draw(page);
      await page.getByRole('button', { name: 'Sign as tester' }).click();
      await page.getByRole('button', { name: /Customer signs on their own phone/ }).click();
      const link = /(http\S+\/sign\/\S+?)\./.exec(
        await page.getByText(/Let the customer scan/).innerText(),
      )![1]!;
      const phone = await browser.newContext({ viewport: { width: 390, height: 844 }, hasTouch: true });
      const theirs = await phone.newPage();
      await theirs.goto(link);
      await expect(theirs.getByRole('heading', { name: /^Tight/ })).toBeVisible();
      await expectAccessible(theirs);
      await theirs.getByLabel('Your name').fill('Marlow Thrupp');
      await draw(theirs);
      await shot(theirs, 'sign-own-device');
      await theirs.getByRole('button', { name: 'Sign', exact: true }).click();
      await expect(theirs.getByRole('heading', { name: 'Thank you' })).toBeVisible();
      await theirs.goto(link);
      await expect(theirs.getByText(/not open any more/)).toBeVisible(); // it works once
      await phone.close();
      await page.clock.fastForward(5000);
      await expect(page.getByRole('heading', { name: /Signed, waiting for its number/ })).toBeVisible();
      await page.getByText('Somebody from outside saw the test').click();
      await page.getByLabel('Name of the witness').fill('Petra Vance');
      await page.getByLabel('In what office').fill('inspector');
      await shot(page, 'witness');
      await draw(page);
      await page.getByRole('button', { name: 'Sign as witness' }).click();
      await expect(page.getByText(/Petra Vance, saw the end reading/)).toBeVisible();
      const number = await bench.seal();

      await page.getByRole('link', { name: 'Open the certificate' }).click();
      await openedRecord(page);
      await expect(page.getByText(/Marlow Thrupp, .*signed on an own device/)).toBeVisible();
      await expect(page.getByRole('heading', { name: 'Tester (witnessed test)' })).toBeVisible();
      const shown = page.getByRole('img', { name: /the gauge:/ });
      await expect(shown).toBeVisible();
      await shown.scrollIntoViewIfNeeded();
      await expect.poll(() => shown.evaluate((i: HTMLImageElement) => i.naturalWidth)).toBeGreaterThan(100);
      await expectAccessible(page);

      // papers: the certificate with the photo in it, nothing of the phone's data in the bundle
      const get = async (path: string) => (await page.request.get(`${BASE}/api/runs/${run}/${path}`)).body();
      const certificate = await readPdf(await get('pdf'));
      expect(certificate.pages[0]).toContain(number);
      expect(certificate.pages[0]).toMatch(/NOT covered/);
      expect(certificate.pages.at(-1)).toMatch(/Photos of .*the gauge: .*20.35 mbar entered/);
      expect(certificate.info).toMatchObject({ Language: 'en', Producer: 'Vast Stone' });
      expect(certificate.fonts.length).toBeGreaterThan(1);
      expect(certificate.fonts.every((f) => f.embedded)).toBe(true);
      for (const form of ['note', 'inspector', 'utility', 'buyer', 'ticket'])
        expect([
          form,
          (await readPdf(await get(`pdf?form=${form}`))).pages.join(' ').includes(number),
        ]).toEqual([form, true]);
      expect((await page.request.get(`${BASE}/api/runs/${run}/pdf?form=label`)).status()).toBe(404);
      expect((await get('readings')).toString()).toMatch(/Tightness,start,20\.35,mbar,/);
      const bundle = await get('bundle');
      const photos = readBundle(bundle).files.filter((f) => f.name.endsWith('.jpg'));
      expect(photos.length).toBeGreaterThan(0);
      for (const photo of photos) expect((await sharp(photo.bytes).metadata()).exif).toBeUndefined();

      // the outbox and the printer
      await page.getByLabel(/Send: Plain note/).check();
      await page.getByLabel(/^Send to/).fill('marlow@thrupp.example');
      await page.getByRole('button', { name: 'Send (simulated)' }).click();
      await expect(page.getByText(/Sent to marlow@thrupp.example/)).toBeVisible();
      await page.getByRole('button', { name: 'Print', exact: true }).click();
      await page.getByRole('link', { name: 'Look into the outbox' }).click();
      await expect(page.getByRole('link', { name: new RegExp(`${number}: Plain note`) })).toBeVisible();
      await expect(page.getByLabel(`Ticket of ${number}`)).toContainText('TIGHT');
      await shot(page, 'outbox');
      await expectAccessible(page);

      // anyone checks the bundle without us; a flipped bit is named
      const stranger = await browser.newContext();
      const open = await stranger.newPage();
      await open.goto(`${BASE}/check`);
      await open
        .getByLabel('File', { exact: true })
        .setInputFiles({ name: 'b.zip', mimeType: 'application/zip', buffer: bundle });
      await expect(open.getByRole('heading', { name: 'Untouched since it was sealed.' })).toBeVisible();
      const spoilt = Buffer.from(bundle);
      const at = spoilt.lastIndexOf(Buffer.from([0xff, 0xd8, 0xff])) + 4000;
      spoilt[at]! ^= 1;
      await open
        .getByLabel('File', { exact: true })
        .setInputFiles({ name: 'b.zip', mimeType: 'application/zip', buffer: spoilt });
      await expect(open.getByText(/photos\/[0-9a-f]{64}\.jpg was changed/)).toBeVisible();
      await shot(open, 'check-changed');
      await expectAccessible(open);

      // made void it keeps its number and says so to everybody; its link is revoked
      await page.goto(`${BASE}/ledger/${run}`);
      const address = (await page
        .getByRole('link', { name: 'Open to everyone with the link' })
        .getAttribute('href'))!;
      await page.getByText('Make it void').click();
      await page.getByLabel('Why it is void').fill('The wrong branch was shut');
      await hold(page, /Make VS-\d+ void/);
      await expect(page.getByText(/Void since .*The wrong branch was shut/)).toBeVisible();
      await open.goto(BASE + address);
      await expect(open.getByText(/Void since/)).toBeVisible();
      await page.getByRole('button', { name: 'Revoke the link' }).click();
      await expect(page.getByText(/Nobody outside can see/)).toBeVisible();
      await open.goto(BASE + address);
      await expect(open.getByText(/Void since/)).toHaveCount(0);
      await stranger.close();
    },
  );

  test('the ledger: searched as it is typed, narrowed, kept, as a table; recall by a range of serials @further', async ({
    page,
  }) => {
    await signIn(page, 'yun');
    await page.goto(`${BASE}/ledger`);
    await page.getByRole('searchbox').fill('boiler');
    await expect(page.getByText(/records? with “boiler”/)).toBeVisible();
    await expect(page.getByRole('link', { name: /Boiler house/ }).first()).toBeVisible();
    await expect(page.getByRole('link', { name: /Gatehouse/ })).toHaveCount(0);
    await expect(page).toHaveURL(/find=boiler/);
    await page.getByText('Narrow down').click();
    await page.getByLabel('Result', { exact: true }).selectOption('not-tight');
    await expect(page).toHaveURL(/word=not-tight/);
    const lines = page.getByRole('link', { name: /Not tight/ });
    await expect(lines.nth(2)).toBeVisible(); // three in the demo; other journeys may add some
    await expect(page.getByRole('link', { name: /Wall of the run: Tight/ })).toHaveCount(0);
    const found = await lines.count();
    await page.getByRole('button', { name: 'Keep this search' }).click();
    await page.getByLabel('Name of this search').fill('Boiler troubles');
    await page.getByRole('button', { name: 'Keep', exact: true }).click();
    // kept: the form is gone and what lies under it has moved up, only now is it pressed
    await expect(page.getByRole('button', { name: 'Boiler troubles', exact: true })).toBeVisible();
    await page.getByRole('button', { name: 'As a table' }).click();
    await expect(page.getByRole('button', { name: 'As lines' })).toHaveAttribute('aria-pressed', 'true');
    await page.getByText('Columns', { exact: true }).click();
    await page.getByLabel('Measured').check();
    await expect(page.getByRole('columnheader', { name: 'Measured' })).toBeVisible();
    await expectAccessible(page);
    // what matches is taken away: a table with whatever columns are wanted, and the papers as one file
    await page.getByRole('button', { name: 'Take away' }).click();
    await page.getByRole('button', { name: 'All columns' }).click();
    await expectAccessible(page);
    const csv = await page.request.get(
      `${BASE}${await page.getByRole('link', { name: 'Save as CSV' }).getAttribute('href')}`,
    );
    const rows = (await csv.text()).split('\r\n').filter(Boolean);
    expect(rows).toHaveLength(found + 1);
    expect(rows[0]).toMatch(
      /Measured,.*Customer,Address,Test pressure,.*Limits,Leak rate,.*Serials at the place/,
    );
    expect(rows[1]).toMatch(/\d (mbar|bar)/);
    await page.getByRole('button', { name: 'Make the file' }).click();
    const file = page.getByRole('link', { name: 'Save the file' }).first();
    await expect(file).toBeVisible({ timeout: 120_000 });
    await expect(page.getByText(`${found} certificate`).first()).toBeVisible();
    const zip = await page.request.get(`${BASE}${await file.getAttribute('href')}`);
    expect((await zip.body()).toString('latin1').split('%PDF-').length - 1).toBe(found);
    await page.goto(`${BASE}/ledger`);
    await page.getByRole('button', { name: 'Boiler troubles', exact: true }).click();
    await expect(page).toHaveURL(/find=boiler.*word=not-tight|word=not-tight.*find=boiler/);
    await page.getByRole('button', { name: 'Forget the search Boiler troubles' }).click();
    await page.goto(`${BASE}/ledger/recall`);
    await page.getByLabel('Serial from').fill('SH-1200');
    await page.getByLabel('Serial to').fill('SH-1300');
    await page.getByRole('button', { name: 'Find', exact: true }).click();
    await expect(page.getByText(/parts? at 1 place/)).toBeVisible();
    await shot(page, 'recall');
    await expect(page.getByRole('link', { name: /Boat shed/ })).toBeVisible();
    await expectAccessible(page);
  });

  test('@further logs of three shapes: into a running test, and as a finished one that was held elsewhere', async ({
    page,
  }) => {
    await takeClocks(page);
    await signIn(page, 'imre');
    const bench = new BenchPage(page);
    await bench.begin({ case: /Pipework alone/ });
    await bench.upToLetBy();
    await bench.fill('20.35');
    await bench.holdFor(60, '20.35', '20.35');
    await bench.start('20.35');
    const began = Date.now() + serverShift();
    await pass(page, 121);
    await bench.end('20.35');
    const { run } = bench;
    const file = (name: string, text: string) => ({ name, mimeType: 'text/csv', buffer: Buffer.from(text) });
    const iso = (i: number) => new Date(began + i * 1000).toISOString();
    // another page's worker stands in the offline store first: it must not be mistaken for this page's
    await page.goto(`${BASE}/plan`);
    await page
      .getByRole('link', { name: /bakery and kiln/ })
      .first()
      .click();
    await expect(page.locator('[data-band]')).toBeVisible();
    await page.goto(`${BASE}/ledger/import?run=${run}`);
    // a comma, ISO time, a header, and a row that is wrong
    const rows = Array.from({ length: 90 }, (_, i) => `${iso(i)},${(20.35).toFixed(2)}`);
    await page
      .getByLabel('File', { exact: true })
      .setInputFiles(file('a.csv', ['time,pressure mbar', ...rows, 'later,20.1'].join('\n')));
    await expect(page.getByText(/90 of 91 rows/)).toBeVisible();
    await page.getByText('1 row could not be read').click();
    await expect(page.getByText(/“later” is not a time/)).toBeVisible();
    await expectAccessible(page);
    await page.getByRole('button', { name: 'Read into this run' }).click();
    await expect(page.getByText(/9\d readings of a.csv stand in the run now|90 readings/)).toBeVisible();
    // a semicolon, decimal comma, day first: nothing of it lies in the time of the run
    const old = Array.from({ length: 5 }, (_, i) => `${i + 1};24.11.2020;08:00:0${i};2,0350`);
    await page
      .getByLabel('File', { exact: true })
      .setInputFiles(file('b.csv', ['Nr;Datum;Uhrzeit;Druck kPa', ...old].join('\n')));
    await expect(page.getByText(/5 of 5 rows/)).toBeVisible();
    await expect(page.getByLabel('Pressure is in')).toHaveValue('kPa');
    await page.getByRole('button', { name: 'Read into this run' }).click();
    await expect(page.getByText(/No reading of the log lies within the time/)).toBeVisible();

    // tabs, no header, time since the beginning: a finished test of somebody else
    const seconds = Array.from({ length: 1500 }, (_, i) => i);
    const level = (s: number) => (s < 300 ? 9.1 : 20.35);
    await page
      .getByLabel('File', { exact: true })
      .setInputFiles(file('c.tsv', seconds.map((s) => `${s}\t${level(s).toFixed(2)}`).join('\n')));
    await expect(page.getByText(/0 of 1500 rows/)).toBeVisible();
    await page.getByLabel('The log began').fill('2026-11-20T10:00:00');
    await expect(page.getByText(/1500 of 1500 rows/)).toBeVisible();
    const part = page.locator('section[aria-labelledby=outside]');
    await part.getByLabel('System').selectOption({ label: 'Bakery: Bakery gas' });
    await part.getByLabel('Procedure').selectOption({ label: 'Staged low-pressure test (metric school)' });
    const choose = async (label: string, words: RegExp) => {
      const field = part.getByLabel(label);
      await expect(field.locator('option').filter({ hasText: words }).first()).toBeAttached();
      const options = await field.locator('option').allInnerTexts();
      await field.selectOption({ label: options.find((o) => words.test(o))! });
    };
    await choose('What was tested', /Pipework alone/);
    await choose('Gauge of the log', /^G-02/);
    await part.getByLabel('Held by').fill('Brannock Pipework');
    const starts = part.getByLabel(/began at$/);
    await expect(starts).toHaveCount(3);
    const times = ['10:00:10', '10:01:15', '10:06:00', '10:07:05', '10:07:10', '10:09:15'];
    for (const [i, t] of times.entries())
      await (i % 2 ? part.getByLabel(/ended at$/) : starts).nth(Math.floor(i / 2)).fill(t);
    await part.getByRole('checkbox').check();
    await shot(page, 'outside-test');
    await part.getByRole('button', { name: 'Judge it' }).click();
    await page.waitForURL(/\/bench\//);
    await expect(page.getByRole('heading', { name: /^Tight/ })).toBeVisible();
    await bench.putBack();
    await bench.sign();
    await bench.seal();
    await page.getByRole('link', { name: 'Open the certificate' }).click();
    await openedRecord(page);
    await expect(page.getByRole('heading', { name: 'Test record: not a certificate' })).toBeVisible();
    await expect(page.getByText(/Held by Brannock Pipework with another program/).first()).toBeVisible();
    await expect(page.getByText(/read in afterwards from the gauge’s log c.tsv/)).toBeVisible();
  });

  test('@further people are invited, roles hold, the key is changed, and an export is restored into an empty organisation', async ({
    page,
    browser,
  }) => {
    await signIn(page, 'tamsin');
    await page.goto(`${BASE}/organisation`);
    await expectAccessible(page);
    await page.getByLabel('Name', { exact: true }).last().fill('Wanda Okafor');
    await page.getByLabel('E-mail address').fill('wanda@hollin-tarrow.example');
    await page.getByLabel('Role').last().selectOption('office');
    await page.getByRole('button', { name: 'Invite', exact: true }).click();
    const link = /(http\S+\/join\/\S+)/.exec(await page.getByText(/Give this link/).innerText())![1]!;
    const fresh = await browser.newContext();
    const theirs = await fresh.newPage();
    await theirs.goto(link);
    await theirs.getByLabel(/Password/).fill('short');
    await shot(theirs, 'join');
    await theirs.getByRole('button', { name: 'Join' }).click();
    await expect(theirs).toHaveURL(/join/);
    await theirs.getByLabel(/Password/).fill('three words are good');
    await theirs.getByRole('button', { name: 'Join' }).click();
    await theirs.waitForURL('**/today');
    await theirs.goto(`${BASE}/organisation`);
    await expect(theirs.getByRole('heading', { name: 'People' })).toBeVisible();
    await expect(theirs.getByRole('button', { name: 'Invite', exact: true })).toHaveCount(0);
    expect((await theirs.request.post(`${BASE}/api/jobs`, { data: { kind: 'export' } })).status()).toBe(403);
    await theirs.goto(`${BASE}/organisation/audit`);
    await expect(theirs.getByText(/Only the owner/)).toBeVisible();
    await fresh.close();
    await page.goto(`${BASE}/organisation/audit`);
    await expect(page.getByRole('cell', { name: 'joined' })).toBeVisible();
    await shot(page, 'audit');
    // asked for, left, and fetched on coming back
    await page.goto(`${BASE}/organisation`);
    await page.getByRole('button', { name: 'Export the organisation' }).click();
    await expect(page.locator('[data-job]').first()).toBeVisible();
    await page.goto(`${BASE}/today`);
    await page.goto(`${BASE}/organisation`);
    await expect(page.locator('[data-job=done]').first()).toBeVisible();
    await expectAccessible(page);
    await shot(page, 'exported');
    const saving = page.waitForEvent('download');
    await page.getByRole('link', { name: 'Save the file' }).click();
    const exported = readFileSync(await (await saving).path());
    const before = (await (await page.request.get(`${BASE}/api/ledger?status=certificate`)).json()) as {
      lines: { number: string; sealedAt: string }[];
    };

    const empty = await browser.newContext();
    const house = await empty.newPage();
    await signIn(house, 'odile', 'emptied.example');
    await house.goto(`${BASE}/organisation`);
    await house.getByText('Bring in an export').click();
    await house.getByLabel('Export file').setInputFiles({
      name: 'x.zip',
      mimeType: 'application/zip',
      buffer: Buffer.from(readFileSync('package.json')),
    });
    await expect(
      house.getByRole('alert').filter({ hasText: /not an export of an organisation/ }),
    ).toBeVisible();
    await house
      .getByLabel('Export file')
      .setInputFiles({ name: 'export.zip', mimeType: 'application/zip', buffer: exported });
    await expect(house.getByText(/every seal was checked/)).toBeVisible({ timeout: 90_000 });
    const after = (await (
      await house.request.get(`${BASE}/api/ledger?status=certificate`)
    ).json()) as typeof before;
    expect(after.lines.map((l) => [l.number, l.sealedAt])).toEqual(
      before.lines.map((l) => [l.number, l.sealedAt]),
    );
    await house.goto(`${BASE}/ledger`);
    await house.getByRole('link', { name: /VS-00040/ }).click();
    await openedRecord(house);
    await empty.close();
  });
});

/** Draws on the signature field that stands on the page. */
async function draw(page: Page): Promise<void> {
  const canvas = page.locator('canvas[data-ready]').last();
  await canvas.scrollIntoViewIfNeeded();
  const box = (await canvas.boundingBox())!;
  await page.mouse.move(box.x + 20, box.y + 70);
  await page.mouse.down();
  for (let i = 1; i <= 8; i++) await page.mouse.move(box.x + 20 + i * 18, box.y + 70 + (i % 2 ? -30 : 30));
  await page.mouse.up();
}
