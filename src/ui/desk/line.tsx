'use client';
import { Plus, Minus } from 'lucide-react';
import { useEffect, useMemo, useRef, useState } from 'react';
import { DeskError, type DeskFormula, type DeskInput } from '@/core/desk/types';
import { deskLink, deskResult, unitChoices, type Entry } from '@/core/desk/work';
import { unitLabel, type Unit } from '@/core/quantity/unit';
import { Button } from '@/ui/kit/button';

interface Start {
  readonly turn: number;
  readonly entries: Record<string, Entry>;
  readonly choices: Record<string, string>;
}

/** One formula: its title and what it answers on a rule; opened, its inputs, results, source and sensitivity. */
export function DeskLine({
  formula,
  open,
  onToggle,
}: {
  formula: DeskFormula;
  open: Start | null;
  onToggle: (opening: boolean) => void;
}) {
  const Sign = open ? Minus : Plus;
  return (
    <div id={formula.id} className="scroll-mt-4 border-t border-seam lg:first:border-t-0">
      <h3>
        <button
          type="button"
          aria-expanded={open !== null}
          className="grid min-h-14 w-full grid-cols-[1fr_auto] items-center gap-4 py-2 text-left hover:text-lake"
          onClick={() => onToggle(!open)}
        >
          <span>
            <span className="block font-semibold">{formula.title}</span>
            <span className="block text-sm text-quiet">{formula.answers}</span>
          </span>
          <Sign size={20} aria-hidden />
        </button>
      </h3>
      {open && <Working key={open.turn} formula={formula} start={open} />}
    </div>
  );
}

const field = 'block min-h-12 border border-edge bg-panel px-2 text-base';

function Working({ formula, start }: { formula: DeskFormula; start: Start }) {
  const [entries, setEntries] = useState(start.entries);
  const [choices, setChoices] = useState(start.choices);
  const [copied, setCopied] = useState('');
  const touched = useRef(false);
  useEffect(() => {
    // only what a person enters goes into the address: a link that is being followed is never overwritten
    if (!touched.current) return;
    history.replaceState(null, '', `#${deskLink(formula, entries, choices)}`);
  }, [formula, entries, choices]);
  const found = useMemo(() => {
    try {
      return { result: deskResult(formula, entries, choices), error: null };
    } catch (error) {
      if (error instanceof DeskError) return { result: null, error };
      throw error;
    }
  }, [formula, entries, choices]);
  const set = (i: DeskInput, change: Partial<Entry>) => {
    setCopied('');
    touched.current = true;
    setEntries({
      ...entries,
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
      <div className="grid grid-cols-1 content-start gap-2">
        {formula.inputs.map((i) => {
          const entry = entries[i.key] ?? { text: i.value, unit: i.unit };
          const wrong = error?.field === i.key;
          return (
            <div key={i.key} className="min-w-0">
              <label htmlFor={`${formula.id}-${i.key}`} className="text-sm">
                {i.name}
                {i.hint && <span className="text-quiet">, {i.hint}</span>}
              </label>
              <div className="mt-1 flex gap-2">
                <input
                  id={`${formula.id}-${i.key}`}
                  className={`figure w-0 min-w-0 flex-1 ${field} ${wrong ? 'border-2 border-rust' : ''}`}
                  inputMode="decimal"
                  autoComplete="off"
                  value={entry.text}
                  maxLength={40}
                  aria-invalid={wrong}
                  {...(wrong ? { 'aria-describedby': `${formula.id}-wrong` } : {})}
                  onChange={(e) => set(i, { text: e.target.value })}
                />
                {i.unit === '1' ? null : (
                  <select
                    className={`w-28 shrink-0 ${field}`}
                    aria-label={`Unit of ${i.name}`}
                    value={entry.unit}
                    onChange={(e) => set(i, { unit: e.target.value as Unit })}
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
              onChange={(e) => {
                touched.current = true;
                setChoices({ ...choices, [c.key]: e.target.value });
              }}
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
      <div className="min-w-0">
        <p role="alert" id={`${formula.id}-wrong`} className={error ? 'border-l-4 border-rust pl-3' : ''}>
          {error?.message}
        </p>
        <dl aria-live="polite" className="grid gap-2">
          {result?.outputs.map((o) => (
            <div key={o.key}>
              <dt className="text-sm text-quiet">{o.name}</dt>
              {o.value === null ? (
                <dd className="font-semibold">{o.text}</dd>
              ) : (
                <dd>
                  <span className="figure text-3xl leading-tight whitespace-nowrap" data-result={o.key}>
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
