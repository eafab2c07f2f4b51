'use client';
import { sectionVolume, type System, volumeUncertainty } from '@/core/installation/section';
import { CATALOGUE, type PartKind, ruleOfPart } from '@/core/network/catalogue';
import { withNetwork } from '@/core/network/enter';
import { type Reach, reachOf } from '@/core/network/flood';
import { unanswered } from '@/core/network/installation';
import { laidOut } from '@/core/network/layout';
import { partName, partOf } from '@/core/network/network';
import { Button } from '@/ui/kit/button';
import { Offer } from '@/ui/kit/use-draft';
import { useSize } from '@/ui/kit/use-size';
import { formOfNetwork, type NetworkForm, networkFromForm } from '@/wire/network';
import { type PipeForm } from '@/wire/pipe';
import { Maximize, Minus, Plus, Redo2, Undo2, Wand2 } from 'lucide-react';
import { useEffect, useMemo, useState } from 'react';
import type { Schema } from 'yup';
import { Chosen } from './chosen';
import { extent, ReachWords, Sheet, UNIT } from './drawing';
import { useSchema } from './schema';
import { Sign } from './sign';
import { type Editing, useEditing } from './use-editing';
import { useView, type View } from './use-view';

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
const icon = { size: 18, 'aria-hidden': true } as const;

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
  const [start] = useState(() => formOfNetwork(section.network!));
  const editing = useEditing(system, start, may);
  const { sheet, kept, edit } = editing;
  const reach = useMemo(() => reachOf(sheet), [sheet]);
  // checked and worked out when something is drawn, not with every push of the sheet
  const schema = useSchema();
  const volume = useMemo(() => volumeWords(section, sheet, schema), [section, sheet, schema]);
  const asked = useMemo(() => (volume ? unanswered(networkFromForm(sheet)) : []), [volume, sheet]);
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
            take={editing.takeKept}
            drop={editing.dropKept}
          />
        </div>
      )}
      <div className="mt-3 grid grid-cols-[minmax(0,1fr)] gap-4 lg:grid-cols-[minmax(0,1fr)_22rem]">
        <div>
          <div className="no-print flex flex-wrap gap-2">
            {may && (
              <>
                <Button tone="act" disabled={!editing.canUndo && !kept} onClick={() => void editing.save()}>
                  Save
                </Button>
                <Button disabled={!editing.canUndo} onClick={editing.undo}>
                  <Undo2 {...icon} /> Undo
                </Button>
                <Button disabled={!editing.canRedo} onClick={editing.redo}>
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
            {editing.said}
          </p>
          <p role="alert" className="text-rust">
            {editing.trouble}
          </p>
          <Frame editing={editing} start={start} reach={reach} may={may} />
          {may && <Palette editing={editing} palette={palette} />}
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
          {may && <Chosen editing={editing} />}
          <section>
            <h2 className="text-lg font-semibold">What is in, what is out</h2>
            <ReachWords network={sheet} reach={reach} asked={asked} />
          </section>
        </aside>
      </div>
    </div>
  );
}

/** The sheet in its frame, moved and zoomed. */
function Frame({
  editing,
  start,
  reach,
  may,
}: {
  editing: Editing;
  start: NetworkForm;
  reach: Reach;
  may: boolean;
}) {
  const { sheet, chosen, pick, onKey } = editing;
  const [frame, size] = useSize();
  const view = useView(
    whole(sheet, { width: 1000, height: 420 }),
    size,
    (id) => partOf(sheet, id),
    may ? editing.drag : null,
  );
  const { setView } = view;
  useEffect(() => {
    if (size.width) setView(opening(start, size));
    // once, when the frame is known
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [size.width > 0]);
  return (
    <div ref={frame} className="relative mt-2 h-[46dvh] min-h-72 border border-seam bg-panel lg:h-[56dvh]">
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
  );
}

/** Parts of the trade to be put in, most needed first. */
function Palette({ editing, palette }: { editing: Editing; palette: readonly PartKind[] }) {
  const { part, link, add } = editing;
  return (
    <div className="no-print mt-2">
      <h2 className="text-sm text-quiet">
        {link ? 'Put into the pipe that is chosen' : part ? `Join to ${partName(part)}` : 'Another part'}
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
  );
}
