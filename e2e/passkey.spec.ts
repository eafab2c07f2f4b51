import { expect, test, type CDPSession, type Page } from '@playwright/test';
import { BASE, expectAccessible, fillSignIn, shot, takeClocks } from './support';

/** The machine's own name: browsers make no passkeys for a bare number. */
const NAMED = BASE.replace('127.0.0.1', 'localhost');
/** An authenticator built into the device, as the browser simulates one. */
async function authenticator(page: Page): Promise<{ cdp: CDPSession; id: string }> {
  const cdp = await page.context().newCDPSession(page);
  await cdp.send('WebAuthn.enable');
  const { authenticatorId } = await cdp.send('WebAuthn.addVirtualAuthenticator', {
    options: {
      protocol: 'ctap2',
      transport: 'internal',
      hasResidentKey: true,
      hasUserVerification: true,
      isUserVerified: true,
      automaticPresenceSimulation: true,
    },
  });
  return { cdp, id: authenticatorId };
}

test('a passkey is made, signs in without the password, is listed, and once ended opens nothing @further', async ({
  page,
}) => {
  await takeClocks(page);
  const { cdp, id } = await authenticator(page);
  await page.goto(`${NAMED}/sign-in`);
  await fillSignIn(page, 'imre');
  await page.waitForURL('**/today');
  await page.goto(`${NAMED}/devices`);
  await expect(page.getByText('this one')).toBeVisible();
  await page.getByLabel(/Make a passkey/).fill('work phone');
  await page.getByRole('button', { name: 'Make it' }).click();
  await expect(page.getByText('work phone')).toBeVisible();
  await expectAccessible(page);
  await shot(page, 'devices');
  const signOut = async () => {
    await page.getByRole('button', { name: /Imre/ }).first().click();
    await page.getByRole('button', { name: 'Sign out', exact: true }).click();
    await page.waitForURL('**/sign-in');
  };
  await signOut();
  await page.getByRole('button', { name: 'Use a passkey' }).click();
  await page.waitForURL('**/today');
  await page.goto(`${NAMED}/devices`);
  await expect(page.getByText(/work phone/)).toBeVisible();
  await expect(page.getByText('not used yet')).toHaveCount(0);

  // an answer that was given once is given again: it serves nobody
  const { credentials } = await cdp.send('WebAuthn.getCredentials', { authenticatorId: id });
  expect(credentials).toHaveLength(1);
  const replayed = await page.request.post(`${NAMED}/api/session/passkey`, {
    data: { response: { id: 'x', rawId: 'x', type: 'public-key', response: {} } },
  });
  expect([replayed.status(), (await replayed.json()).error.code]).toEqual([409, 'challenge']);

  await page.getByRole('button', { name: 'End it' }).last().click();
  await expect(page.getByText('None yet.')).toBeVisible();
  await signOut();
  await page.getByRole('button', { name: 'Use a passkey' }).click();
  await expect(page.getByText(/not known here any more/)).toBeVisible();
});

test('where the address is a bare number the page says what to do; somebody else’s sign-in is ended by the owner alone @further', async ({
  page,
  browser,
}) => {
  await takeClocks(page);
  await page.goto(`${BASE}/sign-in`);
  await fillSignIn(page, 'tamsin');
  await page.waitForURL('**/today');
  const phone = await browser.newContext();
  const other = await phone.newPage();
  await takeClocks(other);
  await other.goto(`${BASE}/sign-in`);
  await fillSignIn(other, 'piet');
  await other.waitForURL('**/today');
  await page.goto(`${BASE}/devices`);
  await page.getByLabel(/Make a passkey/).fill('desk');
  await page.getByRole('button', { name: 'Make it' }).click();
  await expect(page.getByText(/Passkeys need an address with a name/)).toBeVisible();
  await page.goto(`${BASE}/organisation`);
  await page
    .getByRole('listitem')
    .filter({ hasText: 'Piet' })
    .getByRole('link', { name: 'Sign-ins of Piet Marangoni' })
    .click();
  await expect(page.getByRole('heading', { name: /Devices of Piet/ })).toBeVisible();
  for (;;) {
    const end = page.getByRole('button', { name: 'End it' });
    const before = await end.count();
    if (!before) break;
    await end.first().click();
    await expect(end).toHaveCount(before - 1);
  }
  await other.goto(`${BASE}/today`);
  await other.waitForURL('**/sign-in**');
  await phone.close();
});
