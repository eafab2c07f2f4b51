import { migrateDatabase } from '../../../scripts/migrate';
import { makeOrganisation } from '../../../scripts/demo';
import { closePool, inOrganisation, pool } from '@/database/client';
import { sessions } from '@/database/schema';
import { now, shiftClock } from '@/server/now';
import { revoke, sessionOf, signIn } from './session';

const email = 'oyelaran@session.example';
beforeAll(async () => {
  await migrateDatabase(process.env.VAST_OWNER_URL!);
  await makeOrganisation(
    'Session House',
    '',
    [{ key: 'oyelaran', name: 'Oyelaran Petrides', role: 'tester' }],
    'session.example',
  );
}, 240_000);
afterEach(() => shiftClock(0));
afterAll(closePool);

test('signing in gives a token that is kept only as a hash, and the session it opens', async () => {
  const { token } = await signIn(email.toUpperCase(), 'millrace-oyelaran', 'test');
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
    [1, 2, 3].map(async () => (await signIn(email, 'millrace-oyelaran', 'test')).token),
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
  const fail = () => signIn(email, 'wrong', 'test').catch((e: { code: string }) => e.code);
  for (let i = 0; i < 4; i++) expect(await fail()).toBe('wrong');
  await signIn(email, 'millrace-oyelaran', 'test');
  for (let i = 0; i < 5; i++) expect(await fail()).toBe('wrong');
  await expect(signIn(email, 'millrace-oyelaran', 'test')).rejects.toMatchObject({ status: 429 });
  shiftClock(15 * 60_000 + 1000);
  await expect(signIn(email, 'millrace-oyelaran', 'test')).resolves.toBeDefined();
});
test('sixty at once are counted one by one: five are tried, the hash is given for no other', async () => {
  const address = 'many@session.example';
  const codes = await Promise.all(
    Array.from({ length: 60 }, () => signIn(address, 'wrong', '').catch((e: { code: string }) => e.code)),
  );
  expect(codes.filter((c) => c === 'wrong')).toHaveLength(5);
  expect(codes.filter((c) => c === 'too-many')).toHaveLength(55);
  const { rows } = await pool().query(`select * from try_sign_in($1, now(), now() - interval '1 hour', 0)`, [
    email,
  ]);
  expect(rows).toEqual([{ allowed: false, org: null, id: null, password_hash: null }]);
  const person = await pool().query('select * from find_person($1)', [email]);
  expect(Object.keys(person.rows[0] as object).sort()).toEqual(['id', 'org']);
});
test('an unknown address and a wrong password get the same answer', async () => {
  const said = await Promise.all(
    [signIn('nobody@session.example', 'x', ''), signIn(email, 'x', '')].map((p) =>
      p.catch((e: Error) => e.message),
    ),
  );
  expect(said[0]).toBe(said[1]);
});
test('the stored password is argon2id', async () => {
  const { rows } = await pool().query<{ password_hash: string }>(
    `select * from try_sign_in($1, now(), now() - interval '1 minute', 5)`,
    [email],
  );
  expect(rows[0]!.password_hash).toMatch(/^\$argon2id\$v=19\$m=19456,t=2,p=1\$/);
  expect(now()).toBeGreaterThan(0);
});
