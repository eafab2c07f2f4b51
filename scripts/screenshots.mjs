// Refreshes docs/screenshots from a running demo: VAST_BENCH_URL=http://127.0.0.1:3000 npm run screenshots
import { execFileSync } from 'node:child_process';
import { existsSync, mkdirSync, writeFileSync } from 'node:fs';
import { chromium } from 'playwright-core';
import { launchOptions } from './chromium.mjs';

const url = process.env.VAST_BENCH_URL ?? 'http://127.0.0.1:3000';
const folder = 'docs/screenshots';
mkdirSync(folder, { recursive: true });
const browser = await chromium.launch(launchOptions);

async function person(who, theme, width, height) {
  const context = await browser.newContext({
    viewport: { width, height },
    colorScheme: theme === 'basalt' ? 'dark' : 'light',
  });
  const page = await context.newPage();
  await page.goto(`${url}/sign-in`);
  if (who) {
    await page.getByLabel('E-mail').fill(`${who}@hollin-tarrow.example`);
    await page.getByLabel('Password').fill(`millrace-${who}`);
    await page.getByRole('button', { name: 'Sign in', exact: true }).click();
    await page.waitForURL('**/today');
  }
  const shot = async (name) => {
    await page.waitForTimeout(500);
    await page.screenshot({ path: `${folder}/${name}.png` });
  };
  return { page, shot, context };
}
async function begin(page, practice) {
  await page.goto(`${url}/places`);
  await page.getByRole('link', { name: /Bakery gas/ }).click();
  await page
    .getByRole('radio', { name: /^Staged low-pressure test/ })
    .first()
    .check();
  await page.getByRole('radio', { name: /Existing installation/ }).check();
  await page.getByRole('button', { name: practice ? /Practise on/ : 'Start the test' }).click();
  await page.waitForURL(/bench/);
  await page.locator('ul[data-left]').waitFor();
}
async function checks(page) {
  const list = page.locator('ul[data-left]');
  const visit = await list.getAttribute('data-visit');
  const here = page.locator(`ul[data-visit="${visit}"]`);
  while (await here.count()) {
    const before = await here.getAttribute('data-left');
    const ask = here
      .getByRole('group')
      .filter({ hasNot: page.locator('[aria-pressed=true]') })
      .getByRole('button', { name: 'No', exact: true })
      .and(page.locator(':enabled'));
    if (await ask.count()) await ask.first().click();
    else await here.locator('button:enabled:has-text("Tap when")').first().click();
    await page.locator(`ul[data-visit="${visit}"][data-left="${before}"]`).waitFor({ state: 'detached' });
  }
}
async function enter(page, figure, save) {
  // the keypad of this step, not the one before
  await page.getByRole('button', { name: save }).waitFor();
  await page.getByRole('form', { name: 'Entry' }).getByRole('textbox').first().fill(figure);
  const tick = page.getByRole('form', { name: 'Entry' }).getByRole('checkbox');
  if (await tick.count()) await tick.check();
  await page.getByRole('button', { name: save }).click();
}
async function toHold(page) {
  await checks(page);
  await page
    .getByRole('listitem')
    .filter({ hasText: 'G-02' })
    .getByRole('button', { name: 'Use this gauge' })
    .click();
  await page.getByRole('button', { name: /it shows 0.00/ }).click();
  await enter(page, '9.10', /start the/);
  await page.getByRole('timer').first().waitFor();
}
const reading = async (page, figure) => {
  await page.getByRole('button', { name: 'Reading', exact: true }).click();
  await enter(page, figure, /Save the reading/);
};

const wide = await person('imre', 'chalk', 1280, 800);
await begin(wide.page);
await toHold(wide.page);
await wide.page.waitForTimeout(9000);
await reading(wide.page, '9.12');
await wide.page.waitForTimeout(8000);
await reading(wide.page, '9.11');
await wide.shot('bench-hold');
await wide.page.goto(`${url}/today`);
await wide.shot('today');
await wide.page.goto(`${url}/places`);
await wide.page.getByRole('link', { name: /Bakery gas/ }).click();
await wide.page.getByRole('heading', { name: 'Start a test' }).waitFor();
await wide.shot('system');
const home = wide.page.url();
await wide.page.goto(`${home}/drawing`);
await wide.shot('drawing');
await wide.page.goto(`${url}/places`);
await wide.page.getByRole('link', { name: /Lido pool/ }).click();
await wide.page.getByRole('heading', { name: 'Lines' }).waitFor();
await wide.shot('pool');
await wide.page.goto(`${url}/places`);
await wide.page.getByRole('link', { name: /Kiln gas/ }).click();
await wide.page
  .getByRole('radio', { name: /^Air test of pipework/ })
  .first()
  .check();
await wide.page.getByRole('group', { name: 'What is being tested?' }).getByRole('radio').last().check();
await wide.page.getByRole('button', { name: /Plan it/ }).click();
await wide.page.getByText('Gauge that judges').waitFor();
await wide.shot('plan');
await wide.page.goto(`${url}/plan`);
await wide.page
  .getByRole('link', { name: /bakery and kiln/ })
  .first()
  .click();
await wide.page.locator('[data-band]').waitFor();
await wide.shot('visit');
await wide.page.goto(`${url}/cabinet`);
await wide.shot('cabinet');
await wide.page.goto(`${url}/desk#leak-rate?V=24.8l&p0=20.5mbar&p1=20.1mbar`);
await wide.page.locator('[data-result="Q"]').waitFor();
await wide.shot('desk');
await wide.page.goto(`${url}/ledger`);
await wide.shot('ledger');
await wide.page.goto(`${url}/today`);
await wide.page
  .getByRole('region', { name: 'Under watch' })
  .getByRole('link', { name: /Hall floor heating/ })
  .click();
await wide.page.getByText('Read it now').waitFor();
await wide.shot('watch');
await wide.page.goto(`${url}/rules/gas-imperial?procedure=gas-air-pipework`);
await wide.shot('rules');
await wide.page.goto(`${url}/yard/questions`);
await wide.page.getByRole('button', { name: /^Which verdict/ }).click();
const question = wide.page.locator('[data-question=verdict]');
await question.waitFor();
for (const group of await question.locator('fieldset').all()) await group.getByRole('radio').first().check();
await question.getByRole('button', { name: 'That is my answer' }).click();
await wide.page.locator('[data-told]').waitFor();
await wide.page.evaluate(() => scrollTo(0, 0));
await wide.shot('yard');
await wide.page.goto(`${url}/ledger`);
await wide.page
  .getByRole('link', { name: /Bakery gas/ })
  .filter({ hasText: 'Tight within allowance' })
  .first()
  .click();
await wide.page.getByText('Trace of the judged hold').waitFor();
await wide.shot('record');
const pdf = await wide.page.request.get(
  url +
    (await wide.page
      .getByRole('link', { name: /PDF, for/ })
      .first()
      .getAttribute('href')),
);
writeFileSync('/tmp/certificate.pdf', await pdf.body());
if (existsSync('/usr/bin/pdftoppm'))
  execFileSync('pdftoppm', [
    '-r',
    '80',
    '-png',
    '-singlefile',
    '/tmp/certificate.pdf',
    `${folder}/certificate`,
  ]);

// a leak as it goes through its book
await wide.page.goto(`${url}/places`);
await wide.page.getByRole('link', { name: /Bakery gas/ }).click();
await wide.page.getByRole('link', { name: 'Leak book' }).click();
const leak = async (joint, part, size) => {
  await wide.page.getByRole('button', { name: 'Write down a leak' }).click();
  const form = wide.page.getByRole('form', { name: 'A leak that was found' });
  await form.getByLabel(/^Which joint/).fill(joint);
  await form.getByLabel(/^At which part/).selectOption({ label: part });
  await form.getByRole('button', { name: size, exact: true }).click();
  await form.getByRole('button', { name: 'Into the book' }).click();
  await form.waitFor({ state: 'detached' });
};
await leak('union behind the range', 'Four-burner range', 'pea');
const first = wide.page.locator('[data-leak]').first();
const done = async (what, label, words) => {
  await first.getByRole('button', { name: what }).click();
  await first.getByLabel(label).fill(words);
  await first.getByRole('button', { name: 'Into the book' }).click();
  await first.getByText(words).waitFor();
};
await done('Made safe', 'How it was made safe', 'valve of the range shut, vented, labelled');
await done('Mended', 'What was mended', 'union remade with a new washer');
await leak('nipple at the oven', 'Deck oven', 'larger');
await wide.shot('leak-book');

const practice = await person('tamsin', 'basalt', 1280, 800);
await practice.page.goto(`${url}/places`);
await practice.page.getByRole('link', { name: /Loft air/ }).click();
await practice.page.getByRole('radio', { name: /^Duct tightness/ }).check();
await practice.page.getByRole('radio', { name: /^Rough-in, air handler in place/ }).check();
await practice.page.getByLabel('Hidden fault').selectOption('ring');
await practice.page.getByRole('button', { name: /Practise on/ }).click();
await practice.page.waitForURL(/bench/);
for (let i = 0; i < 3; i++) await checks(practice.page);
await practice.page.getByRole('button', { name: 'Use this gauge' }).click();
await practice.page.getByText(/Take the display/).waitFor();
await enter(practice.page, '0', 'Zero is proved');
await practice.page.getByRole('button', { name: /^ring 3:/ }).click();
await practice.page.getByRole('button', { name: 'No reading that decides can be had' }).click();
await practice.page.getByLabel(/Why/).fill('no cap at hand');
await practice.page.getByRole('button', { name: 'Go on without' }).click();
await checks(practice.page);
await practice.page.getByRole('button', { name: /another ring$/ }).click();
await practice.page.getByRole('button', { name: /^ring 2:/ }).click();
await enter(practice.page, '0', /^Take it/);
await practice.page.getByRole('button', { name: 'Gauge open to air' }).click();
const both = practice.page.getByRole('button', { name: /^Both stand still/ });
for (const speed of ['+10 %', '+10 %', '+10 %', '+10 %'])
  await practice.page.getByRole('button', { name: speed }).click();
await practice.page.waitForTimeout(2500);
await both.click();
await practice.page.getByRole('button', { name: 'Read once more' }).click();
await practice.page.getByRole('button', { name: '−10 %' }).click();
await practice.page.waitForTimeout(2500);
await both.click();
await practice.page.getByRole('button', { name: 'Look at the fan' }).click();
await practice.page.waitForTimeout(1000);
await practice.shot('practice-fan');

const phone = await person('piet', 'basalt', 390, 844);
await phone.shot('phone-today');
await begin(phone.page);
await toHold(phone.page);
await phone.page.waitForTimeout(6000);
await reading(phone.page, '9.12');
await phone.shot('phone-hold');
await browser.close();
