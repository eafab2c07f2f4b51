import { createServer, type Server } from 'node:http';
import { eq } from 'drizzle-orm';
import { playScript } from '@/core/run/script';
import { reduce } from '@/core/run/reduce';
import { waitOf } from '@/core/run/waits';
import { closePool, inOrganisation } from '@/database/client';
import { pushDevices, sessions } from '@/database/schema';
import { now, shiftClock } from '@/server/now';
import { quickTest } from '@/server/places/quick';
import { appendEvents, readRun } from '@/server/runs/log';
import type { Session } from '@/server/session/session';
import { noFacts } from '@/wire/no-facts';
import { ROLES, type Role } from '@/wire/role';
import { uuid7 } from '@/wire/uuid7';
import { membersOf } from '../../../scripts/members';
import { type Delivered, startPushService } from '../../../stand-ins/push/push';
import { dropPushDevice, keepPushDevice, pushState, tryPushDevice } from './devices';
import { changeVisit, makeVisit, readVisit } from '@/server/visits/visits';
import { mayBeService, vapidKeys } from './push-service';
import { ringDue } from './ring';

let people: ReadonlyMap<Role, Session>;
let stranger: Session;
let service: { url: string; server: Server };
let gauge: Server;
beforeAll(async () => {
  service = await startPushService();
  process.env.VAST_PUSH_STAND_IN = service.url;
  gauge = createServer((_, response) => response.end('{}')).listen(0, '127.0.0.1');
  people = await membersOf(ROLES);
  stranger = (await membersOf(['tester'])).get('tester')!;
}, 120_000);
afterAll(async () => {
  shiftClock(0);
  service.server.close();
  gauge.close();
  await closePool();
});

interface Made {
  readonly id: string;
  readonly endpoint: string;
  readonly keys: { readonly p256dh: string; readonly auth: string };
}
const device = async (): Promise<Made> =>
  (await fetch(`${service.url}/devices`, { method: 'POST' })).json() as Promise<Made>;
const got = async (d: Made) =>
  ((await (await fetch(`${service.url}/devices/${d.id}`)).json()) as Delivered[]).map(
    (g) => (g.message as { body: string }).body,
  );
const on = async (who: Session, minutes: number[]) => {
  const d = await device();
  await keepPushDevice(who, { endpoint: d.endpoint, keys: d.keys, minutes });
  return d;
};
let n = 0;
const id = () => uuid7(Date.now() + n++);
/** A run of somebody in which the hold of two minutes runs. @returns when its time is up */
async function running(who: Session): Promise<{ run: string; ends: number }> {
  const run = id();
  await quickTest(who, {
    run,
    site: id(),
    system: id(),
    facts: {
      ...noFacts(),
      name: 'Gas',
      meterKind: 'diaphragm-U6-G4',
      meterVolume: '8 l',
      length: '8 m',
      counted: [{ word: 'hob', count: 1 }],
    },
    pack: 'gas-metric',
    procedure: 'gas-lowpressure-staged',
    case: 'existing',
    newGauge: { id: id(), name: `Mine ${n}`, greatest: '200 mbar', resolution: '0.01 mbar' },
    zone: 'UTC',
  });
  const { plan } = await readRun(who, run);
  const events = playScript(
    plan,
    [
      [0, 'checks'],
      [0, 'gauge', plan.gauges.find((g) => g.id === plan.gaugeMeant)!.name],
      [0, 'zero', '0.00'],
      [0, 'fill', '9.10'],
      [0, 'start', '9.10'],
      [61, 'end', '9.10'],
      [63, 'fill', '20.35'],
      [64, 'start', '20.35'],
      [125, 'end', '20.35'],
      [126, 'start', '20.35'],
    ],
    {
      zone: 'UTC',
      by: who.person,
      byName: who.name,
      began: Date.parse(plan.made.at),
      device: id(),
      pageLoad: id(),
      id,
    },
  );
  // by then it is that much later
  shiftClock(now() - Date.now() + 127_000);
  await appendEvents(who, run, events);
  const log = await readRun(who, run);
  return { run, ends: waitOf(plan, reduce(plan, log.events))!.ends };
}
const at = async (moment: number) => {
  shiftClock(moment - Date.now());
  await ringDue();
};
const tester = () => people.get('tester')!;

test('a hold rings the devices of who works on it, each when its person chose, once; nobody else', async () => {
  const [mine, late, others, away] = await Promise.all([
    on(tester(), [1, 0]),
    on(tester(), [0]),
    on(people.get('owner')!, [1, 0]),
    on(stranger, [1, 0]),
  ]);
  const { ends } = await running(tester());
  await at(ends - 61_000);
  expect(await got(mine)).toEqual([]);
  // two servers look at the same moment
  await at(ends - 59_000);
  await Promise.all([ringDue(), ringDue()]);
  expect([await got(mine), await got(late)]).toEqual([
    [expect.stringMatching(/^New place, .+, Gas: a minute to go, then read the gauge\.$/)],
    [],
  ]);
  await at(ends + 1_000);
  await ringDue();
  expect((await got(mine))[1]).toMatch(/: now read the gauge\.$/);
  expect([(await got(mine)).length, (await got(late)).length]).toEqual([2, 1]);
  expect([await got(others), await got(away)]).toEqual([[], []]);
  const [first] = (await (await fetch(`${service.url}/devices/${mine.id}`)).json()) as Delivered[];
  expect(first).toMatchObject({ urgency: 'high', audience: service.url, key: vapidKeys().publicKey });
});
test('who signed out is rung no more, and what is late is no news', async () => {
  const mine = await on(tester(), [0]);
  const gone = await on(tester(), [0]);
  const { ends } = await running(tester());
  await dropPushDevice(tester(), gone.endpoint);
  await at(ends + 600_001);
  expect([await got(mine), await got(gone)]).toEqual([[], []]);

  const next = await running(tester());
  await inOrganisation(tester(), (tx) =>
    tx
      .update(sessions)
      .set({ revoked: new Date(now()) })
      .where(eq(sessions.id, tester().session)),
  );
  await at(next.ends + 1_000);
  expect(await got(mine)).toEqual([]);
});
test('a visit rings who planned it and who is named, half an hour before and at its begin, once; not who stays', async () => {
  shiftClock(0);
  const [mine, named, other, away] = await Promise.all([
    on(people.get('office')!, []),
    on(people.get('apprentice')!, []),
    on(people.get('owner')!, []),
    on(stranger, []),
  ]);
  const begins = Math.ceil(now() / 60_000) * 60_000 + 3_600_000;
  const [day, clock] = new Date(begins).toISOString().split('T') as [string, string];
  const visit = { id: id(), title: 'Mill', day, start: clock.slice(0, 5), zone: 'UTC' };
  await makeVisit(people.get('office')!, visit);
  const { facts, version } = await readVisit(people.get('office')!, visit.id);
  const { id: _, zone: __, tests: ___, ...rest } = facts;
  await changeVisit(people.get('office')!, visit.id, {
    ...rest,
    tasks: [...rest.tasks] as never,
    version,
    removed: [],
    present: ['A apprentice'],
    pinned: [],
  });
  await at(begins - 1_801_000);
  expect(await got(mine)).toEqual([]);
  await at(begins - 1_799_000);
  await ringDue();
  await at(begins + 1_000);
  await ringDue();
  const words = [`Mill: begins in 30 minutes, at ${visit.start}.`, 'Mill: begins now.'];
  expect([await got(mine), await got(named)]).toEqual([words, words]);
  expect([await got(other), await got(away)]).toEqual([[], []]);
});
test('a device that its browser let go is forgotten; one whose service is away is rung once it is back', async () => {
  shiftClock(0);
  const owner = people.get('owner')!;
  const [let_go, away] = await Promise.all([on(owner, [0]), on(owner, [0])]);
  await fetch(`${service.url}/devices/${let_go.id}`, { method: 'DELETE' });
  const { ends } = await running(owner);
  process.env.VAST_PUSH_STAND_IN = 'http://127.0.0.1:1';
  await expect(tryPushDevice(owner, away.endpoint)).rejects.toMatchObject({ code: 'push-service' });
  process.env.VAST_PUSH_STAND_IN = service.url;
  const { port } = new URL(service.url);
  await new Promise((r) => service.server.close(r));
  service.server.closeAllConnections();
  await at(ends + 1_000);
  await new Promise<void>((r) => service.server.listen(Number(port), '127.0.0.1', r));
  await at(ends + 20_000);
  expect((await got(away)).filter((t) => t.endsWith('now read the gauge.'))).toHaveLength(1);
  const left = await inOrganisation(owner, (tx) =>
    tx.select({ endpoint: pushDevices.endpoint }).from(pushDevices),
  );
  expect(left.map((l) => l.endpoint)).not.toContain(let_go.endpoint);
  expect(left.map((l) => l.endpoint)).toContain(away.endpoint);
});
test('a person sees and changes their own device alone', async () => {
  const owner = people.get('owner')!;
  const mine = await on(owner, [5]);
  expect((await pushState(owner, mine.endpoint)).minutes).toEqual([5]);
  expect((await pushState(people.get('office')!, mine.endpoint)).minutes).toBeNull();
  await expect(tryPushDevice(people.get('office')!, mine.endpoint)).rejects.toMatchObject({ status: 404 });
  await dropPushDevice(people.get('office')!, mine.endpoint);
  await tryPushDevice(owner, mine.endpoint);
  expect(await got(mine)).toEqual(['This is how an alarm rings.']);
  // the phone goes to another hand: it rings for whoever said so last
  await keepPushDevice(people.get('office')!, { endpoint: mine.endpoint, keys: mine.keys, minutes: [1] });
  expect((await pushState(owner, mine.endpoint)).minutes).toBeNull();
});
test.each([
  ['https://push.services.example/wpush/v2/abc', true],
  ['http://push.services.example/abc', false],
  ['https://push.services.example:8443/abc', false],
  ['https://127.0.0.1/abc', false],
  ['https://[::1]/abc', false],
  ['https://localhost/abc', false],
  ['https://database/abc', false],
  ['https://db.internal/abc', false],
  ['https://user@push.services.example/abc', false],
  ['http://127.0.0.1:5432/', false],
  ['not an address', false],
])('%s may be a push service: %s', async (endpoint, may) => {
  expect(mayBeService(endpoint)).toBe(may);
  if (!may)
    await expect(
      keepPushDevice(people.get('owner')!, { endpoint, keys: { p256dh: 'x', auth: 'y' }, minutes: [] }),
    ).rejects.toMatchObject({ code: 'push-service' });
});
