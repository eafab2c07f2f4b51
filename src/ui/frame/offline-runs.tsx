'use client';
import { useEffect, useState } from 'react';
import { readIdentity } from '@/device/identity';
import { openStore, type StoredRun } from '@/device/store';
import { buttonClass } from '@/ui/kit/button-class';

/** What there is without a signal: the runs that were opened on this device. */
export function OfflineRuns() {
  const [runs, setRuns] = useState<StoredRun[] | null>(null);
  useEffect(() => {
    const who = readIdentity();
    void (who ? openStore(who).then((s) => s.getAll('runs')) : Promise.resolve([]))
      .catch(() => []) // a store that cannot be opened: the page still says what there is to do
      .then((all) => setRuns(all.filter((r) => !r.sealed).sort((a, b) => b.opened - a.opened)));
  }, []);
  return (
    <main className="mx-auto max-w-xl px-4 py-12">
      <h1 className="text-2xl font-bold">No signal</h1>
      <p className="mt-2">
        This page needs the office. Runs that were opened on this device work without it; what you enter is
        kept and sent later.
      </p>
      <ul className="mt-6 grid gap-3">
        {(runs ?? []).map((r) => (
          <li key={r.run}>
            <a
              className={buttonClass('plain', 'w-full min-h-16 justify-start text-left')}
              href={`/bench/${r.run}`}
            >
              {r.plan.site.name}: {r.plan.procedure.title}
              {r.plan.practice ? ' (practice)' : ''}
            </a>
          </li>
        ))}
      </ul>
      {runs?.length === 0 && <p className="mt-4 text-quiet">No run was opened on this device yet.</p>}
      <a className={buttonClass('act', 'mt-6')} href="/today">
        Try the office again
      </a>
    </main>
  );
}
