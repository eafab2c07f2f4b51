'use client';
import { sharedHere } from '@/device/shared-files';
import { lettersOf } from '@/device/text-file';
import { Button } from '@/ui/kit/button';
import { FIELD } from '@/ui/kit/field';
import { byNeed } from '@/ui/kit/by-need';
import type { MeterClass } from '@/wire/bring-in/read-table';
import { emptyTable, TABLE_KEYS, TABLES } from '@/wire/bring-in/tables';
import { Suspense, useEffect, useEffectEvent, useState } from 'react';
import { saveCsv } from './save-csv';

// a file is chosen first: what reads it comes then
const ReadTable = byNeed(() => import('./read-table').then((m) => m.ReadTable));

const MOST_BYTES = 10_000_000;

/** A table of places, appliances or gauges: chosen, its columns named, every row looked at, and what is good entered. */
export function BringTable({
  meters,
  mayCalibrate,
}: {
  meters: readonly MeterClass[];
  mayCalibrate: boolean;
}) {
  const [file, setFile] = useState<{ name: string; text: string } | null>(null);
  const [trouble, setTrouble] = useState('');
  const take = async (chosen: File) => {
    setTrouble('');
    setFile(null);
    try {
      if (chosen.size > MOST_BYTES)
        throw new Error(
          'That file is larger than 10 MB. Part it into several, and bring in one after the other.',
        );
      const text = lettersOf(
        await chosen.arrayBuffer(),
        'That is no table in text. In the spreadsheet choose “save as CSV”, and take that file.',
      );
      setFile({ name: chosen.name.slice(0, 120), text });
    } catch (error) {
      setTrouble((error as Error).message);
    }
  };
  const shared = useEffectEvent((file: File | null) => {
    if (file) void take(file);
  });
  useEffect(() => void sharedHere().then((file) => shared(file)), []);
  return (
    <>
      <label className="mt-3 block max-w-xl text-sm">
        Table (CSV)
        <input
          type="file"
          accept=".csv,.txt,.tsv,text/csv,text/plain"
          className={`${FIELD} mt-1 py-2`}
          onChange={(e) => {
            const chosen = e.target.files?.[0];
            if (chosen) void take(chosen);
            e.target.value = '';
          }}
        />
      </label>
      <details className="mt-1">
        <summary className="min-h-11 cursor-pointer py-2 text-lake underline">
          An empty table to fill in
        </summary>
        <div className="flex flex-wrap gap-2">
          {TABLE_KEYS.map((key) => (
            <Button key={key} onClick={() => void saveCsv(`${key}.csv`, emptyTable(key))}>
              {TABLES[key].title}
            </Button>
          ))}
        </div>
      </details>
      <p role="alert" className="text-rust">
        {trouble}
      </p>
      {file && (
        <Suspense fallback={<p aria-live="polite">Reading …</p>}>
          <ReadTable key={file.name + file.text.length} {...{ ...file, meters, mayCalibrate }} />
        </Suspense>
      )}
    </>
  );
}
