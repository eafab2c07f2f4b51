import { expectation } from '@/core/run/read';
import { reduce } from '@/core/run/reduce';
import { playScript } from '@/core/run/script';
import { bakery } from '@/core/testing/bakery';
import { closePool, inOrganisation } from '@/database/client';
import { sites, systems } from '@/database/schema';
import { appendEvents, readRun } from '@/server/runs/log';
import { startRun } from '@/server/runs/start';
import type { GaugeBatch } from '@/wire/requests';
import { uuid7 } from '@/wire/uuid7';
import type { Server } from 'node:http';
import { askedGauges } from '../../../scripts/asked-gauges';
import { makeOrganisation } from '../../../scripts/demo';
import { migrateDatabase } from '../../../scripts/migrate';
import { takeReadings } from './ingest';
import { pairGauge } from './pairing';

let standIn: Server;
/** Pairing code that the server hands out. */
let code = '';
let who: Parameters<typeof startRun>[0];
let system: string;
let procedure: { id: string; procedure: string };

beforeAll(async () => {
  standIn = await askedGauges((_, body) => (code = (body as { code?: string }).code ?? code));
  await migrateDatabase(process.env.VAST_OWNER_URL!);
  const made = await makeOrganisation(
    'Gauge House',
    '',
    [{ key: 'runa', name: 'Runa Achterberg', role: 'tester' }],
    'gauge.example',
  );
  const person = made.persons.get('runa')!;
  who = {
    org: made.org,
    person: person.id,
    name: person.name,
    role: person.role,
    organisation: 'Gauge House',
    licence: null,
    session: '',
  };
  procedure = { id: 'gas-metric', procedure: 'gas-lowpressure-staged' };
  system = uuid7(Date.now());
  await inOrganisation(made, async (tx) => {
    const site = uuid7(Date.now());
    await tx.insert(sites).values({ org: made.org, id: site, name: 'Kiln', address: '', customer: '' });
    await tx.insert(systems).values({ org: made.org, id: system, site, name: 'Kiln gas', facts: bakery() });
  });
}, 240_000);
afterAll(async () => {
  standIn.close();
  await closePool();
});

async function practice() {
  const run = uuid7(Date.now());
  await startRun(who, {
    id: run,
    system,
    pack: procedure.id,
    procedure: procedure.procedure,
    case: 'existing',
    practice: true,
    fault: 'none',
    zone: 'UTC',
  });
  const { token } = await pairGauge(code, '', '');
  const { plan } = await readRun(who, run);
  return { run, token, gauge: plan.gauges[0]! };
}
const batch = (n: number): GaugeBatch => ({
  live: [[Date.now(), 2050]],
  scale: 2,
  unit: 'mbar',
  batch: {
    id: uuid7(Date.now()),
    sequence: n,
    points: [
      [Date.now(), 2050],
      [Date.now() + 500, 2051],
    ],
  },
});

test('a wrong code or token opens nothing', async () => {
  await expect(pairGauge('no such code', '', '')).rejects.toMatchObject({ status: 401 });
  await expect(takeReadings('', batch(1))).rejects.toMatchObject({ status: 401 });
  await expect(takeReadings('made up', batch(1))).rejects.toMatchObject({ status: 401 });
});
test('batches enter the log once, only while the gauge judges, only of its own run; pairing again retires the old token', async () => {
  const { run, token, gauge } = await practice();
  await takeReadings(token, batch(1));
  expect((await readRun(who, run)).events).toHaveLength(0);
  const { plan } = await readRun(who, run);
  const scribe = {
    device: uuid7(1),
    pageLoad: uuid7(1),
    zone: 'UTC',
    by: who.person,
    byName: who.name,
    began: Date.parse(plan.made.at),
    id: () => uuid7(Date.now()),
  };
  await appendEvents(
    who,
    run,
    playScript(
      plan,
      [
        [1, 'checks'],
        [2, 'gauge', gauge.name],
      ],
      scribe,
    ),
  );
  const first = batch(2);
  await takeReadings(token, first);
  await takeReadings(token, first);
  const { events } = await readRun(who, run);
  expect(events.filter((e) => e.kind === 'stream')).toHaveLength(1);
  expect(reduce(plan, events).visits[1]!.trace).toHaveLength(2);
  // what cannot be true is left out, the rest is taken
  const odd = batch(9);
  const points = [Date.parse(plan.made.at) - 1, Date.now() + 60_000, Date.now()].map((t) => [t, 2052]);
  expect(await takeReadings(token, { ...odd, batch: { ...odd.batch!, points } })).toMatchObject({ left: 2 });
  expect(reduce(plan, (await readRun(who, run)).events).visits[1]!.trace).toHaveLength(3);
  const again = await pairGauge(code, '', '');
  await expect(takeReadings(token, batch(3))).rejects.toMatchObject({ status: 401 });
  expect(await takeReadings(again.token, batch(4))).toMatchObject({ goOn: true });
});
test('when the run has ended the gauge is told to stop', async () => {
  const { run, token } = await practice();
  const { plan } = await readRun(who, run);
  const began = Date.parse(plan.made.at);
  const stop = playScript(
    plan,
    [
      [1, 'stop'],
      [2, 'reason', 'abandoned', ''],
    ],
    {
      device: uuid7(1),
      pageLoad: uuid7(1),
      zone: 'UTC',
      by: who.person,
      byName: who.name,
      began,
      id: () => uuid7(Date.now()),
    },
  );
  expect(stop[0]!.expects).toBe(expectation(reduce(plan, [])));
  await appendEvents(who, run, stop);
  expect(await takeReadings(token, batch(1))).toMatchObject({ goOn: false });
});
test('starting a run twice with one id makes one run; the office cannot start one; an unknown meter is asked for', async () => {
  const run = uuid7(Date.now());
  const request = {
    id: run,
    system,
    pack: procedure.id,
    procedure: procedure.procedure,
    case: 'existing',
    practice: false,
    zone: 'UTC',
  };
  expect(await startRun(who, request)).toEqual(await startRun(who, request));
  await expect(startRun({ ...who, role: 'office' }, { ...request, id: uuid7(2) })).rejects.toMatchObject({
    status: 403,
  });
  await inOrganisation(who, (tx) =>
    tx.update(systems).set({ facts: bakery({ meter: { ...bakery().meter, kind: 'unknown' } }) }),
  );
  await expect(startRun(who, { ...request, id: uuid7(3) })).rejects.toThrow(/meter is not known/);
  await expect(startRun(who, { ...request, id: uuid7(4), system: uuid7(5) })).rejects.toMatchObject({
    status: 404,
  });
});
