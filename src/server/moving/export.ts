import 'server-only';
import { sql } from 'drizzle-orm';
import { sha256Hex } from '@/core/record/canonical';
import { inOrganisation, type Tx } from '@/database/client';
import { audit } from '@/server/audit';
import { type Job, setJob } from '@/server/jobs/jobs';
import { type Progress, SILENT } from '@/server/jobs/progress';
import { signingSecret } from '@/server/sealing/keys';
import type { JobResult } from '@/wire/jobs';
import { ArchiveWriter } from './archive';
import { ABOUT, fileOf, FORMAT, linesOf, type Moved, ownColumns, TABLES } from './tables';

/** About so much is fetched at a time, bytes. */
const FETCHED = 1_000_000;
const MOST_ROWS = 5_000;

interface Line extends Record<string, unknown> {
  line: string;
}
/** Rows of a query, fetched a few at a time: fewer of large ones. */
async function* fetched<R extends Record<string, unknown>>(
  tx: Tx,
  query: string,
  sizeOf: (row: R) => number,
): AsyncGenerator<readonly R[]> {
  await tx.execute(sql.raw(`declare moving no scroll cursor for ${query}`));
  for (let most = 10; ;) {
    const { rows } = (await tx.execute(sql.raw(`fetch forward ${most} from moving`))) as unknown as {
      readonly rows: readonly R[];
    };
    if (rows.length) yield rows;
    if (rows.length < most) break;
    const each = rows.reduce((sum, r) => sum + sizeOf(r), 0) / rows.length;
    most = Math.round(Math.min(MOST_ROWS, Math.max(1, Math.min(2 * most, FETCHED / each))));
  }
  await tx.execute(sql.raw('close moving'));
}
/** A table's rows as lines of JSON, made in the database: without the house's id, its bytes and what stays behind. */
async function linesQuery(tx: Tx, { name, bytes, without = {} }: Moved, where: string): Promise<string> {
  const columns = (await ownColumns(tx, name)).filter(
    (c) => c !== 'org' && c !== bytes?.column && !(c in without),
  );
  const shown = columns.map((c) => `'${c}', t."${c}"`);
  // a call takes a hundred arguments at most
  const row = Array.from(
    { length: Math.ceil(shown.length / 40) },
    (_, n) => `jsonb_build_object(${shown.slice(40 * n, 40 * n + 40).join(', ')})`,
  ).join(' || ');
  return `select (${row} || '${JSON.stringify(without)}'::jsonb)::text as line from ${name} t ${where}`;
}

/**
 * Everything of an organisation as one signed archive, the file of a job: a file of lines for each table, photos beside. As it
 * stood at one moment, whatever is written meanwhile; in memory is what is being read, however much there is.
 * @param withLinks also the public links and invitations that are open: whoever has the file has them then
 */
export async function exportOrganisation(
  who: { readonly org: string; readonly person: string },
  job: Job,
  moment: number,
  withLinks = false,
  progress: Progress = SILENT,
): Promise<JobResult> {
  const archive = new ArchiveWriter(job);
  const made = new Date(moment).toISOString();
  const counts: Record<string, number> = {};
  const bytes = await inOrganisation(
    who,
    async (tx) => {
      const rowsOf = (table: Moved) => (table.open && !withLinks ? `where (${table.open}) is not true` : '');
      for (const table of TABLES) {
        const { rows } = await tx.execute<{ n: string }>(
          sql.raw(`select count(*) as n from ${table.name} t ${rowsOf(table)}`),
        );
        counts[table.name] = Number(rows[0]!.n);
      }
      await progress.step(
        'Writing rows and photos',
        TABLES.reduce((sum, t) => sum + counts[t.name]! * (t.bytes ? 2 : 1), 0),
      );
      const { rows } = await tx.execute<{ name: string; contact: string }>(
        sql`select name, contact from organisations`,
      );
      const about = { format: FORMAT, organisation: rows[0]!, made, counts };
      await archive.addBytes(ABOUT, Buffer.from(JSON.stringify(about, null, 2)));
      for (const table of TABLES) {
        const query = await linesQuery(tx, table, rowsOf(table));
        const lines = async function* () {
          for await (const some of fetched<Line>(tx, query, (r) => r.line.length)) {
            yield Buffer.from(some.map((r) => `${r.line}\n`).join(''));
            await progress.more(some.length);
          }
        };
        await archive.add(linesOf(table), lines());
        if (!table.bytes) continue;
        const { column, by } = table.bytes;
        const photos = `select ${by.map((c) => `t."${c}"`).join(', ')}, t.${column} as bytes from ${table.name} t`;
        for await (const some of fetched<Record<string, unknown> & { bytes: Buffer }>(
          tx,
          photos,
          (r) => r.bytes.length,
        ))
          for (const row of some) {
            await archive.addBytes(fileOf(table, row), row.bytes, true);
            await progress.more(1);
          }
      }
      return archive.end({ number: FORMAT, hash: sha256Hex(who.org) }, await signingSecret(tx));
    },
    // all of it as it stood at one moment
    { isolationLevel: 'repeatable read', accessMode: 'read only' },
  ).catch(async (error: unknown) => {
    await archive.drop().catch(() => undefined);
    throw error;
  });
  await setJob(job, { bytes });
  await inOrganisation(who, (tx) =>
    audit(tx, who, 'exported the organisation', `${(bytes / 1e6).toFixed(1)} MB`, moment),
  );
  return { file: `organisation-${made.slice(0, 10)}.zip`, counts };
}
