import { drizzle } from 'drizzle-orm/node-postgres';
import { migrate } from 'drizzle-orm/node-postgres/migrator';
import { readFileSync } from 'node:fs';
import path from 'node:path';
import pg from 'pg';

const FOLDER = path.resolve('src/database/migrations');
/** The moment of the first migration: a database that has everything up to it has what the baseline makes. */
const baseline = (): number =>
  (
    JSON.parse(readFileSync(path.join(FOLDER, 'meta/_journal.json'), 'utf8')) as {
      entries: { when: number }[];
    }
  ).entries[0]!.when;

/**
 * Brings a database to the present schema. Runs as the owning role, never as the application's. What was made step by step
 * before there was a baseline goes on from it; what stopped on the way there is refused before anything is changed.
 */
export async function migrateDatabase(ownerUrl: string): Promise<void> {
  const pool = new pg.Pool({ connectionString: ownerUrl, max: 1 });
  try {
    const { rows } = await pool.query<{ there: boolean }>(
      `select to_regclass('drizzle.__drizzle_migrations') is not null as there`,
    );
    if (rows[0]!.there) {
      const last = await pool.query<{ at: string | null }>(
        'select max(created_at)::text as at from drizzle.__drizzle_migrations',
      );
      const at = last.rows[0]!.at;
      if (at !== null && Number(at) < baseline())
        throw new Error(
          'This database was made by a trial version that is too old to go on from. Start that version once more, export each organisation, and bring the files into a new database.',
        );
    }
    await migrate(drizzle(pool), { migrationsFolder: FOLDER });
  } finally {
    await pool.end();
  }
}
