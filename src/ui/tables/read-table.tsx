'use client';
import { office, type OfficeError } from '@/device/office';
import { Button } from '@/ui/kit/button';
import { buttonClass } from '@/ui/kit/button-class';
import { useWorker } from '@/ui/kit/use-worker';
import { type BroughtRow, MOST_AT_ONCE } from '@/wire/bring-in/schema';
import type { TableKey, TableMapping } from '@/wire/bring-in/tables';
import { answerTable, type TableAnswer, type TableRequest } from '@/worker/table';
import Link from 'next/link';
import { useEffect, useState } from 'react';
import { saveCsv } from './save-csv';
import { TableMappingForm } from './table-mapping-form';
import { useReadBefore } from './use-read-before';

const start = () => new Worker(new URL('../../worker/table.ts', import.meta.url), { type: 'module' });

/** A table that was chosen: how it is read, what was read, and the way in. */
export function ReadTable({
  name,
  text,
  meters,
  mayCalibrate,
}: {
  name: string;
  text: string;
  meters: TableRequest['meters'];
  mayCalibrate: boolean;
}) {
  const [table, setTable] = useState<TableKey>();
  const { mapping, setMapping, remembered, ask, begin, known } = useReadBefore<TableMapping>(
    '/api/bring-in',
    table !== undefined,
  );
  const [entering, setEntering] = useState(false);
  const request: TableRequest = { text, mapping, meters, ...(table ? { table } : {}) };
  const { answer, settled } = useWorker(
    start,
    answerTable,
    request,
    text,
    JSON.stringify({ mapping, table }),
  );
  const shape = answer?.shape;
  useEffect(() => ask(shape), [ask, shape]);
  if (!answer) return <p role="status">Reading {name} …</p>;
  return (
    <div className="mt-2 grid grid-cols-[minmax(0,1fr)] gap-5">
      <TableMappingForm
        busy={entering}
        mapping={answer.mapping}
        head={answer.head}
        remembered={remembered}
        onTable={(key) => {
          begin();
          setTable(key);
        }}
        onChange={setMapping}
      />
      <WhatWasRead answer={answer} />
      {answer.mapping.table === 'gauges' && !mayCalibrate ? (
        <p role="alert" className="text-rust">
          Only a tester or the owner enters gauges. Ask one of them to bring this table in.
        </p>
      ) : (
        <Enter
          key={JSON.stringify(answer.mapping)}
          name={name}
          answer={answer}
          settled={known && settled}
          busy={entering}
          onBusy={setEntering}
        />
      )}
    </div>
  );
}

const WORD: Readonly<Record<TableKey, readonly [string, string]>> = {
  places: ['place', 'places'],
  appliances: ['appliance', 'appliances'],
  gauges: ['gauge', 'gauges'],
};
const counted = (n: number, table: TableKey) => `${n} ${WORD[table][n === 1 ? 0 : 1]}`;

function WhatWasRead({ answer: { read, mapping } }: { answer: TableAnswer }) {
  const good = read[mapping.table].length;
  const bare = read.places.filter((p) => !p.facts).length;
  return (
    <section aria-labelledby="rows">
      <h2 id="rows" className="text-lg font-semibold">
        What was read
      </h2>
      <p role="status">
        {counted(good, mapping.table)} of <span className="figure-narrow">{read.rows}</span> rows
        {mapping.table === 'places' && bare > 0 && bare < good ? `, ${bare} without an installation` : ''}.
      </p>
      {read.errorCount > 0 && (
        <details className="mt-1" open={good === 0 || read.errorCount < 6}>
          <summary className="min-h-11 cursor-pointer py-2 text-rust">
            {read.errorCount} thing{read.errorCount === 1 ? '' : 's'} could not be read
          </summary>
          <RowList
            rows={read.errors.map((e) => ({ row: e.row, text: `${e.column}: ${e.text}` }))}
            all={read.errorCount}
          />
        </details>
      )}
    </section>
  );
}
function RowList({ rows, all }: { rows: readonly { row: number; text: string }[]; all: number }) {
  return (
    <div className="max-h-72 overflow-y-auto text-sm" role="region" tabIndex={0} aria-label="Rows">
      <ul>
        {rows.map((e, i) => (
          <li key={i} className="border-t border-seam py-1">
            Row <span className="figure-narrow">{e.row}</span>, {e.text}
          </li>
        ))}
        {all > rows.length && <li className="border-t border-seam py-1">and {all - rows.length} more</li>}
      </ul>
    </div>
  );
}

/** Sends what was read, some rows at a time, and says of each what became of it. */
function Enter({
  name,
  answer,
  settled,
  busy,
  onBusy,
}: {
  name: string;
  answer: TableAnswer;
  settled: boolean;
  busy: boolean;
  onBusy: (busy: boolean) => void;
}) {
  const { read, mapping, shape, rows } = answer;
  const all = read[mapping.table];
  const [became, setBecame] = useState<readonly BroughtRow[]>([]);
  const [trouble, setTrouble] = useState('');
  const done = became.length === all.length && all.length > 0;
  const enter = async () => {
    onBusy(true);
    setTrouble('');
    let said = became;
    try {
      while (said.length < all.length) {
        const piece = all.slice(said.length, said.length + MOST_AT_ONCE);
        const last = said.length + piece.length === all.length;
        const answered = await office<{ rows: BroughtRow[] }>('/api/bring-in', {
          body: {
            places: [],
            appliances: [],
            gauges: [],
            [mapping.table]: piece,
            ...(last ? { remember: { shape, mapping } } : {}),
          },
        });
        said = [...said, ...answered.rows];
        setBecame(said);
      }
    } catch (error) {
      setTrouble((error as OfficeError).message);
    }
    onBusy(false);
  };
  const of = (what: BroughtRow['became']) => became.filter((r) => r.became === what);
  const left = [
    ...read.errors.map((e) => ({ row: e.row, text: `${e.column}: ${e.text}` })),
    ...of('refused'),
  ].sort((a, b) => a.row - b.row);
  if (all.length === 0) return null;
  return (
    <section aria-label="Entering" className="grid gap-2">
      {!done && (
        <Button
          tone="act"
          className="min-h-14 justify-self-start text-lg"
          disabled={busy || !settled}
          onClick={() => void enter()}
        >
          {busy
            ? `${became.length} of ${all.length} …`
            : `${became.length ? 'Go on with' : 'Enter'} ${counted(all.length - became.length, mapping.table)}`}
        </Button>
      )}
      <p role="alert" className="text-rust">
        {trouble}
      </p>
      {became.length > 0 && (
        <p role="status">
          {counted(of('entered').length, mapping.table)} entered, {of('already').length} here already and left
          as {of('already').length === 1 ? 'it is' : 'they are'}, {of('refused').length} not entered.
        </p>
      )}
      {of('refused').length > 0 && <RowList rows={of('refused')} all={of('refused').length} />}
      {done && (
        <div className="flex flex-wrap gap-3">
          <Link
            prefetch={false}
            className={buttonClass('act')}
            href={mapping.table === 'gauges' ? '/cabinet' : '/places'}
          >
            {mapping.table === 'gauges' ? 'To the cabinet' : 'To the places'}
          </Link>
          {left.length > 0 && (
            <Button
              onClick={() =>
                void saveCsv(`left-of-${name.replace(/\.\w+$/, '')}.csv`, leftOf(rows, mapping, left))
              }
            >
              Rows with something left, as a table
            </Button>
          )}
        </div>
      )}
    </section>
  );
}
/** The rows in which something could not be taken, as they stand in the file, each with why. */
function leftOf(
  rows: TableAnswer['rows'],
  mapping: TableMapping,
  left: readonly { row: number; text: string }[],
): string[][] {
  const why = new Map<number, string>();
  for (const l of left) why.set(l.row, [why.get(l.row), l.text].filter(Boolean).join(' '));
  return [
    ...rows.slice(0, mapping.headerRows).map((r, i) => [...r, i === mapping.headerRows - 1 ? 'Why' : '']),
    ...[...why].map(([row, text]) => [...(rows[row - 1] ?? []), text]),
  ];
}
