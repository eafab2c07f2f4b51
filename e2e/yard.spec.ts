/** The Yard: fooled once by the balance, shown why, right the second time; an exam set, sat and signed on two screens; a plug slips. */
import { expect, test, type Locator, type Page } from '@playwright/test';
import { BASE, BenchPage, expectAccessible, hold, pass, shot, signIn, takeClocks } from './support';

const seen = (page: Page, name: string): Locator =>
  page.getByRole('region', { name }).locator('visible=true').first();
const works = (page: Page) => seen(page, 'Simulated installation');
const yard = (page: Page) => page.locator('[data-yard]').locator('visible=true').first();
/** Begins a scenario and stands at its bench with the supply shut, the gauge zeroed by hand and connected. */
async function begin(page: Page, title: string): Promise<BenchPage> {
  await page.goto(`${BASE}/yard`);
  await page
    .getByRole('button', { name: `Begin ${title}`, exact: true })
    .last()
    .click();
  await page.waitForURL(/\/bench\//);
  await expect(page.locator('[data-left]')).toBeVisible();
  await works(page).getByRole('button', { name: 'Shut', exact: true }).click();
  await works(page).getByRole('button', { name: 'Zero it' }).click();
  const bench = new BenchPage(page);
  await bench.checks();
  await bench.gauge('Simulated gauge');
  await bench.zero();
  await works(page).getByRole('button', { name: 'Open to air' }).click();
  return bench;
}
/** The wait that nothing is asked in is passed at once, then the last seconds. */
async function passed(page: Page): Promise<void> {
  const button = yard(page).getByRole('button', { name: /^Pass / });
  await button.click();
  await expect(button).toHaveCount(0);
  await pass(page, 9);
}
/** The end of a hold, read and typed although the gauge streams. */
async function ends(bench: BenchPage, figure: string): Promise<void> {
  await bench.page.getByRole('button', { name: 'Read the gauge and type it' }).click();
  await bench.enter(figure, /end reading|Settled/);
}
async function concludes(page: Page, cause: string): Promise<void> {
  await yard(page).getByLabel('Cause').selectOption(cause);
  await yard(page)
    .getByRole('button', { name: /Say so/ })
    .click();
  await yard(page).getByRole('link', { name: 'See what it was' }).click();
  await page.waitForURL(/\/yard\//);
}
/** An apprentice begins the let-by where valve and leak are in balance, and is content. */
async function fooled(page: Page): Promise<void> {
  await takeClocks(page);
  await signIn(page, 'piet');
  const bench = await begin(page, 'Nothing moves');
  await bench.fill('9.80');
  await bench.start('9.80');
  await passed(page);
  await ends(bench, '9.82');
  // the let-by stands: for the apprentice that is enough
  await expect(page.locator('h1')).toContainText('Raise, test');
  await page.getByRole('button', { name: 'STOP' }).click();
  await page.getByRole('button', { name: 'The test is given up' }).click();
  await concludes(page, 'sound');
}

test('an apprentice is fooled by the balance, sees why, and is right the second time @further', async ({
  page,
}) => {
  await fooled(page);
  await expect(page.locator('[data-end]')).toHaveAttribute('data-end', 'unfinished');
  await expect(page.locator('[data-line=valve-unmasked]')).toContainText('begun low in its band');
  await expect(
    page.getByText(/the valve lets 0.65 l\/h in and the oven lets 0.65 l\/h out/).first(),
  ).toBeVisible();
  await expectAccessible(page);
  await shot(page, 'yard-fooled');

  const again = await begin(page, 'Nothing moves');
  await again.fill('7.05');
  await again.start('7.05');
  await passed(page);
  await ends(again, '7.33');
  await again.checks();
  await hold(page, /Bubbles grow/);
  await again.checks();
  await expect(page.getByRole('heading', { name: 'Void' })).toBeVisible();
  await again.putBack();
  await concludes(page, 'valve-and-leak');
  await expect(page.locator('[data-line=valve-unmasked]')).toContainText('Boundary proved');
  // the place was not named: everything else was right and proved
  await expect(page.locator('[data-end]')).toHaveAttribute('data-end', 'right');
  await page.getByRole('link', { name: 'Back to the Yard' }).click();
  await expect(page.locator('[data-scenario=gas-balance]').last()).toContainText('right, with gaps');
});

test('an exam is set, sat and signed on two screens; what is hidden stays hidden until then @further', async ({
  page,
  browser,
}) => {
  await takeClocks(page);
  await signIn(page, 'ngaire');
  await page.goto(`${BASE}/yard/board`);
  const form = page.getByRole('form', { name: 'Set a scenario' });
  await form.getByLabel('To whom').selectOption({ label: 'Piet Marangoni' });
  await form.getByRole('combobox').nth(1).selectOption({ label: 'gas: The quiet one' });
  await form.getByRole('combobox').nth(2).selectOption({ label: 'Your own hose leaks' });
  await form.getByLabel('A word to them').fill('Take your time');
  await form.getByRole('button', { name: 'Set it' }).click();
  await expect(form.getByText(/it stands in their Yard/)).toBeVisible();
  await expectAccessible(page);

  const other = await (await browser.newContext()).newPage();
  await takeClocks(other);
  await signIn(other, 'piet');
  await other.goto(`${BASE}/yard`);
  await expect(other.locator('[data-task=set]')).toContainText('Exam, gas');
  await other.getByRole('button', { name: 'Sit the exam' }).click();
  await other.waitForURL(/\/bench\//);
  await expect(yard(other)).toContainText('Practice: exam');
  const run = other.url().split('/').pop()!;

  // the one who trains looks on, says something, and sees what is true
  await page.goto(`${BASE}/yard/${run}/watch`);
  await expect(page.getByText(/Hidden: Your own hose leaks/)).toBeVisible();
  await page.getByLabel('Say something').fill('The clock runs.');
  await page.getByRole('button', { name: 'Say it' }).click();
  await expect(yard(other).getByText(/The clock runs\./)).toBeVisible();
  await page.getByRole('button', { name: 'Stop hands and clock' }).click();
  await expect(yard(other).getByText(/has stopped your hands/)).toBeVisible();
  await works(other).getByRole('button', { name: 'Shut', exact: true }).click();
  await expect(works(other).getByRole('alert')).toContainText(/stopped your hands/);
  await page.getByRole('button', { name: 'Let it go on' }).click();
  await expectAccessible(page);

  await other.getByRole('button', { name: 'STOP' }).click();
  await other.getByRole('button', { name: 'The test is given up' }).click();
  await yard(other).getByLabel('Cause').selectOption('kit');
  await yard(other)
    .getByRole('button', { name: /Say so/ })
    .click();
  await yard(other).getByRole('link', { name: 'See what it was' }).click();
  await expect(other.getByText(/told when the one who set it has looked at it and signed/)).toBeVisible();
  await page.getByLabel('A word with it').fill('Soap first next time.');
  await page.getByRole('button', { name: 'Sign what came of it' }).click();
  await expect(page.getByText(/can see it now/)).toBeVisible();
  await other.reload();
  await expect(other.getByText('Soap first next time.')).toBeVisible();
  await expect(other.locator('[data-end]')).toBeVisible();
});

test(
  'dangerous is stopped: somebody kneels in line with a plug, on a phone in one hand',
  { tag: '@phone' },
  async ({ page }) => {
    await takeClocks(page);
    await signIn(page, 'piet');
    await page.goto(`${BASE}/yard`);
    await page.getByRole('button', { name: 'Begin In line with the plug' }).last().click();
    await page.waitForURL(/\/bench\//);
    await expect(yard(page)).toContainText('Practice: In line with the plug');
    await expectAccessible(page);
    await shot(page, 'yard-phone');
    // nothing was entered yet: the task stands open
    await expect(yard(page).getByRole('button', { name: 'The task' })).toHaveAttribute(
      'aria-expanded',
      'true',
    );
    await yard(page).getByRole('button', { name: 'Give up and see what it was' }).click();
    await expect(yard(page).locator('[data-halted]')).toContainText('Given up');
    await concludes(page, 'kit');
    await expect(page.locator('[data-end]')).toHaveAttribute('data-end', 'unfinished');
  },
);

test('what went wrong is taken up again from there; questions are put, marked and told; a statement says what it was @both @further', async ({
  page,
}) => {
  await fooled(page);
  await pass(page, 86_400);
  await page.getByRole('button', { name: 'Go on from where it went wrong' }).click();
  await page.waitForURL(/\/bench\//);
  // it stands before the let-by, as if the day had not gone by; what was done before stands
  await expect(yard(page)).toContainText('Nothing moves');
  await expect(page.locator('h1')).toContainText(/let-by/i);
  await shot(page, 'yard-again');

  await page.goto(`${BASE}/yard/questions`);
  for (const [about, kind] of [
    ['verdict', /^Which verdict/],
    ['trace', /^Read this trace/],
    ['figure', /^Figures and units/],
  ] as const) {
    const told = page.getByRole('button', { name: kind });
    const before = Number(/of (\d+) right/.exec((await told.textContent()) ?? '')?.[1] ?? 0);
    await told.click();
    const question = page.locator(`[data-question=${about}]`);
    await expect(question).toBeVisible();
    for (const group of await question.locator('fieldset').all())
      await group.getByRole('radio').first().check();
    const figure = question.locator('input[inputmode=decimal]');
    if (await figure.count()) await figure.fill('1');
    await expectAccessible(page);
    await question.getByRole('button', { name: 'That is my answer' }).click();
    await expect(page.locator('[data-told]')).toBeVisible();
    await expect(told).toContainText(`of ${before + 1} right`);
  }
  await shot(page, 'yard-question');
  await page.getByRole('link', { name: 'Why it is so' }).click();
  await page.getByLabel(/Of the flow through cracks/).fill('100');
  await expect(page.getByText('1.00', { exact: true })).toBeVisible();
  await expectAccessible(page);

  await page.goto(`${BASE}/yard`);
  await page.getByRole('link', { name: 'Statements' }).click();
  await page.getByRole('button', { name: 'Make one as of today' }).click();
  await page.waitForURL(/\/yard\/statements\/[0-9a-f]{8}/);
  await expect(page.getByRole('heading', { name: 'Short questions' })).toBeVisible();
  await expect(page.getByText(/no certificate, no licence/)).toBeVisible();
  await expectAccessible(page);
  const paper = await page.request.get(
    `${BASE}${(await page.getByRole('link', { name: 'On paper (PDF)' }).getAttribute('href'))!}`,
  );
  expect(paper.headers()['content-type']).toBe('application/pdf');
  expect((await paper.body()).subarray(0, 5).toString()).toBe('%PDF-');
});
