'use client';
import { JobList } from '@/ui/jobs/job-list';
import { useJobs } from '@/ui/jobs/use-jobs';
import { Button } from '@/ui/kit/button';
import { FIELD } from '@/ui/kit/field';
import { useState } from 'react';

/** The organisation as one file, to be kept or taken to another installation; and such a file put into an empty one. */
export function MoveOrganisation() {
  const { ask, goesOn, busy, ...rest } = useJobs(['export', 'import']);
  const [links, setLinks] = useState(false);
  return (
    <section aria-labelledby="move">
      <h2 id="move" className="text-lg font-semibold">
        Everything in one file
      </h2>
      <p className="text-sm text-quiet">
        Places, gauges, rules, runs, records, photos and logs of this organisation. Passwords and secret keys
        are not in it.
      </p>
      <label className="mt-2 flex min-h-11 items-center gap-3 text-sm">
        <input
          type="checkbox"
          className="size-5 accent-lake"
          checked={links}
          onChange={(e) => setLinks(e.target.checked)}
        />
        With the public links and invitations that are open: whoever has the file can use them
      </label>
      <Button
        className="mt-1 w-full"
        disabled={busy || goesOn}
        onClick={() => void ask({ kind: 'export', links })}
      >
        Export the organisation
      </Button>
      <details className="mt-2">
        <summary className="min-h-11 cursor-pointer py-2 text-lake">Bring in an export</summary>
        <p className="text-sm">
          Into an organisation that has no places and records yet. Numbers and fingerprints stay as they are;
          people are invited again.
        </p>
        <label className="mt-2 block text-sm">
          Export file
          <input
            type="file"
            accept=".zip,application/zip"
            disabled={busy || goesOn}
            className={`${FIELD} mt-1 py-2`}
            onChange={(e) => {
              const file = e.target.files?.[0];
              e.target.value = ''; // the same one may be chosen again
              if (file) void ask({ kind: 'import' }, file);
            }}
          />
        </label>
      </details>
      <JobList {...rest} />
    </section>
  );
}
