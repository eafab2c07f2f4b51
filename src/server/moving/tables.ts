import 'server-only';
import { sql } from 'drizzle-orm';
import type { Tx } from '@/database/client';

export interface Moved {
  readonly name: string;
  readonly without?: Readonly<Record<string, string | null>>;
  /** Which rows let their reader in, in SQL: a live public link, a message with an invitation. */
  readonly open?: string;
  /** Says when it was brought in: nothing here witnessed it. */
  readonly stamped?: true;
  /** A column of bytes, and the columns that name its file. */
  readonly bytes?: { readonly column: string; readonly by: readonly string[] };
}
/**
 * What moves with an organisation, in the order in which rows may be put in: a row after those it points at. `without`:
 * columns that stay behind, with what stands in their place. Sessions, links that open by their hash, invitations and
 * pieces of uploads do not move; the ledger is made anew.
 */
export const TABLES: readonly Moved[] = [
  { name: 'people', without: { password_hash: '!' } },
  { name: 'sites' },
  { name: 'systems' },
  { name: 'part_photos', bytes: { column: 'bytes', by: ['system', 'hash'] } },
  { name: 'leak_entries' },
  { name: 'gauges' },
  { name: 'kit' },
  { name: 'kit_log' },
  { name: 'packs' },
  { name: 'source_editions' },
  { name: 'visits' },
  { name: 'runs' },
  { name: 'events' },
  { name: 'yard_scenarios' },
  { name: 'yard_tasks' },
  { name: 'yard_runs' },
  { name: 'yard_acts' },
  { name: 'yard_results' },
  { name: 'yard_groups' },
  { name: 'yard_statements' },
  { name: 'counters' },
  { name: 'signing_keys', without: { sealed_secret: null } },
  { name: 'seals', stamped: true },
  { name: 'record_marks' },
  // what is open to anybody who has it goes along only where that is asked for
  { name: 'public_links', open: 't.revoked is null' },
  { name: 'sightings' },
  { name: 'photos', bytes: { column: 'bytes', by: ['run', 'hash'] } },
  { name: 'watches', without: { token_hash: null, token_made: null } },
  { name: 'watch_entries' },
  { name: 'follow_ups' },
  { name: 'outbox', open: 't.owner_only' },
  { name: 'prints' },
  { name: 'outside_records' },
  { name: 'outside_photos', bytes: { column: 'bytes', by: ['record', 'hash'] } },
  { name: 'ledger_views' },
  { name: 'log_mappings' },
  { name: 'anchors' },
  { name: 'audit_log', stamped: true },
];
/** The file that says what the export is. */
export const ABOUT = 'organisation.json';
export const FORMAT = 'vast-stone-organisation-1';
export const linesOf = (table: Moved): string => `tables/${table.name}.ndjson`;
/** Where a row's bytes lie. */
export const fileOf = (table: Moved, row: Readonly<Record<string, unknown>>): string =>
  `${table.name}/${table.bytes!.by.map((c) => String(row[c])).join('/')}.jpg`;

/** What the database makes of a row by itself stays behind: it makes it again. */
export async function ownColumns(tx: Tx, table: string): Promise<string[]> {
  const { rows } = await tx.execute<{ name: string }>(
    sql`select attname as name from pg_attribute where attrelid = ${table}::regclass and attnum > 0 and not attisdropped and attgenerated = '' order by attnum`,
  );
  return rows.map((r) => r.name);
}
