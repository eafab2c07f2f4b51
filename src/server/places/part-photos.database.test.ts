import { createHash } from 'node:crypto';
import sharp, { type Sharp } from 'sharp';
import { makeOrganisation } from '../../../scripts/demo';
import { signedIn } from '../../../scripts/members';
import { migrateDatabase } from '../../../scripts/migrate';
import { withListsOf } from '@/core/network/enter';
import { partsOf } from '@/core/network/network';
import { bakery } from '@/core/testing/bakery';
import { closePool, inOrganisation } from '@/database/client';
import { partPhotos, sites, systems } from '@/database/schema';
import { broughtIn, exported } from '@/server/moving/testing';
import type { Session } from '@/server/session/session';
import { ROLES } from '@/wire/role';
import { uuid7 } from '@/wire/uuid7';
import { hangPhoto, partPhotosOf, readPartPhoto, takeDownPhoto } from './part-photos';

const SYSTEM = uuid7(1);
const section = withListsOf(bakery({ id: SYSTEM }));
const [valve, other] = [partsOf(section.network!, 'valve')[0]!.id, partsOf(section.network!, 'meter')[0]!.id];
const people = new Map<string, Session>();
const as = (role: string) => people.get(role)!;
const firm = async (domain: string) => {
  await makeOrganisation(
    domain,
    '',
    ROLES.map((role) => ({ key: `${role}-x`, name: `A ${role}`, role })),
    domain,
  );
  return Object.fromEntries(
    await Promise.all(ROLES.map(async (r) => [r, await signedIn(`${r}-x`, domain)] as const)),
  );
};
const photo = async (shade: number, change = (s: Sharp) => s) => {
  const bytes = await change(
    sharp({ create: { width: 60, height: 40, channels: 3, background: { r: shade * 40, g: 9, b: 9 } } }),
  )
    .jpeg()
    .toBuffer();
  return { bytes, hash: createHash('sha256').update(bytes).digest('hex') };
};
let strangers: Record<string, Session>;
beforeAll(async () => {
  await migrateDatabase(process.env.VAST_OWNER_URL!);
  for (const [role, s] of Object.entries(await firm(`${uuid7(Date.now())}.example`))) people.set(role, s);
  strangers = await firm(`${uuid7(Date.now())}.far.example`);
  const { org } = as('owner');
  await inOrganisation({ org }, async (tx) => {
    await tx.insert(sites).values({ org, id: SYSTEM, name: 'Mill', address: 'Yard', customer: 'C' });
    await tx.insert(systems).values({ org, id: SYSTEM, site: SYSTEM, name: section.name, facts: section });
  });
}, 120_000);
afterAll(closePool);

test('everybody hangs photos on parts; they come back as they were, newest first, with who took them', async () => {
  for (const [i, role] of ROLES.entries())
    await hangPhoto(as(role), SYSTEM, { part: valve, ...(await photo(i)) });
  const list = await partPhotosOf(as('office'), SYSTEM);
  expect(list.map((p) => [p.part, p.by]).sort()).toEqual(ROLES.map((r) => [valve, `A ${r}`]).sort());
  expect(list.map((p) => p.at)).toEqual(list.map((p) => p.at).sort((a, b) => b - a));
  const first = await photo(0);
  expect(await readPartPhoto(as('apprentice'), SYSTEM, first.hash)).toEqual(first.bytes);
  // hung anew it moves; it is not kept twice
  await hangPhoto(as('office'), SYSTEM, { part: other, ...first });
  const moved = await partPhotosOf(as('office'), SYSTEM);
  expect(moved).toHaveLength(ROLES.length);
  expect(moved.find((p) => p.hash === first.hash)!.part).toBe(other);
});
test('what is no clean photo, or hangs on nothing, is refused and says what to do', async () => {
  const good = await photo(4);
  const hang = (to: Partial<{ part: string; hash: string; bytes: Buffer }>, system = SYSTEM) =>
    hangPhoto(as('tester'), system, { part: valve, ...good, ...to });
  await expect(hang({ part: 'nowhere' })).rejects.toThrow(/not in the drawing any more. Save it first/);
  await expect(hang({ bytes: Buffer.from('no') })).rejects.toThrow(/damaged on its way/);
  await expect(hang({ hash: 'x' })).rejects.toThrow(/no such photo here/);
  await expect(hang({}, uuid7(9))).rejects.toThrow(/no such system here/);
  const where = await photo(5, (s) => s.withExif({ IFD0: { Copyright: 'a place' } }));
  await expect(hang(where)).rejects.toThrow(/carries facts of the phone/);
  const wide = await photo(6, (s) => s.resize(1601, 10));
  await expect(hang(wide)).rejects.toThrow(/larger than the bench makes them/);
  // a small drawing that would be worked on for long is not even opened
  const svg = Buffer.from(
    '<svg xmlns="http://www.w3.org/2000/svg" width="9000" height="9000"><filter id="f"><feTurbulence numOctaves="99" baseFrequency="9"/></filter><rect width="9000" height="9000" filter="url(#f)"/></svg>',
  );
  const since = Date.now();
  await expect(hang({ bytes: svg, hash: createHash('sha256').update(svg).digest('hex') })).rejects.toThrow(
    /not a photo that can be read/,
  );
  expect(Date.now() - since).toBeLessThan(1000);
  const text = Buffer.from('not a picture at all');
  await expect(hang({ bytes: text, hash: createHash('sha256').update(text).digest('hex') })).rejects.toThrow(
    /not a photo that can be read/,
  );
  expect(await partPhotosOf(as('tester'), SYSTEM)).toHaveLength(ROLES.length);
});
test('an apprentice takes down what is theirs, everybody else anything; another organisation finds nothing', async () => {
  const [mine, theirs] = [await photo(2), await photo(1)]; // in the order of the roles
  await expect(takeDownPhoto(as('apprentice'), SYSTEM, theirs.hash)).rejects.toThrow(/Somebody else took/);
  expect(await takeDownPhoto(as('apprentice'), SYSTEM, mine.hash)).toEqual({ hash: mine.hash });
  await expect(takeDownPhoto(as('apprentice'), SYSTEM, mine.hash)).rejects.toThrow(/no such photo/);
  const stranger = strangers.owner!;
  await expect(partPhotosOf(stranger, SYSTEM)).rejects.toThrow(/no such system/);
  await expect(readPartPhoto(stranger, SYSTEM, theirs.hash)).rejects.toThrow(/no such system/);
  await expect(takeDownPhoto(stranger, SYSTEM, theirs.hash)).rejects.toThrow(/no such system/);
  await expect(hangPhoto(stranger, SYSTEM, { part: valve, ...theirs })).rejects.toThrow(/no such system/);
  expect(await inOrganisation(stranger, (tx) => tx.select().from(partPhotos))).toEqual([]);
  await takeDownPhoto(as('office'), SYSTEM, theirs.hash);
  expect(await partPhotosOf(as('office'), SYSTEM)).toHaveLength(ROLES.length - 2);
});
test('they move with the organisation', async () => {
  const bytes = await exported(as('owner'));
  const { counts = {} } = await broughtIn(strangers.owner!, bytes);
  expect(counts.part_photos).toBe(ROLES.length - 2);
  const first = await photo(0);
  expect(await readPartPhoto(strangers.owner!, SYSTEM, first.hash)).toEqual(first.bytes);
  expect((await partPhotosOf(strangers.owner!, SYSTEM)).find((p) => p.hash === first.hash)!.part).toBe(other);
});
