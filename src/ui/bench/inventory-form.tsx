'use client';
import type { ExpectedItem } from '@/core/installation/section';
import type { InventoryKind } from '@/core/pack/schema';
import { expectedItems, inventoryChanges } from '@/core/run/inventory';
import { now } from '@/device/clock';
import { Scan } from '@/ui/codes/scan';
import { Button } from '@/ui/kit/button';
import { clockTime } from '@/ui/kit/words';
import { uuid7 } from '@/wire/uuid7';
import { useState } from 'react';
import { FIELD } from './line';
import type { PanelProps } from './shared';
import { Thumbnail } from './thumbnail';

type Said = 'good' | 'fault' | 'not-seen';
const SAID: [Said, string][] = [
  ['good', 'Good'],
  ['fault', 'Fault'],
  ['not-seen', 'Not seen'],
];

/** Things present, by kind: each opens into make, model, serial and its inspection points. */
export function InventoryForm({ view, engine, act }: Pick<PanelProps, 'view' | 'engine' | 'act'>) {
  const { plan, state } = view;
  const [open, setOpen] = useState<string | null>(null);
  const kinds = plan.procedure.inventory ?? [];
  if (!kinds.length) return <p>This procedure asks for no inventory.</p>;
  return (
    <div className="grid gap-4">
      {kinds.map((kind) => {
        const expected = expectedItems(plan.system, kind.kind);
        const added = state.inventory.filter(
          (i) => i.kind === kind.kind && !expected.some((e) => e.id === i.id),
        );
        const lines: ExpectedItem[] = [...expected, ...added];
        return (
          <section key={kind.kind} aria-label={kind.title}>
            <h3 className="font-semibold">
              {kind.title}
              {kind.required ? '' : ' (if there is time)'}
            </h3>
            <ul>
              {lines.map((line) => {
                const said = state.inventory.find((i) => i.id === line.id);
                const changes = said ? inventoryChanges(line, said) : [];
                return (
                  <li key={line.id} className="border-t border-seam py-2">
                    <div className="flex flex-wrap items-center justify-between gap-3">
                      <span>
                        <strong>{said?.name ?? line.name}</strong>
                        {line.place && <span className="text-quiet">, {line.place}</span>}
                        <span className="block text-sm text-quiet">
                          {said
                            ? `${[said.make, said.model, said.serial && `serial ${said.serial}`].filter(Boolean).join(', ') || 'no plate read'}; ${Object.values(said.points).filter((p) => p === 'fault').length} faults; ${clockTime(said.at, plan.made.zone)}`
                            : line.serial
                              ? `last time: serial ${line.serial}`
                              : 'not written down yet'}
                        </span>
                        {changes.map((c) => (
                          <span key={c} className="block text-sm text-ochre">
                            {c}. Another thing than last time: it needs its own check.
                          </span>
                        ))}
                      </span>
                      <Button
                        className="min-h-14"
                        aria-expanded={open === line.id}
                        onClick={() => setOpen(open === line.id ? null : line.id)}
                      >
                        {said ? 'Change' : 'Write down'}
                      </Button>
                    </div>
                    {open === line.id && (
                      <Line
                        kind={kind}
                        line={said ?? { ...line, points: {}, note: '' }}
                        engine={engine}
                        act={act}
                        onDone={() => setOpen(null)}
                      />
                    )}
                  </li>
                );
              })}
            </ul>
            <Button
              className="mt-2 min-h-14"
              onClick={() => setOpen(open === `new-${kind.kind}` ? null : `new-${kind.kind}`)}
            >
              Something else of this kind
            </Button>
            {open === `new-${kind.kind}` && (
              <Line
                kind={kind}
                line={{
                  id: uuid7(now()),
                  kind: kind.kind,
                  name: '',
                  place: '',
                  make: '',
                  model: '',
                  serial: '',
                  points: {},
                  note: '',
                }}
                engine={engine}
                act={act}
                onDone={() => setOpen(null)}
              />
            )}
          </section>
        );
      })}
    </div>
  );
}

function Line({
  kind,
  line,
  engine,
  act,
  onDone,
}: {
  kind: InventoryKind;
  line: ExpectedItem & {
    readonly points: Readonly<Record<string, Said>>;
    readonly note: string;
    readonly photos?: readonly string[];
  };
  engine: PanelProps['engine'];
  act: PanelProps['act'];
  onDone: () => void;
}) {
  const [item, setItem] = useState(line);
  const [points, setPoints] = useState<Record<string, Said>>({ ...line.points });
  const [photos, setPhotos] = useState<readonly string[]>(line.photos ?? []);
  const [sending, setSending] = useState(false);
  const [trouble, setTrouble] = useState('');
  const photograph = async (file: File | undefined) => {
    if (!file) return;
    setTrouble('');
    setSending(true);
    try {
      const hash = await engine.keepPhoto(file);
      setPhotos((p) => (p.includes(hash) ? p : [...p, hash].slice(-12)));
    } catch (error) {
      setTrouble((error as Error).message);
    }
    setSending(false);
  };
  const save = async () => {
    const { id, name, place, make, model, serial, note } = item;
    const answer = await act({
      kind: 'inventory',
      item: {
        id,
        kind: kind.kind,
        name: name.trim(),
        place,
        make,
        model,
        serial,
        points,
        note,
        ...(photos.length ? { photos } : {}),
      },
    });
    if (answer.accepted) onDone();
    else setTrouble(answer.text);
  };
  const text = (key: 'name' | 'place' | 'make' | 'model' | 'serial' | 'note', label: string) => (
    <label>
      {label}
      <input
        className={FIELD}
        value={item[key]}
        onChange={(e) => setItem({ ...item, [key]: e.target.value })}
        maxLength={key === 'note' ? 1000 : 120}
      />
    </label>
  );
  return (
    <div className="mt-2 grid gap-3 border-l-4 border-lake pl-3">
      <div className="grid gap-3 sm:grid-cols-2">
        {text('name', 'What is it?')}
        {text('place', 'Where')}
        {text('make', 'Make')}
        {text('model', 'Model')}
        {text('serial', 'Serial')}

        <Scan
          label="Scan the serial"
          onCode={(_code, said) => {
            if (said.length > 120) return 'That code says more than a serial number: type it from the plate.';
            setItem({ ...item, serial: said.replace(/\p{Cc}/gu, ' ').trim() });
            return '';
          }}
        />
      </div>
      {kind.points.map((p) => (
        <div
          key={p.key}
          role="group"
          aria-label={p.text}
          className="grid items-center gap-2 border-t border-seam pt-2 sm:grid-cols-[1fr_auto]"
        >
          <span>{p.text}</span>
          <span className="grid grid-cols-3 gap-3">
            {SAID.map(([key, words]) => (
              <Button
                key={key}
                className="min-h-14"
                tone={points[p.key] === key ? 'act' : 'plain'}
                aria-pressed={points[p.key] === key}
                onClick={() => setPoints({ ...points, [p.key]: key })}
              >
                {words}
              </Button>
            ))}
          </span>
        </div>
      ))}
      {text('note', 'Note')}
      <PlatePhotos
        engine={engine}
        name={item.name}
        photos={photos}
        sending={sending}
        onFile={(file) => void photograph(file)}
      />
      <p role="alert" className="min-h-6 font-semibold text-rust">
        {trouble}
      </p>
      <Button tone="act" className="min-h-16" disabled={!item.name.trim()} onClick={() => void save()}>
        Keep it
      </Button>
    </div>
  );
}

/** Photos of the plate: taken, and those that are kept. */
function PlatePhotos({
  engine,
  name,
  photos,
  sending,
  onFile,
}: {
  engine: PanelProps['engine'];
  name: string;
  photos: readonly string[];
  sending: boolean;
  onFile: (file: File | undefined) => void;
}) {
  return (
    <>
      <label>
        Photo of the plate, by camera or from a file
        <input
          type="file"
          accept="image/*"
          capture="environment"
          disabled={sending}
          className="mt-1 block min-h-14 w-full text-base file:mr-3 file:min-h-14 file:border file:border-edge file:bg-panel file:px-4"
          onChange={(e) => onFile(e.target.files?.[0])}
        />
      </label>
      <p aria-live="polite" className="min-h-6 text-quiet">
        {sending ? 'Keeping the photo …' : photos.length ? `${photos.length} kept with this run` : ''}
      </p>
      {photos.length > 0 && (
        <ul className="flex flex-wrap gap-3">
          {photos.map((hash, i) => (
            <li key={hash}>
              <Thumbnail engine={engine} hash={hash} words={`${name}, number ${i + 1}`} />
            </li>
          ))}
        </ul>
      )}
    </>
  );
}
