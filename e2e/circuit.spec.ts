import { expect, test, type Page } from '@playwright/test';
import { BASE, BenchPage, expectAccessible, pass, passAway, shot, signIn, takeClocks } from './support';

const DAY = 86_400;
class CircuitBench extends BenchPage {
  async beginOn(procedure: RegExp, side?: RegExp): Promise<void> {
    const { page } = this;
    await page.goto(`${BASE}/places`);
    await page.getByRole('link', { name: /Cold store circuit/ }).click();
    await page.getByRole('radio', { name: procedure }).first().check();
    if (side)
      await page.getByRole('group', { name: 'Which side' }).getByRole('button', { name: side }).click();
    await page.getByRole('radio', { name: /Opened and joined again/ }).check();
    await page.getByRole('button', { name: 'Start the test' }).click();
    await page.waitForURL(/\/bench\//);
  }
  /** The cylinder's label, and that regulator and hose of the cabinet fit. */
  async cylinder(label: RegExp): Promise<void> {
    const { page } = this;
    await page
      .getByRole('group', { name: 'What does its label say?' })
      .getByRole('button', { name: label })
      .click();
    await page.getByRole('checkbox', { name: /wound right out/ }).check();
    await page.getByRole('checkbox', { name: /tied at both ends/ }).check();
  }
  /** A settling period with a reading in it, so that it is seen to stand still. */
  async settleStill(figure: string, seconds = 301): Promise<void> {
    await this.start(figure);
    await pass(this.page, Math.round(seconds * 0.45));
    await this.page.getByRole('button', { name: 'Reading', exact: true }).click();
    await this.enter(figure, /Save the reading/);
    await pass(this.page, Math.round(seconds * 0.6));
    await this.end(figure);
  }
  async warmth(when: string, of: readonly (readonly [string, string])[]): Promise<void> {
    const { page } = this;
    for (const [place, celsius] of of) {
      await page.getByRole('button', { name: 'Temperatures' }).click();
      await page
        .getByRole('group', { name: 'Where' })
        .getByRole('button', { name: place, exact: true })
        .click();
      await page.getByLabel(new RegExp(`${place} now`)).fill(celsius);
      await page.getByRole('button', { name: when }).click();
      await expect(page.getByRole('button', { name: 'Temperatures' })).toBeVisible();
    }
  }
}
/** The record's own page says what became of it. */
const says = (page: Page, text: RegExp) => expect(page.getByText(text).first()).toBeVisible();

test('one side of a circuit from strength to tightness, then the vacuum of the whole, over three days @both @further', async ({
  page,
}) => {
  await takeClocks(page);
  await signIn(page, 'imre');
  const bench = new CircuitBench(page);

  // the first day: strength, in stages, and nitrogen that stays in
  await bench.beginOn(/^Strength of a refrigerant circuit/, /^Low side/);
  await bench.checks();
  await bench.checks();
  await bench.gauge('N-60');
  await bench.zero();
  await bench.checks();
  await bench.cylinder(/^Oxygen$/);
  await says(page, /OXYGEN AND OIL EXPLODE/);
  await expect(page.getByRole('button', { name: 'Not with this gas' })).toBeDisabled();
  await shot(page, 'cylinder');
  await expectAccessible(page);
  await page.getByRole('button', { name: /^Nitrogen, oxygen-free/ }).click();
  await page.getByRole('button', { name: 'Open it slowly: go on' }).click();
  await bench.fill('1.02');
  await bench.holdPlanned('1.02', '1.02');
  for (const [step, pause] of [
    ['5.10', 61],
    ['10.20', 121],
    ['15.30', 121],
    ['20.50', 61],
  ] as const) {
    await bench.enter(step, /Reached/);
    await pass(page, pause);
    await bench.enter(step, /No bubbles, no hiss/);
  }
  await bench.checks();
  await bench.checks();
  await bench.settleStill('20.46');
  await bench.holdPlanned('20.46', '20.45');
  await bench.fill('18.30');
  await bench.checks();
  await page
    .getByRole('button', { name: /go on|All clear|Every joint/ })
    .last()
    .click();
  await bench.checks();
  await bench.sign();
  await bench.seal();
  await says(page, /Withstood/);

  // a day later: what was left in is read; an hour with pipe and room
  await passAway(DAY);
  await bench.beginOn(/^Tightness of a refrigerant circuit/, /^Low side/);
  await bench.checks();
  await bench.checks();
  await bench.gauge('N-60');
  await bench.zero();
  await bench.checks();
  await says(page, /18\.30 bar/);
  await bench.observe(/^In the band/);
  await bench.checks();
  await bench.settleStill('18.25', 901);
  await bench.start('18.25');
  await bench.warmth('At the start', [
    ['pipe', '18.0'],
    ['room', '18.4'],
  ]);
  await shot(page, 'tightness');
  await expectAccessible(page);
  await pass(page, 3601);
  await bench.warmth('At the end', [
    ['pipe', '16.9'],
    ['room', '17.4'],
  ]);
  await bench.end('18.18');
  await page
    .getByRole('button', { name: /go on|All clear|Every joint/ })
    .last()
    .click();
  await bench.checks();
  await bench.checks();
  await bench.zero();
  await bench.sign();
  await bench.seal();
  await says(page, /without what warmth and barometer do/);

  // the third day: pumped, shut, and left to itself
  await passAway(DAY);
  await bench.beginOn(/^Evacuation and standing vacuum/);
  await bench.checks();
  await bench.gauge('V-1');
  await page.getByRole('button', { name: 'It shows over range' }).click();
  await bench.fill('58');
  await bench.start('58');
  for (const pa of ['66', '71', '74', '76']) {
    await pass(page, 121);
    await page.getByRole('button', { name: 'Reading', exact: true }).click();
    await bench.enter(pa, /Save the reading/);
  }
  await says(page, /So far: it rises and flattens/);
  await shot(page, 'vacuum');
  await expectAccessible(page);
  await pass(page, 121);
  await bench.end('77');
  await bench.checks();
  await bench.checks();
  await page.getByRole('button', { name: 'It shows over range' }).click();
  await bench.sign();
  await bench.seal();
  await says(page, /Vacuum held/);
});
