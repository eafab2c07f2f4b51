import 'fake-indexeddb/auto';
import { openDB } from 'idb';
import { bakery, gauge, pack, plan, uuid } from '@/core/testing/bakery';
import { sha256Hex, canonical } from '@/core/record/canonical';
import type { CarriedAnswer, CarriedHouse } from '@/wire/carried';
import { planDigest } from '@/wire/asked-plan';
import type { StartRun } from '@/wire/requests';
import type { Identity } from '@/wire/role';
import { formOfSystem } from '@/wire/system-form';
import { BenchEngine } from './bench';
import { carrying, freshen, noteSeen } from './carried';
import { beginRun, enterGauge, enterSite, enterSystem } from './enter';
import { errandsOf, sendAgain, sendErrands, takeOff } from './errands';
import { keepIdentity } from './identity';
import { sendAll, waitingWords, waitsHere } from './send-all';
import { openStore, type Store, storeName } from './store';

const kept = new Map<string, string>();
Object.assign(globalThis, {
  localStorage: {
    getItem: (k: string) => kept.get(k) ?? null,
    setItem: (k: string, v: string) => kept.set(k, v),
    removeItem: (k: string) => kept.delete(k),
  },
});
const HASH = sha256Hex(canonical(pack));
const SITE = { id: uuid(1, 6), name: 'Bakery', address: '2 Fulling Yard', customer: 'A. Baker' };
const house = (over: Partial<CarriedHouse> = {}): CarriedHouse => ({
  at: Date.now(),
  organisation: { id: uuid(1, 1), name: 'x' },
  aside: [],
  meters: [],
  packs: [{ id: pack.id, hash: HASH, mark: 'm1', pack }],
  cabinet: { value: { gauges: [gauge()], things: [] }, at: 1, proof: 'of the cabinet' },
  logs: {},
  visits: [],
  ...over,
});
const answered: CarriedAnswer = {
  house: house(),
  systems: [
    {
      id: bakery().id,
      given: { value: { site: SITE, system: bakery(), after: {} }, at: 1, proof: 'of the bakery' },
      last: null,
      failures: {},
    },
  ],
};

/** An office that keeps what it was sent, and answers as it is told. */
let log: { path: string; body: unknown }[];
let away: boolean;
let refuses: (path: string, body: unknown) => { status: number; text: string } | null;
let store: Store;
let who: Identity;
let person = 0;
let engine: BenchEngine | null = null;
afterEach(() => engine?.close());
const json = (value: unknown, status = 200) => new Response(JSON.stringify(value), { status });
const office = (path: string, init?: RequestInit): Promise<Response> => {
  if (away) return Promise.reject(new TypeError('network'));
  const body = init?.body ? (JSON.parse(init.body as string) as unknown) : null;
  if (path === '/api/carried') return Promise.resolve(json(answered));
  if (init?.method && init.method !== 'GET') {
    const no = refuses(path, body);
    if (no) return Promise.resolve(json({ error: { code: 'no', text: no.text } }, no.status));
    log.push({ path, body });
    const { events = [] } = body as { events?: { id: string }[] };
    const placed = events.map((e, i) => ({ id: e.id, position: i + 1, received: 1 }));
    return Promise.resolve(json({ placed, now: 1 }));
  }
  return Promise.resolve(json({ plan: { ...plan(), case: 'made by the office' }, events: [], sealed: null }));
};
beforeEach(async () => {
  log = [];
  away = false;
  refuses = () => null;
  globalThis.fetch = office as typeof fetch;
  who = { org: uuid(1, 1), person: uuid(++person, 3), name: 'Imre', role: 'tester', organisation: 'x' };
  keepIdentity(who);
  store = await openStore(who);
  await freshen(who, null);
  away = true;
});
const paths = () => log.map((l) => l.path);
const asked = (over: Partial<StartRun> = {}): StartRun => ({
  id: uuid(7, 7),
  system: bakery().id,
  pack: pack.id,
  procedure: 'gas-lowpressure-staged',
  case: 'existing',
  choices: {},
  practice: false,
  zone: 'UTC',
  ...over,
});

test('with a signal it is sent at once and nothing waits', async () => {
  away = false;
  expect(await enterSite(SITE)).toBe('sent');
  expect([paths(), await errandsOf(store)]).toEqual([['/api/sites'], []]);
});
test('without one it waits in its order, what hangs on another behind it, and is sent once', async () => {
  const site = { ...SITE, id: uuid(2, 6), name: 'Kiln' };
  const [system, fresh] = [uuid(2, 5), uuid(5, 9)];
  expect(await enterSite(site)).toBe('kept');
  await enterSystem(system, site.id, { ...formOfSystem(bakery()), name: 'Kiln gas' });
  await enterGauge({ ...gaugeForm, id: fresh });
  await beginRun(asked({ system, gauge: fresh }), 'staged');
  // what was entered here stands here at once
  const here = (await carrying(who))!;
  expect(here.systems.find((s) => s.id === system)).toMatchObject({
    given: null,
    site,
    system: { name: 'Kiln gas' },
  });
  expect(here.gauges.map((g) => g.name)).toEqual(['G-02', 'Pocket 7']);
  const begun = (await store.get('runs', uuid(7, 7)))!;
  expect([begun.unborn, begun.plan.gaugeMeant]).toEqual([true, fresh]);
  expect((await sendErrands(store))?.status).toBe(0);
  away = false;
  expect(await Promise.all([sendErrands(store), sendErrands(store)])).toEqual([null, null]);
  expect(paths()).toEqual([
    '/api/sites',
    `/api/systems/${system}?site=${site.id}`,
    '/api/gauges',
    '/api/runs',
  ]);
  expect(log.at(-1)!.body).toMatchObject({
    carried: { digest: planDigest(begun.plan), pack: HASH, entered: [fresh, site.id] },
  });
  expect(log.at(-1)!.body).not.toHaveProperty('carried.system');
  // the office has it: its plan is the one that holds, and what stood here in its place is gone
  const born = (await store.get('runs', uuid(7, 7)))!;
  expect([born.unborn, born.plan.case, await errandsOf(store)]).toEqual([
    undefined,
    'made by the office',
    [],
  ]);
  expect((await carrying(who))!.gauges.map((g) => g.name)).toEqual(['G-02']);
});
const gaugeForm = {
  name: 'Pocket 7',
  serial: 'not entered',
  kind: 'digital' as const,
  least: '0 mbar',
  greatest: '60 mbar',
  resolution: '0.01 mbar',
  accuracy: '',
  calibrated: '',
  calibrationDue: '',
};
test('what the office gave goes back with its proof; nothing overtakes what waits', async () => {
  await beginRun(asked(), 'staged');
  away = false;
  refuses = (path) => (path === '/api/runs' ? { status: 503, text: 'too busy' } : null);
  expect(await enterSite(SITE)).toBe('kept');
  refuses = () => null;
  await sendErrands(store);
  expect(paths()).toEqual(['/api/runs', '/api/sites']);
  expect(log[0]!.body).toMatchObject({
    carried: { system: answered.systems[0]!.given, cabinet: { proof: 'of the cabinet' }, entered: [] },
  });
});
test('what the office refuses stays with its reason, what hangs on it waits, the rest goes; sent again, or taken off', async () => {
  const site = { ...SITE, id: uuid(3, 6) };
  await enterSite(site);
  await enterSystem(uuid(3, 5), site.id, formOfSystem(bakery()));
  await enterGauge({ ...gaugeForm, id: uuid(6, 9) });
  away = false;
  refuses = (path) => (path === '/api/sites' ? { status: 403, text: 'An apprentice does not.' } : null);
  expect(await sendErrands(store)).toBeNull();
  expect(paths()).toEqual(['/api/gauges']);
  const [first, second] = await errandsOf(store);
  expect([first!.refused, second!.refused]).toEqual(['An apprentice does not.', undefined]);
  // refused once it is not sent by itself; its person says so
  refuses = () => null;
  await sendErrands(store);
  expect(paths()).toEqual(['/api/gauges']);
  await sendAgain(store, first!.seq);
  expect(paths()).toEqual(['/api/gauges', '/api/sites', expect.stringContaining(uuid(3, 5))]);
  away = true;
  await enterSite({ ...site, name: 'Other' });
  await takeOff(store, (await errandsOf(store))[0]!.seq);
  expect([await errandsOf(store), (await carrying(who))!.sites.map((s) => s.name)]).toEqual([[], ['Bakery']]);
});
test('a run begun here is conducted here; its entries go when it is born, and none before', async () => {
  await beginRun(asked(), 'staged');
  engine = await BenchEngine.open(uuid(7, 7), who);
  expect((await engine.append({ kind: 'note', text: 'smelt nothing' })).accepted).toBe(true);
  await engine.sync();
  expect([engine.snapshot()!.contact, engine.snapshot()!.waiting]).toEqual(['no-signal', 1]);
  away = false;
  refuses = (path) => (path === '/api/runs' ? { status: 422, text: 'The meter is not known.' } : null);
  await engine.sync();
  expect([engine.snapshot()!.contact, paths()]).toEqual(['not-begun', []]);
  refuses = () => null;
  await sendAgain(store, (await errandsOf(store))[0]!.seq);
  await engine.sync();
  expect(paths()).toEqual(['/api/runs', `/api/runs/${uuid(7, 7)}/events`]);
  expect([engine.snapshot()!.contact, engine.snapshot()!.plan.case]).toEqual([
    'with-office',
    'made by the office',
  ]);
});
test('what waits is sent from whatever page is open, the run before its entries; none is asked to open a bench', async () => {
  await beginRun(asked(), 'staged');
  engine = await BenchEngine.open(uuid(7, 7), who);
  await engine.append({ kind: 'note', text: 'one' });
  await engine.append({ kind: 'note', text: 'two' });
  engine.close();
  await sendAll(who);
  expect([paths(), waitingWords(await waitsHere(who))]).toEqual([[], ['Test: staged', '2 entries of tests']]);
  away = false;
  await Promise.all([sendAll(who), sendAll(who)]);
  expect(paths()).toEqual(['/api/runs', `/api/runs/${uuid(7, 7)}/events`]);
  expect(waitingWords(await waitsHere(who))).toEqual([]);
});
test.each([
  [
    'an installation nobody looked at here',
    asked({ system: uuid(9, 5) }),
    /Open it once where there is a signal/,
  ],
  ['rules that were not taken along', asked({ pack: 'house' }), /rules of this test were not taken along/],
  ['practice', asked({ practice: true }), /needs a signal/],
  ['what no plan can be made of', asked({ case: 'nothing' }), /Say what is being tested/],
])('%s: refused with what to do, and nothing waits', async (_, request, words) => {
  await expect(beginRun(request, 'x')).rejects.toThrow(words);
  expect(await errandsOf(store)).toEqual([]);
});
test('what was looked at is taken along, what nobody works with any more goes, and what it has it is not given again', async () => {
  away = false;
  const sent: unknown[] = [];
  globalThis.fetch = ((path: string, init?: RequestInit) => {
    if (path !== '/api/carried') return office(path, init);
    const asked = JSON.parse(init!.body as string) as { house: boolean };
    sent.push(asked);
    const packs = [{ id: pack.id, hash: HASH, mark: 'm1' }];
    return Promise.resolve(json({ house: asked.house ? house({ packs }) : null, systems: [] }));
  }) as typeof fetch;
  await noteSeen(who, bakery().id);
  await freshen(who, null); // fresh enough
  expect(sent).toEqual([]);
  await freshen(who, bakery().id);
  expect(sent).toEqual([{ house: false, systems: [bakery().id], marks: ['m1'] }]);
  await freshen(who, null, true);
  expect(sent[1]).toEqual({ house: true, systems: [bakery().id], marks: ['m1'] });
  const here = (await carrying(who))!;
  expect([here.systems, here.packs.map((p) => p.id)]).toEqual([[], [pack.id]]);
});

test('a store of the version before keeps what it held, and takes what is carried and what waits', async () => {
  const before: Identity = { ...who, person: uuid(99, 3) };
  const old = await openDB(storeName(before), 2, {
    upgrade(db) {
      db.createObjectStore('runs', { keyPath: 'run' });
      const events = db.createObjectStore('events', { keyPath: 'id' });
      events.createIndex('run', 'run');
      events.createIndex('sent', 'sent');
      db.createObjectStore('state');
      const photos = db.createObjectStore('photos', { keyPath: 'hash' });
      photos.createIndex('run', 'run');
      photos.createIndex('sent', 'sent');
    },
  });
  await old.put('runs', { run: uuid(7, 7), plan: plan(), sealed: null, opened: 1 });
  await old.put('state', 12, 'deviceSeq');
  old.close();
  const now = await openStore(before);
  expect([(await now.get('runs', uuid(7, 7)))?.opened, await now.get('state', 'deviceSeq')]).toEqual([1, 12]);
  expect([await errandsOf(now), await carrying(before)]).toEqual([[], null]);
  now.close();
});
