// @further whole houses taken away and brought in, again and again
import { randomBytes } from 'node:crypto';
import type { Readable } from 'node:stream';
import { eq } from 'drizzle-orm';
import pg from 'pg';
import { ZipFile } from 'yazl';
import { closePool, inOrganisation, lookUp } from '@/database/client';
import { jobPieces, sites } from '@/database/schema';
import { broughtIn, exported, worked } from '@/server/moving/testing';
import type { Session } from '@/server/session/session';
import { MANIFEST, readBundle, readManifest } from '@/wire/bundle';
import { PIECE_BYTES } from '@/wire/jobs';
import { ROLES, type Role } from '@/wire/role';
import { uuid7 } from '@/wire/uuid7';
import { membersOf } from '../../../scripts/members';
import { askJob, beat, beginJob, jobFile, putPiece, readJobs, stopJob } from './jobs';
import { carryNext } from './runner';

let people: ReadonlyMap<Role, Session>;
const owner = () => people.get('owner')!;
const superuser = new pg.Pool({ connectionString: process.env.VAST_SUPERUSER_URL });
const emptied = async () => (await membersOf(['owner'])).get('owner')!;
const newest = async (who = owner()) => (await readJobs(who))[0]!;
const toImport = (bytes: number) => ({ kind: 'import' as const, links: false, file: 'a.zip', bytes });
const pieces = (org: string, job: string) =>
  inOrganisation({ org }, (tx) =>
    tx.select({ n: jobPieces.n }).from(jobPieces).where(eq(jobPieces.job, job)),
  );
/** Another server takes what waits, and falls silent for so long. */
async function takenBySomebodyElse(silent: string): Promise<string> {
  const other = uuid7(Date.now());
  const [taken] = await lookUp<{ job: string }>('take_job($1, $2::interval)', [other, '45 seconds']);
  await superuser.query('update jobs set beat = clock_timestamp() - $2::interval where id = $1', [
    taken!.job,
    silent,
  ]);
  return other;
}
beforeAll(async () => {
  people = await membersOf(ROLES);
  const { org } = owner();
  await inOrganisation(owner(), (tx) =>
    tx.insert(sites).values({ org, id: uuid7(1), name: 'Sluice', address: 'Weir Lane', customer: 'C' }),
  );
}, 120_000);
afterEach(async () => {
  for (const job of await readJobs(owner())) await stopJob(owner(), job.id);
});
afterAll(async () => {
  await superuser.end();
  await closePool();
});

test('of a whole house only the owner asks, sees, sends, stops and fetches; another house finds nothing', async () => {
  const { id } = await askJob(owner(), { kind: 'export', links: false });
  await worked(owner(), id);
  const stranger = await emptied();
  for (const role of ROLES.filter((r) => r !== 'owner')) {
    const who = people.get(role)!;
    for (const act of [
      () => askJob(who, { kind: 'export', links: false }),
      () => putPiece(who, id, 0, new Uint8Array(1)),
      () => beginJob(who, id),
      () => stopJob(who, id),
      () => jobFile(who, id),
    ])
      await expect(act()).rejects.toThrow(
        role === 'apprentice' ? /Only the owner|does not share/ : /Only the owner/,
      );
    if (role === 'apprentice') await expect(readJobs(who)).rejects.toThrow(/does not share/);
    else expect(await readJobs(who)).toEqual([]);
  }
  for (const act of [
    () => putPiece(stranger, id, 0, new Uint8Array(1)),
    () => beginJob(stranger, id),
    () => stopJob(stranger, id),
    () => jobFile(stranger, id),
  ])
    await expect(act()).rejects.toThrow(/no such/);
  expect(await readJobs(stranger)).toEqual([]);
});
test('papers are asked for, seen and fetched by who may share, each their own, and by the owner; where nothing matches it is said', async () => {
  const [tester, office] = [people.get('tester')!, people.get('office')!];
  await expect(askJob(people.get('apprentice')!, { kind: 'papers', links: false })).rejects.toThrow(
    /does not share/,
  );
  const { id } = await askJob(tester, { kind: 'papers', links: false, query: 'find=nothing-like-it' });
  await expect(worked(tester, id)).rejects.toThrow(/No record of this house matches/);
  expect((await readJobs(tester)).map((j) => j.id)).toEqual([id]);
  expect(await readJobs(office)).toEqual([]);
  expect((await readJobs(owner())).some((j) => j.id === id)).toBe(true);
  await expect(stopJob(office, id)).rejects.toThrow(/no such/);
  await expect(jobFile(office, id)).rejects.toThrow(/no such/);
});
test('one at a time; what is stopped leaves nothing and makes room', async () => {
  await askJob(owner(), toImport(10));
  await expect(askJob(owner(), { kind: 'export', links: false })).rejects.toThrow(/under way already/);
  const { id } = await newest();
  await putPiece(owner(), id, 0, new Uint8Array(10));
  expect(await pieces(owner().org, id)).toHaveLength(1);
  await stopJob(owner(), id);
  expect([(await newest()).state, await pieces(owner().org, id)]).toEqual(['stopped', []]);
  await expect(putPiece(owner(), id, 0, new Uint8Array(10))).rejects.toThrow(/not being sent any more/);
  await askJob(owner(), { kind: 'export', links: false });
});
test('a file is sent in pieces of their size, each as often as one likes; half a file does not begin', async () => {
  await expect(askJob(owner(), { kind: 'import', links: false })).rejects.toThrow(/Choose the file/);
  const { id } = await askJob(owner(), toImport(PIECE_BYTES + 5));
  await expect(putPiece(owner(), id, 0, new Uint8Array(5))).rejects.toThrow(
    /changed while it was being sent/,
  );
  await expect(putPiece(owner(), id, 2, new Uint8Array(5))).rejects.toThrow(/changed/);
  await expect(putPiece(owner(), id, -1, new Uint8Array(PIECE_BYTES))).rejects.toThrow(/changed/);
  await putPiece(owner(), id, 1, new Uint8Array(5));
  await putPiece(owner(), id, 1, new Uint8Array(5));
  await expect(beginJob(owner(), id)).rejects.toThrow(/have not arrived/);
  await putPiece(owner(), id, 0, new Uint8Array(PIECE_BYTES));
  await beginJob(owner(), id);
  expect((await newest()).state).toBe('waiting');
});
test('what a server fell silent over, another takes up; what it still works on, nobody does', async () => {
  const { id } = await askJob(owner(), { kind: 'export', links: false });
  const other = await takenBySomebodyElse('1 second');
  expect(await carryNext()).toBe(false);
  await superuser.query("update jobs set beat = clock_timestamp() - interval '46 seconds' where id = $1", [
    id,
  ]);
  expect((await worked(owner(), id)).result!.counts!.sites).toBe(1);
  // the one that comes back sees that it is not its own any more
  expect(await beat({ org: owner().org, id }, other)).toBe(null);
});
test('what ends its server five times is not begun a sixth', async () => {
  await askJob(owner(), { kind: 'export', links: false });
  for (let n = 0; n < 5; n++) await takenBySomebodyElse('46 seconds');
  expect(await carryNext()).toBe(true);
  expect([(await newest()).state, (await newest()).trouble]).toEqual([
    'failed',
    expect.stringMatching(/begun five times/),
  ]);
});
test('an archive of many pieces is the one that was made: listed, signed, and rows as they stand', async () => {
  const { org } = owner();
  const large = randomBytes(3_600_000);
  const hash = 'ab'.repeat(32);
  const system = uuid7(2);
  await superuser.query(
    `insert into systems (org, id, site, name, facts) select $1, $2, id, 'Gas', '{}' from sites where org = $1`,
    [org, system],
  );
  await superuser.query(
    "insert into part_photos (org, system, hash, part, bytes, at, person, by) values ($1, $2, $3, 'tap', $4, now(), $5, 'I')",
    [org, system, hash, large, owner().person],
  );
  const bytes = await exported(owner());
  const read = readBundle(bytes);
  expect([read.faults, bytes.length > 3 * PIECE_BYTES]).toEqual([[], true]);
  const file = (name: string) => Buffer.from(read.files.find((f) => f.name === name)!.bytes);
  expect(file(`part_photos/${system}/${hash}.jpg`).equals(large)).toBe(true);
  expect(JSON.parse(file('tables/sites.ndjson').toString())).toMatchObject({ name: 'Sluice', customer: 'C' });
  expect(file('tables/people.ndjson').toString()).toContain('"password_hash": "!"');
  expect(readManifest(file(MANIFEST)).faults).toEqual([]);
});
test('an empty house takes it in whole; where one bit is another, nothing of it', async () => {
  const bytes = await exported(owner());
  const house = await emptied();
  const places = () => inOrganisation(house, (tx) => tx.select().from(sites));
  for (const at of [0.1, 0.5, 0.9]) {
    const spoilt = Uint8Array.from(bytes);
    spoilt[Math.floor(at * bytes.length)]! ^= 8;
    await expect(broughtIn(house, spoilt)).rejects.toThrow(/changed|not an export/);
    expect(await places()).toEqual([]);
  }
  expect((await broughtIn(house, bytes)).counts).toMatchObject({ sites: 1, systems: 1, part_photos: 1 });
  expect(await places()).toHaveLength(1);
  await expect(broughtIn(house, bytes)).rejects.toThrow(/has places or records already/);
});
test('what has come in is not brought in twice: only the ledger is made after an end in between', async () => {
  const bytes = await exported(owner());
  const house = await emptied();
  const { counts } = await broughtIn(house, bytes);
  // as its server left it that ended between both
  await superuser.query(
    "update jobs set state = 'running', beat = clock_timestamp() - interval '46 seconds' where org = $1",
    [house.org],
  );
  const { id } = await newest(house);
  expect((await worked(house, id)).result).toMatchObject({ counts, records: 0 });
});
test('what is no archive, unpacks without end or has something added is refused in words', async () => {
  const house = await emptied();
  const zipped = async (files: Readonly<Record<string, Buffer>>) => {
    const zip = new ZipFile();
    for (const [name, content] of Object.entries(files)) zip.addBuffer(content, name);
    zip.end();
    const all: Buffer[] = [];
    for await (const chunk of zip.outputStream as Readable) all.push(chunk as Buffer);
    return Buffer.concat(all);
  };
  for (const bytes of [
    Buffer.from('not a zip at all'),
    await zipped({ 'manifest.json': Buffer.alloc(9_000_000) }),
    await zipped({ 'organisation.json': Buffer.from('{}') }),
  ])
    await expect(broughtIn(house, bytes)).rejects.toThrow(/not an export of an organisation/);
  await expect(
    broughtIn(house, await zipped({ 'manifest.json': Buffer.from('{"manifest":"{}"}') })),
  ).rejects.toThrow(/manifest.json was changed/);
});
test('what ended a day ago is forgotten, its file too; what is under way is not', async () => {
  const bytes = await exported(owner());
  expect(bytes.length).toBeGreaterThan(0);
  const { id } = await newest();
  await lookUp('forget_jobs($1)', [new Date(Date.now() - 3_600_000)]);
  expect((await newest()).id).toBe(id);
  const { id: waits } = await askJob(owner(), { kind: 'export', links: false });
  await lookUp('forget_jobs($1)', [new Date(Date.now() + 3_600_000)]);
  expect([(await readJobs(owner())).map((j) => j.id), await pieces(owner().org, id)]).toEqual([[waits], []]);
});
