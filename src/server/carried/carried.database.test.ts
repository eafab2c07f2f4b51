import { eq } from 'drizzle-orm';
import { demandBegins, type Known, planAsked, planDigest, wholeOf } from '@/wire/asked-plan';
import { closePool, inOrganisation } from '@/database/client';
import { runs } from '@/database/schema';
import { ownKitOf } from '@/core/instrument/kit';
import type { Plan } from '@/core/plan/plan';
import { saveGauge } from '@/server/cabinet/cabinet';
import { shiftClock, now } from '@/server/now';
import { quickTest } from '@/server/places/quick';
import { saveSite, saveSystem } from '@/server/places/places';
import { startRun } from '@/server/runs/start';
import type { Session } from '@/server/session/session';
import type { CarriedAnswer, CarriedClaim } from '@/wire/carried';
import { gaugeFromForm } from '@/wire/cabinet';
import { sectionOfFacts } from '@/wire/first-facts';
import { noFacts } from '@/wire/no-facts';
import { gaugeOfQuick, runOfQuick, siteOfQuick } from '@/wire/quick-begin';
import type { StartRun } from '@/wire/requests';
import { ROLES, type Role } from '@/wire/role';
import { formOfSystem, systemFromForm } from '@/wire/system-form';
import { uuid7 } from '@/wire/uuid7';
import { membersOf } from '../../../scripts/members';
import { carriedFor } from './carried';

let people: ReadonlyMap<Role, Session>;
let stranger: Session;
let who: Session;
const [SITE, SYSTEM, GAUGE] = [1, 2, 3].map((n) => uuid7(Date.now() + n)) as [string, string, string];
const gaugeForm = (over: object = {}) => ({
  id: GAUGE,
  name: 'G-02',
  serial: 'HT-2207',
  kind: 'digital' as const,
  least: '-100 mbar',
  greatest: '200 mbar',
  resolution: '0.01 mbar',
  accuracy: '',
  calibrated: '2026-01-01',
  calibrationDue: '2099-01-01',
  ...over,
});
const gas = (over: object = {}) => ({
  ...noFacts(),
  name: 'Kiln gas',
  meterKind: 'diaphragm-U6-G4',
  meterVolume: '8 l',
  length: '8 m',
  counted: [{ word: 'hob', count: 1 }],
  ...over,
});
const formOf = (facts: ReturnType<typeof gas>, id: string) =>
  formOfSystem(sectionOfFacts(facts, id, 'diaphragm U6 / G4'));

beforeAll(async () => {
  people = await membersOf(ROLES);
  stranger = (await membersOf(['tester'])).get('tester')!;
  who = people.get('tester')!;
  await saveSite(who, { id: SITE, name: 'Kiln', address: '2 Fulling Yard', customer: 'A. Baker' });
  await saveSystem(who, SYSTEM, SITE, formOf(gas(), SYSTEM));
  await saveGauge(who, gaugeForm());
}, 120_000);
afterAll(async () => {
  shiftClock(0);
  await closePool();
});

let n = 0;
const id = () => uuid7(Date.now() + 100 + n++);
const carry = (session = who, systems = [SYSTEM]): Promise<CarriedAnswer> =>
  carriedFor(session, { house: true, systems, marks: [] });
const asked = (over: Partial<StartRun> = {}): StartRun => ({
  id: id(),
  system: SYSTEM,
  pack: 'gas-metric',
  procedure: 'gas-lowpressure-staged',
  case: 'existing',
  choices: {},
  practice: false,
  zone: 'UTC',
  ...over,
});
/** What a device makes of what it carries: its plan, and what it says of it. */
function onDevice(
  { house, systems }: CarriedAnswer,
  request: StartRun,
  at = now(),
): { plan: Plan; claim: CarriedClaim } {
  const one = systems.find((s) => s.id === request.system)!;
  const pack = house!.packs.find((p) => p.id === request.pack)!;
  const known: Known = {
    organisation: house!.organisation,
    site: one.given.value.site,
    system: one.given.value.system,
    pack: pack.pack!,
    packHash: pack.hash,
    gauges: house!.cabinet.value.gauges,
    ownKit: ownKitOf(house!.cabinet.value.things, at, request.zone),
    by: who.name,
    at,
  };
  const plan = planAsked(request, known);
  demandBegins(plan);
  return {
    plan,
    // as it comes over the wire
    claim: JSON.parse(
      JSON.stringify({
        at,
        digest: planDigest(plan),
        pack: pack.hash,
        system: one.given,
        cabinet: house!.cabinet,
        entered: [],
      }),
    ) as CarriedClaim,
  };
}
const planOf = (run: string): Promise<Plan> =>
  inOrganisation(who, async (tx) => (await tx.select().from(runs).where(eq(runs.id, run)))[0]!.plan);
const begunWith = async (claim: CarriedClaim, request: StartRun): Promise<Plan> => {
  await startRun(who, { ...request, carried: claim });
  return planOf(request.id);
};

test('the office makes the same plan from what it gave: nothing differs, and when it was begun stands in it', async () => {
  const given = await carry();
  const request = asked();
  const { plan, claim } = onDevice(given, request, now());
  const made = await begunWith(claim, request);
  expect(planDigest(made)).toBe(planDigest(plan));
  expect(made.carried).toEqual({
    given: new Date(claim.system!.at).toISOString(),
    arrived: expect.any(String) as string,
    changed: [],
  });
  expect(made.made.at).toBe(new Date(claim.at).toISOString());
  // asked twice it is the same run
  await startRun(who, { ...request, carried: claim });
  expect(await planOf(request.id)).toEqual(made);
});

test('what the office changed meanwhile is said, and the run goes on with what stood before the person', async () => {
  const given = await carry();
  const request = asked();
  const { claim } = onDevice(given, request);
  await saveSystem(who, SYSTEM, null, formOf(gas({ length: '30 m' }), SYSTEM));
  await saveSite(who, { id: SITE, name: 'Kiln', address: '2 Fulling Yard', customer: 'Another' });
  await saveGauge(who, gaugeForm({ calibrationDue: '2026-02-01' }));
  const made = await begunWith(claim, request);
  expect(made.carried!.changed).toEqual(
    expect.arrayContaining(['name, address or customer of the place', 'installation: pipes', 'gauge G-02']),
  );
  expect(made.system.pipes).toEqual(given.systems[0]!.given.value.system.pipes);
  await saveSystem(who, SYSTEM, null, formOf(gas(), SYSTEM));
  await saveSite(who, { id: SITE, name: 'Kiln', address: '2 Fulling Yard', customer: 'A. Baker' });
  await saveGauge(who, gaugeForm());
});

test.each([
  [
    'a shorter pipe than the office gave',
    (c: CarriedClaim) => {
      (c.system!.value as { system: { pipes: unknown[] } }).system.pipes = [];
    },
  ],
  [
    'a gauge whose calibration never ends',
    (c: CarriedClaim) => {
      (c.cabinet!.value as { gauges: { calibrationDue: string }[] }).gauges[0]!.calibrationDue = '9999-01-01';
    },
  ],
  ['given later than it was', (c: CarriedClaim) => void (c.system!.at += 1)],
  ['a proof of something else', (c: CarriedClaim) => void (c.system!.proof = c.cabinet!.proof)],
])('%s: no proof, so the office’s own stands, and the difference is said', async (_, forge) => {
  const given = await carry();
  const request = asked();
  const { claim } = onDevice(given, request);
  forge(claim);
  claim.digest = 'f'.repeat(64);
  const made = await begunWith(claim, request);
  const plain = asked();
  await startRun(who, plain);
  const own = await planOf(plain.id);
  expect([made.system, made.gauges]).toEqual([own.system, own.gauges]);
  expect(made.carried!.changed.at(-1)).toMatch(/^the plan the device had made/);
});

test('a proof of another house is none here; another house is given nothing of this one', async () => {
  expect((await carry(stranger)).systems).toEqual([]);
  const site = id();
  const system = id();
  await saveSite(stranger, { id: site, name: 'Elsewhere', address: '', customer: '' });
  await saveSystem(stranger, system, site, formOf(gas({ length: '1 m' }), SYSTEM));
  const theirs = (await carry(stranger, [system])).systems[0]!;
  const request = asked();
  const { claim } = onDevice(await carry(), request);
  claim.system = {
    ...theirs.given,
    value: { ...theirs.given.value, system: { ...theirs.given.value.system, id: SYSTEM } },
  };
  const made = await begunWith(claim, request);
  expect(made.carried!.given).toBeNull();
  expect(made.system.pipes).not.toEqual(theirs.given.value.system.pipes);
});

test.each([
  ['an hour before it was given', -3_600_000, (at: number, given: number) => at >= given],
  ['in the future', 86_400_000, (at: number) => at <= Date.now() + 60_000],
])('begun %s by the device’s clock: held to what can be', async (_, off, holds) => {
  const given = await carry();
  const request = asked();
  const { claim } = onDevice(given, request, now() + off);
  const made = await begunWith(claim, request);
  expect(holds(Date.parse(made.made.at), claim.system!.at)).toBe(true);
});

test('what was given longer ago than any run is under way is no knowledge: the office’s own stands, and it is said', async () => {
  shiftClock(-32 * 86_400_000);
  const given = await carry();
  shiftClock(0);
  const request = asked();
  const { claim } = onDevice(given, request);
  const made = await begunWith(claim, request);
  expect(made.carried!.given).toBeNull();
  expect(Date.parse(made.made.at)).toBeGreaterThan(now() - 60_000);
});
test('what stands before a person on a place nobody knows: entered and begun in one, the same plan on both sides', async () => {
  const [run, site, system, fresh] = [id(), id(), id(), id()];
  const quick = {
    run,
    site,
    system,
    facts: gas(),
    pack: 'gas-metric',
    procedure: 'gas-lowpressure-staged',
    case: 'existing',
    newGauge: { id: fresh, name: 'Pocket 7', greatest: '60 mbar', resolution: '0.01 mbar' },
    zone: 'UTC',
  };
  const { house } = await carry();
  const at = now();
  const pack = house!.packs.find((p) => p.id === 'gas-metric')!;
  const plan = planAsked(runOfQuick(quick), {
    organisation: house!.organisation,
    site: siteOfQuick(quick, at),
    system: wholeOf(systemFromForm(formOf(gas(), system), null, system)),
    pack: pack.pack!,
    packHash: pack.hash,
    gauges: [...house!.cabinet.value.gauges, gaugeFromForm(gaugeOfQuick(quick.newGauge), null)],
    ownKit: [],
    by: who.name,
    at,
  });
  const claim = JSON.parse(
    JSON.stringify({
      at,
      digest: planDigest(plan),
      pack: pack.hash,
      cabinet: house!.cabinet,
      entered: [fresh, site],
    }),
  ) as CarriedClaim;
  await quickTest(who, { ...quick, carried: claim });
  const made = await planOf(run);
  expect(made.carried).toMatchObject({ given: null, changed: [] });
  expect([made.gaugeMeant, made.site.name]).toEqual([fresh, plan.site.name]);
});

test('what a device has it is not given again; one installation alone comes alone', async () => {
  const all = await carry();
  const marks = all.house!.packs.map((p) => p.mark);
  const again = await carriedFor(who, { house: true, systems: [], marks });
  expect(again.house!.packs.every((p) => p.pack === undefined)).toBe(true);
  const one = await carriedFor(who, { house: false, systems: [SYSTEM], marks: [] });
  expect([one.house, one.systems.map((s) => s.id)]).toEqual([null, [SYSTEM]]);
  // who tested it last is given it without asking
  expect((await carriedFor(who, { house: true, systems: [], marks })).systems.map((s) => s.id)).toContain(
    SYSTEM,
  );
});

test('nobody begins without a signal what they may not begin with one', async () => {
  const request = asked();
  const { claim } = onDevice(await carry(), request);
  await expect(startRun(people.get('office')!, { ...request, carried: claim })).rejects.toMatchObject({
    status: 403,
  });
  await expect(startRun(stranger, { ...request, carried: claim })).rejects.toMatchObject({ status: 404 });
});
