/** What an error says of the database itself. */
import { randomBytes } from 'node:crypto';
import type { DatabaseTrouble } from '@/wire/database-trouble';

/** What the pool says where nothing came free in time. */
const WAITED = /timeout exceeded when trying to connect/;
const BY_CODE: readonly (readonly [RegExp, DatabaseTrouble])[] = [
  // read only, by a setting or as a standby; no room on disk; too many connections, no memory
  [/^25006$/, 'read-only'],
  [/^(53100|ENOSPC)$/, 'disk-full'],
  [/^53/, 'busy'],
  [/^(ECONN|EHOSTUNREACH|ENOTFOUND|57P|08|ETIMEDOUT)/, 'database-away'],
];
/**
 * What an error says of the database; null where it says nothing of it.
 * @param answers whether the database answered somebody just now: who waited in vain then waited for a place
 */
export function databaseTrouble(error: unknown, answers: boolean): DatabaseTrouble | null {
  const e = error as { code?: unknown; message?: unknown; cause?: unknown } | null;
  const code = typeof e?.code === 'string' ? e.code : '';
  const message = typeof e?.message === 'string' ? e.message : '';
  const known = BY_CODE.find(([pattern]) => pattern.test(code))?.[1];
  if (known) return known;
  if (WAITED.test(message)) return answers ? 'busy' : 'database-away';
  if (/Connection terminated/.test(message)) return 'database-away';
  return e?.cause === undefined || e.cause === error ? null : databaseTrouble(e.cause, answers);
}
/** The number under which something that went wrong stands in the log, short enough to be read out. */
export const faultNumber = (): string => randomBytes(4).toString('hex');
/** An error of the database carries its kind and its number to whatever page it breaks; any other is left as it is. */
export function marked(error: unknown, answers: boolean): unknown {
  const kind = databaseTrouble(error, answers);
  if (kind && typeof error === 'object' && error !== null && !('digest' in error))
    Object.assign(error, { digest: `${kind}.${faultNumber()}` });
  return error;
}
