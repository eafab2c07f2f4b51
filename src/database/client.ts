import { drizzle, type NodePgDatabase } from 'drizzle-orm/node-postgres';
import { sql } from 'drizzle-orm';
import pg from 'pg';
import { ofProcess } from './process';
import { marked } from './trouble';

export type Tx = Parameters<Parameters<NodePgDatabase['transaction']>[0]>[0];

interface Held {
  pool?: pg.Pool;
  /** Statements over it: made once, tables are named where they are asked. */
  statements?: NodePgDatabase;
  /** When the database answered last, ms. */
  answered?: number;
}
const held = ofProcess<Held>('database', () => ({}));

/** How long a connection is waited for: a person is told soon; tests of a slow machine may wait. */
const waitMs = () => Number(process.env.VAST_DATABASE_WAIT_MS) || 4000;
/** The application's pool: role vast_app, which owns nothing and cannot pass row-level security. */
export function pool(): pg.Pool {
  if (!held.pool) {
    const connectionString = process.env.DATABASE_URL;
    if (!connectionString)
      throw new Error('DATABASE_URL is not set. Start with ./start, or give the address of your own server.');
    held.pool = new pg.Pool({ connectionString, max: 12, connectionTimeoutMillis: waitMs() });
    held.pool.on('error', () => undefined); // an idle connection that dies is replaced on the next use
    // one that dies between two statements of a transaction tells the next of them: nobody else need hear it
    held.pool.on('connect', (client) => client.on('error', () => undefined));
  }
  return held.pool;
}
/** How long an answer speaks for the database, ms. House figure. */
const FRESH_MS = 10_000;
/** Whether the database answered somebody just now. */
export const answersNow = (): boolean => Date.now() - (held.answered ?? 0) < FRESH_MS;
/** @throws the error, marked with what it says of the database */
const told = (error: unknown): never => {
  throw marked(error, answersNow());
};
/** The pool while it is open; what need not be said opens none. */
export const openPool = (): pg.Pool | undefined => held.pool;
/** Where notifications are listened to: a connection of its own, past whatever shares connections out (pgbouncer). */
export const listenAddress = (): string => process.env.VAST_LISTEN_URL ?? process.env.DATABASE_URL ?? '';
export async function closePool(): Promise<void> {
  await held.pool?.end();
  delete held.pool;
  delete held.statements;
}

/**
 * The only door to an organisation's rows: a transaction in which row-level security shows that organisation alone.
 * The setting ends with the transaction, so a pooled connection carries nothing over.
 */
export async function inOrganisation<T>(
  scope: { readonly org: string },
  work: (tx: Tx) => Promise<T>,
  how?: Parameters<NodePgDatabase['transaction']>[1],
): Promise<T> {
  held.statements ??= drizzle(pool());
  return held.statements
    .transaction(async (tx) => {
      await tx.execute(sql`select set_config('app.org', ${scope.org}, true)`);
      held.answered = Date.now();
      return work(tx);
    }, how)
    .catch(told);
}

/** Calls one of the look-up functions that run before an organisation is known. Rows come back as plain objects. */
export async function lookUp<Row extends pg.QueryResultRow>(call: string, values: unknown[]): Promise<Row[]> {
  const { rows } = await pool().query<Row>(`select * from ${call}`, values).catch(told);
  held.answered = Date.now();
  return rows;
}
