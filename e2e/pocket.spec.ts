import { expect, test, type Page } from '@playwright/test';
import { wholeOptions } from '../scripts/chromium.mjs';
import { BASE, BenchPage, expectAccessible, pass, shot, signIn, takeClocks } from './support';

// only the whole browser can be notified
test.use({ launchOptions: wholeOptions });

const SERVICE = process.env.VAST_E2E_PUSH!;
interface Device {
  readonly id: string;
  readonly endpoint: string;
  readonly keys: { readonly p256dh: string; readonly auth: string };
}
/** A device at the stand-in push service, which this browser then says is its own. */
async function deviceOf(page: Page): Promise<Device> {
  const device = (await (await page.request.post(`${SERVICE}/devices`)).json()) as Device;
  await page.context().grantPermissions(['notifications'], { origin: BASE });
  await page.addInitScript((d: Device) => {
    const made = {
      endpoint: d.endpoint,
      toJSON: () => ({ endpoint: d.endpoint, keys: d.keys }),
      unsubscribe: () => Promise.resolve(localStorage.removeItem('of the test')).then(() => true),
    } as unknown as PushSubscription;
    PushManager.prototype.getSubscription = () =>
      Promise.resolve(localStorage.getItem('of the test') ? made : null);
    PushManager.prototype.subscribe = () => {
      localStorage.setItem('of the test', '1');
      return Promise.resolve(made);
    };
  }, device);
  return device;
}
const got = async (page: Page, device: Device): Promise<{ body: string; path: string; tag: string }[]> =>
  ((await (await page.request.get(`${SERVICE}/devices/${device.id}`)).json()) as { message: never }[]).map(
    (g) => g.message,
  );

test(
  'an alarm reaches a pocket: turned on, rung by the server’s own timers, shown by the service worker',
  { tag: ['@phone', '@further'] },
  async ({ page }) => {
    const device = await deviceOf(page);
    await takeClocks(page);
    await signIn(page, 'imre');
    await page.goto(`${BASE}/devices`);
    await page.getByRole('button', { name: 'Ring this device' }).click();
    await expect(page.getByLabel('a minute before')).toBeChecked();
    await expect(page.getByLabel('5 minutes before')).not.toBeChecked();
    await page.getByRole('button', { name: 'Ring it now' }).click();
    await expect(page.getByText('It was rung.')).toBeVisible();
    expect((await got(page, device)).map((m) => m.body)).toContain('This is how an alarm rings.');
    await expectAccessible(page);

    const bench = new BenchPage(page);
    await bench.begin();
    await bench.checks();
    await bench.gauge();
    await bench.zero();
    await shot(page, 'raise');
    await bench.fill('9.10');
    await expect(page.locator('[data-hold=running]')).toBeVisible();
    await expect(page).toHaveTitle(/^[01]:\d\d Let-by/);
    // while it waits: a joint of the place is looked at without leaving the hold
    await page.locator('[data-while] summary').click();
    await expect(page.locator('[data-while]')).toContainText('Photos of gauge and boundary');
    await shot(page, 'hold-waits');
    await page.getByRole('button', { name: 'All joints' }).click();
    await page.getByRole('button', { name: 'Back' }).last().click();
    await expect(page.locator('[data-hold=running]')).toBeVisible();

    await pass(page, 61);
    await expect(page.locator('[data-hold=over]')).toBeVisible();
    // other runs of this person ring here too: what is meant is this one's
    const rings = async () => (await got(page, device)).filter((m) => m.tag === bench.run);
    await expect.poll(async () => (await rings()).length, { timeout: 60_000 }).toBe(1);
    const [rung] = await rings();
    expect(rung).toMatchObject({
      body: expect.stringMatching(/^Bakery, Bakery gas: now read the gauge\.$/),
      path: new URL(page.url()).pathname,
      tag: bench.run,
    });

    // what came is shown, whatever page is open
    const cdp = await page.context().newCDPSession(page);
    const registration = new Promise<string>((found) =>
      cdp.on('ServiceWorker.workerRegistrationUpdated', ({ registrations }) => {
        const own = registrations.find((r) => r.scopeURL.startsWith(BASE));
        if (own) found(own.registrationId);
      }),
    );
    await cdp.send('ServiceWorker.enable');
    await cdp.send('ServiceWorker.deliverPushMessage', {
      origin: BASE,
      registrationId: await registration,
      data: JSON.stringify(rung),
    });
    const shown = () =>
      page.evaluate(async () =>
        (await (await navigator.serviceWorker.ready).getNotifications()).map((n) => [n.body, n.tag]),
      );
    await expect.poll(shown).toEqual([[rung!.body, bench.run]]);

    await page.goto(`${BASE}/devices`);
    await page.getByRole('button', { name: 'No alarms here' }).click();
    await expect(page.getByRole('button', { name: 'Ring this device' })).toBeVisible();
  },
);
test('it can be kept beside other programs: a manifest with icons and shortcuts that open @further', async ({
  page,
}) => {
  await signIn(page, 'imre');
  const link = await page.locator('link[rel=manifest]').getAttribute('href');
  const manifest = (await (await page.request.get(new URL(link!, BASE).href)).json()) as {
    start_url: string;
    display: string;
    icons: { src: string; sizes: string }[];
    shortcuts: { url: string }[];
  };
  expect([manifest.start_url, manifest.display]).toEqual(['/today', 'standalone']);
  for (const { src } of manifest.icons) {
    const icon = await page.request.get(`${BASE}${src}`);
    expect([icon.status(), icon.headers()['content-type']]).toEqual([200, 'image/png']);
  }
  for (const { url } of manifest.shortcuts) {
    await page.goto(`${BASE}${url}`);
    await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
  }
});
