import { leaksOf } from '@/core/after/leaks';
import { closePool, inOrganisation } from '@/database/client';
import { sites, systems } from '@/database/schema';
import { withListsOf } from '@/core/network/enter';
import { bakery } from '@/core/testing/bakery';
import { broughtIn, exported } from '@/server/moving/testing';
import type { Session } from '@/server/session/session';
import { ROLES, type Role } from '@/wire/role';
import type { LeakRequest } from '@/wire/leaks';
import { uuid7 } from '@/wire/uuid7';
import { sql } from 'drizzle-orm';
import { membersOf } from '../../../scripts/members';
import { leakBook, leaksOfSeal, writeLeak } from './leaks';

const SYSTEM = uuid7(1);
const OTHER = uuid7(2);
let people: ReadonlyMap<Role, Session>;
let stranger: Session;
const as = (role: Role) => people.get(role)!;
const fresh = () => uuid7(Date.now());
const found = (over: object = {}, id = fresh()): LeakRequest => ({
  id,
  leak: id,
  body: {
    kind: 'found',
    joint: 'Union at the hob',
    how: 'fluid',
    size: 'pea',
    part: 'hob',
    text: '',
    ...over,
  } as LeakRequest['body'],
});
const mended = (leak: string): LeakRequest => ({
  id: fresh(),
  leak,
  body: { kind: 'repaired', what: 'remade', by: 'Piet', parts: '', minutes: 12 } as LeakRequest['body'],
});
beforeAll(async () => {
  people = await membersOf(ROLES);
  stranger = (await membersOf(['owner'])).get('owner')!;
  const { org } = as('owner');
  await inOrganisation({ org }, async (tx) => {
    await tx.insert(sites).values({ org, id: SYSTEM, name: 'Mill', address: 'Yard', customer: 'C' });
    for (const id of [SYSTEM, OTHER]) {
      const facts = withListsOf(bakery({ id }));
      await tx.insert(systems).values({ org, id, site: SYSTEM, name: facts.name, facts });
    }
  });
}, 120_000);
afterAll(closePool);

test('everybody of the house writes into the book; the same entry twice is one', async () => {
  for (const role of ROLES) {
    const entry = found();
    await writeLeak(as(role), SYSTEM, entry);
    await writeLeak(as(role), SYSTEM, entry);
  }
  const { entries } = await leakBook(as('office'), SYSTEM);
  expect(entries.map((e) => e.byName)).toEqual(ROLES.map((r) => `A ${r}`));
  expect(leaksOf(entries, [], Date.now()).every((l) => l.state === 'open')).toBe(true);
});
test('a repair belongs to a leak of this book, and nothing is claimed that is not there', async () => {
  const entry = found();
  await writeLeak(as('tester'), SYSTEM, entry);
  await writeLeak(as('apprentice'), SYSTEM, mended(entry.id));
  const refused = (asked: LeakRequest, system = SYSTEM, who = as('tester')) =>
    expect(writeLeak(who, system, asked)).rejects;
  await refused(mended(fresh())).toThrow(/not in this book/);
  await refused(mended(entry.id), OTHER).toThrow(/not in this book/);
  await refused({ ...mended(entry.id), leak: mended(entry.id).id }).toThrow(/./);
  await refused({ ...found(), leak: entry.id }).toThrow(/A leak begins with where it was found/);
  await refused(found({ part: 'nowhere' })).toThrow(/not in the drawing/);
  await refused(found({ photo: 'a'.repeat(64) })).toThrow(/not with this installation/);
  await refused(found({ run: fresh() })).toThrow(/not of this installation/);
  await refused(found(), fresh()).toThrow(/no such system/);
  await refused(entry, OTHER).toThrow(/no such entry/);
});
test('another house sees nothing of it and writes nothing into it', async () => {
  await expect(leakBook(stranger, SYSTEM)).rejects.toThrow(/no such system/);
  await expect(writeLeak(stranger, SYSTEM, found())).rejects.toThrow(/no such system/);
});
test('entries are never changed or removed', async () => {
  for (const statement of ["update leak_entries set by = 'x'", 'delete from leak_entries'])
    await expect(inOrganisation(as('owner'), (tx) => tx.execute(sql.raw(statement)))).rejects.toThrow();
});
test('what a sealed test saw bubble stands in the book by itself, once', async () => {
  const { org } = as('owner');
  const run = uuid7(9);
  const state = {
    joints: [
      {
        id: 'j1',
        name: 'Elbow',
        place: 'loft',
        looks: [{ found: 'growing', size: 'larger', at: 1, byName: 'I' }],
      },
    ],
  } as never;
  for (let twice = 0; twice < 2; twice++)
    await inOrganisation({ org }, (tx) => leaksOfSeal(tx, org, OTHER, run, state, 'Imre', Date.now()));
  const { entries } = await leakBook(as('tester'), OTHER);
  expect(entries).toHaveLength(1);
  expect(entries[0]!.body).toMatchObject({ kind: 'found', joint: 'Elbow', size: 'larger', run });
  // a repair of it is a repair of what was found there
  await writeLeak(as('tester'), OTHER, mended(entries[0]!.id));
  expect(leaksOf((await leakBook(as('tester'), OTHER)).entries, [], Date.now())[0]!.state).toBe('repaired');
});
test('the book moves with the organisation', async () => {
  const had = await leakBook(as('owner'), SYSTEM);
  const bytes = await exported(as('owner'));
  await broughtIn(stranger, bytes);
  expect((await leakBook(stranger, SYSTEM)).entries).toEqual(had.entries);
});
