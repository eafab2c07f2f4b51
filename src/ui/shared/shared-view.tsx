'use client';
import { dropShared, sharedFiles } from '@/device/shared-files';
import { openRuns, openStore, type StoredRun } from '@/device/store';
import { Button } from '@/ui/kit/button';
import { buttonClass } from '@/ui/kit/button-class';
import { FIELD } from '@/ui/kit/field';
import { type Identity, may } from '@/wire/role';
import { useEffect, useState } from 'react';

const isPhoto = (f: File) => f.type.startsWith('image/');

/** What another program shared: photos go to a run that is open here, tables and logs to where they are read in. */
export function SharedView({ who }: { who: Identity }) {
  const [files, setFiles] = useState<readonly File[] | null>(null);
  const [runs, setRuns] = useState<readonly StoredRun[]>([]);
  useEffect(() => {
    void sharedFiles()
      .catch(() => [])
      .then(setFiles);
    void openStore(who)
      .then(openRuns)
      .then(setRuns, () => undefined);
  }, [who]);
  if (!files) return <p role="status">Looking at what came …</p>;
  return (
    <>
      <h1 className="text-2xl font-bold">Shared with Vast Stone</h1>
      {files.length === 0 && (
        <p className="mt-2 max-w-xl">
          Nothing came along. Open Today once, then share it again: photos, tables (CSV) and logs of gauges
          can be shared.
        </p>
      )}
      <ul className="mt-4 grid max-w-3xl gap-3">
        {files.map((file, i) => (
          <li key={`${i} ${file.name}`} className="border border-seam bg-panel p-3">
            <p className="font-semibold break-words">{file.name}</p>
            {isPhoto(file) ? (
              <SharedPhoto file={file} who={who} runs={runs} />
            ) : (
              <div className="mt-2 flex flex-wrap gap-3">
                {may(who.role, 'plan') && (
                  <a className={buttonClass('plain', 'min-h-14')} href={`/bring-in?shared=${i}`}>
                    A table of places, appliances or gauges
                  </a>
                )}
                <a className={buttonClass('plain', 'min-h-14')} href={`/ledger/import?shared=${i}`}>
                  A gauge’s log, or a record
                </a>
              </div>
            )}
          </li>
        ))}
      </ul>
      {files.length > 0 && (
        <Button className="mt-4 min-h-14" onClick={() => void dropShared().then(() => setFiles([]))}>
          Done with these
        </Button>
      )}
    </>
  );
}

/** A photo for a run that goes on: it stands with the stage the run is at. */
function SharedPhoto({ file, who, runs }: { file: File; who: Identity; runs: readonly StoredRun[] }) {
  const [run, setRun] = useState('');
  const [said, setSaid] = useState('');
  const [busy, setBusy] = useState(false);
  const chosen = run || runs[0]?.run;
  if (!chosen || !may(who.role, 'run'))
    return (
      <p className="mt-1">
        A photo stands with a run. None is open on this device: open one at the bench, then share the photo
        again.
      </p>
    );
  const keep = async () => {
    setBusy(true);
    setSaid('Keeping the photo …');
    try {
      const { BenchEngine } = await import('@/device/bench');
      const engine = await BenchEngine.open(chosen, who);
      try {
        const hash = await engine.keepPhoto(file);
        const caption = file.name.slice(0, 120);
        const answer = await engine.append({ kind: 'photo', hash, caption, shows: 'other' });
        setSaid(
          answer.accepted ? 'It stands with the run, and is sent when there is a signal.' : answer.text,
        );
      } finally {
        engine.close();
      }
    } catch (error) {
      setSaid((error as Error).message);
    }
    setBusy(false);
  };
  return (
    <div className="mt-2 grid gap-3">
      <label className="text-sm">
        With the run
        <select className={`${FIELD} mt-1`} value={chosen} onChange={(e) => setRun(e.target.value)}>
          {runs.map((r) => (
            <option key={r.run} value={r.run}>
              {r.plan.site.name}: {r.plan.system.name}, {r.plan.procedure.title}
            </option>
          ))}
        </select>
      </label>
      <Button tone="act" className="min-h-14" disabled={busy} onClick={() => void keep()}>
        Keep it there
      </Button>
      <p role="status" className="min-h-6">
        {said}
      </p>
    </div>
  );
}
