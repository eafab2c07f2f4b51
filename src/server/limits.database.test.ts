/** Limits are the database's: two servers that ask at once share one count. */
import pg from 'pg';
import { closePool } from '@/database/client';
import { rateLimit, takeTurn } from '@/server/limits';
import { shiftClock } from '@/server/now';
import { migrateDatabase } from '../../scripts/migrate';

const MINUTE = 60_000;
beforeAll(() => migrateDatabase(process.env.VAST_OWNER_URL!), 240_000);
afterAll(async () => {
  shiftClock(0);
  await closePool();
});

test('so many are let through in a time, exactly, and each key for itself', async () => {
  for (let i = 0; i < 5; i += 1) await rateLimit('a', 5, MINUTE);
  await expect(rateLimit('a', 5, MINUTE)).rejects.toMatchObject({ status: 429 });
  await rateLimit('b', 5, MINUTE);
  shiftClock(MINUTE + 1);
  await rateLimit('a', 5, MINUTE);
});
test('many at once on two connections: never one more than may', async () => {
  const other = new pg.Pool({ connectionString: process.env.DATABASE_URL, max: 4 });
  const ask = async () =>
    (
      await other.query<{ take_turn: boolean }>(
        "select take_turn($1, now(), now() - interval '1 minute', 7)",
        ['c'],
      )
    ).rows[0]!.take_turn;
  const got = await Promise.all(Array.from({ length: 40 }, ask));
  await other.end();
  expect(got.filter(Boolean)).toHaveLength(7);
});
test('what serves once serves once', async () => {
  const once = await Promise.all([1, 2, 3].map(() => takeTurn('challenge x', 1, MINUTE)));
  expect(once.filter(Boolean)).toHaveLength(1);
});
test('of whom it is kept cannot be read, and what is a day old is kept no more', async () => {
  const direct = new pg.Client({ connectionString: process.env.DATABASE_URL });
  await direct.connect();
  await expect(direct.query('select * from turns')).rejects.toThrow(/permission denied/);
  await direct.end();
  const all = new pg.Client({ connectionString: process.env.VAST_SUPERUSER_URL });
  await all.connect();
  const count = async () => (await all.query<{ n: number }>('select count(*)::int n from turns')).rows[0]!.n;
  expect(await count()).toBeGreaterThan(10);
  shiftClock(3 * 24 * 3_600_000);
  await rateLimit('much later', 5, MINUTE);
  expect(await count()).toBe(1);
  const { rows } = await all.query<{ key: string }>('select key from turns');
  expect(rows[0]!.key).toMatch(/^[0-9a-f]{64}$/);
  await all.end();
});
