import { migrateDatabase } from '../../../scripts/migrate';
import { makeOrganisation } from '../../../scripts/demo';
import { closePool, inOrganisation, pool } from '@/database/client';
import { sessions } from '@/database/schema';
import { now, shiftClock } from '@/server/now';
import { endSession, revoke, sessionOf, sessionsOf, signIn } from './session';

const email = 'oyelaran@session.example';
const RIGHT = 'millrace-oyelaran';
beforeAll(async () => {
  await migrateDatabase(process.env.VAST_OWNER_URL!);
  await makeOrganisation(
    'Session House',
    '',
    [
      { key: 'oyelaran', name: 'Oyelaran Petrides', role: 'tester' },
      { key: 'ama', name: 'Ama Sarpong', role: 'apprentice' },
      { key: 'una', name: 'Una Castaldi', role: 'owner' },
    ],
    'session.example',
  );
}, 240_000);
afterEach(() => shiftClock(0));
afterAll(closePool);

test('signing in gives a token that is kept only as a hash, and the session it opens', async () => {
  const { token } = await signIn(email.toUpperCase(), 'millrace-oyelaran');
  const session = (await sessionOf(token))!;
  expect(session).toMatchObject({
    name: 'Oyelaran Petrides',
    role: 'tester',
    organisation: 'Session House',
    licence: null,
  });
  const rows = await inOrganisation(session, (tx) => tx.select().from(sessions));
  expect(rows.some((r) => r.tokenHash.includes(token))).toBe(false);
  expect(await sessionOf(`${token}x`)).toBeNull();
  expect(await sessionOf(undefined)).toBeNull();
});
test('a session ends when it is revoked, alone or with all others, and when its time is over', async () => {
  const tokens = await Promise.all(
    [1, 2, 3].map(async () => (await signIn(email, 'millrace-oyelaran')).token),
  );
  const [a, b, c] = await Promise.all(tokens.map(async (t) => (await sessionOf(t))!));
  await revoke(a!, false);
  expect(await Promise.all(tokens.map(async (t) => (await sessionOf(t)) !== null))).toEqual([
    false,
    true,
    true,
  ]);
  shiftClock(15 * 24 * 3600_000);
  expect(await sessionOf(tokens[1])).toBeNull();
  shiftClock(0);
  await revoke(b!, true);
  expect(await sessionOf(tokens[2])).toBeNull();
  expect(c).not.toBeNull();
});
test('five failures make an address wait a quarter of an hour, the right password included; success forgets failures', async () => {
  const fail = () => signIn(email, 'wrong').catch((e: { code: string }) => e.code);
  for (let i = 0; i < 4; i++) expect(await fail()).toBe('wrong');
  await signIn(email, 'millrace-oyelaran');
  for (let i = 0; i < 5; i++) expect(await fail()).toBe('wrong');
  await expect(signIn(email, 'millrace-oyelaran')).rejects.toMatchObject({ status: 429 });
  shiftClock(15 * 60_000 + 1000);
  await expect(signIn(email, 'millrace-oyelaran')).resolves.toBeDefined();
});
test('sixty at once are counted one by one: five are tried, the hash is given for no other', async () => {
  const address = 'many@session.example';
  const codes = await Promise.all(
    Array.from({ length: 60 }, () => signIn(address, 'wrong').catch((e: { code: string }) => e.code)),
  );
  expect(codes.filter((c) => c === 'wrong')).toHaveLength(5);
  expect(codes.filter((c) => c === 'too-many')).toHaveLength(55);
  const { rows } = await pool().query(
    `select * from try_sign_in($1, '', '', now(), now() - interval '1 hour', 0, 50)`,
    [email],
  );
  expect(rows).toEqual([{ allowed: false, counted: email, org: null, id: null, password_hash: null }]);
  const person = await pool().query('select * from find_person($1)', [email]);
  expect(Object.keys(person.rows[0] as object).sort()).toEqual(['id', 'org']);
});
test('guessing elsewhere does not lock a person out on a device they used before; guessing on that device does', async () => {
  const { known } = await signIn(email, RIGHT);
  for (let i = 0; i < 9; i++) await signIn(email, 'wrong', { device: '', client: '10.0.0.9' }).catch(() => 0);
  await expect(signIn(email, RIGHT)).rejects.toMatchObject({ status: 429 });
  const again = await signIn(email, RIGHT, { device: '', known });
  expect(again.known).toBe(known);
  // a token of somebody else's device, or a made-up one, opens no second count
  await expect(signIn(email, RIGHT, { device: '', known: 'made up' })).rejects.toMatchObject({ status: 429 });
  const other = await signIn('ama@session.example', 'millrace-ama');
  await expect(signIn(email, RIGHT, { device: '', known: other.known })).rejects.toMatchObject({
    status: 429,
  });
  for (let i = 0; i < 5; i++) await signIn(email, 'wrong', { device: '', known }).catch(() => 0);
  await expect(signIn(email, RIGHT, { device: '', known })).rejects.toMatchObject({ status: 429 });
  shiftClock(16 * 60_000);
  await expect(signIn(email, RIGHT)).resolves.toBeDefined();
});
test('one client is slowed down over all addresses together, exactly after fifty failures; others and its own successes are not', async () => {
  const client = '10.0.0.77';
  const tryOne = (n: number, from = client) =>
    signIn(`guess-${n}@session.example`, 'wrong', { device: '', client: from }).catch(
      (e: { code: string }) => e.code,
    );
  for (let i = 0; i < 20; i++) await signIn('ama@session.example', 'millrace-ama', { device: '', client });
  for (let i = 0; i < 50; i++) expect([i, await tryOne(i)]).toEqual([i, 'wrong']);
  expect(await tryOne(51)).toBe('too-many');
  expect(await tryOne(52, '10.0.0.78')).toBe('wrong');
}, 60_000);
test('a sign-in runs out after fourteen days without use, and after thirty whatever was done', async () => {
  const day = 24 * 3600_000;
  const idle = await signIn(email, RIGHT);
  const busy = await signIn(email, RIGHT);
  for (const d of [5, 10, 13]) {
    shiftClock(d * day);
    expect(await sessionOf(busy.token)).not.toBeNull();
  }
  shiftClock(14 * day - 60_000);
  expect(await sessionOf(idle.token)).not.toBeNull(); // its last use is now this
  shiftClock(26 * day);
  expect([(await sessionOf(idle.token)) !== null, (await sessionOf(busy.token)) !== null]).toEqual([
    true,
    true,
  ]);
  shiftClock(30 * day + 60_000);
  expect([await sessionOf(idle.token), await sessionOf(busy.token)]).toEqual([null, null]);
  shiftClock(0);
  const left = await signIn(email, RIGHT);
  shiftClock(14 * day + 60_000);
  expect(await sessionOf(left.token)).toBeNull();
});
test('who is signed in sees where, and ends it; another only as the owner', async () => {
  shiftClock(0);
  const phone = await signIn(email, RIGHT, { device: 'phone' });
  const desk = (await sessionOf((await signIn(email, RIGHT, { device: 'desk' })).token))!;
  const ama = (await sessionOf((await signIn('ama@session.example', 'millrace-ama')).token))!;
  const owner = (await sessionOf((await signIn('una@session.example', 'millrace-una')).token))!;
  const found = (await sessionsOf(desk)).find((s) => s.device === 'phone')!;
  await expect(sessionsOf(ama, desk.person)).rejects.toMatchObject({ status: 403 });
  await expect(endSession(ama, found.id)).rejects.toMatchObject({ status: 403 });
  expect(await sessionOf(phone.token)).not.toBeNull();
  expect((await sessionsOf(owner, desk.person)).map((s) => s.id)).toContain(found.id);
  await endSession(owner, found.id);
  expect(await sessionOf(phone.token)).toBeNull();
  await endSession(desk, desk.session);
  await expect(endSession(ama, desk.session)).rejects.toMatchObject({ status: 404 });
});
test('an unknown address and a wrong password get the same answer', async () => {
  const said = await Promise.all(
    [signIn('nobody@session.example', 'x'), signIn(email, 'x')].map((p) => p.catch((e: Error) => e.message)),
  );
  expect(said[0]).toBe(said[1]);
});
test('the stored password is argon2id', async () => {
  const { rows } = await pool().query<{ password_hash: string }>(
    `select * from try_sign_in($1, '', '', now(), now() - interval '1 minute', 5, 50)`,
    [email],
  );
  expect(rows[0]!.password_hash).toMatch(/^\$argon2id\$v=19\$m=19456,t=2,p=1\$/);
  expect(now()).toBeGreaterThan(0);
});
