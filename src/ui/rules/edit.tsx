'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { office, type OfficeError } from '@/device/office';
import { Button } from '@/ui/kit/button';

export interface EditableLine {
  readonly key: string;
  readonly at: readonly (string | number)[];
  readonly where: string;
  readonly label: string;
  readonly value: string;
  readonly edit: 'figure' | 'number' | 'remove';
  readonly permits: string;
}
interface Props {
  readonly pack: string;
  readonly version: string;
  readonly procedure: string;
  readonly lines: readonly EditableLine[];
}
const field = 'mt-1 min-h-11 w-full border border-edge bg-panel px-2';

/** Edits the figures of a house pack; what permits more than the original needs a reason that prints. */
export function EditPack({ pack, version, procedure, lines }: Props) {
  const router = useRouter();
  const [values, setValues] = useState<Record<string, string | null>>({});
  const [reasons, setReasons] = useState<Record<string, string>>({});
  const [filter, setFilter] = useState('');
  const [trouble, setTrouble] = useState('');
  /** What this page kept last: the page itself may not have been read anew yet. */
  const [kept, setKept] = useState('');
  const base = Number(kept) > Number(version) ? kept : version;
  const [busy, setBusy] = useState(false);
  const changed = lines.filter((l) => values[l.key] !== undefined && values[l.key] !== l.value);
  const shown = lines.filter(
    (l) =>
      changed.includes(l) ||
      `${l.where} ${l.label} ${l.value}`.toLowerCase().includes(filter.trim().toLowerCase()),
  );
  const save = async () => {
    setBusy(true);
    setTrouble('');
    try {
      const answer = await office<{ version: string }>(`/api/packs/${pack}`, {
        body: {
          version: base,
          edits: changed.map((l) => ({
            procedure,
            at: l.at,
            value: values[l.key] ?? null,
            reason: reasons[l.key] ?? '',
          })),
        },
      });
      setKept(answer.version);
      setValues({});
      router.refresh();
    } catch (error) {
      setTrouble((error as OfficeError).message);
    }
    setBusy(false);
  };
  return (
    <section aria-labelledby="edit" className="border border-seam bg-panel p-4">
      <h2 id="edit" className="text-lg font-semibold">
        Edit this house pack
      </h2>
      <p className="mt-1 text-sm">
        Stricter figures need no words. A figure that permits more than the pack it comes from, or a check
        taken away, needs a reason; it prints on every record made with it.
      </p>
      <label className="mt-3 block text-sm">
        Find a line
        <input
          className={field}
          value={filter}
          onChange={(e) => setFilter(e.target.value)}
          placeholder="hold, drop, house …"
        />
      </label>
      <ul className="mt-3 max-h-[60dvh] overflow-auto border-y border-seam">
        {shown.map((l) => {
          const value = values[l.key];
          const gone = l.edit === 'remove' && value === null;
          return (
            <li key={l.key} className="border-b border-seam py-2">
              <span className="block text-sm text-quiet">{l.where}</span>
              {l.edit === 'remove' ? (
                <label className="flex min-h-11 items-start gap-3">
                  <input
                    type="checkbox"
                    className="mt-1 size-5 accent-lake"
                    checked={!gone}
                    onChange={(e) => setValues({ ...values, [l.key]: e.target.checked ? l.value : null })}
                  />
                  <span className={gone ? 'line-through' : ''}>{l.value}</span>
                </label>
              ) : (
                <label className="block">
                  {l.label}
                  <input
                    className={`figure ${field}`}
                    value={value ?? l.value}
                    onChange={(e) => setValues({ ...values, [l.key]: e.target.value })}
                  />
                </label>
              )}
              {changed.includes(l) && (
                <label className="mt-2 block border-l-4 border-ochre pl-3 text-sm">
                  {l.permits}. Reason, if it permits more
                  <input
                    className={field}
                    value={reasons[l.key] ?? ''}
                    onChange={(e) => setReasons({ ...reasons, [l.key]: e.target.value })}
                    maxLength={500}
                  />
                </label>
              )}
            </li>
          );
        })}
      </ul>
      <p role="alert" className="mt-2 min-h-6 text-rust">
        {trouble}
      </p>
      <p aria-live="polite" className="text-moss">
        {kept && `Kept as version ${kept}. Runs that are going on keep their own version.`}
      </p>
      <Button
        tone="act"
        className="min-h-14 w-full"
        disabled={busy || !changed.length}
        onClick={() => void save()}
      >
        {changed.length
          ? `Keep ${changed.length} ${changed.length === 1 ? 'edit' : 'edits'} as version ${Number(base) + 1}`
          : 'Nothing changed yet'}
      </Button>
    </section>
  );
}

/** Copies a pack to a house pack under a short name. */
export function CopyPack({ pack, version }: { pack: string; version: string }) {
  const router = useRouter();
  const [id, setId] = useState(`house-${pack}`.slice(0, 60));
  const [trouble, setTrouble] = useState('');
  const copy = async () => {
    try {
      const made = await office<{ id: string }>('/api/packs?copy', {
        body: { pack, version, id: id.trim() },
      });
      router.push(`/rules/${made.id}`);
    } catch (error) {
      setTrouble((error as OfficeError).message);
    }
  };
  return (
    <section aria-labelledby="copy" className="border border-seam bg-panel p-4">
      <h2 id="copy" className="text-lg font-semibold">
        Copy to a house pack
      </h2>
      <p className="mt-1 text-sm">A published pack is never edited. A copy carries the firm’s own figures.</p>
      <label className="mt-2 block text-sm">
        Short name
        <input
          className={`figure ${field}`}
          value={id}
          onChange={(e) => setId(e.target.value)}
          maxLength={60}
        />
      </label>
      <p role="alert" className="mt-1 min-h-6 text-rust">
        {trouble}
      </p>
      <Button tone="act" className="min-h-14 w-full" onClick={() => void copy()}>
        Copy
      </Button>
    </section>
  );
}

/** Imports a pack from its file; what is wrong with it is said with its place. */
export function ImportPack() {
  const router = useRouter();
  const [trouble, setTrouble] = useState('');
  const [done, setDone] = useState('');
  const take = async (file: File | undefined) => {
    setTrouble('');
    setDone('');
    if (!file) return;
    if (file.size > 2_000_000)
      return setTrouble('That file is larger than any rule pack. Choose the exported JSON file.');
    try {
      const made = await office<{ id: string; title: string; version: string }>('/api/packs', {
        body: { text: await file.text() },
      });
      setDone(`${made.title}, version ${made.version}, is in.`);
      router.refresh();
    } catch (error) {
      setTrouble(`${file.name}: ${(error as OfficeError).message}`);
    }
  };
  return (
    <section aria-labelledby="import" className="border border-seam bg-panel p-4">
      <h2 id="import" className="text-lg font-semibold">
        Import a pack
      </h2>
      <label className="mt-2 block text-sm">
        Rule pack, JSON file
        <input
          type="file"
          accept="application/json,.json"
          className="mt-1 block w-full text-base file:mr-3 file:min-h-11 file:border file:border-edge file:bg-panel file:px-3"
          onChange={(e) => void take(e.target.files?.[0])}
        />
      </label>
      <p role="alert" className="mt-2 break-words text-rust">
        {trouble}
      </p>
      <p aria-live="polite" className="text-moss">
        {done}
      </p>
    </section>
  );
}
