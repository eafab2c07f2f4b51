/** What each kind of job does. Runs aside from the web server, in a thread of its own (worker.ts). */
import 'server-only';
import { exportOrganisation } from '@/server/moving/export';
import { importOrganisation } from '@/server/moving/import';
import { rebuildLedger } from '@/server/records/ledger';
import type { JobResult } from '@/wire/jobs';
import { dropPieces, type Job, readJob, setJob } from './jobs';
import { progressOf } from './progress';

/** Does a job from its beginning, or from where it can be gone on with. @throws TroubleError with what its owner can do */
export async function workOn(job: Job): Promise<void> {
  const { kind, asked, by, made, result } = await readJob(job);
  const who = { org: job.org, person: by };
  const progress = progressOf(job);
  const end = (said: JobResult) => setJob(job, { state: 'done', step: '', result: { ...said } });
  if (kind === 'export') {
    await dropPieces(job);
    await end(await exportOrganisation(who, job, made.getTime(), asked.links ?? false, progress));
  } else if (kind === 'import') {
    // what has come in stands: only the ledger may still have to be made
    const came = result ?? (await importOrganisation(who, job, made.getTime(), progress));
    const records = await rebuildLedger(who, progress);
    await dropPieces(job);
    await end({ ...came, records });
  } else if (kind === 'papers') {
    await dropPieces(job);
    // who makes papers is fetched where some are wanted
    const { packPapers } = await import('@/server/records/pack-papers');
    const { query = '', origin = '' } = asked;
    await end(await packPapers(who, job, { query, origin }, progress));
  } else await end({ records: await rebuildLedger(who, progress) });
}
