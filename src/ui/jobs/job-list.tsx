'use client';
import { Moment } from '@/ui/frame/zone';
import { Button } from '@/ui/kit/button';
import { buttonClass } from '@/ui/kit/button-class';
import type { JobKind, JobSeen } from '@/wire/jobs';
import Link from 'next/link';
import { isUnderWay, type useJobs } from './use-jobs';

const KIND_WORDS: Record<JobKind, string> = {
  export: 'Export',
  import: 'Bringing in',
  ledger: 'Ledger made anew',
  papers: 'Papers in one file',
};
export const megabytes = (bytes: number): string =>
  bytes < 1e6 ? `${Math.ceil(bytes / 1000)} kB` : `${(bytes / 1e6).toFixed(1)} MB`;
const plural = (n: number, one: string, more = `${one}s`): string => `${n} ${n === 1 ? one : more}`;

/** What came of long work, and how far what is under way has come. One may leave the page meanwhile. */
export function JobList({
  jobs,
  sent,
  stop,
  trouble,
}: Omit<ReturnType<typeof useJobs>, 'ask' | 'busy' | 'goesOn'>) {
  return (
    <>
      <ul className="mt-2 grid gap-2" aria-live="polite">
        {jobs.map((job) => (
          <li key={job.id} className="border-t border-seam pt-2 text-sm" data-job={job.state}>
            <p>
              <span className="font-semibold">{KIND_WORDS[job.kind]}</span>{' '}
              {job.asked.file && <>of {job.asked.file} </>}
              <span className="text-quiet">
                asked for by {job.by}, <Moment at={job.made} />
              </span>
            </p>
            <JobState job={job} sent={sent?.id === job.id ? sent : null} />
            {isUnderWay(job) && (
              <Button className="mt-1" onClick={() => void stop(job.id)}>
                Stop it
              </Button>
            )}
          </li>
        ))}
      </ul>
      <p role="alert" className="text-rust">
        {trouble}
      </p>
    </>
  );
}
function JobState({ job, sent }: { job: JobSeen; sent: { of: number; done: number } | null }) {
  if (job.state === 'uploading')
    return sent ? (
      <Bar
        words={`Sending the file: stay on this page. ${megabytes(sent.done)} of ${megabytes(sent.of)}`}
        {...sent}
      />
    ) : (
      <p>The file was not sent to its end. Stop this, then choose it again.</p>
    );
  if (job.state === 'waiting') return <p>Waits for its turn. You may leave this page.</p>;
  if (job.state === 'running')
    return (
      <Bar
        words={`${job.step || 'Begins'}${job.of ? `: ${job.done} of ${job.of}` : ''}. You may leave this page.`}
        {...job}
      />
    );
  if (job.state === 'stopped') return <p>Stopped. Nothing of it was kept.</p>;
  if (job.state === 'failed')
    return (
      <p role="alert" className="text-rust">
        {job.trouble}
      </p>
    );
  const { counts = {}, records, again = [] } = job.result ?? {};
  if (job.kind === 'papers')
    return (
      <p className="mt-1 grid gap-1">
        {plural(records ?? 0, 'certificate')}, {megabytes(job.bytes)}.
        {job.result?.elsewhere
          ? ` ${plural(job.result.elsewhere, 'record')} of other houses are not in it.`
          : ''}
        <JobFile job={job} />
      </p>
    );
  if (job.kind === 'ledger') return <p>{plural(records ?? 0, 'record')} stand in it.</p>;
  if (job.kind === 'export')
    return (
      <p className="mt-1 grid gap-1">
        {plural(counts.seals ?? 0, 'record')}, {plural(counts.sites ?? 0, 'place')},{' '}
        {plural(counts.events ?? 0, 'entry', 'entries')}. {megabytes(job.bytes)}.
        <JobFile job={job} />
      </p>
    );
  return (
    <p>
      {plural(records ?? 0, 'record')}, {plural(counts.sites ?? 0, 'place')} and{' '}
      {plural(counts.runs ?? 0, 'run')} came in; every seal was checked.
      {again.length > 0 && (
        <>
          {' '}
          Offer a new password to: {again.join(', ')}.{' '}
          <Link prefetch={false} className="text-lake underline" href="/organisation">
            Show them
          </Link>
        </>
      )}
    </p>
  );
}
const JobFile = ({ job }: { job: JobSeen }) => (
  <>
    <a className={buttonClass('plain')} href={`/api/jobs/${job.id}/file`} download>
      Save the file
    </a>
    {job.until && (
      <span className="text-quiet">
        Kept here until <Moment at={job.until} />.
      </span>
    )}
  </>
);
function Bar({ words, done, of }: { words: string; done: number; of: number }) {
  const share = Math.round((100 * done) / (of || 1));
  return (
    <div className="grid gap-1">
      <p>{words}</p>
      <div
        className="h-2 rounded-sm border border-edge bg-panel"
        role="progressbar"
        aria-label="How far it is"
        aria-valuenow={share}
      >
        <div className="h-full rounded-sm bg-lake" style={{ width: `${share}%` }} />
      </div>
    </div>
  );
}
