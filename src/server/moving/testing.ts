/** A whole organisation out and in as whoever owns it does it, for tests. */
import { askJob, beginJob, jobFile, putPiece, readJobs } from '@/server/jobs/jobs';
import { carryNext } from '@/server/jobs/runner';
import type { Session } from '@/server/session/session';
import { type JobResult, type JobSeen, PIECE_BYTES } from '@/wire/jobs';

/** Lets the server's hands work until nothing waits. @throws Error with what its owner is told, where it failed */
export async function worked(session: Session, id: string): Promise<JobSeen> {
  while (await carryNext());
  const job = (await readJobs(session)).find((j) => j.id === id)!;
  if (job.state !== 'done') throw new Error(job.trouble ?? job.state);
  return job;
}
/** An organisation's file. */
export async function exported(session: Session, links = false): Promise<Uint8Array> {
  const { id } = await askJob(session, { kind: 'export', links });
  await worked(session, id);
  const pieces: Buffer[] = [];
  for await (const p of (await jobFile(session, id)).pieces) pieces.push(p);
  return Buffer.concat(pieces);
}
/** Puts an organisation's file into another. */
export async function broughtIn(session: Session, bytes: Uint8Array): Promise<JobResult> {
  const { id } = await askJob(session, { kind: 'import', links: false, file: 'x.zip', bytes: bytes.length });
  for (let n = 0; n * PIECE_BYTES < bytes.length; n++)
    await putPiece(session, id, n, bytes.subarray(n * PIECE_BYTES, (n + 1) * PIECE_BYTES));
  await beginJob(session, id);
  return (await worked(session, id)).result!;
}
