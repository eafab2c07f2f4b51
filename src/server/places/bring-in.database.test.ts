import { eq } from 'drizzle-orm';
import { closePool, inOrganisation } from '@/database/client';
import { auditLog, gauges, systems } from '@/database/schema';
import type { Session } from '@/server/session/session';
import type { BringIn } from '@/wire/bring-in/schema';
import { noFacts } from '@/wire/no-facts';
import { ROLES, type Role } from '@/wire/role';
import { uuid7 } from '@/wire/uuid7';
import { membersOf } from '../../../scripts/members';
import { rememberedTable } from '@/server/records/log-mappings';
import { bringIn } from './bring-in';
import { copySystem, listPlaces } from './places';

let people: ReadonlyMap<Role, Session>;
let stranger: Session;
beforeAll(async () => {
  people = await membersOf(ROLES);
  stranger = (await membersOf(['owner'])).get('owner')!;
}, 120_000);
afterAll(closePool);

const who = (role: Role) => people.get(role)!;
const asked = (over: Partial<BringIn>): BringIn => ({ places: [], appliances: [], gauges: [], ...over });
const place = (row: number, name: string, over: object = {}) => ({
  row,
  name,
  address: `${name} Lane`,
  customer: 'Tenants',
  facts: undefined,
  ...over,
});
const gas = (name: string) => ({
  facts: { ...noFacts(), name, length: '8 m', counted: [{ word: 'hob', count: 1 }] },
});
const appliance = (over: object) => ({
  row: 2,
  place: 'Carding row',
  system: '',
  name: 'Oven',
  kind: 'oven',
  where: 'loft',
  valve: 'isolating valve',
  volume: '0.3 l',
  hasPilot: null,
  hasLid: false,
  maxInlet: '',
  input: '',
  make: '',
  model: '',
  serial: '40071',
  ...over,
});
const gauge = (name: string, serial: string) => ({
  row: 2,
  gauge: {
    id: '00000000-0000-4000-8000-000000000002',
    name,
    serial,
    kind: 'digital',
    least: '0 mbar',
    greatest: '130 mbar',
    resolution: '0.01 mbar',
    accuracy: '',
    calibrated: '',
    calibrationDue: '',
  },
});
const became = async (session: Session, over: Partial<BringIn>) =>
  (await bringIn(session, asked(over))).rows.map((r) => r.became);

test('rows are entered once: the same table again finds everything here already, also within one table', async () => {
  const table = {
    places: [
      place(2, 'Carding row', gas('Gas 1')),
      place(3, 'Carding row', gas('Gas 2')),
      place(4, 'Spinning row'),
      place(5, 'CARDING ROW', { address: 'carding row lane' }),
    ],
  };
  expect(await became(who('office'), table)).toEqual(['entered', 'entered', 'entered', 'already']);
  expect(await became(who('owner'), table)).toEqual(['already', 'already', 'already', 'already']);
  const here = (await listPlaces(who('owner'), { most: 500 })).places.filter((p) =>
    /ing row/i.test(p.site.name),
  );
  expect(here.map((p) => [p.site.name, p.systems.map((s) => s.name)])).toEqual([
    ['Carding row', ['Gas 1', 'Gas 2']],
    ['Spinning row', []],
  ]);
  // nobody else’s places are known or touched
  expect(await became(stranger, { places: [place(2, 'Carding row')] })).toEqual(['entered']);
  const lines = await inOrganisation(who('owner'), (tx) =>
    tx.select().from(auditLog).where(eq(auditLog.what, 'entered system')),
  );
  expect(lines.map((l) => l.subject)).toEqual(expect.arrayContaining(['Gas 1', 'Gas 2']));
});
test('an appliance goes where it is meant, and where that is not plain the row says what to do', async () => {
  const session = who('tester');
  const said = await bringIn(
    session,
    asked({
      appliances: [
        appliance({}),
        appliance({ row: 3, system: 'Gas 1' }),
        appliance({ row: 4, system: 'Gas 1' }),
        appliance({ row: 5, place: 'Nowhere' }),
        appliance({ row: 6, place: 'Spinning row' }),
      ],
    }),
  );
  expect(said.rows.map((r) => [r.became, r.text])).toEqual([
    ['refused', expect.stringMatching(/2 installations: write which one/)],
    ['entered', 'Carding row, Oven'],
    ['already', 'Carding row, Oven'],
    ['refused', expect.stringMatching(/No place here is called/)],
    ['refused', expect.stringMatching(/no installation. Enter it first/)],
  ]);
  const [row] = await inOrganisation(session, (tx) =>
    tx.select().from(systems).where(eq(systems.name, 'Gas 1')),
  );
  // nobody said whether it has a pilot: the bench will ask
  expect(row!.facts.appliances.map((a) => [a.name, a.hasPilot, a.hasLid, a.serial])).toEqual([
    ['Hob', true, true, undefined],
    ['Oven', true, false, '40071'],
  ]);
  expect(row!.facts.network!.parts.some((p) => p.name === 'Oven')).toBe(true);
});
test('gauges are told apart by their serial number; only who may calibrate enters them', async () => {
  expect(
    await became(who('tester'), { gauges: [gauge('T-1', '1'), gauge('T-2', '1'), gauge('T-1', '3')] }),
  ).toEqual(['entered', 'already', 'refused']);
  await expect(bringIn(who('office'), asked({ gauges: [gauge('T-9', '9')] }))).rejects.toMatchObject({
    status: 403,
  });
  await expect(bringIn(who('apprentice'), asked({ places: [place(2, 'X')] }))).rejects.toMatchObject({
    status: 403,
  });
  const all = await inOrganisation(who('owner'), (tx) => tx.select().from(gauges));
  expect(all.map((g) => g.name).filter((n) => n.startsWith('T-'))).toEqual(['T-1']);
});
test('how a table was read is remembered for the house alone', async () => {
  const mapping = {
    table: 'places',
    delimiter: ';',
    decimal: ',',
    headerRows: 2,
    day: 'dmy',
    at: { place: 0 },
    units: {},
  } as const;
  await bringIn(who('office'), asked({ remember: { shape: 'table|site', mapping } }));
  expect(await rememberedTable(who('tester'), 'table|site')).toEqual(mapping);
  expect(await rememberedTable(stranger, 'table|site')).toBeNull();
});
test('a system is copied to another place, once, and never out of the house', async () => {
  const [from] = await inOrganisation(who('owner'), (tx) =>
    tx.select().from(systems).where(eq(systems.name, 'Gas 1')),
  );
  const [id, site] = [uuid7(Date.now()), uuid7(Date.now() + 1)];
  const form = { id, name: 'Gas 7', site, newSite: { name: 'Dyeing row', address: '', customer: '' } };
  await copySystem(who('office'), from!.id, form);
  await copySystem(who('office'), from!.id, form);
  const home = (await listPlaces(who('owner'), { most: 500 })).places.find(
    (p) => p.site.name === 'Dyeing row',
  )!;
  expect(home.systems).toEqual([{ id, name: 'Gas 7', medium: 'natural gas', meter: null, appliances: 2 }]);
  for (const session of [stranger, who('apprentice')])
    await expect(copySystem(session, from!.id, { ...form, id: uuid7(Date.now() + 2) })).rejects.toMatchObject(
      { status: session === stranger ? 404 : 403 },
    );
});
