'use client';
import { office, type OfficeError } from '@/device/office';
import { sharedHere } from '@/device/shared-files';
import { lettersOf } from '@/device/text-file';
import { buttonClass } from '@/ui/kit/button-class';
import { byNeed } from '@/ui/kit/by-need';
import { FIELD } from '@/ui/kit/field';
import Link from 'next/link';
import { Suspense, useEffect, useEffectEvent, useRef, useState } from 'react';
import type { RunChoice } from './log-import';

// a file is chosen first: what reads it comes then
const LogImport = byNeed(() => import('./log-import').then((m) => m.LogImport));

const MOST_LOG = 60_000_000;
const isRecord = (head: Uint8Array): boolean =>
  (head[0] === 0x50 && head[1] === 0x4b) ||
  String.fromCharCode(...head.slice(0, 20))
    .trimStart()
    .startsWith('{');

/** One file in: a record or bundle of another Vast Stone is told from a gauge's log by what it begins with. */
export function ImportView({
  mayBringIn,
  chosen,
  runs,
  places,
}: {
  mayBringIn: boolean;
  chosen: string | null;
  runs: readonly RunChoice[];
  places: readonly { readonly id: string; readonly title: string }[];
}) {
  const [log, setLog] = useState<{ name: string; text: string; hash: string } | null>(null);
  const [came, setCame] = useState<{
    id: string;
    number: string;
    verified: boolean;
    faults: string[];
  } | null>(null);
  const [state, setState] = useState('');
  const [trouble, setTrouble] = useState('');
  const take = async (file: File) => {
    setTrouble('');
    setCame(null);
    setLog(null);
    setState(`Reading ${file.name} …`);
    try {
      const bytes = await file.arrayBuffer();
      if (isRecord(new Uint8Array(bytes.slice(0, 64)))) {
        if (!mayBringIn)
          throw new Error('An apprentice does not bring in records. Ask a tester or the office.');
        setCame(await office('/api/outside', { file }));
      } else {
        if (bytes.byteLength > MOST_LOG)
          throw new Error('That log is larger than 60 MB. Cut it to the days of the test.');
        const digest = await crypto.subtle.digest('SHA-256', bytes);
        const hash = [...new Uint8Array(digest)].map((b) => b.toString(16).padStart(2, '0')).join('');
        const text = lettersOf(
          bytes,
          'That file is neither a record nor a table of readings. Choose a CSV, a record file or a bundle.',
        );
        setLog({ name: file.name.slice(0, 120), text, hash });
      }
      setState('');
    } catch (error) {
      setState('');
      setTrouble((error as OfficeError).message);
    }
  };
  // a file chosen before the page was ready is taken up once it is
  const field = useRef<HTMLInputElement>(null);
  const early = useEffectEvent(() => {
    const file = field.current?.files?.[0];
    if (file) void take(file);
    else void sharedHere().then((shared) => shared && take(shared));
  });
  useEffect(() => early(), []);
  return (
    <>
      <h1 className="text-2xl font-bold">Read in</h1>
      <p className="mt-1 max-w-2xl">
        A record file or bundle of another Vast Stone, or the log that a gauge kept by itself (CSV, in
        whatever shape).
      </p>
      <label className="mt-3 block max-w-xl text-sm">
        File
        <input
          ref={field}
          type="file"
          accept=".csv,.txt,.tsv,.json,.zip,text/csv,text/plain,application/json,application/zip"
          className={`${FIELD} mt-1 py-2`}
          onChange={(e) => {
            const file = e.target.files?.[0];
            if (file) void take(file);
            e.target.value = '';
          }}
        />
      </label>
      <p role="status" className="mt-2 min-h-6">
        {state}
      </p>
      <p role="alert" className="text-rust">
        {trouble}
      </p>
      {came && (
        <section
          className={`max-w-2xl border-2 p-4 ${came.verified ? 'border-edge' : 'border-rust'}`}
          role="status"
        >
          <h2 className="text-lg font-semibold">
            {came.number}:{' '}
            {came.verified
              ? 'verified, it stands in the ledger as from outside'
              : 'changed; it is kept, marked unverified'}
          </h2>
          <ul className="list-inside list-disc text-rust">
            {came.faults.map((f) => (
              <li key={f}>{f}</li>
            ))}
          </ul>
          <Link prefetch={false} className={buttonClass('act', 'mt-3')} href={`/ledger/outside/${came.id}`}>
            Open it
          </Link>
        </section>
      )}
      {log && (
        <Suspense fallback={<p aria-live="polite">Reading …</p>}>
          <LogImport key={log.hash} {...log} runs={runs} places={places} chosen={chosen} />
        </Suspense>
      )}
    </>
  );
}
