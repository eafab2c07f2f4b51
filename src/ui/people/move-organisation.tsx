'use client';
import { office, type OfficeError } from '@/device/office';
import { buttonClass } from '@/ui/kit/button-class';
import { FIELD } from '@/ui/kit/field';
import { useState } from 'react';

/** The organisation as one file, to be kept or taken to another installation; and such a file put into an empty one. */
export function MoveOrganisation() {
  const [state, setState] = useState('');
  const [trouble, setTrouble] = useState('');
  const [again, setAgain] = useState<readonly string[]>([]);
  const [links, setLinks] = useState(false);
  const bring = async (file: File) => {
    setTrouble('');
    setState(`Reading ${file.name} …`);
    try {
      const answer = await office<{ records: number; counts: Record<string, number>; again: string[] }>(
        '/api/organisation/import',
        { file, signal: AbortSignal.timeout(600_000) },
      );
      setState(
        `${answer.records} records, ${answer.counts.sites ?? 0} places and ${answer.counts.runs ?? 0} runs came in; every seal was checked.`,
      );
      setAgain(answer.again);
    } catch (error) {
      setState('');
      setTrouble((error as OfficeError).message);
    }
  };
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
      <a
        className={buttonClass('plain', 'mt-1 w-full')}
        href={`/api/organisation/export${links ? '?links=1' : ''}`}
      >
        Export the organisation
      </a>
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
            className={`${FIELD} mt-1 py-2`}
            onChange={(e) => {
              const file = e.target.files?.[0];
              if (file) void bring(file);
            }}
          />
        </label>
      </details>
      <p role="status" className="mt-1">
        {state}
        {again.length > 0 && (
          <>
            {' '}
            Offer a new password to: {again.join(', ')}.{' '}
            <a className="text-lake underline" href="/organisation">
              Show them
            </a>
          </>
        )}
      </p>
      <p role="alert" className="text-rust">
        {trouble}
      </p>
    </section>
  );
}
