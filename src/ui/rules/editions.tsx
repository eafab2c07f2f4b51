'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { worksToWords, type WorksTo } from '@/core/pack/editions';
import { office, type OfficeError } from '@/device/office';
import { Button } from '@/ui/kit/button';

type Line = WorksTo & { readonly title: string };
const PARTS = [
  ['edition', 'Edition'],
  ['clause', 'Clause'],
  ['jurisdiction', 'Where it is in force'],
] as const;

/** Which edition, clause and jurisdiction the organisation works to, source by source: it stands beside each limit. */
export function Editions({
  pack,
  lines,
  mayEdit,
}: {
  pack: string;
  lines: readonly Line[];
  mayEdit: boolean;
}) {
  const router = useRouter();
  const [values, setValues] = useState(lines);
  const [open, setOpen] = useState<string | null>(null);
  const [trouble, setTrouble] = useState('');
  const [saved, setSaved] = useState('');
  const [busy, setBusy] = useState(false);
  const said = values.filter((l) => worksToWords(l));
  const changed = values.filter((l, i) => worksToWords(l) !== worksToWords(lines[i]!));
  const save = async () => {
    setBusy(true);
    setTrouble('');
    try {
      await office(`/api/packs/${pack}?editions`, {
        body: {
          editions: changed.map(({ source, edition, clause, jurisdiction }) => ({
            source,
            edition,
            clause,
            jurisdiction,
          })),
        },
      });
      setSaved('Kept. It stands beside the limits of every run that begins from now on.');
      setOpen(null);
      router.refresh();
    } catch (error) {
      setTrouble((error as OfficeError).message);
    }
    setBusy(false);
  };
  return (
    <section aria-labelledby="editions">
      <h2 id="editions" className="text-lg font-semibold">
        The edition you work to
      </h2>
      <p className="mt-1 text-sm">
        {said.length
          ? 'Stands beside each limit at the bench, on the record and for an official who doubts it.'
          : !mayEdit
            ? 'Nothing is named yet. The owner names edition, clause and jurisdiction of a source; they stand beside each limit.'
            : 'Nothing is named yet. Name edition, clause and jurisdiction of a source, and they stand beside each limit at the bench and on the record.'}
      </p>
      <ul className="mt-2 text-sm">
        {values.map((l, i) => {
          const words = worksToWords(l);
          if (!mayEdit && !words) return null;
          const editing = open === l.source;
          return (
            <li key={l.source} className="border-t border-seam py-2">
              <span className="block font-semibold">{l.title}</span>
              {!editing && (
                <span className="flex items-center justify-between gap-3">
                  <span className={words ? '' : 'text-quiet'}>{words || 'not named'}</span>
                  {mayEdit && (
                    <Button
                      className="min-h-11 shrink-0"
                      aria-label={`${words ? 'Change' : 'Name'} edition and clause: ${l.title}`}
                      onClick={() => {
                        setOpen(l.source);
                        setSaved('');
                      }}
                    >
                      {words ? 'Change' : 'Name'}
                    </Button>
                  )}
                </span>
              )}
              {editing &&
                PARTS.map(([key, label]) => (
                  <label key={key} className="mt-2 block">
                    {label}
                    <input
                      className="mt-1 min-h-11 w-full border border-edge bg-panel px-2 text-base"
                      maxLength={80}
                      value={l[key]}
                      onChange={(e) =>
                        setValues(values.map((v, at) => (at === i ? { ...v, [key]: e.target.value } : v)))
                      }
                    />
                  </label>
                ))}
            </li>
          );
        })}
      </ul>
      {mayEdit && (
        <>
          <p role="alert" className="mt-2 text-rust">
            {trouble}
          </p>
          <p aria-live="polite" className="text-moss">
            {saved}
          </p>
          {(changed.length > 0 || open !== null) && (
            <Button
              tone="act"
              className="mt-2 min-h-14 w-full"
              disabled={busy || !changed.length}
              onClick={() => void save()}
            >
              {changed.length
                ? `Keep ${changed.length} ${changed.length === 1 ? 'source' : 'sources'}`
                : 'Nothing changed yet'}
            </Button>
          )}
        </>
      )}
    </section>
  );
}
