import 'server-only';
import { certificatePdf } from '@/server/certificate/pdf';
import type { Job } from '@/server/jobs/jobs';
import { setJob } from '@/server/jobs/jobs';
import type { Progress } from '@/server/jobs/progress';
import { ArchiveWriter } from '@/server/moving/archive';
import { signingSecret } from '@/server/sealing/keys';
import { inOrganisation } from '@/database/client';
import { TroubleError } from '@/server/trouble';
import type { JobResult } from '@/wire/jobs';
import { chosenFilters } from '@/wire/ledger';
import { queryFrom } from '@/wire/ledger-schema';
import { type LedgerLine, searchLedger } from './ledger';
import { printedRecord } from './records';

/** So many papers in one file: a second and some 80 kB each. House figure. */
const MOST_PAPERS = 2_000;
const AT_ONCE = 200;

/**
 * The certificates of every record that matches, each a PDF, in one signed archive: the file of a job. Those of other houses have none of
 * ours and are counted. What is in memory is the one that is being made.
 * @param query the filters of the ledger, as its address has them  @param origin under which the public pages are found
 * @throws TroubleError 422 where nothing matches, or more than one file takes
 */
export async function packPapers(
  who: { readonly org: string; readonly person: string },
  job: Job,
  { query, origin }: { readonly query: string; readonly origin: string },
  progress: Progress,
): Promise<JobResult> {
  const wanted = queryFrom(new URLSearchParams(chosenFilters(new URLSearchParams(query))));
  const found: LedgerLine[] = [];
  for (let page = await searchLedger(who, wanted, AT_ONCE); page.length;) {
    found.push(...page);
    if (found.length > MOST_PAPERS)
      throw new TroubleError(
        422,
        'too-many',
        `More than ${MOST_PAPERS} records match. Narrow them, by dates say, and ask for one file after the other.`,
      );
    const last = page[page.length - 1]!;
    page =
      page.length < AT_ONCE
        ? []
        : await searchLedger(who, wanted, AT_ONCE, { at: last.sealedAt, id: last.run });
  }
  const own = found.filter((l) => l.source === 'own');
  if (!own.length)
    throw new TroubleError(422, 'none', 'No record of this house matches. Change the filters.');
  await progress.step('Making papers', own.length);
  const archive = new ArchiveWriter(job);
  try {
    for (const { run, number } of own) {
      const paper = await certificatePdf(await printedRecord(who, run), origin);
      await archive.addBytes(`${number}.pdf`, paper, true);
      await progress.more(1);
    }
    const secret = await inOrganisation(who, (tx) => signingSecret(tx));
    const bytes = await archive.end({ number: 'papers', hash: own[0]!.number }, secret);
    await setJob(job, { bytes });
  } catch (error) {
    await archive.drop().catch(() => undefined);
    throw error;
  }
  return { file: 'certificates.zip', records: own.length, elsewhere: found.length - own.length };
}
