/** What the database itself can have, as the server says it: read only, no place free, gone. */
import { sql } from 'drizzle-orm';
import type pg from 'pg';
import { closePool, inOrganisation, lookUp, pool } from '@/database/client';
import { troubleAnswer } from '@/server/handle';
import { health } from '@/server/health';
import { faultOf } from '@/wire/database-trouble';

const ORG = '00000000-0000-4000-8000-00000000c0de';
const failing = async (work: () => Promise<unknown>) =>
  work().then(
    () => {
      throw new Error('it did not fail');
    },
    (error: unknown) => error as Error & { digest?: string },
  );
afterAll(closePool);

test('it is well where it is read and written', async () => {
  expect(await health()).toEqual({ state: 'well' });
});
test('what can only be read says so, and a route answers it in its own words', async () => {
  const error = await failing(() =>
    inOrganisation({ org: ORG }, async (tx) => {
      await tx.execute(sql`set transaction read only`);
      await tx.execute(sql`create table never ()`);
    }),
  );
  expect(faultOf(error.digest).kind).toBe('read-only');
  const answer = troubleAnswer(error);
  expect(answer.status).toBe(503);
  // the number a person is told is the one in the log
  expect(answer.headers.get('x-request-id')).toBe(faultOf(error.digest).number);
  const { error: said } = (await answer.json()) as { error: { code: string; text: string } };
  expect(said).toEqual({ code: 'read-only', text: expect.stringMatching(/can only be read just now/) });
  await pool().query('set default_transaction_read_only = on');
  const only = await health();
  await pool().query('set default_transaction_read_only = off');
  expect(only.state).toBe('read-only');
});
test('a pool that is merely full is busy, not away; it goes on once a place is free', async () => {
  await closePool();
  process.env.VAST_DATABASE_WAIT_MS = '300';
  await lookUp('now()', []);
  const taken: pg.PoolClient[] = [];
  for (let n = 0; n < pool().options.max; n += 1) taken.push(await pool().connect());
  const error = await failing(() => lookUp('now()', []));
  expect(faultOf(error.digest).kind).toBe('busy');
  expect((await health()).state).toBe('busy');
  const { error: said } = (await troubleAnswer(error).json()) as { error: { text: string } };
  expect(said.text).not.toMatch(/cannot be reached/);
  for (const client of taken) client.release();
  expect(await health()).toEqual({ state: 'well' });
});
test('a database that is gone is away; nothing of its address is told', async () => {
  await closePool();
  const { DATABASE_URL } = process.env;
  process.env.DATABASE_URL = DATABASE_URL!.replace(/:\d+\//, ':1/');
  try {
    const found = await health();
    expect(found.state).toBe('database-away');
    const error = await failing(() => inOrganisation({ org: ORG }, () => Promise.resolve()));
    const text = await troubleAnswer(error).text();
    expect(text).toMatch(/cannot be reached just now/);
    expect(text).not.toMatch(/ECONN|127\.0\.0\.1|vast_app/);
  } finally {
    await closePool();
    process.env.DATABASE_URL = DATABASE_URL;
  }
});
