import { expect, test, type Page } from '@playwright/test';
import { BASE, BenchPage, expectAccessible, pass, shot, signIn, takeClocks } from './support';

const ends = (page: Page) => page.getByRole('list', { name: 'Ends', exact: true });
const tap = async (page: Page, ...names: string[]) => {
  for (const n of names)
    await ends(page)
      .getByRole('button', { name: new RegExp(`^${n}`) })
      .click();
};
/** Every end of the line plugged: the first one open. */
async function plugIn(page: Page, count: number): Promise<void> {
  for (let n = 0; n < count; n++) {
    await page.getByRole('button', { name: 'Plug it' }).first().click();
    await page.getByLabel('Kind of plug').selectOption('short');
    await page.getByLabel(/Rated for at this bore/).fill('30 psi');
    await page.getByRole('button', { name: 'It is in', exact: true }).click();
    await expect(page.getByRole('button', { name: 'In (tap to take out)' })).toHaveCount(n + 1);
  }
  await page.getByRole('button', { name: 'Every end plugged, one of them open: go on' }).click();
}
async function plugsOut(page: Page, count: number): Promise<void> {
  for (let left = count; left > 0; left--) {
    await page.getByRole('button', { name: 'Out and counted' }).first().click();
    await expect(page.getByRole('button', { name: 'Out and counted' })).toHaveCount(left - 1 || 0);
  }
  await page.getByRole('button', { name: 'Every plug counted out: go on' }).click();
}
class PoolBench extends BenchPage {
  async beginOn(procedure: RegExp, line?: RegExp, practice?: string): Promise<void> {
    const { page } = this;
    await page.goto(`${BASE}/places`);
    await page.getByRole('link', { name: /Lido pool and plunge tub/ }).click();
    await page.getByRole('radio', { name: procedure }).first().check();
    if (line)
      await page.getByRole('group', { name: 'Which line' }).getByRole('button', { name: line }).click();
    const cases = page.getByRole('group', { name: 'What is being tested?' }).getByRole('radio');
    if (await cases.count()) await cases.first().check();
    if (practice) {
      await page.getByLabel('Hidden fault').selectOption(practice);
      await page.getByRole('button', { name: 'Practise on the simulated installation' }).click();
    } else await page.getByRole('button', { name: 'Start the test' }).click();
    await page.waitForURL(/\/bench\//);
  }
}

test('lines mapped by bubbles: two looks contradict each other, the wrong one is taken back @both', async ({
  page,
}) => {
  await takeClocks(page);
  await signIn(page, 'imre');
  const bench = new PoolBench(page);
  await bench.beginOn(/^Map the lines of a pool/);
  await bench.checks();
  // what an earlier visit saw is known here
  await expect(page.getByRole('button', { name: 'Every line is known: go on' })).toBeVisible();
  await page.getByRole('button', { name: 'Low air into one end' }).click();
  await tap(page, 'Air blower', 'Upper jet 1', 'Return 1');
  await page.getByRole('button', { name: 'Enter this look' }).click();
  await expect(page.getByRole('alert').filter({ hasText: /cannot all be right/ })).toBeVisible();
  await expect(page.getByRole('button', { name: /End it as it is/ })).toBeVisible();
  await shot(page, 'pool-map');
  await expectAccessible(page);
  // without a signal: what is seen now is kept and said so
  await page.context().setOffline(true);
  const wrong = page.getByRole('listitem').filter({ hasText: 'Low air into Air blower: Return 1' });
  await wrong.getByRole('button', { name: 'It was wrong' }).click();
  await page.getByLabel(/Why was it wrong/).fill('bubbles drifted from the jets');
  await page.getByRole('button', { name: 'Take it back' }).click();
  await expect(page.getByRole('button', { name: 'Every line is known: go on' })).toBeVisible();
  await page.context().setOffline(false);
  await page.getByRole('button', { name: 'Every line is known: go on' }).click();
  await bench.checks();
  await bench.sign();
  await bench.seal();
});

test('one line from dye to pressure to locating: plugs counted, a fall both ways, a place that agrees @further @phone', async ({
  page,
}) => {
  await takeClocks(page);
  await signIn(page, 'imre');
  const bench = new PoolBench(page);
  const line = /^Air blower, Upper jet 1/;

  await bench.beginOn(/^Dye at the last open end/, line);
  await bench.checks();
  await expect(
    page.getByText('3 ends counted, 1 of them at the equipment: 2 closed and 1 open'),
  ).toBeVisible();
  await shot(page, 'pool-plugs');
  await expectAccessible(page);
  await plugIn(page, 3);
  await bench.observe(/^Drawn into the opening/);
  await plugsOut(page, 3);
  await bench.putBack();
  await bench.sign();
  await bench.seal();

  await bench.beginOn(/^Pressure of one pool line/, line);
  await bench.checks();
  await plugIn(page, 3);
  await bench.gauge('HT-5030');
  await bench.zero();
  await bench.checks();
  for (const step of ['5.00', '10.00', '16.00']) {
    await bench.enter(step, /Reached/);
    await pass(page, 11);
    await bench.enter(step, /All joints dry/);
  }
  await bench.checks();
  await bench.holdPlanned('16.00', '16.00');
  await bench.holdPlanned('16.00', '11.00');
  await bench.observe(/All dry. Feed the line from its other end/);
  await bench.checks();
  await bench.observe(/falls as before/);
  await bench.checks();
  await bench.checks();
  await plugsOut(page, 3);
  await bench.zero();
  await bench.putBack();
  await bench.sign();
  await bench.seal();

  await bench.beginOn(/^Locate by air/, line);
  await bench.checks();
  await bench.observe(/^wet: water stands/);
  await plugIn(page, 3);
  await bench.checks();
  await page.getByLabel(/Where the compressor stands/).fill('at the gate, 30 m off');
  await page.getByRole('button', { name: 'Walk this run' }).click();
  for (const [along, loud] of [
    ['3', '1'],
    ['5', '8'],
    ['6', '5'],
    ['7', '2'],
  ] as const) {
    await page.getByLabel(/So far along the run/).fill(along);
    await page
      .getByRole('group', { name: 'How loud, 0 to 10' })
      .getByRole('button', { name: loud, exact: true })
      .click();
    await page.getByRole('group', { name: 'How clear' }).getByRole('button', { name: 'clear' }).click();
    await page.getByRole('button', { name: /^Heard: / }).click();
    await expect(page.getByLabel(/So far along the run/)).toHaveValue('');
  }
  await shot(page, 'pool-listen');
  await expectAccessible(page);
  for (const what of [
    'soft or wet ground',
    'the level at which the pool stops losing',
    'the dye',
    'the map of the lines',
  ])
    await page
      .getByRole('group', { name: what, exact: true })
      .getByRole('button', { name: 'Agrees' })
      .click();
  await page.getByRole('button', { name: 'End the walk with this place' }).click();
  await bench.checks();
  await plugsOut(page, 3);
  await bench.putBack();
  await bench.sign();
  const number = await bench.seal();
  await page.goto(`${BASE}/places`);
  await page.getByRole('link', { name: /Lido pool and plunge tub/ }).click();
  const own = page
    .getByRole('listitem')
    .filter({ hasText: 'Air blower, Upper jet 1 and Upper jet 2' })
    .first();
  await expect(own).toContainText('not tight');
  await expect(page.getByText(number).first()).toBeVisible();
});

test('practice on a line: a leak below the water draws dye; cut and coupled, nothing is pressed before it is cured @further', async ({
  page,
}) => {
  await takeClocks(page);
  await signIn(page, 'imre');
  const bench = new PoolBench(page);
  await bench.beginOn(/^Dye at the last open end/, /^Cleaner pump/, 'under-water');
  await bench.checks();
  await plugIn(page, 2);
  const works = page.getByRole('region', { name: 'Simulated installation' }).locator('visible=true').first();
  await works.getByRole('button', { name: /A little dye/ }).click();
  await expect(works.getByText('Dye bends, and is drawn into the open plug.')).toBeVisible();
  await bench.observe(/^Drawn into the opening/);
  await plugsOut(page, 2);

  await bench.beginOn(/^Pressure of one pool line/, /^Cleaner pump/);
  await page
    .getByRole('group', { name: /cut, coupled or mended/ })
    .getByRole('button', { name: 'Yes' })
    .click();
  await page.getByLabel(/Primer and cement/).fill('primer, medium cement');
  await page.getByRole('button', { name: /The last joint is made/ }).click();
  await expect(page.getByRole('button', { name: /It cures .* more/ })).toBeDisabled();
  await expectAccessible(page);
  await pass(page, 7_201);
  await page.getByRole('button', { name: 'Cured: go on' }).click();
  await bench.checks(); // asked once more, and counted by now
  await expect(page.getByText('2 ends counted')).toBeVisible();
});
