'use client';
import { DESK_LINES } from '@/core/desk';
import { DeskError, type DeskFormula, type DeskInput } from '@/core/desk/types';
import {
  deskLink,
  deskResult,
  type DeskResult,
  type Entry,
  readDeskLink,
  unitChoices,
} from '@/core/desk/work';
import { type Unit, unitLabel } from '@/core/quantity/unit';
import { numberIn, ownUnit, type Usage } from '@/core/quantity/usage';
import { useUsage } from '@/ui/frame/usage';
import { Button } from '@/ui/kit/button';
import { useEffect, useMemo, useRef, useState } from 'react';

const field = 'block min-h-12 border border-edge bg-panel px-2 text-base';

/** The working of one formula, with the entries that a link brought. */
export function Working({ id, link }: { id: string; link: string }) {
  const formula = DESK_LINES.find((f) => f.id === id)!;
  const [start] = useState(() => readDeskLink(DESK_LINES, link));
  const usage = useUsage();
  const usual = useMemo(() => usualFor(formula, usage), [formula, usage]);
  const [entered, setEntries] = useState<Record<string, Entry>>(start?.entries ?? {});
  const entries = useMemo(() => ({ ...usual.entries, ...entered }), [usual, entered]);
  const [choices, setChoices] = useState<Record<string, string>>(start?.choices ?? {});
  const [copied, setCopied] = useState('');
  const touched = useRef(false);
  useEffect(() => {
    // only what a person enters goes into the address: a link that is being followed is never overwritten
    if (!touched.current) return;
    history.replaceState(null, '', `#${deskLink(formula, entries, choices)}`);
  }, [formula, entries, choices]);
  const found = useMemo(() => {
    try {
      return { result: deskResult(formula, entries, choices, usual.units), error: null };
    } catch (error) {
      if (error instanceof DeskError) return { result: null, error };
      throw error;
    }
  }, [formula, entries, choices, usual]);
  const set = (i: DeskInput, change: Partial<Entry>) => {
    setCopied('');
    touched.current = true;
    setEntries({
      ...entered,
      [i.key]: { ...(entries[i.key] ?? { text: i.value, unit: i.unit }), ...change },
    });
  };
  const copy = () =>
    void navigator.clipboard.writeText(location.href).then(
      () => setCopied('The link is copied.'),
      () => setCopied('Copying is not allowed here: take the link from the address line.'),
    );
  const { result, error } = found;
  return (
    <div className="grid gap-x-8 gap-y-4 pb-5 md:grid-cols-[minmax(0,22rem)_1fr]" data-desk={formula.id}>
      <Inputs
        formula={formula}
        entries={entries}
        choices={choices}
        wrong={error?.field}
        onEntry={set}
        onChoice={(key, value) => {
          touched.current = true;
          setChoices({ ...choices, [key]: value });
        }}
      />
      <div className="min-w-0">
        <p role="alert" id={`${formula.id}-wrong`} className={error ? 'border-l-4 border-rust pl-3' : ''}>
          {error?.message}
        </p>
        <Results formula={formula} result={result} />
        <p className="mt-2 flex flex-wrap items-center gap-3">
          <Button onClick={copy}>Copy the link with these figures</Button>
          <span role="status" className="text-sm">
            {copied}
          </span>
        </p>
      </div>
    </div>
  );
}

/** Examples and results in the units that somebody is used to. */
function usualFor(formula: DeskFormula, usage: Usage) {
  const entries: Record<string, Entry> = {};
  const units: Record<string, Unit> = {};
  for (const i of formula.inputs) {
    const unit = ownUnit(i.unit, usage);
    if (unit === i.unit) continue;
    entries[i.key] = { text: i.value && numberIn(i.value, i.unit, unit).replace('−', '-'), unit };
  }
  if (!formula.table) for (const o of formula.outputs) if (o.unit) units[o.key] = ownUnit(o.unit, usage);
  return { entries, units };
}
interface Entered {
  readonly formula: DeskFormula;
  readonly entries: Readonly<Record<string, Entry>>;
  readonly choices: Readonly<Record<string, string>>;
  /** The input that the figure typed there does not fit. */
  readonly wrong: string | undefined;
  readonly onEntry: (input: DeskInput, change: Partial<Entry>) => void;
  readonly onChoice: (key: string, value: string) => void;
}
function Inputs({ formula, entries, choices, wrong, onEntry, onChoice }: Entered) {
  return (
    <div className="grid grid-cols-1 content-start gap-2">
      {formula.inputs.map((i) => {
        const entry = entries[i.key] ?? { text: i.value, unit: i.unit };
        const bad = wrong === i.key;
        return (
          <div key={i.key} className="min-w-0">
            <label htmlFor={`${formula.id}-${i.key}`} className="text-sm">
              {i.name}
              {i.hint && <span className="text-quiet">, {i.hint}</span>}
            </label>
            <div className="mt-1 flex gap-2">
              <input
                id={`${formula.id}-${i.key}`}
                className={`figure w-0 min-w-0 flex-1 ${field} ${bad ? 'border-2 border-rust' : ''}`}
                inputMode="decimal"
                autoComplete="off"
                value={entry.text}
                maxLength={40}
                aria-invalid={bad}
                {...(bad ? { 'aria-describedby': `${formula.id}-wrong` } : {})}
                onChange={(e) => onEntry(i, { text: e.target.value })}
              />
              {i.unit === '1' ? null : (
                <select
                  className={`w-28 shrink-0 ${field}`}
                  aria-label={`Unit of ${i.name}`}
                  value={entry.unit}
                  onChange={(e) => onEntry(i, { unit: e.target.value as Unit })}
                >
                  {unitChoices(i.unit).map((u) => (
                    <option key={u} value={u}>
                      {unitLabel(u)}
                    </option>
                  ))}
                </select>
              )}
            </div>
          </div>
        );
      })}
      {formula.choices?.map((c) => (
        <label key={c.key} className="text-sm">
          {c.name}
          <select
            className={`mt-1 w-full ${field}`}
            value={choices[c.key] ?? c.value}
            onChange={(e) => onChoice(c.key, e.target.value)}
          >
            {c.options.map((o) => (
              <option key={o.key} value={o.key}>
                {o.label}
              </option>
            ))}
          </select>
        </label>
      ))}
    </div>
  );
}

function Results({ formula, result }: { formula: DeskFormula; result: DeskResult | null }) {
  return (
    <>
      <dl translate="no" aria-live="polite" className={formula.table ? 'border-b border-seam' : 'grid gap-2'}>
        {result?.outputs.map((o) => (
          <div
            key={o.key}
            className={
              formula.table ? 'flex items-baseline justify-between gap-4 border-t border-seam py-1' : ''
            }
          >
            <dt className="text-sm text-quiet">{o.name}</dt>
            {o.value === null ? (
              <dd className="font-semibold">{o.text}</dd>
            ) : (
              <dd>
                <span
                  className={`figure leading-tight whitespace-nowrap ${formula.table ? '' : 'text-3xl'}`}
                  data-result={o.key}
                >
                  {o.text}
                </span>
                {o.twin && (
                  <span className="figure-narrow ml-4 whitespace-nowrap text-quiet">{o.twin.text}</span>
                )}
              </dd>
            )}
          </div>
        ))}
      </dl>
      <p className="figure-narrow mt-4 border-l-4 border-lake pl-3 text-sm leading-relaxed break-words">
        {formula.formula}
      </p>
      {result && result.sensitivity.length > 0 && (
        <table className="mt-4 w-full max-w-xl text-sm">
          <caption className="pb-1 text-left text-quiet">
            How the first figure follows when one entry moves
          </caption>
          <tbody>
            {result.sensitivity.map((s) => (
              <tr key={s.input} className="border-t border-seam">
                <th scope="row" className="py-1 pr-3 text-left font-normal">
                  {s.input}
                </th>
                <td className="figure-narrow py-1 pr-3 whitespace-nowrap text-quiet">{s.step}</td>
                <td className="figure-narrow py-1 text-right whitespace-nowrap">{s.change}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <p className="mt-3 text-sm text-quiet">
        Source: {formula.source}. Check the edition in force where you work.
        {formula.note && ` ${formula.note}.`}
      </p>
    </>
  );
}
