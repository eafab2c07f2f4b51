import 'server-only';
import { demand } from '@/server/permission';
import { sql } from 'drizzle-orm';
import * as yup from 'yup';
import { sha256Hex } from '@/core/record/canonical';
import { verifySeal, type PublishedKey } from '@/core/record/seal';
import { parseEvent } from '@/core/run/events';
import { inOrganisation, type Tx } from '@/database/client';
import { audit } from '@/server/audit';
import { now } from '@/server/now';
import { rebuildLedger } from '@/server/records/ledger';
import { signingSecret } from '@/server/sealing/keys';
import type { Session } from '@/server/session/session';
import { TroubleError } from '@/server/trouble';
import { readBundleAside } from '@/server/unpack/unpack';
import { writeBundle, type BundleFile } from '@/wire/bundle';

/**
 * What moves with an organisation, in the order in which rows may be put in: a row after those it points at. `without`:
 * columns that stay behind, with what stands in their place. Sessions, links that open by their hash, invitations and
 * pieces of uploads do not move; the ledger is made anew.
 */
const TABLES: readonly {
  readonly name: string;
  readonly without?: Readonly<Record<string, string | null>>;
  /** Rows that let their reader in: a live public link, a message with an invitation. */
  readonly open?: (row: Record<string, unknown>) => boolean;
  /** Says when it was brought in: nothing here witnessed it. */
  readonly stamped?: true;
  /** A column of bytes, and the columns that name its file. */
  readonly bytes?: { readonly column: string; readonly by: readonly string[] };
}[] = [
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
  { name: 'public_links', open: (row) => row.revoked === null },
  { name: 'sightings' },
  { name: 'photos', bytes: { column: 'bytes', by: ['run', 'hash'] } },
  { name: 'watches', without: { token_hash: null, token_made: null } },
  { name: 'watch_entries' },
  { name: 'follow_ups' },
  { name: 'outbox', open: (row) => row.owner_only === true },
  { name: 'prints' },
  { name: 'outside_records' },
  { name: 'outside_photos', bytes: { column: 'bytes', by: ['record', 'hash'] } },
  { name: 'ledger_views' },
  { name: 'log_mappings' },
  { name: 'anchors' },
  { name: 'audit_log', stamped: true },
];
const ABOUT = 'organisation.json';
const FORMAT = 'vast-stone-organisation-1';
const AT_ONCE = 500;
/** Text is kept at a fifth of its length at best. House figure. */
const MOST_GROWTH = 5;
/** The photos of a long life; as large as a bundle may be. */
export const MOST_EXPORT_BYTES = 500_000_000;
const utf8 = new TextEncoder();
const decode = (bytes: Uint8Array): string => new TextDecoder('utf-8', { fatal: true }).decode(bytes);
type Row = Record<string, unknown>;

/** What the database makes of a row by itself stays behind: it makes it again. */
async function ownColumns(tx: Tx, table: string): Promise<string[]> {
  const { rows } = await tx.execute<{ name: string }>(
    sql`select attname as name from pg_attribute where attrelid = ${table}::regclass and attnum > 0 and not attisdropped and attgenerated = '' order by attnum`,
  );
  return rows.map((r) => r.name);
}
/** More than this is not put together in memory: the whole server would wait for one house. */
async function notTooMuch(tx: Tx): Promise<void> {
  let bytes = 0;
  for (const { name } of TABLES) {
    // as it is kept, without being read
    const { rows } = await tx.execute<{ bytes: string | null }>(
      sql.raw(`select sum(pg_column_size(t.*)) as bytes from ${name} t`),
    );
    bytes += Number(rows[0]!.bytes ?? 0);
    if (bytes > MOST_EXPORT_BYTES / MOST_GROWTH)
      throw new TroubleError(
        413,
        'too-large',
        'This organisation holds more than goes into one file here. Ask whoever keeps the server for a copy of its database (npm run backup): it holds everything, at any size.',
      );
  }
}
/** The rows of a table, without the organisation's id. */
async function rowsOf(tx: Tx, table: (typeof TABLES)[number]): Promise<Row[]> {
  const { name, bytes } = table;
  const rows: Row[] = [];
  const columns = (await ownColumns(tx, name)).filter((c) => c !== 'org' && c !== bytes?.column);
  const shown = columns.map((c) => `'${c}', t."${c}"`);
  // a call takes a hundred arguments at most
  const row = Array.from(
    { length: Math.ceil(shown.length / 40) },
    (_, n) => `jsonb_build_object(${shown.slice(40 * n, 40 * n + 40).join(', ')})`,
  ).join(' || ');
  await tx.execute(
    sql.raw(
      `declare moving no scroll cursor for select ${row} as row ${bytes ? `, t.${bytes.column} as bytes` : ''} from ${name} t`,
    ),
  );
  for (;;) {
    const found = await tx.execute<{ row: Row; bytes?: Buffer }>(
      sql.raw(`fetch forward ${AT_ONCE} from moving`),
    );
    rows.push(...found.rows.map((r) => (bytes ? { ...r.row, [bytes.column]: r.bytes } : r.row)));
    if (found.rows.length < AT_ONCE) break;
  }
  await tx.execute(sql.raw('close moving'));
  return rows;
}

/**
 * Everything of an organisation as one signed archive: a file of lines for each table, photos beside.
 * @param withLinks also the public links and invitations that are open: whoever has the file has them then
 */
export async function exportOrganisation(
  session: Session,
  withLinks = false,
): Promise<{ name: string; bytes: Uint8Array }> {
  demand(session, 'govern');
  const moment = new Date(now());
  return inOrganisation(session, async (tx) => {
    await notTooMuch(tx);
    const files: BundleFile[] = [];
    const counts: Record<string, number> = {};
    for (const table of TABLES) {
      const rows = (await rowsOf(tx, table)).filter((row) => withLinks || !table.open?.(row));
      counts[table.name] = rows.length;
      const lines = rows.map((row) => {
        const kept: Row = { ...row, ...table.without };
        if (table.bytes) {
          files.push({ name: fileOf(table, row), bytes: row[table.bytes.column] as Buffer });
          delete kept[table.bytes.column];
        }
        return JSON.stringify(kept);
      });
      files.push({
        name: `tables/${table.name}.ndjson`,
        bytes: utf8.encode(lines.map((l) => `${l}\n`).join('')),
      });
    }
    const { rows } = await tx.execute<{ name: string; contact: string }>(
      sql`select name, contact from organisations`,
    );
    const about = { format: FORMAT, organisation: rows[0]!, made: moment.toISOString(), counts };
    files.unshift({ name: ABOUT, bytes: utf8.encode(JSON.stringify(about, null, 2)) });
    const bytes = writeBundle(
      { number: FORMAT, hash: sha256Hex(session.org) },
      files,
      await signingSecret(tx),
    );
    await audit(
      tx,
      session,
      'exported the organisation',
      `${(bytes.length / 1e6).toFixed(1)} MB`,
      moment.getTime(),
    );
    return { name: `organisation-${moment.toISOString().slice(0, 10)}.zip`, bytes };
  });
}
const fileOf = (table: (typeof TABLES)[number], row: Row): string =>
  `${table.name}/${table.bytes!.by.map((c) => String(row[c])).join('/')}.jpg`;

const aboutSchema = yup
  .object({
    format: yup.string().strict(true).oneOf([FORMAT]).required(),
    organisation: yup
      .object({ name: yup.string().strict(true).required(), contact: yup.string().strict(true).defined() })
      .required(),
    made: yup.string().strict(true).required(),
    counts: yup.mixed<Record<string, number>>().required(),
  })
  .required();
const unreadable = (text: string) => new TroubleError(422, 'unreadable', text);

/**
 * Puts an export into an organisation that has nothing yet but its people. Ids, numbers and fingerprints stay as they
 * were; keys that came with it are retired, the new ones sign. People come without a password: the owner offers them one.
 * @returns how many rows of each table came, and who must be invited again  @throws TroubleError, and nothing is changed
 */
export async function importOrganisation(
  session: Session,
  bytes: Uint8Array,
): Promise<{ counts: Record<string, number>; records: number; again: readonly string[] }> {
  demand(session, 'govern');
  const bundle = await readBundleAside(bytes);
  if (bundle.faults.length)
    throw unreadable(`The file was changed or is no export: ${bundle.faults.slice(0, 3).join(' ')}`);
  const byName = new Map(bundle.files.map((f) => [f.name, f.bytes]));
  let about: yup.InferType<typeof aboutSchema>;
  const tables = new Map<string, Row[]>();
  try {
    about = aboutSchema.validateSync(JSON.parse(decode(byName.get(ABOUT)!)), { strict: true });
    for (const table of TABLES)
      tables.set(
        table.name,
        // an export from before there was such a table says nothing of it
        decode(table.name in about.counts ? byName.get(`tables/${table.name}.ndjson`)! : new Uint8Array())
          .split('\n')
          .filter(Boolean)
          .map((line) => JSON.parse(line) as Row),
      );
  } catch {
    throw unreadable(
      'That is not an export of an organisation. Choose the file that “Export the organisation” made.',
    );
  }
  const keys = tables
    .get('signing_keys')!
    .map((k): PublishedKey => ({ key: String(k.public_key), retired: (k.retired as string | null) ?? null }));
  for (const s of tables.get('seals')!) {
    const {
      body,
      number,
      previous,
      hash,
      signature,
      key,
      parts,
      parts_signature: partsSignature,
    } = s as Record<string, string>;
    const faults = verifySeal(
      {
        body: body!,
        seal: {
          number: number!,
          previous: previous!,
          hash: hash!,
          signature: signature!,
          key: key!,
          ...(parts && partsSignature ? { parts, partsSignature } : {}),
        },
      },
      keys.map(({ key: k }) => ({ key: k, retired: null })),
    );
    if (faults.length) throw unreadable(`Record ${number} in the file was changed: ${faults[0]!.text}`);
  }
  for (const e of tables.get('events')!)
    try {
      parseEvent(e.body);
    } catch (error) {
      throw unreadable(
        `An entry of a run in the file cannot be read (${String(e.id)}): ${(error as Error).message}`,
      );
    }
  const again: string[] = [];
  const moment = new Date(now()).toISOString();
  const counts: Record<string, number> = {};
  await inOrganisation(session, async (tx) => {
    for (const name of ['sites', 'runs', 'seals', 'gauges', 'outside_records']) {
      const { rows } = await tx.execute(sql.raw(`select 1 from ${name} limit 1`));
      if (rows.length)
        throw new TroubleError(
          409,
          'not-empty',
          'This organisation has places or records already. An export is put into an empty one: set up a new one and sign in there.',
        );
    }
    for (const table of TABLES) {
      let rows = tables.get(table.name)!;
      if (table.name === 'people') rows = await asMembers(tx, rows, again);
      // whatever the file says of when: first seen here is now
      if (table.stamped) rows = rows.map((r) => ({ ...r, brought_in: moment }));
      if (table.name === 'signing_keys') {
        for (const r of rows)
          await tx.execute(
            sql`select bring_in_key(${String(r.public_key)}, ${String(r.made)}::timestamptz, ${(r.retired as string | null) ?? null}::timestamptz, ${moment}::timestamptz)`,
          );
        counts[table.name] = rows.length;
        continue;
      }
      if (table.bytes)
        rows = rows.map((r) => {
          const content = byName.get(fileOf(table, r));
          if (!content) throw unreadable(`${fileOf(table, r)} is missing from the file.`);
          return { ...r, [table.bytes!.column]: `\\x${Buffer.from(content).toString('hex')}` };
        });
      const columns = await ownColumns(tx, table.name);
      const named = sql.join(
        columns.map((c) => sql.identifier(c)),
        sql`, `,
      );
      const picked = sql.join(
        columns.map((c) => sql`p.${sql.identifier(c)}`),
        sql`, `,
      );
      for (let i = 0; i < rows.length; i += AT_ONCE)
        await tx.execute(
          sql`insert into ${sql.identifier(table.name)} (${named}) select ${picked} from jsonb_array_elements(${JSON.stringify(rows.slice(i, i + AT_ONCE))}::jsonb) r, jsonb_populate_record(null::${sql.identifier(table.name)}, r || jsonb_build_object('org', ${session.org}::text)) p on conflict do nothing`,
        );
      counts[table.name] = rows.length;
    }
    await tx.execute(
      sql`update organisations set name = ${about.organisation.name}, contact = ${about.organisation.contact} where org = ${session.org}`,
    );
    await audit(
      tx,
      session,
      'brought in an organisation',
      `${about.organisation.name}, exported ${about.made}`,
    );
  });
  const records = await rebuildLedger(session);
  return { counts, records, again };
}
/** People as they come: no password, and an address of their own where theirs is taken here. */
async function asMembers(tx: Tx, rows: readonly Row[], again: string[]): Promise<Row[]> {
  const made: Row[] = [];
  for (const r of rows) {
    const email = String(r.email);
    const { rows: taken } = await tx.execute(sql`select 1 from find_person(${email})`);
    const { rows: here } = await tx.execute(sql`select 1 from people where email = ${email}`);
    if (!r.left) again.push(String(r.name));
    made.push({
      ...r,
      password_hash: '!',
      email: taken.length || here.length ? `${String(r.id)}@moved.invalid` : email,
    });
  }
  return made;
}
