import { eq } from 'drizzle-orm';
import { againstAnchor, readAnchor } from '@/core/record/anchor';
import { faceOf } from '@/core/record/face';
import { seal as makeSeal } from '@/core/record/seal';
import { restoreBody } from '@/core/record/restore';
import type { RunEvent } from '@/core/run/events';
import { playScript, type ScriptLine } from '@/core/run/script';
import { bakery, gauge, hold, SIGNED, upTo } from '@/core/testing/bakery';
import { closePool, inOrganisation } from '@/database/client';
import { gauges, people, sites, systems } from '@/database/schema';
import { shiftClock } from '@/server/now';
import { readOutbox } from '@/server/outbox/outbox';
import { recordOf } from '@/server/records/records';
import { keepAnchored, publicAnchors, readAnchors, setAnchors } from '@/server/sealing/anchors';
import { sealRun } from '@/server/sealing/seal';
import type { Session } from '@/server/session/session';
import { writeRecordFile } from '@/wire/record-file';
import { uuid7 } from '@/wire/uuid7';
import { verifyFile } from '@/wire/verify-file';
import { makeOrganisation } from '../../../scripts/demo';
import { migrateDatabase } from '../../../scripts/migrate';
import { readRun, takeEvents } from './log';
import { startRun } from './start';

/** What somebody tries who writes his own requests: nothing of it is believed. */
let tester: Session;
let owner: Session;
let system: string;
const GAUGE = uuid7(Date.now());

beforeAll(async () => {
  await migrateDatabase(process.env.VAST_OWNER_URL!);
  const domain = `${uuid7(Date.now())}.example`;
  const made = await makeOrganisation(
    domain,
    '',
    [
      { key: 'odile-claims', name: 'Odile Strand', role: 'owner', licence: ['GT-1', '2099-01-01'] },
      { key: 'runa-claims', name: 'Runa Achterberg', role: 'tester', licence: ['GT-2', '2099-01-01'] },
    ],
    domain,
  );
  const session = (key: string): Session => {
    const { id, ...person } = made.persons.get(key)!;
    return { ...person, person: id, org: made.org, organisation: domain, session: '' };
  };
  owner = session('odile-claims');
  tester = session('runa-claims');
  system = uuid7(Date.now());
  await inOrganisation(made, async (tx) => {
    const site = uuid7(Date.now());
    await tx
      .insert(sites)
      .values({ org: made.org, id: site, name: 'Kiln', address: '2 Fulling Yard', customer: 'A. Baker' });
    await tx.insert(systems).values({ org: made.org, id: system, site, name: 'Kiln gas', facts: bakery() });
    const facts = { ...gauge(), id: GAUGE, name: 'G-02', calibrationDue: '2099-01-01' };
    await tx.insert(gauges).values({ org: made.org, id: GAUGE, name: 'G-02', facts });
  });
}, 240_000);
afterAll(async () => {
  shiftClock(0);
  await closePool();
});

const WHOLE: ScriptLine[] = [
  ...upTo(['9.10', '9.10']),
  ...hold(200, '20.50', '20.48'),
  [450, 'zero', '0.00'],
  ...SIGNED(500),
];
/** A run that has just begun, and the whole test of it as its device would have sent it. */
async function begun() {
  const run = uuid7(Date.now());
  await startRun(tester, {
    id: run,
    system,
    pack: 'gas-metric',
    procedure: 'gas-lowpressure-staged',
    case: 'existing',
    practice: false,
    zone: 'UTC',
  });
  const { plan } = await readRun(tester, run);
  const entries = playScript(plan, WHOLE, {
    device: uuid7(1),
    pageLoad: uuid7(2),
    zone: 'UTC',
    by: tester.person,
    byName: tester.name,
    began: Date.parse(plan.made.at),
    id: () => uuid7(Date.now()),
  });
  return { run, plan, entries };
}
/** Sends each entry at its own moment: the office's clock goes along. */
async function asItHappens(run: string, entries: readonly RunEvent[]) {
  for (const e of entries) {
    shiftClock(e.at - Date.now());
    await takeEvents(tester, run, [e]);
  }
}
const sealed = async (run: string, by = tester) => {
  await sealRun(by, run);
  return faceOf((await recordOf(by, run)).body);
};

test('a test of ten minutes, posted at once and sealed, is no certificate, and says why', async () => {
  shiftClock(0);
  const { run, entries } = await begun();
  await takeEvents(tester, run, entries);
  const face = await sealed(run);
  expect(face.body.status).toBe('not-a-certificate');
  expect(face.statusLine).toMatch(/the office had it already/);
});
test('the same test in its own time is one, and each hold says whose clock saw it', async () => {
  const { run, entries } = await begun();
  await asItHappens(run, entries);
  const face = await sealed(run);
  expect([face.body.status, face.holds.map((h) => h.times.split(':')[0])]).toEqual([
    'certificate',
    Array.from({ length: 3 }, () => 'witnessed by the office’s clock'),
  ]);
});
test('held without a signal and sent afterwards it is one too, by the device’s clock', async () => {
  const { run, entries } = await begun();
  shiftClock(entries.at(-1)!.at - Date.now());
  await takeEvents(tester, run, entries);
  const face = await sealed(run);
  expect([face.body.status, face.holds.map((h) => h.times.split(':')[0])]).toEqual([
    'certificate',
    Array.from({ length: 3 }, () => 'by the device’s clock'),
  ]);
});
test('names, links and a gauge’s own log are not what a device says they are', async () => {
  const { run, entries } = await begun();
  shiftClock(entries.at(-1)!.at - Date.now());
  const forged = entries.map((e): RunEvent => {
    const named = { ...e, byName: 'Somebody Else' };
    if (named.kind !== 'signature') return named;
    return named.role === 'tester' ? { ...named, name: 'The Inspector' } : { ...named, via: 'link' };
  });
  const answer = await takeEvents(tester, run, forged);
  expect(answer.placed.map((p) => p.event?.byName)).toEqual(forged.map(() => tester.name));
  const { events } = await readRun(tester, run);
  expect(new Set(events.map((e) => e.byName))).toEqual(new Set([tester.name]));
  const signatures = events.flatMap((e) => (e.kind === 'signature' ? [[e.role, e.name, e.via]] : []));
  expect(signatures).toEqual([
    ['tester', tester.name, undefined],
    ['customer', 'A. Baker', undefined],
  ]);
  // sent again it answers as it stands, and stands once
  expect((await takeEvents(tester, run, forged)).placed).toEqual(answer.placed);
  expect((await readRun(tester, run)).events).toHaveLength(entries.length);
});
test('display values that somebody typed are refused; readings said to be taken from a display count as typed', async () => {
  const { run, entries, plan } = await begun();
  const until = entries.findIndex((e) => e.kind === 'hold-end');
  const { kind: _k, ...last } = entries[until]!;
  const stream = {
    ...(last as RunEvent),
    id: uuid7(Date.now()),
    kind: 'stream',
    gauge: GAUGE,
    simulated: false,
    ...{ scale: 2, unit: 'mbar', points: Array.from({ length: 60 }, (_, i) => [last.at - i * 1000, 910]) },
  } as unknown as RunEvent;
  shiftClock(entries.at(-1)!.at - Date.now());
  await takeEvents(tester, run, entries.slice(0, until));
  await expect(takeEvents(tester, run, [stream])).rejects.toMatchObject({ status: 403, code: 'stream' });
  const rest = entries.slice(until).map((e) => ('readAt' in e ? { ...e, streamed: true } : e));
  await takeEvents(tester, run, rest);
  await sealRun(tester, run);
  const { events } = restoreBody((await recordOf(tester, run)).body);
  expect(events.some((e) => e.kind === 'stream')).toBe(false);
  const { provenanceOf } = await import('@/core/record/provenance');
  const { reduce } = await import('@/core/run/reduce');
  expect(provenanceOf(reduce(plan, events))).toMatchObject({ taken: 0, streamed: 0 });
});
test('an owner’s button makes no certificate of a tester’s work whose licence ran out; who signed and who sealed both stand there', async () => {
  const licence = (until: string) =>
    inOrganisation(owner, (tx) =>
      tx.update(people).set({ licenceUntil: until }).where(eq(people.id, tester.person)),
    );
  const { run, entries } = await begun();
  await asItHappens(run, entries);
  await licence('2020-01-01');
  const face = await sealed(run, owner);
  await licence('2099-01-01');
  expect(face.body.status).toBe('not-a-certificate');
  expect(face.statusLine).toMatch(
    /licence GT-2 of Runa Achterberg, who signed as tester, ran out on 2020-01-01/,
  );
  const again = await begun();
  await asItHappens(again.run, again.entries);
  const good = await sealed(again.run, owner);
  expect(good.statusLine).toBe(
    'TEST CLOCK. Signed by a licensed tester, Runa Achterberg: licence GT-2, valid to 2099-01-01; sealed by Odile Strand, owner',
  );
});
test('a day’s last record is anchored once the day is over, sent and published; a record written anew shows against it', async () => {
  const day = 86_400_000;
  // later than everything sealed before here, and at noon: what is done then is done on one day, whenever this is run
  const begins = Math.ceil(Date.now() / day + 40) * day + day / 2;
  shiftClock(begins - Date.now());
  const first = await begun();
  await asItHappens(first.run, first.entries);
  const { number } = await sealRun(tester, first.run);
  await setAnchors(owner, { to: 'surveyor@quarter.example', published: false });
  const about = async () => (await readAnchors(owner)).lines.filter((l) => l.number === number);
  expect(await about()).toEqual([]); // the day is not over: more may follow
  shiftClock(begins - Date.now() + day);
  const [row] = await about();
  const anchor = readAnchor(row!.line)!;
  const record = await recordOf(owner, first.run);
  expect(anchor).toEqual({
    day: new Date(begins).toISOString().slice(0, 10),
    number,
    hash: record.seal.hash,
    key: record.seal.key,
  });
  expect(await about()).toHaveLength(1); // asked again, it stands once
  const mail = (await readOutbox(owner)).filter((m) => m.to === 'surveyor@quarter.example');
  expect(mail).toHaveLength(1);
  expect(mail[0]!.body).toContain(row!.line);
  // the next seal, on a later day, follows the anchored one
  const second = await begun();
  await asItHappens(second.run, second.entries);
  await sealRun(tester, second.run);
  expect(againstAnchor(anchor, record.seal).word).toBe('agrees');
  // and has an anchor of its own when anybody comes in on a later day
  await keepAnchored(owner);
  const sent = async () =>
    (await readOutbox(owner)).filter((m) => m.to === 'surveyor@quarter.example').length;
  expect(await sent()).toBe(1);
  shiftClock(begins - Date.now() + 3 * day);
  await Promise.all([keepAnchored(owner), keepAnchored(owner), keepAnchored(tester)]);
  expect(await sent()).toBe(2);
  const anew = makeSeal(record.body.replace('Kiln', 'Mill'), number, record.seal.previous, '44'.repeat(32));
  expect(againstAnchor(anchor, anew).word).toBe('differs');
  const file = new TextEncoder().encode(writeRecordFile(record));
  expect(
    verifyFile(file, undefined, { key: record.seal.key.slice(0, 12), anchors: [row!.line] }),
  ).toMatchObject({
    untouched: true,
    notes: [expect.stringMatching(/the one expected/), expect.stringMatching(/stood in the series/)],
  });
  expect(verifyFile(file, undefined, { key: 'ab'.repeat(6) }).faults.join()).toMatch(
    /another key than the one expected/,
  );
  expect(verifyFile(file, undefined, { anchors: [row!.line.slice(0, -1)] }).faults.join()).toMatch(
    /cannot be read/,
  );
  // its public address: made, open to nobody who guesses, ended
  const { token } = await setAnchors(owner, { to: '', published: true });
  expect((await publicAnchors(token)).lines.map((l) => l.line)).toContain(row!.line);
  await expect(publicAnchors(`${token.slice(0, -2)}xx`)).rejects.toMatchObject({ status: 404 });
  await expect(setAnchors(tester, { to: '', published: false })).rejects.toMatchObject({ status: 403 });
  await setAnchors(owner, { to: '', published: false });
  await expect(publicAnchors(token)).rejects.toMatchObject({ status: 404 });
  shiftClock(0);
});
test('entries of after the seal are refused and stay where they are', async () => {
  const { run, entries } = await begun();
  await asItHappens(run, entries);
  await sealRun(tester, run);
  const { kind: _k, ...base } = entries.at(-1)!;
  const note = {
    ...base,
    id: uuid7(Date.now()),
    kind: 'note',
    text: 'later',
    at: base.at - 72 * 60_000,
  } as RunEvent;
  await expect(takeEvents(tester, run, [note])).rejects.toMatchObject({ status: 409, code: 'sealed' });
});
