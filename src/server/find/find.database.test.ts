import { withListsOf } from '@/core/network/enter';
import { bakery } from '@/core/testing/bakery';
import { closePool, inOrganisation } from '@/database/client';
import { followUps, gauges, kit, sites, systems } from '@/database/schema';
import { TRADES } from '@/core/trades';
import { listPlaces } from '@/server/places/places';
import type { Session } from '@/server/session/session';
import { ROLES, type Role } from '@/wire/role';
import { uuid7 } from '@/wire/uuid7';
import { membersOf } from '../../../scripts/members';
import { findAnything } from './find';

const [DYE, BOILER] = [uuid7(1), uuid7(2)];
let people: ReadonlyMap<Role, Session>;
let stranger: Session;
const as = (role: Role) => people.get(role)!;
const found = async (words: string, who = as('tester')) =>
  (await findAnything(who, words, 'UTC')).map((f) => `${f.kind}: ${f.title}`);

beforeAll(async () => {
  people = await membersOf(ROLES);
  stranger = (await membersOf(['owner'])).get('owner')!;
  const { org } = as('owner');
  await inOrganisation({ org }, async (tx) => {
    for (let n = 0; n < 9; n++)
      await tx.insert(sites).values({
        org,
        id: n ? uuid7(n) : DYE,
        name: n ? `Row ${n}` : 'Dye house',
        address: `${n} Fulling Yard`,
        customer: n < 3 ? 'Ø. Sørby' : 'Weavers’ Guild',
      });
    const appliances = bakery().appliances.map((a, n) => ({ ...a, make: 'Fullers', serial: `SH-${n}042` }));
    const facts = withListsOf(bakery({ id: BOILER, appliances }));
    await tx.insert(systems).values({ org, id: BOILER, site: DYE, name: 'Boiler gas', facts });
    const gauge = { id: uuid7(30), name: 'G-41', serial: 'XK 0042' };
    await tx.insert(gauges).values({ org, id: gauge.id, name: gauge.name, facts: gauge as never });
    const hose = { id: uuid7(31), name: 'Long hose', serial: 'H9', kind: 'hose' };
    await tx.insert(kit).values({ org, id: hose.id, name: hose.name, facts: hose as never });
  });
}, 120_000);
afterAll(closePool);

test('places by name, address and customer, installations with their place, however it is typed', async () => {
  expect(await found('dye')).toEqual(
    expect.arrayContaining(['place: Dye house', 'system: Dye house: Boiler gas']),
  );
  expect(await found('FULLING boiler')).toContain('system: Dye house: Boiler gas');
  expect(await found('sorby')).toContain('customer: Ø. Sørby');
  const [customer] = (await findAnything(as('tester'), 'sorby', 'UTC')).filter((f) => f.kind === 'customer');
  expect([customer!.about, customer!.href]).toEqual(['3 places', '/places?find=%C3%98.+S%C3%B8rby']);
});
test('gauges, kit, people, procedures and the guide', async () => {
  expect(await found('xk0042')).toEqual(['gauge: G-41']);
  expect(await found('long hose')).toContain('gauge: Long hose');
  expect(await found('a tester')).toContain('person: A tester');
  expect(await found('let-by')).toContain('topic: let-by');
});
test('places by trade and by what is due: a day exactly counts, a repair that is closed does not', async () => {
  const { org } = as('owner');
  const due = async (day: string, closed: Date | null) =>
    inOrganisation({ org }, (tx) =>
      tx.insert(followUps).values({
        org,
        id: uuid7(5),
        system: BOILER,
        kind: 'yearly',
        text: 'Test again',
        due: day,
        made: new Date(),
        closed,
      }),
    );
  const names = async (asked: object) =>
    (await listPlaces(as('office'), { most: 60, ...asked })).places.map((p) => p.site.name);
  const trade = (name: string) => TRADES.find((t) => t.name === name);
  expect([await names({ trade: trade('gas') }), await names({ trade: trade('pool') })]).toEqual([
    ['Dye house'],
    [],
  ]);
  await due('2026-12-01', new Date());
  expect(await names({ due: '2026-12-31' })).toEqual([]);
  await due('2026-12-31', null);
  expect([await names({ due: '2026-12-30' }), await names({ due: '2026-12-31' })]).toEqual([
    [],
    ['Dye house'],
  ]);
  expect(await names({ due: '2026-12-31', trade: trade('gas'), find: 'row' })).toEqual([]);
});
test('an appliance by its plate, with where it stands', async () => {
  const [plate] = await findAnything(as('tester'), 'sh 0042', 'UTC');
  expect(plate).toEqual({
    kind: 'plate',
    title: expect.stringMatching(/, Fullers$/),
    about: 'serial SH-0042, Dye house, Boiler gas',
    href: `/places/${BOILER}`,
  });
});
test('a few of each kind, and nothing for a letter, nothing at all or what nobody has', async () => {
  expect((await found('row')).filter((f) => f.startsWith('place: '))).toHaveLength(5);
  for (const words of ['', ' ', 'x', 'zebra crossing']) expect(await found(words)).toEqual([]);
});
test('odd input is looked for as it is: patterns, quotes, very long', async () => {
  for (const words of ["'; drop table sites; --", '%%', '___', '\\', '𝕏𝕏', 'a'.repeat(5_000)])
    await expect(found(words)).resolves.toEqual(expect.any(Array));
  expect(await found('%%')).not.toContain('place: Row 1');
});
test('every role finds its own house, and nobody another’s', async () => {
  for (const role of ROLES) expect(await found('dye', as(role))).toContain('place: Dye house');
  expect((await found('dye', stranger)).filter((f) => /^(place|system|gauge|person)/.test(f))).toEqual([]);
});
