import { expect, test } from '@playwright/test';
import { BASE, BenchPage, expectAccessible, pass, shot, signIn, takeClocks, openedRecord } from './support';

/** Staged pumping: to each step, with what the pump delivered, then a dry look after the pause. */
async function pump(bench: BenchPage, steps: readonly (readonly [string, string, number])[]): Promise<void> {
  const { page } = bench;
  for (const [figure, litres, minutes] of steps) {
    await measured(bench, litres);
    await bench.enter(figure, /Reached/);
    await expect(page.getByRole('button', { name: /A joint drips/ })).toBeVisible();
    await pass(page, minutes * 60 + 1);
    await bench.enter(figure, /All joints dry/);
  }
}
/** On a phone the fields of a count that need not be made are folded away. */
async function measured(bench: BenchPage, litres: string): Promise<void> {
  const unfold = bench.page.getByRole('button', { name: 'Count the water pumped in' });
  if (await unfold.isVisible()) await unfold.click();
  await bench.page.getByLabel('or measured', { exact: true }).fill(litres);
}
async function topUp(
  bench: BenchPage,
  button: RegExp,
  before: string,
  after: string,
  litres: string,
): Promise<void> {
  const { page } = bench;
  await page.getByRole('button', { name: button }).click();
  await bench.enter(before, /Next: re-adjust/);
  await measured(bench, litres);
  await bench.enter(after, /Save the re-adjustment/);
}
const finish = async (bench: BenchPage, verdict: RegExp) => {
  const { page } = bench;
  await expect(page.getByRole('heading', { name: verdict })).toBeVisible();
  if (await page.getByRole('heading', { name: 'Put back', exact: true }).count()) await bench.putBack();
  await bench.sign();
  await bench.seal();
  await page.getByRole('link', { name: /Open the certificate/ }).click();
  await openedRecord(page);
};

test.describe('water', () => {
  let bench: BenchPage;
  test.beforeEach(async ({ page }) => {
    await takeClocks(page);
    await signIn(page, 'imre');
    bench = new BenchPage(page);
  });

  test(
    'drain and supply side by side: two clocks, couplings kept, supply on cannot be forgotten @further',
    { tag: '@phone' },
    async ({ page }) => {
      await page.goto(`${BASE}/places`);
      await page.getByRole('link', { name: /Gatehouse drain/ }).click();
      await page.getByRole('radio', { name: /^Drain: fill and hold/ }).check();
      await page
        .getByRole('group', { name: 'What is being tested?' })
        .getByRole('radio', { name: /under a slab/ })
        .check();
      await page
        .getByLabel('At the same time')
        .selectOption({ label: 'Gatehouse supply: House supply: isolate and hold' });
      await page.getByLabel('What is tested there').selectOption({ label: 'Whole house behind the meter' });
      await shot(page, 'start-beside');
      await page.getByRole('button', { name: 'Start the test' }).click();
      await page.waitForURL(/\/bench\//);
      const drain = page.url();
      const beside = page.locator('[data-companion]');
      await expect(beside).toContainText('Prepare');
      // the supply is ready, but the tap still feeds the hose
      await beside.getByRole('link').click();
      await page.waitForURL((u) => u.href !== drain);
      const supply = page.url();
      await bench.checks();
      await bench.observe(/It stands still/); // the meter, everything shut
      await bench.gauge('P-300');
      await bench.zero('0.0');
      await expect(page.getByText(/Wait: One tap serves the fill hose/)).toBeVisible();
      await bench.enter('62.2', /In the band|[Ss]tart the \d/);
      await expect(page.getByText('One tap serves the fill hose, then the gauge').first()).toBeVisible();
      await shot(page, 'supply-waits');
      await expectAccessible(page);
      // the drain: filled, bounce settled, hose off, held
      await page.keyboard.press('Tab');
      await page.goto(drain);
      await bench.checks(/air gap/);
      await bench.checks();
      await expect(page.getByText(/One millimetre is/)).toBeVisible();
      await shot(page, 'drain-fill');
      await bench.enter('62', /In the band|[Ss]tart the \d/);
      await bench.start('62');
      await pass(page, 240);
      await page.getByRole('button', { name: 'Reading', exact: true }).click();
      await bench.enter('55', /Save the reading/);
      await pass(page, 181); // it stands still over a tenth of the hold that follows
      await page.getByRole('button', { name: 'Read the level now' }).click();
      await bench.enter('55', /Settled/);
      await bench.checks();
      await bench.start('55');
      await page.getByRole('button', { name: 'Mark it' }).click();
      await page.getByLabel(/Where, and where/).fill('trap in the wash-up room');
      await page.getByRole('button', { name: 'Marked', exact: true }).click();
      await page.getByRole('button', { name: 'More', exact: true }).click();
      await page.getByRole('button', { name: 'Photo', exact: true }).click();
      await page.getByLabel(/Photo, by camera/).setInputFiles('docs/screenshots/certificate.png');
      await expect(page.getByText(/^1 with this stage/)).toBeVisible();
      await page.getByRole('button', { name: 'Back', exact: true }).click();
      await expect(
        page
          .getByRole('button', { name: 'Read the level now' })
          .or(page.getByRole('button', { name: /End reading in/ })),
      ).toBeVisible();
      await shot(page, 'drain-hold');
      await expectAccessible(page);
      // now the supply may go on, while the drain is held
      await page.goto(supply);
      await expect(page.locator('[data-companion]').getByRole('timer')).toBeVisible();
      await bench.enter('62.2', /In the band|[Ss]tart the \d/);
      await bench.checks();
      await bench.start('62.2');
      await pass(page, 61);
      await page.getByRole('button', { name: 'Reading', exact: true }).click();
      await bench.enter('62.2', /Save the reading/);
      await pass(page, 61);
      await bench.end('62.2');
      await bench.start('62.2');
      await shot(page, 'supply-hold');
      await pass(page, 600);
      await page.getByRole('button', { name: 'Reading', exact: true }).click();
      await bench.enter('62.2', /Save the reading/);
      // somebody draws: a step within seconds is offered as a disturbance
      await pass(page, 8);
      await page.getByRole('button', { name: 'Reading', exact: true }).click();
      await bench.enter('55.0', /Save the reading/);
      await expect(page.getByText(/A sudden step of/)).toBeVisible();
      await shot(page, 'supply-step');
      await page.getByRole('button', { name: 'Log a disturbance' }).click();
      await page.getByRole('button', { name: 'Water was drawn or flushed' }).click();
      await page.getByRole('button', { name: 'Log it' }).click();
      await bench.enter('62.1', /In the band|[Ss]tart the \d/);
      await bench.start('62.1');
      await pass(page, 61);
      await page.getByRole('button', { name: 'Reading', exact: true }).click();
      await bench.enter('62.1', /Save the reading/);
      await pass(page, 61);
      await bench.end('62.1');
      await bench.holdPlanned('62.1', '62.1');
      await bench.enter('42.0', /In the band|[Ss]tart the \d/);
      await bench.holdFor(180, '42.0', '42.0');
      // the water is off: left alone it rings until it is confirmed
      await pass(page, 301);
      await expect(page.locator('[data-urgent=late]')).toContainText('Supply ON');
      await shot(page, 'supply-owed');
      await bench.checks();
      await expect(page.locator('[data-urgent]')).toHaveCount(0);
      await bench.zero('0.0');
      await finish(bench, /^Tight/);
      // the drain ran on by itself meanwhile
      await page.goto(drain);
      await page.getByRole('button', { name: 'Read the level now' }).click();
      await bench.enter('54', /end reading/);
      await expect(page.getByText(/Look at the second place too/)).toBeVisible();
      await page
        .getByRole('button', { name: 'Cancel' })
        .or(page.getByRole('button', { name: 'Back' }))
        .first()
        .click();
      await page.getByRole('button', { name: 'Look at it' }).click();
      await page.getByRole('button', { name: 'Unchanged' }).click();
      await page.getByRole('button', { name: 'Read the level now' }).click();
      await bench.enter('54', /end reading/);
      await bench.checks();
      await bench.checks();
      await bench.checks();
      await finish(bench, /^Tight/);
      await expect(page.getByText(/Head at the lowest point/)).toBeVisible();
      await expect(page.getByText(/Second place at the end/)).toBeVisible();
    },
  );

  test('plastic pipe by the limits of its fall: stages, top-ups with their water, the clock from the last one @further', async ({
    page,
  }) => {
    await page.goto(`${BASE}/places`);
    await page.getByRole('link', { name: /Dye house water/ }).click();
    await page.getByRole('radio', { name: /^Pipework with water: raised/ }).check();
    await page
      .getByRole('group', { name: 'What is being tested?' })
      .getByRole('radio', { name: /^Plastic/ })
      .check();
    await page.getByText('Where schools differ').click();
    await page.getByLabel('Plastic pipe after pumping').selectOption({ label: 'B: limits of the fall, 3 h' });
    await page.getByLabel('Witnessed repeat?').selectOption({ label: 'no witness' });
    await page.getByRole('button', { name: 'Start the test' }).click();
    await page.waitForURL(/\/bench\//);
    await bench.checks();
    await bench.gauge('B-16');
    await bench.zero('0.00');
    await bench.checks();
    await shot(page, 'pump-first');
    await pump(bench, [['1.80', '0.21', 2]]);
    await expect(page.getByText(/Trapped air by the strokes/)).toBeVisible();
    await shot(page, 'pump-second');
    await expectAccessible(page);
    await pump(bench, [
      ['3.90', '0.02', 2],
      ['6.15', '0.02', 1],
    ]);
    await bench.start('6.14');
    await pass(page, 600);
    await topUp(bench, /Re-adjusted/, '5.95', '6.15', '0.09');
    await shot(page, 'b-pumping');
    await pass(page, 1201);
    await bench.end('6.10');
    // the three hours run from that figure: nothing to start
    await expect(page.getByRole('timer', { name: /time left (29|30):/ }).first()).toBeVisible();
    await expect(page.getByText(/since pumping ended, a fall of/)).toBeVisible();
    await shot(page, 'b-hold');
    await pass(page, 1800);
    await bench.end('5.60');
    await pass(page, 7200);
    await bench.end('5.41');
    await bench.checks();
    await bench.enter('4.05', /In the band|[Ss]tart the \d/);
    await bench.checks();
    await finish(bench, /^Tight/);
    await expect(page.getByText(/Stretched pipe fell by/).first()).toBeVisible();
    await shot(page, 'b-record');
    await page.getByRole('link', { name: 'Its watch' }).click();
    await expect(page.getByText('Not read yet since it was left.')).toBeVisible();
  });

  test('@further a buried main: decay loss drained and scaled, make-up beside its limit', async ({
    page,
  }) => {
    await bench.begin({
      system: /River lane main/,
      procedure: /^Buried main: make-up and decay/,
      case: /New main/,
    });
    await bench.checks();
    await bench.gauge('P-300');
    await bench.zero('0.0');
    await bench.checks();
    await pump(bench, [
      ['76.0', '2.7', 5],
      ['152.5', '2.7', 1],
    ]);
    await bench.start('152.4');
    await pass(page, 12 * 60);
    await page.getByRole('button', { name: 'Reading', exact: true }).click();
    await bench.enter('152.4', /Save the reading/);
    await pass(page, 181);
    await bench.end('152.4');
    await bench.holdFor(3600, '152.4', '145.6');
    await bench.enter('152.4', /In the band|[Ss]tart the \d/);
    await page.getByLabel('In the vessel', { exact: true }).fill('0.24');
    await shot(page, 'main-draw');
    await bench.enter('145.6', /Drained and measured/);
    await bench.enter('152.4', /In the band|[Ss]tart the \d/);
    await bench.start('152.4');
    await pass(page, 3600);
    await topUp(bench, /Water added/, '149.0', '152.4', '0.12');
    await expect(page.getByText(/permitted over the hold/)).toBeVisible();
    await shot(page, 'main-make-up');
    await pass(page, 3601);
    await bench.end('149.9');
    await expect(page.getByText(/Bring it back to 152.4 psi/).first()).toBeVisible();
    await page
      .getByRole('button', { name: 'Cancel' })
      .or(page.getByRole('button', { name: 'Back' }))
      .first()
      .click();
    await topUp(bench, /Water added/, '149.9', '152.4', '0.09');
    await bench.end('152.4');
    await bench.checks();
    await bench.checks();
    await bench.zero('0.0');
    await finish(bench, /^Tight within allowance/);
    await expect(page.getByText(/Two loss figures, kept apart/)).toBeVisible();
    await expect(page.getByText(/Make-up at test pressure: 0.21 l/)).toBeVisible();
    await shot(page, 'main-record');
  });
});

test(
  'a watch on a phone, without signing in: a reading, a fall that is told, a correction',
  { tag: ['@phone', '@further'] },
  async ({ page, browser }) => {
    await signIn(page, 'ngaire');
    await page
      .getByRole('region', { name: 'Under watch' })
      .getByRole('link', { name: /Mill hall: Hall floor heating/ })
      .first()
      .click();
    await page.getByRole('button', { name: /^Make (a new|the) link/ }).click();
    const link = await page.locator('[data-watch-link]').inputValue();
    await expectAccessible(page);
    const phone = await browser.newContext({ viewport: { width: 390, height: 844 }, hasTouch: true });
    const there = await phone.newPage();
    await there.goto(link);
    await expect(there.getByText('2.50 bar').first()).toBeVisible();
    await expect(there.getByText('Sefa')).toHaveCount(0); // nothing that others wrote
    await there.getByRole('button', { name: 'Keep this reading' }).click();
    await expect(there.getByText('Type what the gauge shows.')).toBeVisible();
    await there.getByLabel('The gauge shows').fill('2.46');
    await there.getByLabel('Your name').fill('Amaru Osei');
    await there.getByLabel(/Trade/).fill('joinery');
    await shot(there, 'watch-link');
    await expectAccessible(there);
    await there.getByRole('button', { name: 'Keep this reading' }).click();
    await expect(there.getByText('Kept: it stands.')).toBeVisible();
    await there.getByRole('button', { name: 'Another entry' }).click();
    await there.getByLabel('The gauge shows').fill('0.30');
    await there.getByRole('button', { name: 'Keep this reading' }).click();
    await expect(there.locator('[data-kept=fell]')).toContainText('call: 555-0140');
    await shot(there, 'watch-fell');
    // the office sees it at once, dated between two readings, with who was there
    await page.reload();
    await expect(page.locator('[data-watch=lost]')).toContainText(
      /Held until .* lost between .* Amaru Osei, joinery/,
    );
    await shot(page, 'watch-lost');
    // it was misread: corrected, and both stay
    await there.getByRole('button', { name: 'Correct it' }).first().click();
    await there.getByLabel('Right figure').fill('2.44');
    await there.getByLabel('Why').fill('wrong gauge');
    await there.getByRole('button', { name: /Correct it; the first stays/ }).click();
    await expect(there.getByText('2.44 bar').first()).toBeVisible();
    await page.reload();
    await expect(page.locator('[data-watch=holds]')).toBeVisible();
    await expect(page.getByText(/first 0.30 bar; corrected: wrong gauge/).first()).toBeVisible();
    // the link ends at once
    await page.getByRole('button', { name: 'End the link' }).click();
    await expect(page.getByRole('button', { name: 'Make the link' })).toBeVisible();
    await there.reload();
    await expect(there.getByText('This link has ended')).toBeVisible();
    await phone.close();
  },
);
