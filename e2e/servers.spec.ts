import { spawn } from 'node:child_process';
import path from 'node:path';
import { expect, test } from '@playwright/test';
import { BASE, BenchPage, signIn } from './support';

/** Two web servers on one database behave as one: a bench on the first, a gauge and another bench on the second. */
const TWIN = process.env.VAST_E2E_TWIN;

test('a gauge that sends to one server is seen on a bench of the other; what is entered on one is known on both at once', async ({
  page,
  browser,
}) => {
  test.skip(!TWIN, 'run by ./check, which starts the second server');
  await signIn(page, 'imre');
  const bench = new BenchPage(page);
  await bench.begin({ case: /Pipework alone/ });
  await bench.checks();
  // the gauge of the test is paired from the bench: a code, read out, typed into the device
  await page
    .getByRole('button', { name: /Use this gauge/ })
    .first()
    .click();
  await page.getByText('It sends what it shows by itself?').click();
  await page.getByRole('button', { name: 'It sends by itself: pair it' }).click();
  const code = (await page.getByText(/^[A-Z2-9]{4}-[A-Z2-9]{4}$/).textContent())!;
  const client = spawn(
    process.execPath,
    [path.resolve('stand-ins/example-gauge/client.mjs'), TWIN!, code, 'mbar', '2'],
    { stdio: ['pipe', 'ignore', 'pipe'] },
  );
  let said = '';
  client.stderr.on('data', (d: Buffer) => (said += d.toString()));
  const shows = setInterval(() => client.stdin.write('0.00\n'), 300);
  try {
    await expect.poll(() => said).toContain('Paired.');
    // the code is used up, and what the gauge shows on the other server stands here
    await expect(page.getByText(code)).toHaveCount(0);
    await expect(page.getByRole('button', { name: /with the display/ })).toBeVisible();
    // a second person's bench, on the other server: what is entered here is known there without asking
    const there = await (await browser.newContext()).newPage();
    await signIn(there, 'tamsin', undefined, TWIN);
    await there.goto(page.url().replace(BASE, TWIN!));
    const other = new BenchPage(there);
    await expect(there.getByRole('button', { name: /Zero is proved/ })).toBeVisible();
    const before = (await other.counts()).office;
    await bench.zero();
    await expect.poll(async () => (await other.counts()).office).toBeGreaterThan(before);
    await expect(there.getByRole('button', { name: /Zero is proved/ })).toHaveCount(0);
    // the display streams into the one log, each point once
    await expect
      .poll(
        async () => {
          const log = (await (await page.request.get(`${BASE}/api/runs/${bench.run}`)).json()) as {
            events: { kind: string; position: number }[];
          };
          expect(log.events.map((e) => e.position)).toEqual(log.events.map((_, n) => n + 1));
          return log.events.filter((e) => e.kind === 'stream').length;
        },
        { timeout: 40_000 },
      )
      .toBeGreaterThan(0);
  } finally {
    clearInterval(shows);
    client.kill();
  }
});
