import { closePool } from '@/database/client';
import { readOutbox } from '@/server/outbox/outbox';
import { type Session, sessionOf, signIn } from '@/server/session/session';
import { uuid7 } from '@/wire/uuid7';
import { makeOrganisation } from '../../../scripts/demo';
import { signedIn } from '../../../scripts/members';
import { migrateDatabase } from '../../../scripts/migrate';
import { changePerson, invite, join, readPeople } from './people';
import { houseUsage, saveHouseUsage, saveOwnUsage, usageHere } from './usage';

let mill: { org: string };
let owner: Session;
let tester: Session;
let stranger: Session;

beforeAll(async () => {
  await migrateDatabase(process.env.VAST_OWNER_URL!);
  mill = await makeOrganisation(
    'People House',
    '',
    [
      { key: 'oona', name: 'Oona Falk', role: 'owner' },
      { key: 'teun', name: 'Teun Arendt', role: 'tester' },
    ],
    'people.example',
  );
  await makeOrganisation(
    'Far House',
    '',
    [{ key: 'fern', name: 'Fern Ekdal', role: 'owner' }],
    'far.example',
  );
  owner = await signedIn('oona', 'people.example');
  tester = await signedIn('teun', 'people.example');
  stranger = await signedIn('fern', 'far.example');
}, 120_000);
afterAll(closePool);

test('invited once, by the owner alone; the link works once; who left is out at once and cannot come back in', async () => {
  const said = {
    id: uuid7(Date.now()),
    name: 'Wanda Okafor',
    email: 'Wanda@people.example',
    role: 'apprentice' as const,
    person: null,
  };
  await expect(invite(tester, said, '')).rejects.toThrow(/Only the owner/);
  const { link } = await invite(owner, said, 'https://x.test');
  const token = link.split('/').pop()!;
  const invited = async (who: Session) => (await readOutbox(who)).some((m) => m.body.includes(token));
  expect([await invited(owner), await invited(tester)]).toEqual([true, false]); // nobody joins in her place
  // what everybody would try is refused, and the link is still good
  for (const weak of ['too short', 'wanda@people.example', 'password1234'])
    await expect(join(token, weak)).rejects.toMatchObject({ status: 422, path: 'password' });
  await join(token, 'a long password');
  await expect(join(token, 'another password')).rejects.toThrow(/not open any more/);
  // one that is used ends every other to the same person
  const again = async (id: string) =>
    (await invite(owner, { ...said, id: uuid7(Date.now()), person: id }, '')).link.split('/').pop()!;
  const { token: own } = await signIn('wanda@people.example', 'a long password');
  const { person } = (await sessionOf(own))!;
  const [first, second] = [await again(person), await again(person)];
  await join(second, 'a long password');
  await expect(join(first, 'an old way in')).rejects.toThrow(/not open any more/);
  const open = await again(person);
  const { token: cookie } = await signIn('wanda@people.example', 'a long password');
  const wanda = (await sessionOf(cookie))!;
  expect([wanda.role, wanda.org]).toEqual(['apprentice', mill.org]);
  await expect(invite(owner, { ...said, id: uuid7(Date.now()) }, '')).rejects.toThrow(/already/);
  await changePerson(owner, wanda.person, {
    name: wanda.name,
    role: 'apprentice',
    licenceNumber: '',
    licenceUntil: '',
    left: true,
  });
  expect(await sessionOf(cookie)).toBeNull();
  await expect(signIn('wanda@people.example', 'a long password')).rejects.toThrow(/not right/);
  // who left does not come back by a link from before
  await expect(join(open, 'back again here')).rejects.toThrow(/not open any more/);
  expect((await readPeople(owner)).people.find((p) => p.id === person)!.left).not.toBeNull();
  await expect(
    changePerson(owner, owner.person, {
      name: owner.name,
      role: 'tester',
      licenceNumber: '',
      licenceUntil: '',
      left: false,
    }),
  ).rejects.toThrow(/must be owner/);
  await expect(
    changePerson(stranger, tester.person, {
      name: 'x',
      role: 'owner',
      licenceNumber: '',
      licenceUntil: '',
      left: false,
    }),
  ).rejects.toThrow(/no such person/);
  expect((await readPeople(stranger)).people.map((p) => p.name)).toEqual(['Fern Ekdal']);
});
test('the house’s units stand for everybody who wishes nothing else; a wish is its person’s alone; another house keeps its own', async () => {
  expect(() => saveHouseUsage(tester, { low: 'inWC' })).toThrow(/Only the owner/);
  await saveHouseUsage(owner, { low: 'inWC', days: 'month-first' });
  await saveOwnUsage(tester, { low: 'Pa' });
  const seen = async (key: string, domain: string) => {
    const { usage } = await signedIn(key, domain);
    return [usage?.low, usage?.days, usage?.length];
  };
  expect(await seen('oona', 'people.example')).toEqual(['inWC', 'month-first', 'm']);
  expect(await seen('teun', 'people.example')).toEqual(['Pa', 'month-first', 'm']);
  expect(await seen('fern', 'far.example')).toEqual(['mbar', 'day-first', 'm']);
  expect(await usageHere(tester)).toEqual({
    organisation: { low: 'inWC', days: 'month-first' },
    own: { low: 'Pa' },
  });
  expect([(await houseUsage(owner)).low, (await houseUsage(stranger)).low]).toEqual(['inWC', 'mbar']);
  await saveOwnUsage(tester, {});
  expect((await seen('teun', 'people.example'))[0]).toBe('inWC');
});
