'use client';
import { useMay } from '@/ui/frame/may';
import { office, type OfficeError } from '@/device/office';
import { Button } from '@/ui/kit/button';
import { byNeed } from '@/ui/kit/by-need';
import { TextField } from '@/ui/kit/field';
import { VERDICT_COLOUR } from '@/ui/kit/words';
import { chosenFilters, LEDGER_COLUMNS, type LedgerColumn, USUAL_COLUMNS } from '@/wire/ledger';
import type { LedgerQuery } from '@/wire/ledger-schema';
import { cellOf } from '@/wire/ledger-cells';
import { uuid7 } from '@/wire/uuid7';
import Link from 'next/link';
import { Suspense, useRef, useState } from 'react';
import { ColumnChoice } from './column-choice';
import { Narrow } from './narrow';
import { recordHref, type RecordLine, RecordRow } from './row';
import { useLines, useSlash } from './use-lines';

export interface Choice {
  readonly id: string;
  readonly title: string;
}
interface View {
  readonly id: string;
  readonly name: string;
  readonly query: string;
  readonly shared: boolean;
  readonly own: boolean;
}
export interface LedgerChoices {
  readonly procedures: readonly Choice[];
  readonly systems: readonly Choice[];
  readonly testers: readonly string[];
  readonly gauges: readonly Choice[];
}
interface Props {
  readonly query: LedgerQuery;
  readonly lines: readonly RecordLine[];
  readonly more: boolean;
  readonly choices: LedgerChoices;
  readonly views: readonly View[];
}
const TakeAway = byNeed(() => import('./take-away').then((m) => m.TakeAway));
const KEPT = 'vast.ledger.columns';
const columnsKept = (): LedgerColumn[] => {
  try {
    const kept = JSON.parse(localStorage.getItem(KEPT) ?? '[]') as string[];
    const known = kept.filter((c): c is LedgerColumn => Object.hasOwn(LEDGER_COLUMNS, c));
    return known.length ? known : [...USUAL_COLUMNS];
  } catch {
    return [...USUAL_COLUMNS];
  }
};

/** Search as it is typed, filters, kept searches, lines or table. The address always says what is shown. */
export function LedgerView({
  query: first,
  lines: firstLines,
  more: firstMore,
  choices,
  views: firstViews,
}: Props) {
  const takesAway = useMay('share');
  const [query, setQuery] = useState(first);
  const [table, setTable] = useState(false);
  const [taking, setTaking] = useState(false);
  const [columns, setColumns] = useState<LedgerColumn[]>([...USUAL_COLUMNS]);
  const [views, setViews] = useState(firstViews);
  const field = useRef<HTMLInputElement>(null);

  useSlash(field);
  const { text, lines, more, trouble, next } = useLines(query, firstLines, firstMore);
  const set = (name: keyof LedgerQuery) => (value: string) =>
    setQuery(({ [name]: _old, ...rest }) => (value ? { ...rest, [name]: value } : rest));
  const gauges = new Map(choices.gauges.map((g) => [g.id, g.title]));
  return (
    <>
      <div className="mt-3 flex max-w-3xl flex-wrap gap-3" role="search">
        <input
          ref={field}
          type="search"
          value={query.find ?? ''}
          onChange={(e) => set('find')(e.target.value)}
          aria-label="Search the ledger"
          placeholder="Place, person, serial, number"
          maxLength={200}
          className="min-h-12 min-w-0 flex-1 basis-72 border border-edge bg-panel px-3 placeholder:text-quiet"
        />
      </div>
      <Narrow
        query={query}
        choices={choices}
        set={set}
        onClear={() => setQuery(query.find ? { find: query.find } : {})}
      />
      <Views
        views={views}
        now={text}
        onChoose={(q) => setQuery(chosenFilters(new URLSearchParams(q)))}
        onChange={setViews}
      />
      <div className="mt-3 flex flex-wrap items-center gap-x-4 gap-y-2">
        <p className="grow text-sm text-quiet" role="status">
          {more
            ? `The newest ${lines.length} records`
            : `${lines.length} record${lines.length === 1 ? '' : 's'}`}
          {query.find ? ` with “${query.find}”` : ''}
        </p>
        <Button
          className="min-h-11 text-sm"
          aria-pressed={table}
          onClick={() => {
            if (!table) setColumns(columnsKept());
            setTable(!table);
          }}
        >
          {table ? 'As lines' : 'As a table'}
        </Button>
        {takesAway && (
          <Button className="min-h-11 text-sm" aria-expanded={taking} onClick={() => setTaking(!taking)}>
            Take away
          </Button>
        )}
      </div>
      {taking && (
        <Suspense fallback={<p aria-live="polite">Opening …</p>}>
          <TakeAway query={text} shown={columns} />
        </Suspense>
      )}
      <p role="alert" className="text-rust">
        {trouble}
      </p>
      {table ? (
        <LedgerTable
          lines={lines}
          columns={columns}
          gauges={gauges}
          onColumns={(c) => {
            setColumns(c);
            try {
              localStorage.setItem(KEPT, JSON.stringify(c));
            } catch {
              // a device that keeps nothing shows the usual columns next time
            }
          }}
        />
      ) : (
        <ul className="mt-1 border-t border-seam">
          {lines.map((l) => (
            <RecordRow key={l.run} line={l} />
          ))}
        </ul>
      )}
      {more && (
        <Button className="mt-3" onClick={() => void next()}>
          Show older ones
        </Button>
      )}
      {lines.length === 0 && (
        <p className="mt-4">
          {text
            ? 'No record matches all of this. Fewer words find more; the beginnings of words are enough.'
            : 'No record is sealed yet. Start a test from Places; when it is signed and sealed it stands here.'}
        </p>
      )}
    </>
  );
}

/** Searches kept under a name: for their maker, or for everybody of the organisation. */
function Views({
  views,
  now,
  onChoose,
  onChange,
}: {
  views: readonly View[];
  now: string;
  onChoose: (query: string) => void;
  onChange: (views: View[]) => void;
}) {
  const [name, setName] = useState('');
  const [shared, setShared] = useState(false);
  const [naming, setNaming] = useState(false);
  const [trouble, setTrouble] = useState('');
  const save = async () => {
    const view = { id: uuid7(Date.now()), name: name.trim(), query: now, shared };
    try {
      await office('/api/ledger/views', { body: view });
      onChange([...views, { ...view, own: true }]);
      setNaming(false);
      setName('');
    } catch (error) {
      setTrouble((error as OfficeError).message);
    }
  };
  return (
    <div className="mt-1">
      <ul className="flex flex-wrap items-center gap-x-3 gap-y-2" aria-label="Kept searches">
        {views.map((v) => (
          <li key={v.id} className="flex border border-edge">
            <button
              type="button"
              aria-pressed={v.query === now}
              className={`min-h-11 px-3 ${v.query === now ? 'bg-block font-semibold' : ''}`}
              onClick={() => onChoose(v.query)}
            >
              {v.name}
              {v.shared && !v.own ? <span className="text-sm text-quiet"> (shared)</span> : ''}
            </button>
            {v.own && (
              <button
                type="button"
                className="min-h-11 border-l border-seam px-3 text-quiet"
                aria-label={`Forget the search ${v.name}`}
                onClick={() =>
                  void office(`/api/ledger/views/${v.id}`, { method: 'DELETE' }).then(
                    () => onChange(views.filter((x) => x.id !== v.id)),
                    (e: OfficeError) => setTrouble(e.message),
                  )
                }
              >
                ×
              </button>
            )}
          </li>
        ))}
        {now && !naming && !views.some((v) => v.query === now) && (
          <li>
            <button
              type="button"
              className="min-h-11 px-1 text-lake underline"
              onClick={() => setNaming(true)}
            >
              Keep this search
            </button>
          </li>
        )}
      </ul>
      {naming && (
        <form
          className="mt-2 flex flex-wrap items-end gap-3"
          onSubmit={(e) => {
            e.preventDefault();
            void save();
          }}
        >
          <TextField label="Name of this search" value={name} onChange={setName} maxLength={80} required />
          <label className="flex min-h-12 items-center gap-2">
            <input
              type="checkbox"
              className="size-5"
              checked={shared}
              onChange={(e) => setShared(e.target.checked)}
            />
            for everybody here
          </label>
          <Button type="submit" tone="act">
            Keep
          </Button>
          <Button onClick={() => setNaming(false)}>Leave it</Button>
        </form>
      )}
      <p role="alert" className="text-rust">
        {trouble}
      </p>
    </div>
  );
}

function LedgerTable({
  lines,
  columns,
  gauges,
  onColumns,
}: {
  lines: readonly RecordLine[];
  columns: readonly LedgerColumn[];
  gauges: ReadonlyMap<string, string>;
  onColumns: (columns: LedgerColumn[]) => void;
}) {
  const all = Object.keys(LEDGER_COLUMNS) as LedgerColumn[];
  return (
    <>
      <details className="mt-1">
        <summary className="min-h-11 cursor-pointer py-2 text-lake">Columns</summary>
        <ColumnChoice
          legend="Columns shown"
          all={all}
          chosen={columns}
          onChange={onColumns}
          className="flex flex-wrap gap-x-5 gap-y-1 pb-2"
        />
      </details>
      <div className="overflow-x-auto" role="region" aria-label="Records as a table" tabIndex={0}>
        <table className="w-full min-w-[760px] text-sm">
          <thead>
            <tr className="text-left text-quiet [&>th]:py-1 [&>th]:pr-4 [&>th]:font-normal">
              {columns.map((c) => (
                <th key={c}>
                  {LEDGER_COLUMNS[c]}
                  {c === 'sealed' ? ', UTC' : ''}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {lines.map((l) => (
              <tr key={l.run} className="border-t border-seam align-top [&>td]:py-2 [&>td]:pr-4">
                {columns.map((c, i) => (
                  <td
                    key={c}
                    className={`${c === 'number' || c === 'sealed' ? 'figure-narrow whitespace-nowrap' : ''} ${c === 'result' ? `font-semibold ${VERDICT_COLOUR[l.word]}` : ''}`}
                  >
                    {i === 0 ? (
                      <Link
                        prefetch={false}
                        href={recordHref(l)}
                        className="text-lake underline underline-offset-4"
                      >
                        {cellOf(l, c, gauges)}
                      </Link>
                    ) : (
                      cellOf(l, c, gauges)
                    )}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </>
  );
}
