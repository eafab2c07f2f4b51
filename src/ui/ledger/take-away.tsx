'use client';
import { JobList } from '@/ui/jobs/job-list';
import { useJobs } from '@/ui/jobs/use-jobs';
import { Button } from '@/ui/kit/button';
import { buttonClass } from '@/ui/kit/button-class';
import { FILE_COLUMNS, type FileColumn } from '@/wire/ledger';
import { useState } from 'react';
import { ColumnChoice } from './column-choice';

const KINDS = ['papers'] as const;
const ALL = Object.keys(FILE_COLUMNS) as FileColumn[];

/** What matches as files: a table with the columns that are wanted, the certificates in one archive. @param query as the address has it */
export function TakeAway({ query, shown }: { query: string; shown: readonly FileColumn[] }) {
  const [chosen, setChosen] = useState<readonly FileColumn[] | null>(null);
  const columns = chosen ?? shown;
  const { goesOn, busy, ask, ...jobs } = useJobs(KINDS);
  return (
    <div className="mt-2 grid gap-6 border border-seam bg-panel p-4 lg:grid-cols-2">
      <section aria-labelledby="as-table">
        <h2 id="as-table" className="font-semibold">
          All that match as a table
        </h2>
        <ColumnChoice
          legend="Columns of the file"
          all={ALL}
          chosen={columns}
          onChange={setChosen}
          className="mt-1 grid grid-cols-2 gap-x-5 sm:grid-cols-3"
        />
        <p className="mt-2 flex flex-wrap gap-3">
          <a
            className={buttonClass('act')}
            href={`/api/ledger/csv?${query}${query ? '&' : ''}columns=${columns.join(',')}`}
          >
            Save as CSV
          </a>
          <Button onClick={() => setChosen(ALL)}>All columns</Button>
        </p>
      </section>
      <section aria-labelledby="as-papers">
        <h2 id="as-papers" className="font-semibold">
          Their certificates in one file
        </h2>
        <p className="text-sm text-quiet">
          A PDF of each, in a ZIP. It is made here while you go on; come back for it.
        </p>
        <Button
          className="mt-2"
          disabled={busy || goesOn}
          onClick={() => void ask({ kind: 'papers', query })}
        >
          Make the file
        </Button>
        <JobList {...jobs} />
      </section>
    </div>
  );
}
