import { faceOf } from '@/core/record/face';
import { papersOf } from '@/core/record/papers';
import { restoreBody } from '@/core/record/restore';
import { playScript } from '@/core/run/script';
import { closePool, inOrganisation } from '@/database/client';
import { followUps } from '@/database/schema';
import { readOutbox } from '@/server/outbox/outbox';
import { listMembers, readAudit } from '@/server/people/people';
import { publicFace, recordOf } from '@/server/records/records';
import { appendEvents, readRun } from '@/server/runs/log';
import { failuresBySection, recordsBySection } from '@/server/places/looks';
import { readKeys, rotateKey } from '@/server/sealing/keys';
import { supersede, voidRecord } from '@/server/sealing/marks';
import { checkSeal, sealRun } from '@/server/sealing/seal';
import type { Session } from '@/server/session/session';
import { writeRecordFile } from '@/wire/record-file';
import { uuid7 } from '@/wire/uuid7';
import pg from 'pg';
import { loadDemo, makeOrganisation } from '../../../scripts/demo';
import { signedIn } from '../../../scripts/members';
import { migrateDatabase } from '../../../scripts/migrate';
import { followUpCalendar } from './follow-up-calendar';
import { assignFollowUp, closeFollowUp, openFollowUps } from './follow-ups';
import { linksOf, printTicket, readPrints, sendPapers, setPublicLink } from './handing-over';
import { dropView, ledgerChoices, ledgerViewsOf, rebuildLedger, saveView, searchLedger } from './ledger';
import { rememberedMapping, rememberMapping } from './log-mappings';
import { bringInRecord, outsideRecord } from './outside';
import { publicRecord } from './records';

const superuser = new pg.Pool({ connectionString: process.env.VAST_SUPERUSER_URL, max: 2 });
const DOMAIN = 'records.example';
let mill: { org: string; systems: Record<string, string> };
let owner: Session;
let tester: Session;
let stranger: Session;

beforeAll(async () => {
  await migrateDatabase(process.env.VAST_OWNER_URL!);
  mill = await loadDemo(DOMAIN, 21);
  const { signIns } = await makeOrganisation(
    'Stranger House',
    '',
    [{ key: 'odile', name: 'Odile Strand', role: 'owner' }],
    'stranger.example',
  );
  expect(signIns).toHaveLength(1);
  const roles = (await superuser.query('select email, role from people where org = $1', [mill.org])).rows;
  const keyOf = (role: string) => (roles.find((r) => r.role === role).email as string).split('@')[0]!;
  owner = await signedIn(keyOf('owner'), DOMAIN);
  tester = await signedIn('imre', DOMAIN);
  stranger = await signedIn('odile', 'stranger.example');
}, 400_000);
afterAll(async () => {
  await closePool();
  await superuser.end();
});

describe('the ledger', () => {
  test('finds by beginnings of words, serials from their end, numbers without zeros, accents or not; all must occur', async () => {
    const [newest] = await searchLedger(mill, {}, 1);
    const find = async (find: string) => (await searchLedger(mill, { find })).map((l) => l.number);
    expect(await find(newest!.number)).toContain(newest!.number);
    expect(await find(newest!.number.replace(/0/g, '').toLowerCase())).toContain(newest!.number);
    expect(await find('imre cast')).not.toEqual([]);
    expect((await find('880')).length).toBeGreaterThan(0); // serial SH-880
    expect(await find('sh-880 boat')).toEqual(await find('880 BOAT'));
    expect(await find('boat zzz')).toEqual([]);
    expect(await find(`"); drop table ledger; --`)).toEqual([]);
    expect(await find('%')).toEqual(await find('')); // nothing to look for is no filter
  });
  test('filters narrow, alone and together; pages follow each other without gap or repeat', async () => {
    const all = await searchLedger(mill, {}, 500);
    const tight = await searchLedger(mill, { word: 'not-tight' }, 500);
    expect(tight.map((l) => l.run)).toEqual(all.filter((l) => l.word === 'not-tight').map((l) => l.run));
    const one = all[3]!;
    expect(
      (await searchLedger(mill, { system: one.system!, procedure: one.procedure })).every(
        (l) => l.system === one.system,
      ),
    ).toBe(true);
    const day = one.sealedAt.slice(0, 10);
    expect((await searchLedger(mill, { from: day, to: day })).map((l) => l.run)).toEqual(
      all.filter((l) => l.sealedAt.startsWith(day)).map((l) => l.run),
    );
    const pages = [];
    let after: { at: string; id: string } | undefined;
    for (;;) {
      const page = await searchLedger(mill, {}, 4, after);
      pages.push(...page);
      if (page.length < 4) break;
      const last = page[page.length - 1]!;
      after = { at: last.sealedAt, id: last.run };
    }
    expect(pages.map((l) => l.run)).toEqual(all.map((l) => l.run));
    expect(await searchLedger(stranger, {})).toEqual([]);
    expect(await searchLedger(stranger, { find: one.number })).toEqual([]);
  });
  test('made anew from the sealed records it is the same', async () => {
    const before = await searchLedger(mill, {}, 500);
    expect(await rebuildLedger(mill)).toBe(before.length);
    expect(await searchLedger(mill, {}, 500)).toEqual(before);
    const choices = await ledgerChoices(mill);
    expect(choices.testers).toContain('Imre Castellane');
  }, 240_000);
  test('what is followed over the years: the lock-up of a trailer, near what its regulator is set to', async () => {
    const trailer = await searchLedger(mill, { system: mill.systems.trailer! }, 100);
    const lockUps = trailer.flatMap((l) => l.figures.filter((f) => f.key === 'lock-up'));
    expect(lockUps.length).toBeGreaterThan(1);
    expect(lockUps.filter((f) => f.unit !== 'mbar' || f.value < 27 || f.value > 36)).toEqual([]);
  });
  test('a kept search is its maker’s unless shared', async () => {
    const id = uuid7(1);
    await saveView(tester, { id, name: 'not tight', query: 'word=not-tight', shared: false });
    expect((await ledgerViewsOf(owner)).map((v) => v.id)).not.toContain(id);
    await saveView(tester, { id, name: 'not tight', query: 'word=not-tight', shared: true });
    expect((await ledgerViewsOf(owner)).find((v) => v.id === id)).toMatchObject({ own: false });
    await expect(dropView(owner, id)).rejects.toThrow(/no such view/);
    await dropView(tester, id);
  });
});

describe('after sealing', () => {
  test('a new key signs, the old one still proves; a key that is not ours, or was retired, is told', async () => {
    const [line] = await searchLedger(mill, { source: 'own', status: 'certificate' }, 1);
    await expect(rotateKey(tester)).rejects.toThrow(/Only the owner/);
    await rotateKey(owner);
    const keys = await readKeys(mill);
    expect(keys.map((k) => k.retired === null)).toEqual([true, ...keys.slice(1).map(() => false)]);
    expect(await checkSeal(mill, line!.run)).toEqual({ good: true, faults: [] });
    const secrets = await superuser.query('select sealed_secret from signing_keys where org = $1', [
      mill.org,
    ]);
    for (const { sealed_secret } of secrets.rows)
      expect(sealed_secret).toMatch(/^[\w+/=]+\.[\w+/=]+\.[\w+/=]+$/);
  });
  test('a record in the place of another: same readings, signed anew, the old one keeps number and text and says so', async () => {
    const line = (await searchLedger(mill, { source: 'own', word: 'tight', status: 'certificate' }, 1))[0]!;
    const before = await recordOf(mill, line.run);
    const body = restoreBody(before.body);
    const id = uuid7(Date.now());
    const said = {
      id,
      reason: 'The customer’s name was written wrongly',
      site: { name: body.plan.site.name, address: body.plan.site.address, customer: 'Rightly Written' },
      permit: '',
      present: '',
    };
    await expect(supersede(tester, line.run, { ...said, reason: ' ' })).rejects.toThrow(/what was wrong/);
    await supersede(tester, line.run, said);
    expect(await supersede(tester, line.run, said)).toEqual({ run: id }); // asked twice, begun once
    const { plan, events } = await readRun(mill, id);
    const signing = playScript(
      plan,
      [
        [0, 'sign', tester.name],
        [1, 'refuse', 'x', 'away'],
      ],
      {
        device: uuid7(7),
        pageLoad: uuid7(7),
        zone: 'UTC',
        by: tester.person,
        byName: tester.name,
        began: Date.now(),
        id: () => uuid7(Date.now()),
      },
      { after: events },
    );
    await appendEvents(tester, id, signing);
    const { number } = await sealRun(tester, id);
    const after = await recordOf(mill, line.run);
    expect(after.body).toBe(before.body);
    expect(after.seal).toEqual(before.seal);
    expect(after.markWords.join()).toMatch(new RegExp(`Superseded by ${number} .*written wrongly`));
    expect(publicFace(after).marks).toHaveLength(1);
    expect((await checkSeal(mill, line.run)).faults).toEqual([]);
    const made = restoreBody((await recordOf(mill, id)).body);
    expect(made.verdict).toEqual(body.verdict);
    expect(made.plan.site.customer).toBe('Rightly Written');
    expect(made.plan.supersedes!.number).toBe(line.number);
    // what stands otherwise than before stands on its face: it cannot be moved to another place in silence
    const linked = faceOf((await recordOf(mill, id)).body).sections.find(
      (s) => s.title === 'Linked records',
    )!;
    expect(linked.lines[0]).toMatch(
      new RegExp(
        `^In place of ${line.number}: .*Changed from that record: .*Customer: “.*” before, now “Rightly Written”`,
      ),
    );
    expect((await checkSeal(mill, id)).good).toBe(true);
    expect((await searchLedger(mill, { standing: 'superseded' })).map((l) => l.number)).toContain(
      line.number,
    );
    await expect(voidRecord(tester, line.run, 'x')).rejects.toThrow(/superseded by/);
    await expect(supersede(tester, line.run, { ...said, id: uuid7(Date.now()) })).rejects.toThrow(
      /superseded by/,
    );
  });
  test('void keeps its number, counts no more as an earlier record, and cannot be said by an apprentice', async () => {
    const failing = (await searchLedger(mill, { word: 'not-tight', standing: 'stands' }, 100)).find(
      (l) => l.status !== 'practice',
    )!;
    await expect(voidRecord({ ...tester, role: 'apprentice' }, failing.run, 'x')).rejects.toThrow(
      /Only a tester/,
    );
    await expect(voidRecord(stranger, failing.run, 'x')).rejects.toThrow(/no such run here/);
    await voidRecord(tester, failing.run, 'The wrong section was tested');
    const again = await recordOf(mill, failing.run);
    expect(again.seal.number).toBe(failing.number);
    expect(again.markWords.join()).toMatch(/Void since .* The wrong section was tested/);
    expect((await checkSeal(mill, failing.run)).good).toBe(true);
    expect(failuresBySection(await recordsBySection(mill, failing.system!))['']?.run).not.toBe(failing.run);
    const rows = await inOrganisation(mill, (tx) => tx.select().from(followUps));
    expect(rows.filter((r) => r.run === failing.run && r.closed === null)).toEqual([]);
  });
  test('a public link is revoked and made anew; the old one leads nowhere', async () => {
    const [line] = await searchLedger(mill, { source: 'own' }, 1);
    const [old] = await linksOf(mill, line!.run);
    const { token } = await setPublicLink(tester, line!.run, 'make');
    await expect(publicRecord(old!.token)).rejects.toThrow(/no such certificate/);
    expect((await publicRecord(token!)).run).toBe(line!.run);
    await setPublicLink(tester, line!.run, 'revoke');
    await expect(publicRecord(token!)).rejects.toThrow(/no such certificate/);
    await expect(setPublicLink(stranger, line!.run, 'make')).rejects.toThrow(/no such record/);
  });
  test('papers go into the outbox, only those the record calls for; the ticket is no wider than the strip', async () => {
    const tight = (await searchLedger(mill, { word: 'tight', source: 'own' }, 1))[0]!;
    const message = {
      id: uuid7(Date.now()),
      to: 'marlow@thrupp.example',
      note: 'As agreed.',
      papers: ['certificate', 'note'] as const,
    };
    const offered = papersOf(faceOf((await recordOf(mill, tight.run)).body)).map((p) => p.kind);
    const not = (['loss', 'label', 'report'] as const).find((k) => !offered.includes(k))!;
    await expect(sendPapers(tester, tight.run, { ...message, papers: [not] })).rejects.toThrow(
      /does not call for/,
    );
    await sendPapers(tester, tight.run, message);
    await sendPapers(tester, tight.run, message);
    const sent = (await readOutbox(tester)).filter((m) => m.id === message.id);
    expect(sent).toHaveLength(1);
    expect(sent[0]!.papers.map((p) => p.form)).toEqual(['certificate', 'note']);
    await printTicket(tester, tight.run, 'https://example.test');
    const [paper] = await readPrints(mill);
    expect(Math.max(...paper!.paper.split('\n').map((l) => l.length))).toBeLessThanOrEqual(42);
    expect(await readPrints(stranger)).toEqual([]);
  });
});

describe('follow-ups', () => {
  test('a failed test owes a repeat, handed on with a day; it goes into the calendar; what only its event closes is not closed by hand', async () => {
    const open = await openFollowUps(mill);
    expect(new Set(open.map((f) => f.kind)).size).toBeGreaterThan(2);
    expect(open.map((f) => f.due)).toEqual([...open.map((f) => f.due)].sort());
    const some = open.find((f) => f.closes !== null && f.kind !== 'refer')!;
    const [member] = await listMembers(mill);
    await assignFollowUp(tester, some.id, { owner: member!.id, due: '2027-01-02' });
    const after = (await openFollowUps(mill)).find((f) => f.id === some.id)!;
    expect([after.ownerName, after.due]).toEqual([member!.name, '2027-01-02']);
    await expect(
      assignFollowUp(tester, some.id, { owner: stranger.person, due: '2027-01-02' }),
    ).rejects.toThrow(/somebody of the organisation/);
    await expect(assignFollowUp(stranger, some.id, { owner: null, due: '2027-01-02' })).rejects.toThrow(
      /no such follow-up/,
    );
    const ics = await followUpCalendar(tester, false);
    expect(ics).toContain(`UID:${some.id}@vast-stone`);
    expect(ics).toContain('DTSTART;VALUE=DATE:20270102');
    const dated = open.find((f) => f.kind === 'calibration');
    if (dated)
      await expect(closeFollowUp(tester, dated.id)).rejects.toThrow(/off the list when it is seen to/);
    await closeFollowUp(tester, some.id, 'mended');
    expect((await openFollowUps(mill)).map((f) => f.id)).not.toContain(some.id);
  });
});

test('how a log was read is remembered by the shape of its columns, for one organisation', async () => {
  const mapping = {
    delimiter: ';',
    decimal: ',' as const,
    headerRows: 1,
    time: { column: 0, format: 'dmy' as const },
    pressure: { column: 1, unit: 'mbar' as const },
    aheadSeconds: 0,
  };
  await rememberMapping(mill, ';|2|time|mbar', mapping);
  await rememberMapping(mill, ';|2|time|mbar', { ...mapping, aheadSeconds: 30 });
  expect(await rememberedMapping(mill, ';|2|time|mbar')).toEqual({ ...mapping, aheadSeconds: 30 });
  expect(await rememberedMapping(stranger, ';|2|time|mbar')).toBeNull();
});

test('the owner reads the audit log, nobody else', async () => {
  await expect(readAudit(tester)).rejects.toThrow(/Only the owner/);
  const lines = await readAudit(owner);
  expect(lines.map((l) => l.what)).toEqual(expect.arrayContaining(['made void', 'changed the signing key']));
  expect(lines.find((l) => l.what === 'sealed')!.subject).toMatch(/^VS-\d+$/);
  const id = /^[0-9a-f]{8}-[0-9a-f-]{27}$/; // a run, a session or a watch is named as a person knows it
  expect(lines.filter((l) => id.test(l.subject))).toEqual([]);
  const [first] = lines;
  expect((await readAudit(owner, first!.id))[0]!.id).toBe(lines[1]!.id);
});

test('a record of another house comes in verified or marked unverified, once, and never as our own', async () => {
  const { signIns } = await makeOrganisation(
    'Third House',
    '',
    [{ key: 'rafi', name: 'Rafi Lund', role: 'owner' }],
    'third.example',
  );
  expect(signIns).toHaveLength(1);
  const third = await signedIn('rafi', 'third.example');
  const line = (await searchLedger(mill, { word: 'tight', source: 'own' }, 1))[0]!;
  const record = await recordOf(mill, line.run);
  const file = new TextEncoder().encode(writeRecordFile(record));
  const first = await bringInRecord(third, file);
  expect([first.verified, first.number]).toEqual([true, line.number]);
  expect(await bringInRecord(third, file)).toEqual(first);
  await expect(bringInRecord(owner, file)).rejects.toThrow(/record of your own/);
  const changed = new TextEncoder().encode(
    writeRecordFile({
      ...record,
      body: record.body.replace('"tight"', '"void"'),
      seal: { ...record.seal, hash: 'a'.repeat(64) },
    }),
  );
  const second = await bringInRecord(third, changed);
  expect(second.verified).toBe(false);
  // one that was changed under a genuine seal came first: the genuine one is checked by itself
  const spoilt = { ...record, body: record.body.replace('"tight"', '"void"') };
  const tampered = await makeOrganisation(
    'Fourth House',
    '',
    [{ key: 'sol', name: 'Sol Ruud', role: 'owner' }],
    'fourth.example',
  );
  expect(tampered.signIns).toHaveLength(1);
  const fourth = await signedIn('sol', 'fourth.example');
  const bad = await bringInRecord(fourth, new TextEncoder().encode(writeRecordFile(spoilt)));
  const genuine = await bringInRecord(fourth, file);
  expect([bad.verified, genuine.verified, bad.id === genuine.id]).toEqual([false, true, false]);
  expect(await bringInRecord(fourth, file)).toEqual(genuine);
  expect((await outsideRecord(third, second.id)).faults.join()).toMatch(/changed/i);
  const lines = await searchLedger(third, {});
  expect(lines.map((l) => [l.source, l.status])).toEqual([
    ['outside', 'not-a-certificate'],
    ['outside', 'not-a-certificate'],
  ]);
  await expect(outsideRecord(mill, second.id)).rejects.toThrow(/no such record/);
  await expect(bringInRecord(third, new TextEncoder().encode('{}'))).rejects.toThrow(/cannot be read/);
});
