import 'server-only';
import { answersNow, pool } from '@/database/client';
import { databaseTrouble } from '@/database/trouble';
import { DATABASE_TROUBLE, type DatabaseTrouble } from '@/wire/database-trouble';
import { log } from './log';

export type Health =
  | { readonly state: 'well' }
  | { readonly state: DatabaseTrouble | 'unexpected'; readonly text: string };

/** Asks the database whether it can be read and written just now. Never throws: what is wrong is the answer. */
export async function health(): Promise<Health> {
  const says = (state: DatabaseTrouble): Health => ({ state, text: DATABASE_TROUBLE[state].page });
  try {
    const { rows } = await pool().query<{ only: boolean }>(
      "select pg_is_in_recovery() or current_setting('transaction_read_only')::bool as only",
    );
    return rows[0]!.only ? says('read-only') : { state: 'well' };
  } catch (error) {
    const known = databaseTrouble(error, answersNow());
    if (known) return says(known);
    log.error({ err: error }, 'health');
    return { state: 'unexpected', text: 'The server cannot say how its records are. See its log.' };
  }
}
