// @further a whole house taken away, put into an empty one, and taken away again
import { publicFace, recordOf } from '@/server/records/records';
import { closePool } from '@/database/client';
import { readAudit } from '@/server/people/people';
import { readPhoto } from '@/server/places/photos';
import { searchLedger } from '@/server/records/ledger';
import { readKeys, rotateKey } from '@/server/sealing/keys';
import { voidRecord } from '@/server/sealing/marks';
import { checkSeal } from '@/server/sealing/seal';
import type { Session } from '@/server/session/session';
import { readBundle } from '@/wire/bundle';
import { createHash } from 'node:crypto';
import pg from 'pg';
import sharp from 'sharp';
import { loadDemo, makeOrganisation } from '../../../scripts/demo';
import { signedIn } from '../../../scripts/members';
import { migrateDatabase } from '../../../scripts/migrate';
import { broughtIn, exported } from './testing';

const superuser = new pg.Pool({ connectionString: process.env.VAST_SUPERUSER_URL, max: 2 });
const DOMAIN = 'moved.example';
let mill: { org: string };
let owner: Session;
let tester: Session;
let stranger: Session;

beforeAll(async () => {
  await migrateDatabase(process.env.VAST_OWNER_URL!);
  const demo = await loadDemo(DOMAIN, 21);
  mill = demo;
  await makeOrganisation(
    'Empty House',
    '',
    [{ key: 'odile', name: 'Odile Strand', role: 'owner' }],
    'empty.example',
  );
  const { email } = demo.people.find((p) => p.role === 'owner')!;
  owner = await signedIn(email.split('@')[0]!, DOMAIN);
  tester = await signedIn('imre', DOMAIN);
  stranger = await signedIn('odile', 'empty.example');
  // a key that was changed, and a record that no longer stands
  await rotateKey(owner);
  const [failing] = await searchLedger(mill, { word: 'not-tight', standing: 'stands' }, 1);
  await voidRecord(tester, failing!.run, 'The wrong section was tested');
}, 400_000);
afterAll(async () => {
  await closePool();
  await superuser.end();
});

test('an export put into an empty organisation: same records, numbers and fingerprints, still verified; nothing secret in it', async () => {
  await expect(exported(tester)).rejects.toThrow(/Only the owner/);
  const run = (await searchLedger(mill, { source: 'own' }, 1))[0]!.run;
  const photo = await sharp({ create: { width: 90, height: 60, channels: 3, background: '#123' } })
    .jpeg()
    .toBuffer();
  const hash = createHash('sha256').update(photo).digest('hex');
  await superuser.query(
    "insert into photos (org, run, hash, width, height, bytes, at, by) values ($1, $2, $3, 90, 60, $4, now(), 'Imre')",
    [mill.org, run, hash, photo],
  );
  const bytes = await exported(owner);
  const text = Buffer.from(bytes).toString('latin1');
  for (const { rows } of [
    await superuser.query('select password_hash as s from people where org = $1', [mill.org]),
    await superuser.query(
      'select sealed_secret as s from signing_keys where org = $1 and sealed_secret is not null',
      [mill.org],
    ),
  ])
    for (const { s } of rows) expect(text.includes(s as string)).toBe(false);
  const spoilt = Uint8Array.from(bytes);
  spoilt[Math.floor(bytes.length / 2)]! ^= 4;
  await expect(broughtIn(stranger, spoilt)).rejects.toThrow(/was changed|is damaged/);
  await expect(broughtIn(owner, bytes)).rejects.toThrow(/has places or records already/);
  const came = await broughtIn(stranger, bytes);
  expect(came.again).toContain('Imre Castellane');
  const strip = (lines: Awaited<ReturnType<typeof searchLedger>>) =>
    lines.map(({ gauges: _g, summary: { broughtIn: _b, ...summary }, ...l }) => ({ ...l, summary }));
  const [before, after] = [await searchLedger(mill, {}, 500), await searchLedger(stranger, {}, 500)];
  expect(strip(after)).toEqual(strip(before));
  expect(after.every((l) => l.source === 'outside' || /^\d{4}-/.test(l.summary.broughtIn ?? ''))).toBe(true);
  for (const l of after.slice(0, 8)) {
    const [a, b] = [await recordOf(mill, l.run), await recordOf(stranger, l.run)];
    expect([b.body, b.seal, b.marks]).toEqual([a.body, a.seal, a.marks]);
    expect([l.number, (await checkSeal(stranger, l.run)).faults]).toEqual([l.number, []]);
  }
  expect(Buffer.compare(await readPhoto(stranger, run, hash), photo)).toBe(0);
  // and out again: every table the same, line for line
  const again = await exported(await signedIn('odile', 'empty.example'));
  const opened = new Map<Uint8Array, ReturnType<typeof readBundle>>();
  const lines = (b: Uint8Array, name: string) => {
    if (!opened.has(b)) opened.set(b, readBundle(b));
    const { files, faults } = opened.get(b)!;
    expect(faults).toEqual([]);
    return new TextDecoder()
      .decode(files.find((f) => f.name === `tables/${name}.ndjson`)!.bytes)
      .split('\n')
      .sort();
  };
  for (const name of [
    'sites',
    'systems',
    'gauges',
    'kit',
    'runs',
    'events',
    'record_marks',
    'sightings',
    'photos',
    'counters',
  ])
    expect([name, lines(again, name)]).toEqual([name, lines(bytes, name)]);
  // what came says so, wherever it is shown; what was open to anybody who has it did not come
  const unmarked = (b: Uint8Array) =>
    lines(b, 'seals').map((l) => l.replace(/"brought_in": ("[^"]*"|null)/, ''));
  expect(unmarked(again).sort()).toEqual(unmarked(bytes).sort());
  const one = await recordOf(stranger, after[0]!.run);
  expect(one.markWords[0]).toMatch(
    /^Brought in on \d{4}-\d\d-\d\d with a whole organisation, not sealed here/,
  );
  expect(publicFace(one).marks[0]).toBe(one.markWords[0]);
  expect((await recordOf(mill, after[0]!.run)).markWords).toEqual(one.markWords.slice(1));
  expect((await readKeys(stranger)).filter((k) => k.broughtIn).length).toBeGreaterThan(0);
  expect((await readAudit(stranger)).some((l) => l.broughtIn !== null)).toBe(true);
  expect(
    lines(bytes, 'public_links')
      .filter(Boolean)
      .every((l) => !l.includes('"revoked":null')),
  ).toBe(true);
  const {
    rows: [live],
  } = await superuser.query<{ token: string }>(
    'select token from public_links where org = $1 and revoked is null limit 1',
    [mill.org],
  );
  const whole = await exported(owner, true);
  const tokens = (b: Uint8Array) => lines(b, 'public_links').join('');
  expect([tokens(bytes).includes(live!.token), tokens(whole).includes(live!.token)]).toEqual([false, true]);
  expect(lines(bytes, 'outbox').some((l) => l.includes('/join/'))).toBe(false);
}, 240_000);
