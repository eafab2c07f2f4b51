/** Does one job in a thread of its own: however large an organisation is, nobody else waits for it. Bundled by scripts/tools.mjs. */
import { parentPort, workerData } from 'node:worker_threads';
import { closePool } from '@/database/client';
import { databaseTrouble } from '@/database/trouble';
import { TroubleError, valueRefused } from '@/server/trouble';
import type { DatabaseTrouble } from '@/wire/database-trouble';
import type { Job } from './jobs';
import { workOn } from './work';

export interface Ended {
  /** What its owner can do something about. */
  readonly trouble?: string;
  /** What was wrong with the database: some of it passes. */
  readonly database?: DatabaseTrouble | null;
  readonly fault?: string;
}
/** What went wrong and why, without the rows that a failed statement names. */
const said = (error: unknown): string =>
  [(error as Error | null)?.cause, (error as Error | null)?.stack ?? error]
    .filter(Boolean)
    .map((e) => String(e).slice(0, 2_000))
    .join('\n');
const ended = (error: unknown): Ended =>
  error instanceof TroubleError
    ? { trouble: error.message }
    : valueRefused(error)
      ? { trouble: 'Something in the file cannot be a value here: it was changed. Nothing of it came in.' }
      : { database: databaseTrouble(error, false), fault: said(error) };
/** Ends well or says how not. */
export const tryJob = (job: Job): Promise<Ended> => workOn(job).then(() => ({}), ended);
if (parentPort && (workerData as Job | null)?.id)
  void tryJob(workerData as Job).then(async (end) => {
    await closePool().catch(() => undefined);
    parentPort!.postMessage(end);
  });
