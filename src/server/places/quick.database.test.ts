import type { Server } from 'node:http';
import { eq } from 'drizzle-orm';
import { againOf } from '@/core/plan/again';
import { offersFor } from '@/core/plan/offer';
import { beforeYou } from '@/core/trades/before-you';
import { closePool, inOrganisation } from '@/database/client';
import { gauges, runs, sites, systems } from '@/database/schema';
import { rulePacks, setPackAside } from '@/server/rules/rules';
import { appendEvents } from '@/server/runs/log';
import { lastTested, lastTestOf } from '@/server/runs/last-test';
import { startRun } from '@/server/runs/start';
import type { Session } from '@/server/session/session';
import { entryOf } from '@/core/testing/bakery';
import { expectation } from '@/core/run/read';
import { begin } from '@/core/run/reduce';
import { noFacts } from '@/wire/no-facts';
import { ROLES, type Role } from '@/wire/role';
import { uuid7 } from '@/wire/uuid7';
import { askedGauges } from '../../../scripts/asked-gauges';
import { membersOf } from '../../../scripts/members';
import { practiceSite } from './practice-site';
import { practise, quickTest } from './quick';
import { testNowFor } from './test-now';

let people: ReadonlyMap<Role, Session>;
let stranger: Session;
let standIn: Server;
beforeAll(async () => {
  // the simulated installations are elsewhere: here it is enough that they answer
  standIn = await askedGauges();
  people = await membersOf(ROLES);
  stranger = (await membersOf(['tester'])).get('tester')!;
}, 120_000);
afterAll(async () => {
  standIn.close();
  await closePool();
});

let n = 0;
const id = () => uuid7(Date.now() + n++);
const gas = beforeYou('gas-meter')!;
const asked = (over: object = {}) => ({
  run: id(),
  site: id(),
  system: id(),
  facts: {
    ...noFacts(),
    name: gas.title,
    meterKind: gas.meterKind,
    meterVolume: gas.meterVolume,
    length: '8 m',
    counted: [{ word: 'hob', count: 1 }],
  },
  pack: 'gas-metric',
  procedure: 'gas-lowpressure-staged',
  case: 'existing',
  newGauge: { id: id(), name: 'Mine', greatest: '200 mbar', resolution: '0.01 mbar' },
  zone: 'UTC',
  ...over,
});
const tester = () => people.get('tester')!;

test('place, system and gauge as far as they are known, and the run: asked twice it is the same', async () => {
  const body = asked();
  expect(await quickTest(tester(), body)).toEqual({ run: body.run });
  expect(await quickTest(tester(), body)).toEqual({ run: body.run });
  const [plan, g, place] = await inOrganisation(tester(), async (tx) => [
    (await tx.select().from(runs).where(eq(runs.id, body.run)))[0]!.plan,
    (await tx.select().from(gauges).where(eq(gauges.id, body.newGauge.id)))[0]!.facts,
    (await tx.select().from(sites).where(eq(sites.id, body.site)))[0]!,
  ]);
  expect(plan).toMatchObject({
    gaugeMeant: body.newGauge.id,
    case: 'existing',
    system: { appliances: [{ name: 'Hob' }] },
  });
  expect(g).toMatchObject({
    calibrationDue: '',
    least: { digits: 0, unit: 'mbar' },
    greatest: { unit: 'mbar' },
  });
  expect(place).toMatchObject({ address: '', customer: '' });
  // nobody else has it
  expect(await lastTestOf(stranger, body.system, 'UTC')).toBeNull();
  expect(await lastTested(stranger, 5, 'UTC')).toEqual([]);
  expect(await lastTested(tester(), 1, 'UTC')).toEqual([
    expect.objectContaining({ system: body.system, name: gas.title, procedure: 'Staged low-pressure test' }),
  ]);
});
test.each(ROLES)('%s: who may enter places begins so, who may run practises', async (role) => {
  const who = people.get(role)!;
  const outcome = (work: Promise<unknown>) =>
    work.then(
      () => 'done',
      (e: { status?: number }) => e.status,
    );
  expect(await outcome(quickTest(who, asked()))).toBe(role === 'owner' || role === 'tester' ? 'done' : 403);
  expect(await outcome(practise(who, { run: id(), zone: 'UTC' }))).toBe(role === 'office' ? 403 : 'done');
});
test('the practice installation is made once, for practice only, and stays what somebody made of it', async () => {
  const apprentice = people.get('apprentice')!;
  await practise(apprentice, { run: id(), zone: 'UTC' });
  await practise(tester(), { run: id(), zone: 'UTC' });
  const own = await inOrganisation(tester(), (tx) =>
    tx
      .select()
      .from(systems)
      .where(eq(systems.site, practiceSite(tester().org))),
  );
  expect(own).toHaveLength(1);
  await expect(
    startRun(tester(), {
      id: id(),
      system: own[0]!.id,
      pack: 'gas-metric',
      procedure: 'gas-lowpressure-staged',
      case: 'existing',
      practice: false,
      zone: 'UTC',
    }),
  ).rejects.toMatchObject({ status: 422, code: 'practice-only' });
  expect(practiceSite(stranger.org)).not.toBe(practiceSite(tester().org));
});
test('what is missing is told with the page that cures it, and what was entered stays', async () => {
  const body = asked({ facts: { ...asked().facts, meterKind: 'unknown', meterVolume: '0 l' } });
  await expect(quickTest(tester(), body)).rejects.toMatchObject({
    status: 422,
    path: `/places/${body.system}/edit`,
    message: expect.stringMatching(/meter is not known/),
  });
  const kept = await inOrganisation(tester(), (tx) =>
    tx.select().from(systems).where(eq(systems.id, body.system)),
  );
  expect(kept).toHaveLength(1);
});
test('the last test of a place stands ready with the gauge that judged it, also after one that was left before its gauge', async () => {
  const body = asked();
  await quickTest(tester(), body);
  const [row] = await inOrganisation(tester(), (tx) => tx.select().from(runs).where(eq(runs.id, body.run)));
  const { plan } = row!;
  const state = begin(plan);
  await appendEvents(tester(), body.run, [
    entryOf(
      plan,
      { kind: 'gauge', gauge: body.newGauge.id },
      {
        id: id(),
        run: body.run,
        at: Date.now(),
        by: tester().person,
        byName: tester().name,
        expects: expectation(state),
      },
    ),
  ]);
  await startRun(tester(), { ...body, id: id(), practice: false } as never).catch(() => undefined);
  const last = await lastTestOf(tester(), body.system, 'UTC');
  expect(last).toMatchObject({
    procedure: 'gas-lowpressure-staged',
    case: 'existing',
    gauge: body.newGauge.id,
  });
  const offers = (await rulePacks(tester())).flatMap((p) => offersFor(p, plan.system));
  const known = plan.gauges.filter((g) => g.id === body.newGauge.id);
  expect(againOf(last, offers, known, '2026-11-29', [])).toMatchObject({
    asks: true,
    gauge: { name: 'Mine' },
    offer: { id: 'gas-lowpressure-staged' },
  });
});
test('everything that may stand before a person has something to begin, the first of it made for it', async () => {
  const { offers } = await testNowFor(tester());
  for (const [key, { offers: found }] of Object.entries(offers))
    expect([key, found.length > 0]).toEqual([key, true]);
  expect(offers['gas-meter']!.offers[0]!.begins).toBe(true);
  expect(offers['propane']!.offers[0]!.pack).toBe('propane');
});
test('a school that the house set aside is folded away, never gone; one at least is kept; another house is not asked', async () => {
  const owner = people.get('owner')!;
  const packs = await rulePacks(owner);
  const school = async (session: Session) => {
    const { offers } = (await testNowFor(session)).offers['gas-meter']!;
    return offers.map((o) => [o.pack, o.aside] as const);
  };
  const before = await school(owner);
  const [first] = before[0]!;
  await expect(setPackAside(people.get('tester')!, first, true)).rejects.toMatchObject({ status: 403 });
  await expect(setPackAside(owner, 'no-such-pack', true)).rejects.toMatchObject({ status: 404 });
  await setPackAside(owner, first, true);
  const after = await school(people.get('tester')!);
  expect(after.length).toBe(before.length);
  expect(after[0]![1]).toBe(false);
  expect(after.filter(([pack]) => pack === first).every(([, aside]) => aside)).toBe(true);
  expect((await school(stranger)).every(([, aside]) => !aside)).toBe(true);
  for (const p of packs.slice(0, -1)) await setPackAside(owner, p.id, true).catch(() => undefined);
  await expect(setPackAside(owner, packs.at(-1)!.id, true)).rejects.toMatchObject({ code: 'none-left' });
  for (const p of packs) await setPackAside(owner, p.id, false);
  expect(await school(owner)).toEqual(before);
});
