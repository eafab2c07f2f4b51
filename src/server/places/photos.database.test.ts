import { createHash } from 'node:crypto';
import { inArray } from 'drizzle-orm';
import sharp from 'sharp';
import { bakery, gauge } from '@/core/testing/bakery';
import { closePool, inOrganisation } from '@/database/client';
import { gauges, photoParts, photos, sites, systems } from '@/database/schema';
import { saveGauge, writeLog } from '@/server/cabinet/cabinet';
import { shiftClock } from '@/server/now';
import { startRun } from '@/server/runs/start';
import type { Session } from '@/server/session/session';
import { ROLES, type Role } from '@/wire/role';
import { uuid7 } from '@/wire/uuid7';
import { makeOrganisation } from '../../../scripts/demo';
import { signedIn } from '../../../scripts/members';
import { migrateDatabase } from '../../../scripts/migrate';
import { keepPhotoPart, photoProgress, requireClean } from './photos';

const people = new Map<Role, Session>();
const run = uuid7(Date.now());
const GAUGE = uuid7(Date.now() + 1);
beforeAll(async () => {
  await migrateDatabase(process.env.VAST_OWNER_URL!);
  const domain = `${uuid7(Date.now())}.example`;
  const made = await makeOrganisation(
    domain,
    '',
    ROLES.map((role) => ({ key: `${role}-photo`, name: `A ${role}`, role })),
    domain,
  );
  for (const role of ROLES) people.set(role, await signedIn(`${role}-photo`, domain));
  const system = uuid7(Date.now() + 2);
  await inOrganisation(made, async (tx) => {
    await tx.insert(sites).values({ org: made.org, id: system, name: 'Kiln', address: '', customer: '' });
    await tx
      .insert(systems)
      .values({ org: made.org, id: system, site: system, name: 'Kiln gas', facts: bakery() });
    const facts = { ...gauge(), id: GAUGE, calibrationDue: '2099-01-01' };
    await tx.insert(gauges).values({ org: made.org, id: GAUGE, name: facts.name, facts });
  });
  await startRun(people.get('tester')!, {
    id: run,
    system,
    pack: 'gas-metric',
    procedure: 'gas-lowpressure-staged',
    case: 'existing',
    practice: false,
    zone: 'UTC',
  });
}, 120_000);
afterEach(() => shiftClock(0));
afterAll(closePool);

const hashOf = (bytes: Buffer) => createHash('sha256').update(bytes).digest('hex');
const piece = (n: number, bytes: number, of = 4_000_000) =>
  keepPhotoPart(people.get('tester')!, run, hashOf(Buffer.from(String(n))), {
    at: 0,
    of,
    bytes: Buffer.alloc(bytes, n),
  });

test('photos that were begun and never finished go after a week; more than a run can need is refused with the way on', async () => {
  await piece(1, 1000);
  await piece(2, 1000);
  shiftClock(7 * 24 * 3600_000 - 60_000);
  await piece(3, 1000);
  expect((await photoProgress(people.get('tester')!, run, hashOf(Buffer.from('1')))).have).toBe(1000);
  shiftClock(7 * 24 * 3600_000 + 60_000);
  await piece(4, 1000);
  expect((await photoProgress(people.get('tester')!, run, hashOf(Buffer.from('1')))).have).toBe(0);
  expect((await photoProgress(people.get('tester')!, run, hashOf(Buffer.from('3')))).have).toBe(1000);
  for (let n = 10; n < 51; n++) await piece(n, 990_000);
  await expect(piece(60, 990_000)).rejects.toMatchObject({ status: 409, code: 'too-many' });
  await inOrganisation(people.get('tester')!, (tx) =>
    tx.delete(photoParts).where(inArray(photoParts.run, [run])),
  );
  await expect(piece(60, 1000)).resolves.toMatchObject({ whole: false });
}, 60_000);
test('what is no photo is known before anything decodes it; too many pixels and facts of the phone are refused', async () => {
  const svg = Buffer.from(
    `<svg xmlns="http://www.w3.org/2000/svg"><filter id="f"><feGaussianBlur stdDeviation="900"/></filter><rect width="9999" height="9999" filter="url(#f)"/></svg>`,
  );
  const began = Date.now();
  await expect(requireClean(svg, hashOf(svg))).rejects.toMatchObject({ code: 'not-a-photo' });
  expect(Date.now() - began).toBeLessThan(200);
  const make = (width: number, height: number) =>
    sharp({ create: { width, height, channels: 3, background: '#888' } });
  for (const [bytes, code] of [
    [await make(1601, 10).jpeg().toBuffer(), 'too-large'],
    [await make(9000, 9000).jpeg().toBuffer(), 'not-a-photo'] /* more pixels than are looked at */,
    [await make(40, 30).png().toBuffer(), 'not-a-photo'],
    [(await make(400, 300).jpeg().toBuffer()).subarray(0, 900), 'not-a-photo'],
    [
      await make(40, 30)
        .withExif({ IFD0: { Copyright: 'x' } })
        .jpeg()
        .toBuffer(),
      'metadata',
    ],
  ] as const)
    await expect(requireClean(bytes, hashOf(bytes))).rejects.toMatchObject({ code });
  const good = await make(1600, 1200).jpeg().toBuffer();
  expect(await requireClean(good, hashOf(good))).toEqual({ width: 1600, height: 1200 });
  expect(await inOrganisation(people.get('tester')!, (tx) => tx.select().from(photos))).toEqual([]);
});
test('calibrations, taking back into use and the facts of gauges are the owner’s and the tester’s alone; the rest of a log is everybody’s', async () => {
  const empty = { figure: '', pressure: '', loss: '', on: '', due: '', text: '' };
  const write = (role: Role, what: string, more = {}) =>
    writeLog(people.get(role)!, GAUGE, { ...empty, id: uuid7(Date.now()), what, ...more } as never).then(
      () => 'written',
      (e: { code: string }) => e.code,
    );
  const calibrated = { on: '2026-01-01', due: '2098-01-01', text: 'C-1' };
  for (const role of ROLES) {
    const may = role === 'owner' || role === 'tester' ? 'written' : 'role';
    expect([role, await write(role, 'note', { text: 'a word' })]).toEqual([role, 'written']);
    expect([role, await write(role, 'calibrated', calibrated)]).toEqual([role, may]);
    expect([role, await write(role, 'rejected', { text: 'cracked' })]).toEqual([role, 'written']);
    expect([role, await write(role, 'returned', { text: 'new glass' })]).toEqual([role, may]);
    const form = {
      id: uuid7(Date.now()),
      name: `G ${role}`,
      serial: 'S',
      kind: 'digital',
      least: '0 mbar',
      greatest: '100 mbar',
      resolution: '0.01 mbar',
      accuracy: '',
      calibrated: '2026-01-01',
      calibrationDue: '2098-01-01',
    };
    const saved = saveGauge(people.get(role)!, form).then(
      () => 'written',
      (e: { code: string }) => e.code,
    );
    expect([role, await saved]).toEqual([role, may]);
  }
});
