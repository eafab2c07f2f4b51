/** The server's hands for long work: takes what waits, one at a time, whichever server is free first. */
import 'server-only';
import { randomUUID } from 'node:crypto';
import { existsSync } from 'node:fs';
import path from 'node:path';
import { Worker } from 'node:worker_threads';
import { lookUp } from '@/database/client';
import { faultNumber } from '@/database/trouble';
import { log } from '@/server/log';
import { now } from '@/server/now';
import { DATABASE_TROUBLE } from '@/wire/database-trouble';
import { beat, type Job, KEPT_MS, readJob, setJob } from './jobs';
import { type Ended, tryJob } from './worker';

const LOOK_MS = 2_000;
const BEAT_MS = 5_000;
/** A server that has not said for so long that it works on a job has gone: another takes it over. House figure. */
const SILENT = '45 seconds';
/** What has ended its server so often is not tried again. House figure. */
const MOST_TRIES = 5;
const FORGET_MS = 600_000;
/** What a job may hold in memory, MB: it reads and writes in pieces, whatever it moves. */
const MOST_MB = 256;
const server = randomUUID();

/** A job in a thread of its own; in this one where the product's programs are not built, as in tests of parts. */
function aside(job: Job, stopped: AbortSignal): Promise<Ended> {
  const file = path.join(process.cwd(), '.run', 'tools', 'jobs.mjs');
  if (!existsSync(file)) return tryJob(job);
  const worker = new Worker(/* turbopackIgnore: true */ file, {
    workerData: job,
    resourceLimits: { maxOldGenerationSizeMb: MOST_MB },
  });
  return new Promise<Ended>((resolve) => {
    worker.once('message', resolve);
    worker.once('error', (error) => resolve({ fault: String(error.stack ?? error) }));
    worker.once('exit', () => resolve({ fault: 'ended' }));
    stopped.addEventListener('abort', () => void worker.terminate());
  });
}
/** Works on a job until it has ended, was stopped, or can be gone on with later. */
async function carry(job: Job): Promise<void> {
  const { tries } = await readJob(job);
  if (tries > MOST_TRIES) {
    await setJob(job, {
      state: 'failed',
      step: '',
      trouble:
        'It was begun five times and never came to an end. Ask whoever keeps the server to look into its log.',
    });
    return;
  }
  const stop = new AbortController();
  const beats = setInterval(
    () =>
      void beat(job, server).then(
        (state) => state !== 'running' && stop.abort(),
        () => undefined, // the database is away: the work itself finds out
      ),
    BEAT_MS,
  );
  const { trouble, database, fault } = await aside(job, stop.signal).finally(() => clearInterval(beats));
  if (stop.signal.aborted) return;
  if (database === 'database-away' || database === 'busy')
    return setJob(job, { state: 'waiting' }).then(() => undefined);
  const number = faultNumber();
  const said = trouble ?? (database ? DATABASE_TROUBLE[database].done : null);
  if (fault) log.error({ fault, request: number, ...job }, 'job');
  if (said ?? fault)
    await setJob(job, {
      state: 'failed',
      step: '',
      trouble:
        said ??
        `Something went wrong on the server; nothing was changed. Try again. If it goes on, tell whoever keeps the server this number: ${number}.`,
    });
}
/** Takes a job that waits and carries it to its end. @returns whether there was one */
export async function carryNext(): Promise<boolean> {
  const [taken] = await lookUp<{ org: string; job: string }>('take_job($1, $2::interval)', [server, SILENT]);
  if (taken) await carry({ org: taken.org, id: taken.job });
  return taken !== undefined;
}

/** Starts this server's hands; one look ends before the next begins. */
export function startWorking(): void {
  let forgotten = 0;
  const look = async (): Promise<void> => {
    try {
      while (await carryNext());
      if (Date.now() - forgotten > FORGET_MS) {
        forgotten = Date.now();
        await lookUp('forget_jobs($1)', [new Date(now() - KEPT_MS)]);
      }
    } catch {
      /* the database is away: the next look finds it */
    }
    setTimeout(() => void look(), LOOK_MS).unref();
  };
  void look();
}
