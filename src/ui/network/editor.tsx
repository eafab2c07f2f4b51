'use client';
import type { Schema } from 'yup';
import { Copy, Link2, Maximize, Minus, Plus, Redo2, Trash2, Undo2, Wand2 } from 'lucide-react';
import { useRouter } from 'next/navigation';
import { useEffect, useMemo, useState, type KeyboardEvent } from 'react';
import { CATALOGUE, partWord, ruleOfPart, type PartKind } from '@/core/network/catalogue';
import { added, copied, joined, moved, removed } from '@/core/network/edit';
import { withNetwork } from '@/core/network/enter';
import { reachOf } from '@/core/network/flood';
import { unanswered } from '@/core/network/installation';
import { laidOut } from '@/core/network/layout';
import { partName, partOf, type Part } from '@/core/network/network';
import { sectionVolume, volumeUncertainty, type System } from '@/core/installation/section';
import { dropDraft, keepDraft, readDraft } from '@/device/drafts';
import { now } from '@/device/clock';
import { office, type OfficeError } from '@/device/office';
import { Button } from '@/ui/kit/button';
import { Offer } from '@/ui/kit/use-draft';
import { useSize } from '@/ui/kit/use-size';
import { formOfNetwork, networkFromForm, type NetworkForm, type PartForm } from '@/wire/network';
import { nextPipe, type PipeForm } from '@/wire/pipe';
import { uuid7 } from '@/wire/uuid7';
import { extent, ReachWords, Sheet, UNIT, words } from './drawing';
import { PartPanel, PipePanel } from './part-panel';
import { Sign } from './sign';
import { useSheet } from './use-sheet';
import { useView, type View } from './use-view';

const fresh = () => uuid7(now()).slice(-12);
/** A pipe in few letters. */
export const pipeWords = (pipe: Pick<PipeForm, 'nominal' | 'size' | 'length'> | undefined): string =>
  pipe ? [pipe.nominal || pipe.size, pipe.length].filter(Boolean).join(', ') : '';
/** What is seen first: the whole sheet where its names can be read so, else what lies around the test point. */
function opening(sheet: NetworkForm, size: { width: number; height: number }): View {
  const all = whole(sheet, size);
  const most = size.width * 1.25;
  const point = sheet.parts.find((p) => ruleOfPart(p.kind).reads) ?? sheet.parts[0];
  if (all.width <= most || !point) return all;
  const height = (most * size.height) / size.width;
  return { x: Math.max(all.x, point.x * UNIT - most / 2), y: point.y * UNIT - height / 3, width: most };
}
/** The whole sheet, as wide as it must be to stand in a frame. */
function whole(sheet: NetworkForm, size: { width: number; height: number }): View {
  const { x, y, width, height } = extent(sheet);
  const ratio = size.height && size.width ? size.width / size.height : 2;
  const wide = Math.max(width, height * ratio);
  return { x: x - (wide - width) / 2, y: y - (wide / ratio - height) / 2, width: wide };
}
const newPart = (kind: PartKind): Omit<PartForm, 'id' | 'x' | 'y'> => ({
  kind,
  name: ruleOfPart(kind).nameless ? '' : partWord(kind),
  place: '',
  facts: {},
  ...(ruleOfPart(kind).closes ? { position: 'open' as const } : {}),
});

const loadSchema = (): Promise<Schema> => import('@/wire/network-schema').then((m) => m.networkSchema);
/** What checks a drawing, once it is fetched: the drawing stands before it. */
function useSchema(): Schema | null {
  const [schema, setSchema] = useState<Schema | null>(null);
  useEffect(() => {
    void loadSchema().then(
      (found) => setSchema(() => found),
      () => undefined,
    );
  }, []);
  return schema;
}

/** The volume that stands behind what is drawn; null while a figure is still being typed. */
function volumeWords(section: System, sheet: NetworkForm, schema: Schema | null): string | null {
  if (!schema) return null;
  try {
    schema.validateSync(sheet, { strict: true });
    const s = withNetwork(section, networkFromForm(sheet));
    return `${(sectionVolume(s).value * 1000).toFixed(1)} l ± ${(volumeUncertainty(s) * 100).toFixed(0)} %`;
  } catch {
    return null;
  }
}
/** What the last visit drew here and did not save. */
function useKept(id: string, sheet: NetworkForm, start: NetworkForm) {
  const [kept, setKept] = useState<{ at: number; value: NetworkForm } | null>(null);
  useEffect(() => {
    const found = readDraft<NetworkForm>(id);
    if (found && JSON.stringify(found.value) !== JSON.stringify(start)) setKept(found);
  }, [id, start]);
  useEffect(() => {
    if (sheet !== start) keepDraft(id, sheet);
  }, [id, sheet, start]);
  return { kept, forget: () => setKept(null) };
}

/** The section drawn and changed: parts added from a short palette, dragged or moved by keys, joined, copied, taken away. */
export function NetworkEditor({
  system,
  place,
  section,
  palette,
  may,
}: {
  system: string;
  place: string;
  section: System;
  palette: readonly PartKind[];
  may: boolean;
}) {
  const router = useRouter();
  const [start] = useState(() => formOfNetwork(section.network!));
  const { sheet, change, settle, undo, redo, canUndo, canRedo } = useSheet(start);
  const [chosen, setChosen] = useState<string | null>(null);
  const [joining, setJoining] = useState(false);
  const [said, setSaid] = useState('');
  const [trouble, setTrouble] = useState('');
  const { kept, forget } = useKept(`drawing/${system}`, sheet, start);
  const [frame, size] = useSize();
  const reach = useMemo(() => reachOf(sheet), [sheet]);
  // checked and worked out when something is drawn, not with every push of the sheet
  const schema = useSchema();
  const volume = useMemo(() => volumeWords(section, sheet, schema), [section, sheet, schema]);
  const asked = useMemo(() => (volume ? unanswered(networkFromForm(sheet)) : []), [volume, sheet]);
  const part = sheet.parts.find((p) => p.id === chosen);
  const link = sheet.links.find((l) => l.id === chosen);
  const edit = (to: (s: NetworkForm) => NetworkForm, about = '') => {
    setSaid('');
    change(to, about);
  };
  const view = useView(
    whole(sheet, { width: 1000, height: 420 }),
    size,
    (id) => partOf(sheet, id),
    may
      ? (id, x, y, last) => {
          edit((s) => moved(s, id, x, y), `move ${id}`);
          if (last) settle();
        }
      : null,
  );
  const { setView } = view;
  useEffect(() => {
    if (size.width) setView(opening(start, size));
    // once, when the frame is known
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [size.width > 0]);
  const pick = (id: string) => {
    if (joining && part && id !== part.id && sheet.parts.some((p) => p.id === id)) {
      edit((s) => joined(s, part.id, id, fresh()));
      setJoining(false);
    }
    setChosen(id);
  };
  const add = (kind: PartKind) => {
    const id = fresh();
    edit((s) => added(s, newPart(kind), { part: part?.id, link: link?.id }, [id, fresh()]));
    setChosen(id);
  };
  const take = () => {
    if (part) edit((s) => removed(s, part.id, fresh()));
    if (link) edit((s) => ({ ...s, links: s.links.filter((l) => l.id !== link.id) }));
    setChosen(null);
  };
  const copy = () => {
    if (!part) return;
    const names = new Map<string, string>();
    const name = (old: string) => names.get(old) ?? names.set(old, fresh()).get(old)!;
    edit((s) => copied(s, part.id, name, (l) => (l.pipe ? { ...l, pipe: { ...l.pipe, id: fresh() } } : l)));
    setChosen(names.get(part.id) ?? null);
  };
  const onKey = (p: Part, e: KeyboardEvent) => {
    const step = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[e.key];
    if (!may) return;
    if (step) {
      e.preventDefault();
      edit((s) => moved(s, p.id, p.x + step[0]!, p.y + step[1]!), `keys ${p.id}`);
    } else if (e.key === 'Delete' || e.key === 'Backspace') {
      e.preventDefault();
      edit((s) => removed(s, p.id, fresh()));
      setChosen(null);
    }
  };
  useEffect(() => {
    const hurry = (e: globalThis.KeyboardEvent) => {
      const typing = (e.target as Element).closest('input, textarea, select');
      if (typing || !(e.ctrlKey || e.metaKey) || e.key.toLowerCase() !== 'z') return;
      e.preventDefault();
      if (e.shiftKey) redo();
      else undo();
    };
    addEventListener('keydown', hurry);
    return () => removeEventListener('keydown', hurry);
  });
  const save = async () => {
    setTrouble('');
    try {
      (await loadSchema()).validateSync(sheet, { strict: true });
    } catch (error) {
      setTrouble((error as Error).message);
      return;
    }
    try {
      await office(`/api/systems/${system}/drawing`, { method: 'PUT', body: sheet });
      dropDraft(`drawing/${system}`);
      setSaid('The drawing is saved: volume, valves and lists follow it.');
      router.refresh();
    } catch (error) {
      setTrouble((error as OfficeError).message);
    }
  };
  const icon = { size: 18, 'aria-hidden': true } as const;
  return (
    <div>
      <p className="text-sm text-quiet">{place}</p>
      <h1 className="text-2xl font-bold">{section.name}: the section drawn</h1>
      <p className="no-print mt-1 max-w-2xl">
        {may
          ? 'Touch a part or a pipe to say what it is. Drag a part, or move it with the arrow keys; two fingers or the wheel zoom. What the pressure reaches from the test point is drawn full.'
          : 'What the pressure reaches from the test point is drawn full. Two fingers or the wheel zoom.'}
      </p>
      {kept && (
        <div className="mt-3">
          <Offer
            what="A drawing begun here"
            not="saved"
            at={kept.at}
            take={() => {
              edit(() => kept.value);
              forget();
            }}
            drop={() => {
              dropDraft(`drawing/${system}`);
              forget();
            }}
          />
        </div>
      )}
      <div className="mt-3 grid grid-cols-[minmax(0,1fr)] gap-4 lg:grid-cols-[minmax(0,1fr)_22rem]">
        <div>
          <div className="no-print flex flex-wrap gap-2">
            {may && (
              <>
                <Button tone="act" disabled={!canUndo && !kept} onClick={() => void save()}>
                  Save
                </Button>
                <Button disabled={!canUndo} onClick={undo}>
                  <Undo2 {...icon} /> Undo
                </Button>
                <Button disabled={!canRedo} onClick={redo}>
                  <Redo2 {...icon} /> Redo
                </Button>
                <Button onClick={() => edit((s) => laidOut(s))}>
                  <Wand2 {...icon} /> Tidy up
                </Button>
              </>
            )}
            <Button onClick={() => print()}>Print</Button>
          </div>
          <p role="status" className="mt-1">
            {said}
          </p>
          <p role="alert" className="text-rust">
            {trouble}
          </p>
          <div
            ref={frame}
            className="relative mt-2 h-[46dvh] min-h-72 border border-seam bg-panel lg:h-[56dvh]"
          >
            <svg
              ref={view.svg}
              viewBox={`${view.view.x} ${view.view.y} ${view.view.width} ${size.width ? (view.view.width * size.height) / size.width : view.view.width / 2}`}
              role="group"
              aria-label="Section drawn"
              className="block h-full w-full touch-none select-none"
            >
              <Sheet
                network={sheet}
                reach={reach}
                chosen={chosen}
                beside={(l) => pipeWords((l as NetworkForm['links'][number]).pipe)}
                onPart={pick}
                {...(may ? { onLink: pick } : {})}
                onKey={onKey}
              />
            </svg>
            <div className="no-print absolute top-2 right-2 flex gap-2">
              <Button aria-label="Nearer" onClick={view.near}>
                <Plus {...icon} />
              </Button>
              <Button aria-label="Farther" onClick={view.far}>
                <Minus {...icon} />
              </Button>
              <Button aria-label="The whole drawing" onClick={() => setView(whole(sheet, size))}>
                <Maximize {...icon} />
              </Button>
            </div>
          </div>
          {may && (
            <div className="no-print mt-2">
              <h2 className="text-sm text-quiet">
                {link
                  ? 'Put into the pipe that is chosen'
                  : part
                    ? `Join to ${partName(part)}`
                    : 'Another part'}
              </h2>
              <div className="mt-1 flex flex-wrap gap-2">
                {palette.map((kind) => (
                  <button
                    key={kind}
                    type="button"
                    className="grid min-h-12 min-w-20 place-items-center border border-edge bg-panel px-2 py-1 text-sm hover:border-ink"
                    onClick={() => add(kind)}
                  >
                    <svg viewBox="-24 -20 48 40" width={34} height={28} aria-hidden>
                      <Sign kind={kind} closed={false} reached />
                    </svg>
                    {CATALOGUE[kind].word}
                  </button>
                ))}
              </div>
            </div>
          )}
        </div>
        <aside className="grid content-start gap-3">
          <p className="border-l-4 border-lake pl-3" aria-live="polite">
            {volume ? (
              <>
                Volume of the section <span className="figure">{volume}</span>
              </>
            ) : (
              'The volume stands here once every figure is complete.'
            )}
          </p>
          {may && part && (
            <section className="grid gap-3 border border-seam bg-panel p-3" aria-label="What is chosen">
              <h2 className="font-semibold">{words(sheet, part, {})}</h2>
              <PartPanel
                key={part.id}
                part={part}
                onChange={(to) =>
                  edit(
                    (s) => ({ ...s, parts: s.parts.map((p) => (p.id === part.id ? { ...p, ...to } : p)) }),
                    `facts ${part.id} ${Object.keys(to).join()}`,
                  )
                }
              />
              <div className="flex flex-wrap gap-2">
                <Button aria-pressed={joining} onClick={() => setJoining(!joining)}>
                  <Link2 {...icon} /> {joining ? 'Now touch the other part' : 'Join or take apart'}
                </Button>
                <Button onClick={copy}>
                  <Copy {...icon} /> Copy this branch
                </Button>
                <Button onClick={take}>
                  <Trash2 {...icon} /> Take away
                </Button>
              </div>
            </section>
          )}
          {may && link && (
            <section className="grid gap-3 border border-seam bg-panel p-3" aria-label="What is chosen">
              <h2 className="font-semibold">{link.pipe ? link.pipe.name || 'Pipe' : 'Joined directly'}</h2>
              {link.pipe ? (
                <PipePanel
                  key={link.id}
                  pipe={link.pipe}
                  onChange={(pipe) =>
                    edit(
                      (s) => ({ ...s, links: s.links.map((l) => (l.id === link.id ? { ...l, pipe } : l)) }),
                      `pipe ${link.id}`,
                    )
                  }
                />
              ) : (
                <p>No pipe of any length runs here.</p>
              )}
              <div className="flex flex-wrap gap-2">
                <Button
                  onClick={() =>
                    edit((s) => ({
                      ...s,
                      links: s.links.map((l) => {
                        if (l.id !== link.id) return l;
                        const { pipe, ...bare } = l;
                        const like = [...s.links].reverse().find((x) => x.pipe)?.pipe;
                        return pipe ? bare : { ...bare, pipe: nextPipe(fresh(), like, '') };
                      }),
                    }))
                  }
                >
                  {link.pipe ? 'No pipe here' : 'A pipe runs here'}
                </Button>
                <Button onClick={take}>
                  <Trash2 {...icon} /> Take the join away
                </Button>
              </div>
            </section>
          )}
          <section>
            <h2 className="text-lg font-semibold">What is in, what is out</h2>
            <ReachWords network={sheet} reach={reach} asked={asked} />
          </section>
        </aside>
      </div>
    </div>
  );
}
