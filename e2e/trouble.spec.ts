import { expect, test } from '@playwright/test';
import {
  BASE,
  BenchPage,
  copyOfBakery,
  expectAccessible,
  fillSignIn,
  pass,
  signIn,
  takeClocks,
  openedRecord,
} from './support';

test('bad input says what to do and loses nothing', async ({ page }) => {
  await takeClocks(page);
  await signIn(page, 'imre');
  const bench = new BenchPage(page);
  await bench.begin();
  await bench.checks();
  await bench.gauge();
  const trouble = page.locator('#keypad-trouble');
  const field = page.getByRole('textbox').first();
  for (const [typed, said] of [
    ['1,234', /1,234 can be read as 1.234 or as 1234/],
    ['0.1 mbar', /number only/],
    ['0.123', /2 decimals/],
    ['900', /above this gauge/],
    ['', /Type the figure/],
  ] as const) {
    await bench.enter(typed, /Zero is proved/);
    await expect(trouble).toHaveText(said);
    await expect(field).toHaveValue(typed);
  }
  await bench.zero('0.60');
  await expect(page.getByText(/0.60 mbar open to air is off zero/)).toBeVisible();
  await bench.zero('0.00');
  await bench.fill('12.00');
  await expect(trouble).toHaveText(/above the band 7 mbar to 10 mbar/);
  await bench.fill('9.00');
  await bench.start('9.00');
  await expect(page.getByRole('button', { name: /End reading in/ })).toBeDisabled();
  await page.getByRole('button', { name: 'More', exact: true }).click();
  await page.getByRole('button', { name: 'Reading from earlier' }).click();
  const soon = await page.evaluate(() => new Date(Date.now() + 600_000).toTimeString().slice(0, 8));
  await page.getByLabel('Time it was read').fill(soon);
  await page.getByLabel(/The gauge showed/).fill('9.00');
  await page.getByRole('button', { name: 'Save as late' }).click();
  await expect(page.getByText(/This run has not had that time: it began at/)).toBeVisible();
});

test('what is typed and sent before the scripts run goes when they do: a password never in an address, a figure as it was typed', async ({
  browser,
}) => {
  // a first visit: no worker of the page keeps its scripts yet
  const context = await browser.newContext({ serviceWorkers: 'block' });
  const page = await context.newPage();
  let release = () => {};
  let held = Promise.resolve();
  const hold = () => {
    held = new Promise((done) => (release = done));
  };
  hold();
  const asked: string[] = [];
  page.on('request', (r) => asked.push(r.url()));
  // they come one after the other: the framework is at the page long before it has all of it
  await page.route(/_next\/static\/.*\.js/, (route) => {
    const before = held;
    held = before.then(() => route.continue().then(() => new Promise((on) => setTimeout(on, 60))));
    return before;
  });
  await page.goto(`${BASE}/sign-in`, { waitUntil: 'commit' });
  await fillSignIn(page, 'imre');
  await expect(page.getByLabel('E-mail')).toHaveValue(/^imre@/);
  expect(page.url()).toBe(`${BASE}/sign-in`);
  release();
  await page.waitForURL('**/today');
  expect(asked.filter((url) => url.includes('millrace'))).toEqual([]);

  // a copy of a system, its supply typed over at once and saved
  await copyOfBakery(page, `Early ${Date.now()}`);
  const place = page.url();
  hold();
  await page.goto(`${place}/edit`, { waitUntil: 'commit' });
  await page.getByLabel('Supply pressure', { exact: true }).fill('75');
  await page.getByRole('button', { name: 'Save the system' }).click();
  await expect(page.getByLabel('Supply pressure', { exact: true })).toHaveValue('75');
  release();
  await page.waitForURL(place);
  await page.goto(`${place}/edit`);
  await expect(page.getByLabel('Supply pressure', { exact: true })).toHaveValue('75');
  await context.close();
});

test('what is not there and what belongs to others looks the same', async ({ page }) => {
  await signIn(page, 'imre');
  const unknown = '00000000-0000-7000-8000-00000000dead';
  for (const path of [
    `/places/${unknown}`,
    `/places/x'--`,
    `/ledger/${unknown}`,
    '/verify/nothing-of-the-kind-here',
  ]) {
    const r = await page.goto(BASE + path);
    expect(r!.status(), path).toBe(404);
    await expect(page.getByRole('heading', { name: 'There is nothing here' })).toBeVisible();
  }
  const api = await page.request.get(`${BASE}/api/runs/${unknown}`);
  expect([api.status(), (await api.json()).error.code]).toEqual([404, 'not-found']);
  await page.goto(`${BASE}/bench/${unknown}`);
  await expect(page.getByText(/There is no such run here/)).toBeVisible();
});

test('sign-in refuses politely, limits guessing, and signed-out people see nothing', async ({ page }) => {
  await page.goto(`${BASE}/today`);
  await page.waitForURL('**/sign-in');
  await page.getByRole('button', { name: 'Sign in', exact: true }).click();
  await expect(page.getByText('Type your e-mail address.')).toBeVisible();
  const attempt = () =>
    page.request.post(`${BASE}/api/session`, {
      data: { email: 'nobody@hollin-tarrow.example', password: 'wrong' },
    });
  for (let i = 0; i < 5; i++) expect((await attempt()).status()).toBe(401);
  expect((await attempt()).status()).toBe(429);
  expect((await page.request.get(`${BASE}/api/runs/00000000-0000-7000-8000-00000000dead`)).status()).toBe(
    401,
  );
  const cross = await page.request.post(`${BASE}/api/session`, {
    data: { email: 'imre@hollin-tarrow.example', password: 'millrace-imre' },
    headers: { origin: 'https://elsewhere.example' },
  });
  expect(cross.status()).toBe(403);
  await expectAccessible(page);
});

test('an apprentice runs but neither signs nor seals; the office only reads @further', async ({
  page,
  browser,
}) => {
  await takeClocks(page);
  await signIn(page, 'piet');
  const bench = new BenchPage(page);
  await bench.tightPipework();
  await expect(page.getByText(/An apprentice runs the test/)).toBeVisible();
  const forbidden = await page.request.post(`${BASE}/api/runs/${bench.run}/seal`, { data: {} });
  expect([forbidden.status(), (await forbidden.json()).error.code]).toEqual([403, 'role']);
  const office = await browser.newContext();
  const desk = await office.newPage();
  await signIn(desk, 'yun');
  await desk.goto(`${BASE}/places`);
  await desk.getByRole('link', { name: /Bakery gas/ }).click();
  await expect(desk.getByRole('button', { name: 'Start the test' })).toHaveCount(0);
  await office.close();
});

test('a tester whose licence ran out seals a record that is not a certificate @further', async ({ page }) => {
  await takeClocks(page);
  await signIn(page, 'ngaire');
  const bench = new BenchPage(page);
  await bench.tightPipework();
  await bench.sign();
  await bench.seal();
  await page.getByRole('link', { name: 'Open the certificate' }).click();
  await openedRecord(page);
  await expect(page.getByRole('heading', { name: 'Test record: not a certificate' })).toBeVisible();
  await expect(
    page.getByText(/licence GT-0388 of Ngaire .*, who signed as tester, ran out on 31 Oct 2026/),
  ).toBeVisible();
});

test('a device clock that is an hour wrong changes no hold and stands on the record @further', async ({
  page,
}) => {
  await takeClocks(page, -3600_000);
  await signIn(page, 'imre');
  const bench = new BenchPage(page);
  await bench.begin({ case: /Pipework alone/ });
  await bench.upToRunningLetBy();
  await expect(page.getByRole('timer').first()).toHaveText(/^(1:00|0:5\d)/);
  await pass(page, 61);
  await bench.end('9.10');
  await page.getByRole('button', { name: 'STOP' }).click();
  await page.getByRole('button', { name: 'The test is given up' }).click();
  await bench.putBack();
  await bench.sign();
  await bench.seal();
  await page.getByRole('link', { name: 'Open the certificate' }).click();
  await openedRecord(page);
  await expect(page.getByText(/clock of a device stood 60 min behind the server/)).toBeVisible();
});

test('two people ending a stage at once: one counts, the other is told, both stay in the log', async ({
  page,
  browser,
}) => {
  await takeClocks(page);
  await signIn(page, 'imre');
  const bench = new BenchPage(page);
  await bench.begin({ case: /Pipework alone/ });
  await bench.upToRunningLetBy();
  const context = await browser.newContext();
  const page2 = await context.newPage();
  await takeClocks(page2);
  await signIn(page2, 'tamsin');
  await page2.goto(page.url());
  await expect(page2.getByRole('timer').first()).toBeVisible();
  await pass(page, 61);
  await page2.clock.fastForward(61_000);
  await context.setOffline(true);
  const other = new BenchPage(page2);
  await page2.getByRole('button', { name: 'Read the gauge now' }).click();
  await other.enter('9.20', /end reading/);
  await expect(page2.getByText(/No signal/).first()).toBeVisible();
  await bench.end('9.10');
  // the first to end it is with the office before the other has a signal again
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Raise, test');
  await expect.poll(async () => (await bench.counts()).here - (await bench.counts()).office).toBe(0);
  await context.setOffline(false);
  await page2.clock.fastForward(5_000);
  await expect.poll(async () => (await other.counts()).here - (await other.counts()).office).toBe(0);
  await expect(page2.getByText(/Somebody else had already ended that step/)).toBeVisible();
  const log = (await (await page.request.get(`${BASE}/api/runs/${bench.run}`)).json()) as {
    events: { kind: string; figure: { digits: number }; position: number }[];
  };
  const ends = log.events.filter((e) => e.kind === 'hold-end');
  expect(ends.map((e) => e.figure.digits)).toEqual([910, 920]);
  expect(log.events.map((e) => e.position)).toEqual(log.events.map((_, i) => i + 1));
  await context.close();
});

test('without a signal a bench opened before opens again, counts down and takes readings; signing out waits @further', async ({
  browser,
}) => {
  const context = await browser.newContext({ viewport: { width: 390, height: 844 } });
  const page = await context.newPage();
  await takeClocks(page);
  await signIn(page, 'imre');
  const bench = new BenchPage(page);
  await bench.begin({ case: /Pipework alone/ });
  await bench.checks();
  await bench.gauge();
  await bench.zero();
  await expect
    .poll(async () =>
      page.evaluate(
        async () =>
          (await (await caches.open((await caches.keys())[0]!)).keys()).filter((k) =>
            /\/bench\/|\/offline$/.test(k.url),
          ).length === 2,
      ),
    )
    .toBe(true);
  await expect.poll(async () => (await bench.counts()).here - (await bench.counts()).office).toBe(0);
  const url = page.url();
  await context.setOffline(true);
  await page.close();
  const again = await context.newPage();
  await again.clock.install({ time: Date.now() });
  // every other place opens to what is on this device
  await again.goto(`${BASE}/ledger`);
  await expect(again.getByRole('heading', { name: 'This page needs the office' })).toBeVisible();
  await expect(again.getByRole('link', { name: /Staged low-pressure test/ }).first()).toBeVisible();
  await again.goto(url);
  const cold = new BenchPage(again);
  await cold.fill('9.10');
  await cold.start('9.10');
  await expect(
    again
      .getByText(/No signal: go on/)
      .locator('visible=true')
      .first(),
  ).toBeVisible();
  await again.getByRole('button', { name: 'Reading', exact: true }).click();
  await cold.enter('9.11', /Save the reading/);
  await expect.poll(async () => (await cold.counts()).here - (await cold.counts()).office).toBe(3);
  await context.route('**/api/runs/*/events*', (r) => r.abort());
  await context.setOffline(false);
  await again.goto(`${BASE}/today`);
  await again.getByRole('button', { name: /Imre/ }).click();
  await again.getByRole('button', { name: 'Sign out', exact: true }).click();
  await expect(again.getByRole('alert').filter({ hasText: /not with the office yet/ })).toBeVisible();
  await context.close();
});

test('@further practice on the simulated bakery: the model answers, and the record is marked', async ({
  page,
}) => {
  await takeClocks(page);
  await signIn(page, 'imre');
  const bench = new BenchPage(page);
  await bench.begin({ case: /Existing/, practice: 'off-zero' });
  const works = page.getByRole('region', { name: 'Simulated installation' }).locator('visible=true').first();
  await works.getByRole('button', { name: 'Shut', exact: true }).click();
  await bench.checks();
  await bench.gauge('Simulated gauge');
  const take = page.getByRole('button', { name: /Take the display/ });
  await take.click();
  await page.getByRole('checkbox', { name: /Nothing is connected/ }).check();
  await page.getByRole('button', { name: /Zero is proved/ }).click();
  await expect(page.getByText(/open to air is off zero/)).toBeVisible();
  await works.getByRole('button', { name: 'Zero it' }).click();
  await expect(take).toHaveText(/[−]?0\.0[01]$/);
  await take.click();
  await page.getByRole('button', { name: /Zero is proved/ }).click();
  await works.getByRole('button', { name: 'Open to air' }).click();
  await works.getByRole('button', { name: 'Bleed' }).click();
  await expect(take).toHaveText(/ (7|8|9)\.\d\d$/, { timeout: 30_000 });
  await works.getByRole('button', { name: 'Bleeding' }).click();
  // the display stands still again
  let before: string | null = null;
  await expect
    .poll(
      async () => {
        const shown = await take.textContent();
        const stands = shown === before;
        before = shown;
        return stands;
      },
      { intervals: [1_000] },
    )
    .toBe(true);
  await take.click();
  // what is shown is taken, that the valve is shut is said, and the let-by begins: one press
  await page.getByRole('button', { name: /Valve under test is closed: start the 1 min/ }).click();
  await expect(page.getByText('simulated gauge now')).toBeVisible();
  await page.getByRole('button', { name: 'STOP' }).click();
  await page.getByRole('button', { name: 'The test is given up' }).click();
  await bench.putBack();
  await bench.sign();
  expect(await bench.seal()).toMatch(/^PRACTICE-\d{5}$/);
  await page.getByRole('link', { name: 'Open the practice record' }).click();
  await expect(page.getByRole('heading', { name: 'Practice record: not a certificate' })).toBeVisible();
  await openedRecord(page);
  await expect(page.getByText(/streamed display values \(simulated gauge\)/).first()).toBeVisible();
});

test('@further every main view passes axe in both themes and can be walked by keyboard', async ({ page }) => {
  await signIn(page, 'imre');
  for (const scheme of ['light', 'dark'] as const) {
    await page.emulateMedia({ colorScheme: scheme });
    for (const path of [
      '/today',
      '/places?find=serial',
      '/rules',
      '/rules/gas-imperial?with=gas-metric/gas-lowpressure-staged',
      '/ledger',
      '/outbox',
      '/check',
    ]) {
      await page.goto(BASE + path);
      await expectAccessible(page);
    }
    await page.goto(`${BASE}/ledger?find=VS-00001`);
    await page.getByRole('link', { name: /VS-00001/ }).click();
    await page.waitForURL(/ledger\/./);
    await expectAccessible(page);
  }
  await page.goto(`${BASE}/ledger`);
  // one of each ten of the demo's records, and the newest of the journeys
  const links = page.locator('main li a');
  for (const link of [links.first(), ...(await links.filter({ hasText: /VS-000\d2/ }).all())]) {
    const href = (await link.getAttribute('href'))!;
    if (href.includes('/outside/')) continue; // not a paper of ours
    const pdf = await page.request.get(`${BASE}/api/runs/${href.split('/').pop()}/pdf`);
    const pages = (await pdf.body()).toString('latin1').match(/\/Type \/Page\b(?!s)/g);
    // a face of one page and what stands behind it
    expect([2, 3, 4], `pages of ${await link.innerText()}`).toContain(pages!.length);
  }
  await page.keyboard.press('/');
  await expect(page.getByRole('searchbox')).toBeFocused();
});
