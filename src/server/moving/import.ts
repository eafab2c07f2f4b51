import 'server-only';
import { and, eq, sql } from 'drizzle-orm';
import * as yup from 'yup';
import { verifySeal, type PublishedKey } from '@/core/record/seal';
import { parseEvent } from '@/core/run/events';
import { inOrganisation, type Tx } from '@/database/client';
import { jobs } from '@/database/schema';
import { audit } from '@/server/audit';
import { type Job, readJob } from '@/server/jobs/jobs';
import { type Progress, SILENT } from '@/server/jobs/progress';
import { TroubleError } from '@/server/trouble';
import type { JobResult } from '@/wire/jobs';
import { ArchiveReader } from './archive';
import { ABOUT, fileOf, FORMAT, linesOf, type Moved, ownColumns, TABLES } from './tables';

/** Rows put in at once, and about how much of them, characters. */
const MOST_ROWS = 500;
const MOST_TEXT = 2_000_000;
type Row = Record<string, unknown>;

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

async function aboutOf(archive: ArchiveReader): Promise<yup.InferType<typeof aboutSchema>> {
  const pieces: Uint8Array[] = [];
  for await (const chunk of archive.read(ABOUT)) pieces.push(chunk);
  try {
    return aboutSchema.validateSync(JSON.parse(Buffer.concat(pieces).toString()), { strict: true });
  } catch {
    throw unreadable(
      'That is not an export of an organisation. Choose the file that “Export the organisation” made.',
    );
  }
}
/** Whether a row of the file is what it says. @throws TroubleError */
function checked(table: Moved, row: Row, keys: readonly PublishedKey[]): void {
  if (table.name === 'events')
    try {
      parseEvent(row.body);
    } catch (error) {
      throw unreadable(
        `An entry of a run in the file cannot be read (${String(row.id)}): ${(error as Error).message}`,
      );
    }
  if (table.name !== 'seals') return;
  const {
    body,
    number,
    previous,
    hash,
    signature,
    key,
    parts,
    parts_signature: partsSignature,
  } = row as Record<string, string>;
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
    keys,
  );
  if (faults.length) throw unreadable(`Record ${number} in the file was changed: ${faults[0]!.text}`);
}
/** The rows of a table of the file, some at a time, photos with them. */
async function* batches(archive: ArchiveReader, table: Moved): AsyncGenerator<Row[]> {
  let some: Row[] = [];
  let size = 0;
  for await (const row of archive.rows(linesOf(table))) {
    if (table.bytes) {
      const content: Uint8Array[] = [];
      for await (const chunk of archive.read(fileOf(table, row))) content.push(chunk);
      const hex = `\\x${Buffer.concat(content).toString('hex')}`;
      some.push({ ...row, [table.bytes.column]: hex });
      size += hex.length;
    } else {
      some.push(row);
      size += JSON.stringify(row).length;
    }
    if (some.length < MOST_ROWS && size < MOST_TEXT) continue;
    yield some;
    some = [];
    size = 0;
  }
  if (some.length) yield some;
}

/**
 * Puts an export, the file of a job, into an organisation that has nothing yet but its people. Ids, numbers and fingerprints stay
 * as they were; keys that came with it are retired, the new ones sign. People come without a password: the owner offers them one.
 * It comes in whole or not at all; the ledger is made afterwards. Read again after an end in between, it says what came.
 * @returns how many rows of each table came, and who must be invited again  @throws TroubleError, and nothing is changed
 */
export async function importOrganisation(
  who: { readonly org: string; readonly person: string },
  job: Job,
  moment: number,
  progress: Progress = SILENT,
): Promise<JobResult> {
  const archive = await ArchiveReader.open(job, (await readJob(job)).bytes);
  try {
    const about = await aboutOf(archive);
    // an export from before there was such a table says nothing of it
    const tables = TABLES.filter((t) => t.name in about.counts);
    await progress.step(
      'Checking and putting in rows and photos',
      tables.reduce((sum, t) => sum + (Number(about.counts[t.name]) || 0), 0),
    );
    return await inOrganisation(who, async (tx) => {
      await demandEmpty(tx);
      const again: string[] = [];
      const counts: Record<string, number> = {};
      const keys: PublishedKey[] = [];
      const broughtIn = new Date(moment).toISOString();
      for (const table of tables) {
        const put = await putterOf(tx, who.org, table, broughtIn);
        counts[table.name] = 0;
        for await (const rows of batches(archive, table)) {
          for (const row of rows) {
            if (table.name === 'signing_keys') keys.push({ key: String(row.public_key), retired: null });
            checked(table, row, keys);
          }
          await put(table.name === 'people' ? await asMembers(tx, who.org, rows, again) : rows);
          counts[table.name]! += rows.length;
          await progress.more(rows.length);
        }
      }
      await tx.execute(
        sql`update organisations set name = ${about.organisation.name}, contact = ${about.organisation.contact} where org = ${who.org}`,
      );
      await audit(
        tx,
        who,
        'brought in an organisation',
        `${about.organisation.name}, exported ${about.made}`,
      );
      const result: JobResult = { counts, again };
      // written with what came: whoever goes on after this knows that it is in
      const still = await tx
        .update(jobs)
        .set({ result: { ...result } })
        .where(and(eq(jobs.id, job.id), eq(jobs.state, 'running')))
        .returning({ id: jobs.id });
      // what was stopped until now does not come in
      if (!still.length) throw new TroubleError(409, 'stopped', 'It was stopped. Nothing of it came in.');
      return result;
    });
  } finally {
    archive.close();
  }
}
async function demandEmpty(tx: Tx): Promise<void> {
  for (const name of ['sites', 'runs', 'seals', 'gauges', 'outside_records']) {
    const { rows } = await tx.execute(sql.raw(`select 1 from ${name} limit 1`));
    if (rows.length)
      throw new TroubleError(
        409,
        'not-empty',
        'This organisation has places or records already. An export is put into an empty one: set up a new one and sign in there.',
      );
  }
}
/** Puts rows of a table in. */
async function putterOf(
  tx: Tx,
  org: string,
  table: Moved,
  broughtIn: string,
): Promise<(rows: readonly Row[]) => Promise<void>> {
  if (table.name === 'signing_keys')
    return async (rows) => {
      for (const r of rows)
        await tx.execute(
          sql`select bring_in_key(${String(r.public_key)}, ${String(r.made)}::timestamptz, ${(r.retired as string | null) ?? null}::timestamptz, ${broughtIn}::timestamptz)`,
        );
    };
  const columns = await ownColumns(tx, table.name);
  const named = sql.join(
    columns.map((c) => sql.identifier(c)),
    sql`, `,
  );
  const picked = sql.join(
    columns.map((c) => sql`p.${sql.identifier(c)}`),
    sql`, `,
  );
  // whatever the file says of when: first seen here is now
  const own = JSON.stringify({ org, ...(table.stamped ? { brought_in: broughtIn } : {}) });
  return async (rows) => {
    await tx.execute(
      sql`insert into ${sql.identifier(table.name)} (${named}) select ${picked} from jsonb_array_elements(${JSON.stringify(rows)}::jsonb) r, jsonb_populate_record(null::${sql.identifier(table.name)}, r || ${own}::jsonb) p on conflict do nothing`,
    );
  };
}
/** People as they come: no password, and an address of their own where theirs is taken here. */
async function asMembers(tx: Tx, org: string, rows: readonly Row[], again: string[]): Promise<Row[]> {
  const made: Row[] = [];
  for (const r of rows) {
    const email = String(r.email);
    const { rows: taken } = await tx.execute(sql`select 1 from find_person(${email})`);
    const { rows: here } = await tx.execute(sql`select 1 from people where email = ${email}`);
    if (!r.left) again.push(String(r.name));
    made.push({
      ...r,
      password_hash: '!',
      email: taken.length || here.length ? `${String(r.id)}@${org}.moved.invalid` : email,
    });
  }
  return made;
}
