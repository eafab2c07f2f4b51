import { drizzle } from 'drizzle-orm/node-postgres';
import { migrate } from 'drizzle-orm/node-postgres/migrator';
import pg from 'pg';
import path from 'node:path';

/** Brings a database to the present schema. Runs as the owning role, never as the application's. */
export async function migrateDatabase(ownerUrl: string): Promise<void> {
  const pool = new pg.Pool({ connectionString: ownerUrl, max: 1 });
  try {
    await migrate(drizzle(pool), {
      migrationsFolder: path.resolve('src/database/migrations'),
    });
  } finally {
    await pool.end();
  }
}
