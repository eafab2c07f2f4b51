import sharp from 'sharp';
import AxeBuilder from '@axe-core/playwright';
import { expect, type Locator, test, type Page } from '@playwright/test';

/** Tests that run at the same time have a server, a clock and a database each. */
const servers = (process.env.VAST_E2E_URL ?? 'http://127.0.0.1:3000').split(',');
export const BASE = servers[Number(process.env.TEST_PARALLEL_INDEX ?? 0) % servers.length]!;
let shift = 0;

let ownersCookie = '';
/** A request to the server's clock: only its owner may set it. */
async function clock(body?: unknown): Promise<Response> {
  const json = { 'content-type': 'application/json' };
  const ask = () =>
    fetch(`${BASE}/api/test/clock`, {
      method: body === undefined ? 'GET' : 'POST',
      ...(body === undefined ? {} : { body: JSON.stringify(body) }),
      headers: { ...json, cookie: ownersCookie },
    });
  const first = await ask();
  if (first.status !== 401) return first;
  const data = { email: 'tamsin@hollin-tarrow.example', password: 'millrace-tamsin' };
  const signedIn = await fetch(`${BASE}/api/session`, {
    method: 'POST',
    body: JSON.stringify(data),
    headers: json,
  });
  ownersCookie = signedIn.headers
    .getSetCookie()
    .map((c) => c.split(';')[0])
    .join('; ');
  return ask();
}
/** Sets the server's clock (a test server only) to real time plus `ms`. */
async function shiftServer(ms: number, moving = false): Promise<void> {
  shift = ms;
  const r = await clock({ shift: ms, moving });
  expect(r.status, 'the server under test must have an adjustable clock').toBe(200);
}
/** Puts both clocks under the test's hand; the device may be wrong by `deviceError` ms. */
export async function takeClocks(page: Page, deviceError = 0): Promise<void> {
  // after a failure tests go on in a new process: time must not run backwards for the records made before
  const server = (await (await clock()).json()) as { shift: number };
  await shiftServer(Math.max(shift, server.shift));
  await page.clock.install({ time: Date.now() + shift + deviceError });
}
/** Lets time pass on the server and in the browser without waiting. */
export async function pass(page: Page, seconds: number): Promise<void> {
  // both clocks in one step: a device that is told the time between them would set itself wrong by all of it
  const to = shift + seconds * 1000;
  await shiftServer(to, true);
  await page.clock.fastForward(seconds * 1000);
  await shiftServer(to);
  await page.keyboard.press('Shift'); // a touch: after 20 s alone the bench shows only time and reading
}
/** Time that passes while the browser is away. */
export const passAway = (seconds: number): Promise<void> => shiftServer(shift + seconds * 1000);
export const serverShift = (): number => shift;

/** Signs somebody in, of the demo's house unless another is named, and on one's own server. */
export async function signIn(page: Page, who: string, house?: string, server = BASE): Promise<void> {
  await page.goto(`${server}/sign-in`);
  await fillSignIn(page, who, house);
  await page.waitForURL('**/today');
}
/** A copy of the bakery's gas under another name; its page stands open. */
export async function copyOfBakery(page: Page, name: string): Promise<void> {
  await page.goto(`${BASE}/places`);
  await page.getByRole('link', { name: /^Bakery gas/ }).click();
  await page.waitForURL(/\/places\/[0-9a-f-]{36}$/);
  await page.goto(`${page.url()}/copy`);
  await page.getByLabel('Its name').fill(name);
  await page.getByRole('button', { name: 'Enter it' }).click();
  await page.waitForURL((url) => /\/places\/[0-9a-f-]{36}$/.test(url.pathname));
}
/** Fills the sign-in form that stands on the page. */
export async function fillSignIn(page: Page, who: string, house = 'hollin-tarrow.example'): Promise<void> {
  await page.getByLabel('E-mail').fill(`${who}@${house}`);
  await page.getByLabel('Password').fill(`millrace-${who}`);
  await page.getByRole('button', { name: 'Sign in', exact: true }).click();
}
/** The record stands as it was sealed; what is folded on it is opened, one question after the other. */
export async function openedRecord(page: Page): Promise<void> {
  await expect(page.getByText('Checked now: the record matches')).toBeVisible();
  const folds = page.locator('article > div > details');
  await expect(folds.first()).toBeVisible();
  await folds.evaluateAll((all) => all.forEach((d) => ((d as HTMLDetailsElement).open = true)));
}
/** Throwaway pictures while a screen is worked on; nothing is written unless a folder is named. */
export async function shot(page: Page, name: string): Promise<void> {
  const folder = process.env.VAST_SHOTS;
  if (folder) await page.screenshot({ path: `${folder}/${test.info().project.name}-${name}.png` });
}
export async function expectAccessible(page: Page): Promise<void> {
  const look = async () => {
    // a page that has just been asked for anew gets its title last
    await expect(page).toHaveTitle(/\S/);
    // no page here has frames of another origin: without the search for them it takes half the time
    const { violations } = await new AxeBuilder({ page })
      .setLegacyMode(true)
      .options({ resultTypes: ['violations'], runOnly: ['wcag2a', 'wcag2aa', 'wcag21aa'] })
      .analyze();
    return violations;
  };
  let violations = await look();
  // asked for anew while it was being looked at, it had none for a moment: one that has none at all never gets here
  if (violations.length === 1 && violations[0]!.id === 'document-title') violations = await look();
  expect(violations.map((v) => `${v.id}: ${v.nodes.map((n) => n.target.join(' ')).join(', ')}`)).toEqual([]);
}
/** Presses and holds what cannot be undone; the time of the press passes under the test's hand. */
export async function hold(page: Page, name: string | RegExp): Promise<void> {
  // this button and no other: on a slow machine the press may be done before it is looked at, and the next stand there
  const button = await page.getByRole('button', { name }).first().elementHandle();
  await button.scrollIntoViewIfNeeded();
  // a new step takes the focus to its heading: a key pressed in that moment would go there
  for (let guard = 0; guard < 5; guard++) {
    await button.focus();
    await page.keyboard.down('Enter');
    const [there, pressed] = await button.evaluate((b) => [b.isConnected, b === document.activeElement]);
    if (!there) return page.keyboard.up('Enter');
    if (pressed) break;
    await page.keyboard.up('Enter');
  }
  await shiftServer(shift + 900);
  await page.clock.fastForward(900);
  await page.keyboard.up('Enter');
}

/** A reading that raises into a band; it may begin the hold after it. One that only begins it: not the end of settling, which does too. */
export const RAISED = /In the band|^(?!Settled).*[Ss]tart the \d/;
const STARTS = /^(?!Settled).*[Ss]tart the \d/;

/** The bench as a tester works it. */
export class BenchPage {
  constructor(readonly page: Page) {}
  async begin(
    options: { system?: RegExp; procedure?: RegExp; case?: RegExp; practice?: string; permit?: string } = {},
  ): Promise<void> {
    await this.page.goto(`${BASE}/places`);
    await this.page.getByRole('link', { name: options.system ?? /Bakery gas/ }).click();
    await this.page
      .getByRole('radio', { name: options.procedure ?? /^Staged low-pressure test/ })
      .first() // the published pack; a house pack may offer the same
      .check();
    await this.page
      .getByRole('group', { name: 'What is being tested?' })
      .getByRole('radio', { name: options.case ?? /Existing installation/ })
      .check();
    if (options.permit) {
      await this.page.getByText('Permit, and who must be present').click();
      await this.page.getByLabel('Permit number').fill(options.permit);
    }
    if (options.practice) {
      await this.page.getByLabel('Hidden fault').selectOption(options.practice);
      await this.page.getByRole('button', { name: 'Practise on the simulated installation' }).click();
    } else await this.page.getByRole('button', { name: 'Start the test' }).click();
    await this.page.waitForURL(/\/bench\//);
    await expect(this.page.locator('[data-left]')).toBeVisible();
  }
  /** Nothing of what stands is cut at the side: what lies beyond the edge, nobody knows of. */
  async uncut(): Promise<void> {
    const beyond = await this.page.locator('main').evaluate((main) => {
      if (main.scrollWidth <= main.clientWidth) return [];
      const edge = main.getBoundingClientRect().left + main.clientWidth + 1;
      return [...main.querySelectorAll('*')]
        .filter((e) => e.getBoundingClientRect().right > edge)
        .map((e) => `${e.tagName} ${(e.textContent ?? '').trim().slice(0, 60)}`);
    });
    expect(beyond).toEqual([]);
  }
  get run(): string {
    return this.page.url().split('/').pop()!;
  }
  /** Settles a list by how one walks: No to what is asked (Yes where `yes` matches), done or all so to the rest; the last leads on. */
  async checks(yes = /OPEN\?|dial turn|drained/): Promise<void> {
    const list = this.page.locator('ul[data-left]');
    await expect(list).toBeVisible();
    await this.uncut();
    const visit = await list.getAttribute('data-visit');
    const here = this.page.locator(`ul[data-visit="${visit}"]`);
    // the press before may have been the last: the list leads on by itself, and nothing is waited for any more
    const press = (button: Locator): Promise<void> =>
      Promise.race([
        button.click({ timeout: 10_000 }).catch(async (error: unknown) => {
          if (await here.count()) throw error;
        }),
        here.waitFor({ state: 'detached', timeout: 11_000 }).catch(() => undefined),
      ]);
    // a press that falls between two pictures of a slow machine is lost, as it is for a person: it is made once more
    let lost = 0;
    for (let guard = 0; guard < 40 && (await here.count()); guard++) {
      // it may be gone between two looks: what is asked of it then must not wait for it to come back
      const before = await here.getAttribute('data-left', { timeout: 2_000 }).catch(() => null);
      if (before === null) break;
      const ask = here
        .getByRole('group')
        .filter({ hasNot: this.page.locator('[aria-pressed=true]') })
        .filter({ has: this.page.locator('button:enabled') });
      if (await ask.count()) {
        const question = ask.first();
        const text = await question.getAttribute('aria-label', { timeout: 2_000 }).catch(() => null);
        if (text === null) continue; // answered by the press before
        await press(question.getByRole('button', { name: yes.test(text) ? 'Yes' : 'No', exact: true }));
      } else await press(here.locator('button:enabled:has-text("Tap when")').first());
      const still = this.page.locator(`ul[data-visit="${visit}"][data-left="${before}"]`);
      const changed = expect(still).toHaveCount(0, { timeout: lost ? 45_000 : 10_000 });
      await (lost ? changed : changed.catch(() => void lost++));
    }
    await expect(here).toHaveCount(0);
  }
  async gauge(name = 'G-02'): Promise<void> {
    await this.page
      .getByRole('listitem')
      .filter({ hasText: name })
      .getByRole('button', { name: 'Use this gauge' })
      .click();
  }
  /** Types into the keypad's field and saves; ticks what must be confirmed. */
  async enter(figure: string, save: RegExp, within?: { timeout: number }): Promise<void> {
    await expect(this.page.getByRole('button', { name: save })).toBeVisible(); // the keypad of this step, not the one before
    await this.uncut();
    const field = this.page.getByRole('form', { name: 'Entry' }).getByRole('textbox').first();
    await field.fill(figure, within);
    const tick = this.page.getByRole('form', { name: 'Entry' }).getByRole('checkbox');
    if (await tick.count()) await tick.check();
    await this.page.getByRole('button', { name: save }).click(within);
  }
  async zero(figure = '0.00'): Promise<void> {
    await this.enter(figure, /Zero is proved|Zero after/);
  }
  async fill(figure: string): Promise<void> {
    await this.enter(figure, RAISED);
  }
  async start(figure: string): Promise<void> {
    const running = this.page.locator('[data-hold]');
    // the press before may still be on its way: its own button says the same
    await expect(running.or(this.page.locator('[data-step=start]')).first()).toBeVisible();
    // the reading before it may have begun it
    if (!(await running.count()))
      await this.enter(figure, STARTS, { timeout: 20_000 }).catch(async (error: unknown) => {
        // it began while this was being typed
        if (!(await running.count())) throw error;
      });
    await expect(this.page.getByRole('timer').first()).toBeVisible();
    await this.uncut();
  }
  async end(figure: string): Promise<void> {
    await this.page.getByRole('button', { name: 'Read the gauge now' }).click();
    await this.enter(figure, /end reading|Settled/);
  }
  /** Where a hold asks for the barometer it is read at both ends: steady. */
  async barometer(): Promise<void> {
    const button = this.page.getByRole('button', { name: 'Barometer' });
    for (const when of ['At the start', 'At the end']) {
      if (!(await button.count())) return;
      await button.click();
      await this.page
        .getByLabel(/barometer|air pressure/i)
        .first()
        .fill('1013.25');
      await this.page.getByRole('button', { name: when }).click();
      await expect(this.page.getByRole('button', { name: when })).toHaveCount(0);
    }
  }
  /** Every joint of the list, looked at with fluid: none bubbles. */
  async clearJoints(): Promise<void> {
    const open = this.page.getByRole('listitem').filter({ hasText: 'not looked at yet' });
    const none = this.page.getByRole('button', { name: /Every joint cleared|No joint was touched/ });
    await expect(open.or(none).first()).toBeVisible();
    await this.uncut();
    for (let left = await open.count(); left > 0; left--) {
      await open.first().getByRole('button', { name: 'No bubble' }).click();
      await expect(open).toHaveCount(left - 1);
    }
  }
  /** The result stands before the repeats the rule asks for: a reason is typed. */
  async stands(reason: string): Promise<void> {
    await this.observe(/The result stands/);
    await this.page.getByLabel(/Why does the result stand now/).fill(reason);
    await this.page.getByRole('button', { name: 'The result stands', exact: true }).click();
  }
  /** One hold with its time passed. */
  async holdFor(seconds: number, start: string, end: string): Promise<void> {
    await this.start(start);
    await pass(this.page, seconds + 1);
    await this.end(end);
  }
  /** Prepared, zeroed, raised and the let-by started. */
  async upToRunningLetBy(): Promise<void> {
    await this.checks();
    await this.gauge();
    await this.zero();
    await this.fill('9.10');
    await this.start('9.10');
  }
  /** A pipework-only run from its start to a cleared put-back list. */
  async tightPipework(): Promise<void> {
    await this.begin({ case: /Pipework alone/ });
    await this.upToLetBy();
    await this.raiseAndHold('20.35', '20.35');
    await this.zero();
    await this.putBack();
  }
  /** To the end of preparation with a proved let-by. */
  async upToLetBy(): Promise<void> {
    await this.upToRunningLetBy();
    await pass(this.page, 61);
    await this.end('9.10');
  }
  async raiseAndHold(start: string, end: string): Promise<void> {
    await this.fill(start);
    await this.holdFor(60, start, start);
    await this.holdFor(120, start, end);
  }
  async putBack(): Promise<void> {
    const words = /^(Done|Lit, flame looked at: steady)/;
    const open = this.page.locator('[data-debt=open]');
    await expect(open.first()).toBeVisible();
    await this.uncut();
    for (let left = await open.count(); left > 0; left--) {
      await hold(this.page, words); // what waits for another line has no button until it may be done
      await expect(open).toHaveCount(left - 1);
    }
  }
  /** Classes an unsafe situation, as is asked after a run that was not shown fit. */
  async unsafe(text = 'Loses gas', danger = /^At risk/): Promise<void> {
    await this.page.getByRole('button', { name: danger }).click();
    await this.page.getByRole('button', { name: /Shut and labelled/ }).click();
    await this.page.getByLabel(/What is unsafe/).fill(text);
    await this.page.getByLabel('Who was told').fill('The tenant');
    await this.page.getByRole('button', { name: 'Put it on record' }).click();
    await expect(this.page.getByRole('button', { name: 'Put it on record' })).toHaveCount(0);
  }
  /** Lets so many minutes pass and reads the end. */
  async wait(minutes: number, end: string): Promise<void> {
    await pass(this.page, minutes * 60 + 1);
    await this.end(end);
  }
  async observe(words: RegExp): Promise<void> {
    await expect(this.page.getByRole('button', { name: words })).toBeVisible();
    await hold(this.page, words);
  }
  async proceed(words: RegExp): Promise<void> {
    await this.page.getByRole('button', { name: words }).click();
  }
  /** Minutes of the hold that runs, or that the start button of the next names. */
  async planned(): Promise<number> {
    const running = this.page.locator('[data-hold]');
    const button = this.page.getByRole('button', { name: STARTS });
    await expect(running.or(this.page.locator('[data-step=start]')).first()).toBeVisible();
    if (await running.count()) return Number(await running.getAttribute('data-minutes'));
    const text = await button.innerText();
    const hours = /(\d+) h/.exec(text)?.[1];
    const minutes = /([\d.]+) min/.exec(text)?.[1];
    return Number(hours ?? 0) * 60 + Number(minutes ?? 0);
  }
  /** A hold over its planned length, whatever that is for the gauge and the volume. */
  async holdPlanned(start: string, end: string, during?: () => Promise<void>): Promise<void> {
    const minutes = await this.planned();
    await this.start(start);
    await this.barometer();
    await during?.();
    await this.wait(minutes, end);
  }
  private async draw(): Promise<void> {
    await expect(this.page.locator('canvas[data-ready]')).toBeVisible();
    const box = (await this.page.locator('canvas').boundingBox())!;
    await this.page.mouse.move(box.x + 20, box.y + 70);
    await this.page.mouse.down();
    for (let i = 1; i <= 8; i++)
      await this.page.mouse.move(box.x + 20 + i * 18, box.y + 70 + (i % 2 ? -30 : 30));
    await this.page.mouse.up();
  }
  /** A line above that comes or goes moves the pad away under the pen: then one signs again, as a person would. */
  private async signAs(who: 'tester' | 'customer'): Promise<void> {
    const button = this.page.getByRole('button', { name: `Sign as ${who}` });
    await expect(async () => {
      await this.page.locator('canvas').scrollIntoViewIfNeeded();
      await this.draw();
      await expect(button).toBeEnabled({ timeout: 2_000 });
    }).toPass();
    await button.click();
  }
  async sign(): Promise<void> {
    await expect(this.page.getByRole('heading', { name: 'Tester’s signature' })).toBeVisible();
    await this.uncut();
    await this.signAs('tester');
    await expect(this.page.getByRole('heading', { name: 'Customer’s signature' })).toBeVisible();
    await this.signAs('customer');
  }
  async seal(): Promise<string> {
    await hold(this.page, /Seal the record/);
    const heading = this.page.getByRole('heading', { name: /Sealed as/ });
    await expect(heading).toBeVisible();
    return (await heading.innerText()).replace('Sealed as', '').trim();
  }
  async counts(): Promise<{ here: number; office: number }> {
    const line = this.page.locator('[data-here]').first();
    return {
      here: Number(await line.getAttribute('data-here')),
      office: Number(await line.getAttribute('data-office')),
    };
  }
  /** Ids of every event of the run in the browser's own store. */
  async storedIds(): Promise<string[]> {
    return storedKeys(this.page, 'events', this.run, 'run');
  }
}

/** A picture as a phone takes it: large, turned, and with the place it was taken in its data. */
export const picture = (width = 3000, height = 2000) =>
  sharp({
    create: {
      width,
      height,
      channels: 3,
      background: '#55635e',
      noise: { type: 'gaussian', mean: 110, sigma: 40 },
    },
  })
    .withExif({ IFD3: { GPSLatitude: '51/1 30/1 0/1', GPSLatitudeRef: 'N' } })
    .jpeg()
    .toBuffer();
/** What this browser keeps for who is signed in: keys of a store that are these, or by one of its indices. */
const storedKeys = (page: Page, store: string, of: string, index?: string): Promise<string[]> =>
  page.evaluate(
    async (asked) => {
      const who = JSON.parse(localStorage.getItem('vast-stone.who')!) as { org: string; person: string };
      const db = await new Promise<IDBDatabase>((resolve, reject) => {
        const open = indexedDB.open(`vast-stone.${who.org}.${who.person}`);
        open.onsuccess = () => resolve(open.result);
        open.onerror = () => reject(new Error('no store on this device', { cause: open.error }));
      });
      const from = db.transaction(asked.store).objectStore(asked.store);
      const keys = await new Promise<string[]>((resolve) => {
        const all = (asked.index ? from.index(asked.index) : from).getAllKeys(asked.of);
        all.onsuccess = () => resolve(all.result as string[]);
      });
      db.close();
      return keys;
    },
    { store, of, index },
  );
/** The service worker has this house's pages, and the store what stands in them. */
export async function takenAlong(page: Page, systems: readonly RegExp[]): Promise<void> {
  for (const name of systems) {
    await page.goto(`${BASE}/places`);
    const carried = page.waitForResponse((r) => r.url().endsWith('/api/carried') && r.ok());
    await page.getByRole('link', { name }).click();
    await page.waitForURL(/places\/[0-9a-f-]{36}$/);
    await page.clock.runFor(3000);
    await (await carried).finished();
  }
  const shell = () => page.evaluate(async () => (await caches.match('/kept-shell')) !== undefined);
  await expect.poll(shell).toBe(true);
  // an answer that came is not yet kept
  await expect.poll(() => storedKeys(page, 'carried', 'house')).toEqual(['house']);
}
