/** Long work as an organisation asks for it, sees how far it is, and fetches what came of it. */
import 'server-only';
import { and, desc, eq, inArray, sql, sum } from 'drizzle-orm';
import { inOrganisation, type Tx } from '@/database/client';
import { jobPieces, jobs, people } from '@/database/schema';
import { now } from '@/server/now';
import { demand } from '@/server/permission';
import type { Session } from '@/server/session/session';
import { isId, notHere, TroubleError } from '@/server/trouble';
import { type JobForm, type JobSeen, type JobState, OPEN_KINDS, PIECE_BYTES, UNDER_WAY } from '@/wire/jobs';
import { may } from '@/wire/role';
import { uuid7 } from '@/wire/uuid7';

/** A file that was made is kept so long, and a job that ended is shown so long. House figure. */
export const KEPT_MS = 24 * 3_600_000;
/** So many are shown. */
const SHOWN = 6;
/** Names a job, and whose it is. */
export interface Job {
  readonly org: string;
  readonly id: string;
}

/** Asks for long work. @param origin under which papers say the public pages are found  @returns its id  @throws TroubleError 409 where something is under way already */
export async function askJob(session: Session, form: JobForm, origin = ''): Promise<{ id: string }> {
  const { kind, links, file, bytes, query = '' } = form;
  demand(session, OPEN_KINDS.includes(kind) ? 'share' : 'govern');
  if (kind === 'import' && (!file || !bytes))
    throw new TroubleError(422, 'invalid', 'Choose the file that is brought in.');
  const id = uuid7(now());
  return inOrganisation(session, async (tx) => {
    const made = await tx
      .insert(jobs)
      .values({
        org: session.org,
        id,
        kind,
        asked: {
          ...(kind === 'import' ? { file: file! } : {}),
          ...(kind === 'export' ? { links } : {}),
          ...(kind === 'papers' ? { query, origin } : {}),
        },
        by: session.person,
        made: new Date(now()),
        state: kind === 'import' ? 'uploading' : 'waiting',
        bytes: bytes ?? 0,
      })
      .onConflictDoNothing()
      .returning({ id: jobs.id });
    if (!made.length)
      throw new TroubleError(
        409,
        'under-way',
        'Something like this is under way already. Wait for its end, or stop it.',
      );
    return { id };
  });
}
/** The newest jobs of an organisation: all of them for its owner, for others the open ones that they asked for. */
export async function readJobs(session: Session): Promise<readonly JobSeen[]> {
  demand(session, 'share');
  const rows = await inOrganisation(session, (tx) =>
    tx
      .select({ job: jobs, by: people.name })
      .from(jobs)
      .innerJoin(people, eq(people.id, jobs.by))
      .where(
        may(session.role, 'govern')
          ? undefined
          : and(eq(jobs.by, session.person), inArray(jobs.kind, [...OPEN_KINDS])),
      )
      .orderBy(desc(jobs.made))
      .limit(SHOWN),
  );
  return rows.map(({ job, by }) => ({
    id: job.id,
    kind: job.kind,
    state: job.state,
    asked: job.asked,
    by,
    made: job.made.toISOString(),
    step: job.step,
    done: job.done,
    of: job.of,
    bytes: job.bytes,
    result: job.result,
    trouble: job.trouble,
    until:
      job.state === 'done' && job.result?.file ? new Date(job.made.getTime() + KEPT_MS).toISOString() : null,
  }));
}
/** A job of the organisation, held until the transaction ends. @throws TroubleError 404 */
async function jobIn(tx: Tx, id: string): Promise<typeof jobs.$inferSelect> {
  const [job] = isId(id) ? await tx.select().from(jobs).where(eq(jobs.id, id)).for('update') : [];
  if (!job) throw notHere('job');
  return job;
}
/**
 * Takes a piece of the file that is brought in; the same piece again changes nothing.
 * @throws TroubleError 422 where it is not as large as it must be, 409 where nothing is being sent
 */
export async function putPiece(session: Session, id: string, n: number, bytes: Uint8Array): Promise<void> {
  demand(session, 'govern');
  await inOrganisation(session, async (tx) => {
    const job = await jobIn(tx, id);
    if (job.state !== 'uploading')
      throw new TroubleError(409, 'not-uploading', 'This file is not being sent any more. Choose it again.');
    const due = Math.min(PIECE_BYTES, job.bytes - n * PIECE_BYTES);
    if (!Number.isInteger(n) || n < 0 || due <= 0 || bytes.length !== due)
      throw new TroubleError(
        422,
        'piece',
        'The file changed while it was being sent. Stop this, and choose it again.',
      );
    await tx
      .insert(jobPieces)
      .values({ org: session.org, job: id, n, bytes: Buffer.from(bytes) })
      .onConflictDoNothing();
  });
}
/** The file is there: its work may begin. @throws TroubleError 409 where pieces are missing */
export async function beginJob(session: Session, id: string): Promise<void> {
  demand(session, 'govern');
  await inOrganisation(session, async (tx) => {
    const job = await jobIn(tx, id);
    if (job.state !== 'uploading') return;
    const [have] = await tx
      .select({ bytes: sum(sql<number>`length(${jobPieces.bytes})`).mapWith(Number) })
      .from(jobPieces)
      .where(eq(jobPieces.job, id));
    if (have?.bytes !== job.bytes)
      throw new TroubleError(409, 'pieces', 'Parts of the file have not arrived. Choose it again.');
    await tx.update(jobs).set({ state: 'waiting' }).where(eq(jobs.id, id));
  });
}
/** A job as its owner, or whoever asked for it, may have it. @throws TroubleError 403, 404 */
async function ownJob(tx: Tx, session: Session, id: string): Promise<typeof jobs.$inferSelect> {
  const job = await jobIn(tx, id);
  if (!OPEN_KINDS.includes(job.kind)) demand(session, 'govern');
  else if (job.by !== session.person && !may(session.role, 'govern')) throw notHere('job');
  return job;
}
/** Ends a job that is under way; what it had made goes. Whoever works on it sees so at its next beat. */
export async function stopJob(session: Session, id: string): Promise<void> {
  demand(session, 'share');
  await inOrganisation(session, async (tx) => {
    const job = await ownJob(tx, session, id);
    if (!UNDER_WAY.includes(job.state)) return;
    await tx.update(jobs).set({ state: 'stopped', step: '' }).where(eq(jobs.id, id));
    await tx.delete(jobPieces).where(eq(jobPieces.job, id));
  });
}
/** The file that a job made. @throws TroubleError 404 */
export async function jobFile(
  session: Session,
  id: string,
): Promise<{ name: string; bytes: number; pieces: AsyncGenerator<Buffer> }> {
  demand(session, 'share');
  const job = await inOrganisation(session, (tx) => ownJob(tx, session, id));
  if (job.state !== 'done' || !job.result?.file) throw notHere('file');
  return { name: job.result.file, bytes: job.bytes, pieces: piecesOf({ org: session.org, id }, job.bytes) };
}
/** A piece of a job's file. @throws TroubleError 404 where it is not there any more */
export async function readPiece({ org, id }: Job, n: number): Promise<Buffer> {
  const [row] = await inOrganisation({ org }, (tx) =>
    tx
      .select({ bytes: jobPieces.bytes })
      .from(jobPieces)
      .where(and(eq(jobPieces.job, id), eq(jobPieces.n, n))),
  );
  if (!row) throw notHere('file');
  return row.bytes;
}
/** A job's file from its beginning, each piece read when it is asked for. */
async function* piecesOf(job: Job, bytes: number): AsyncGenerator<Buffer> {
  for (let n = 0; n * PIECE_BYTES < bytes; n += 1) yield readPiece(job, n);
}

/** What whoever works on a job is told of it. @throws TroubleError 404 where it was taken away */
export const readJob = (job: Job): Promise<typeof jobs.$inferSelect> =>
  inOrganisation(job, (tx) => jobIn(tx, job.id));
/** Says that a job is worked on. @returns its state: it may have been stopped meanwhile */
export async function beat({ org, id }: Job, server: string): Promise<JobState | null> {
  const [row] = await inOrganisation({ org }, (tx) =>
    tx
      .update(jobs)
      .set({ beat: sql`clock_timestamp()` })
      .where(and(eq(jobs.id, id), eq(jobs.heldBy, server)))
      .returning({ state: jobs.state }),
  );
  return row?.state ?? null;
}
/** Changes a job that is under way, and none that has ended. */
export const setJob = (
  { org, id }: Job,
  set: Partial<
    Pick<typeof jobs.$inferSelect, 'state' | 'step' | 'done' | 'of' | 'bytes' | 'result' | 'trouble'>
  >,
): Promise<unknown> =>
  inOrganisation({ org }, (tx) =>
    tx
      .update(jobs)
      .set(set)
      .where(and(eq(jobs.id, id), inArray(jobs.state, ['running', 'waiting']))),
  );
/** Takes what a try before this one left. */
export const dropPieces = ({ org, id }: Job): Promise<unknown> =>
  inOrganisation({ org }, (tx) => tx.delete(jobPieces).where(eq(jobPieces.job, id)));
/** Keeps the next piece of a job's file. */
export const keepPiece = ({ org, id }: Job, n: number, bytes: Buffer): Promise<unknown> =>
  inOrganisation({ org }, (tx) => tx.insert(jobPieces).values({ org, job: id, n, bytes }));
