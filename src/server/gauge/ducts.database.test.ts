/** Ducts on a database: pairs of pressure and flow from a gauge, the fan of a practice run, and what a fan's hose passes in its log. */
import { pairShown } from '@/core/kinds/fan/asked';
import { parseWithUnit as q } from '@/core/quantity/exact';
import { reduce } from '@/core/run/reduce';
import { playScript, type ScriptLine } from '@/core/run/script';
import type { SimulatedDuct } from '@/core/simulation/duct';
import { SIMULATED_RINGS } from '@/core/simulation/duct';
import { fanKit, loft, paGauge } from '@/core/testing/loft';
import { closePool, inOrganisation } from '@/database/client';
import { gauges, kit, sites, systems } from '@/database/schema';
import { readCabinet } from '@/server/cabinet/cabinet';
import { appendEvents, readRun } from '@/server/runs/log';
import { planFor, startRun } from '@/server/runs/start';
import { gaugeBatchSchema, type GaugeBatch } from '@/wire/requests';
import { uuid7 } from '@/wire/uuid7';
import type { Server } from 'node:http';
import { askedGauges } from '../../../scripts/asked-gauges';
import { makeOrganisation } from '../../../scripts/demo';
import { migrateDatabase } from '../../../scripts/migrate';
import { takeReadings } from './ingest';
import { pairGauge } from './pairing';
import { workSimulated } from './simulated';

let standIn: Server;
let sent: { code: string; installation: SimulatedDuct } | null = null;
let who: Parameters<typeof startRun>[0];
const system = uuid7(Date.now());
const fan = uuid7(Date.now());
const gauge = uuid7(Date.now());

beforeAll(async () => {
  standIn = await askedGauges((url, body) => {
    if (url === '/installations') sent = body as typeof sent;
  });
  await migrateDatabase(process.env.VAST_OWNER_URL!);
  const people = [{ key: 'runa', name: 'Runa Achterberg', role: 'tester' as const }];
  const made = await makeOrganisation('Duct House', '', people, 'ducts.example');
  const person = made.persons.get('runa')!;
  who = {
    org: made.org,
    person: person.id,
    name: person.name,
    role: person.role,
    organisation: 'Duct House',
    licence: null,
    session: '',
  };
  await inOrganisation(made, async (tx) => {
    const { org } = made;
    const site = uuid7(Date.now());
    await tx.insert(sites).values({ org, id: site, name: 'Loft', address: '', customer: '' });
    await tx.insert(systems).values({ org, id: system, site, name: 'Loft air', facts: loft() });
    const { ranges, accuracy, name, serial } = fanKit();
    const facts = { id: fan, kind: 'fan' as const, name, serial, due: '', interval: null, note: '' };
    await tx
      .insert(kit)
      .values({ org, id: fan, name, facts: { ...facts, ranges: ranges!, accuracy: accuracy! } });
    await tx.insert(gauges).values({
      org,
      id: gauge,
      name: paGauge.name,
      facts: { ...paGauge, id: gauge, calibrationDue: '2099-01-01' },
    });
  });
}, 240_000);
afterAll(async () => {
  standIn.close();
  await closePool();
});

const request = (over: object) => ({
  id: uuid7(Date.now()),
  system,
  pack: 'duct',
  procedure: 'duct-tightness',
  case: 'rough-in-with',
  practice: false,
  zone: 'UTC',
  ...over,
});
async function play(run: string, lines: readonly ScriptLine[]): Promise<void> {
  const { plan, events } = await readRun(who, run);
  const all = playScript(plan, lines, {
    device: uuid7(1),
    pageLoad: uuid7(1),
    zone: 'UTC',
    by: who.person,
    byName: who.name,
    began: Date.parse(plan.made.at),
    id: () => uuid7(Date.now()),
  });
  await appendEvents(who, run, all.slice(events.filter((e) => e.kind !== 'stream').length));
}
const batch = (points: [number, number][], flows: (number | null)[]): GaugeBatch => ({
  live: [points[points.length - 1]!],
  scale: 1,
  unit: 'Pa',
  flow: { unit: 'CFM', scale: 1, live: [flows[flows.length - 1]!] },
  batch: { id: uuid7(Date.now()), sequence: 1, points, flows },
});

test('a practice run brings a fan with its rings, the limit of its plan, and a gauge that shows a flow', async () => {
  const run = request({ practice: true, fault: 'ring' });
  await startRun(who, run);
  const { plan } = await readRun(who, run.id);
  expect(plan.ownKit).toMatchObject([{ name: 'Simulated fan', kind: 'fan', ranges: SIMULATED_RINGS }]);
  expect(plan.gauges).toMatchObject([{ name: 'Simulated gauge', simulated: true, resolution: q('0.1 Pa') }]);
  expect(sent!.installation).toMatchObject({
    kind: 'duct',
    truth: { mounted: 'ring 1' },
    reference: 25,
    pushed: true,
  });
  expect(sent!.installation.limit).toBeCloseTo(0.022653, 5);
  expect(sent!.installation.registers).toHaveLength(8);
  const work = (act: string, over: object) => workSimulated(who, run.id, { act, ...over });
  await expect(work('mount', { value: 'ring 9' })).rejects.toMatchObject({
    code: 'hand',
    message: 'There is no such ring.',
  });
  await expect(work('mask', { id: 'elsewhere' })).rejects.toMatchObject({
    code: 'hand',
    message: 'There is no such register.',
  });
  await expect(work('speed', { value: '120' })).rejects.toMatchObject({
    code: 'hand',
    message: 'Say the speed of the fan, from 0 to 100 %.',
  });
  await expect(work('mount', { value: 'ring 3' })).resolves.toEqual({});
});
test('pairs enter the log as they were sent; a reading taken over from them is known to be theirs, another is not', async () => {
  const run = request({ practice: true, fault: 'none' });
  await startRun(who, run);
  const { token } = await pairGauge(sent!.code, '', '');
  const name = 'Simulated gauge';
  const lines: ScriptLine[] = [
    [1, 'checks'],
    [2, 'checks'],
    [3, 'checks'],
    [4, 'gauge', name],
    [5, 'zero', '0'],
    [6, 'fan', 'Simulated fan', 'ring 2'],
    [7, 'fancannot', 'reading', 'later'],
    [8, 'checks'],
    [9, 'fanoff', '0'],
  ];
  await play(run.id, lines);
  const { plan } = await readRun(who, run.id);
  const began = Date.parse(plan.made.at);
  await takeReadings(token, batch([[began + 1, 251], [began + 2, 252]], [412, null])); // prettier-ignore
  const { events } = await readRun(who, run.id);
  const stream = events.find((e) => e.kind === 'stream')!;
  expect(stream).toMatchObject({ flows: { unit: 'CFM', scale: 1, digits: [412, null] } });
  const rooms = reduce(plan, events).rooms.fan;
  expect(rooms.shown.map((s) => [s.digits, s.flow])).toEqual([
    [251, 412],
    [252, null],
  ]);
  const reading = (pressure: string, flow: string | null) =>
    ({
      streamed: true,
      at: began + 3,
      shown: q(pressure),
      figure: flow && q(flow),
    }) as Parameters<typeof pairShown>[1];
  expect(pairShown(rooms, reading('25.1 Pa', '41.2 CFM'))).toBe(true);
  expect(pairShown(rooms, reading('25.2 Pa', null))).toBe(true);
  expect(pairShown(rooms, reading('25.1 Pa', '41.3 CFM'))).toBe(false);
  expect(pairShown(rooms, reading('25.1 Pa', null))).toBe(false);
  expect(pairShown(rooms, { ...reading('25.1 Pa', '41.2 CFM'), at: began + 6000 })).toBe(false);
});
test.each([
  ['as many flows as points', { batch: { points: [[1, 1], [2, 2]], flows: [1] } }, /as many flows/], // prettier-ignore
  [
    'a flow without its unit',
    { flow: undefined, batch: { points: [[1, 1]], flows: [1] } },
    /unit and the steps/,
  ],
  ['a pressure for a unit of flow', { flow: { unit: 'Pa', scale: 1, live: [1] } }, /one of/],
  ['a flow below nothing', { flow: { unit: 'CFM', scale: 1, live: [-1] } }, /greater than or equal/],
])('of a gauge with two displays is asked: %s', (_, over, words) => {
  const good = batch([[1, 251]], [412]);
  const id = { id: good.batch!.id, sequence: 1 };
  const value = { ...good, ...over, batch: 'batch' in over ? { ...id, ...over.batch } : good.batch };
  expect(() => gaugeBatchSchema.validateSync(value, { strict: true })).toThrow(words);
  expect(() => gaugeBatchSchema.validateSync(good, { strict: true })).not.toThrow();
});
test('a fan’s hose tested by itself stands in its log with the run, and in the plan of the next', async () => {
  const run = request({ procedure: 'duct-blank' });
  await startRun(who, run);
  await play(run.id, [
    [1, 'checks'],
    [2, 'gauge', paGauge.name],
    [3, 'zero', '0'],
    [4, 'fan', 'F-1', 'ring 2'],
    [5, 'blow', '150', '31'],
    [6, 'fanjudge'],
  ]);
  const { kit: things } = await readCabinet(who as never);
  const log = things.find((k) => k.item.id === fan)!.log.map((e) => e.entry);
  expect(log).toEqual([
    { what: 'through', pressure: q('150.0 Pa'), flow: q('31 CFM'), below: false, run: run.id },
  ]);
  const plan = await planFor(who, request({}));
  expect(plan.ownKit![0]!.through).toMatchObject({ days: 0, flow: q('31 CFM'), below: false });
});
test('a fan by its own sheet, and an own-kit test in practice, leave no trace in the cabinet', async () => {
  const entries = async () =>
    (await readCabinet(who as never)).kit.find((k) => k.item.id === fan)!.log.length;
  const before = await entries();
  const run = request({ procedure: 'duct-blank' });
  await startRun(who, run);
  const lead: ScriptLine[] = [
    [1, 'checks'],
    [2, 'gauge', paGauge.name],
    [3, 'zero', '0'],
  ];
  await play(run.id, [
    ...lead,
    [4, 'fan', 'borrowed', 'A', '20 CFM', '90 CFM'],
    [5, 'blow', '150', '21'],
    [6, 'fanjudge'],
  ]);
  expect(
    reduce((await readRun(who, run.id)).plan, (await readRun(who, run.id)).events).rooms.fan.blank,
  ).toMatchObject({ kit: '', flow: q('21 CFM') });
  expect(await entries()).toBe(before);
});
