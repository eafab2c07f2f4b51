'use client';
import { sectionVolume, type System, volumeUncertainty } from '@/core/installation/section';
import { CATALOGUE, type PartKind, ruleOfPart } from '@/core/network/catalogue';
import { withNetwork } from '@/core/network/enter';
import { type Reach, reachOf } from '@/core/network/flood';
import { unanswered } from '@/core/network/installation';
import { laidOut } from '@/core/network/layout';
import { type Part, partName } from '@/core/network/network';
import { tradeOf } from '@/core/trades';
import { Button } from '@/ui/kit/button';
import { byNeed } from '@/ui/kit/by-need';
import { Offer } from '@/ui/kit/use-draft';
import { formOfNetwork, type NetworkForm, networkFromForm } from '@/wire/network';
import { Redo2, Undo2, Wand2 } from 'lucide-react';
import { Suspense, useMemo, useState } from 'react';
import type { Schema } from 'yup';
import { Chosen } from './chosen';
import { ReachWords } from './drawing';
import { PlacePhotos, usePartPhotos } from './place-photos';
import { useSchema } from './schema';
import { EdgeOfPool } from './edge-of-pool';
import { Sign } from './sign';
import { type Editing, useEditing } from './use-editing';

const PhotoOfAPart = byNeed(() => import('./part-photos').then((m) => m.PhotoOfAPart));
const Frame = byNeed(() => import('./frame').then((m) => m.Frame));
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
/** A pool whose lines nobody knows yet is drawn as it stands: nothing of it is out. */
const allOf = (sheet: NetworkForm): Reach => ({
  parts: new Set(sheet.parts.map((p) => p.id)),
  links: new Set(sheet.links.map((l) => l.id)),
  boundaries: [],
  outside: [],
  shutOff: new Set(),
  warnings: [],
});
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
  const lined = tradeOf(section).parted === 'lines';
  const editing = useEditing(system, start, may);
  const { sheet, part, kept, edit } = editing;
  const photos = usePartPhotos(system);
  const reach = useMemo(() => (lined ? allOf(sheet) : reachOf(sheet)), [lined, sheet]);
  // checked and worked out when something is drawn, not with every push of the sheet
  const schema = useSchema();
  const volume = useMemo(() => volumeWords(section, sheet, schema), [section, sheet, schema]);
  const asked = useMemo(() => (volume ? unanswered(networkFromForm(sheet)) : []), [volume, sheet]);
  return (
    <div>
      <p className="text-sm text-quiet">{place}</p>
      <h1 className="text-2xl font-bold">{section.name}: the section drawn</h1>
      <p className="no-print mt-1 max-w-2xl">
        {may && lined
          ? 'Drag every outlet and connection to where it is, over the edge of the pool. Which belong together is found out by the map; a pipe whose size and length you know is drawn between two of its ends.'
          : may
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
                {!lined && (
                  <Button onClick={() => edit((s) => laidOut(s))}>
                    <Wand2 {...icon} /> Tidy up
                  </Button>
                )}
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
          <Suspense
            fallback={<div className="mt-2 h-[46dvh] min-h-72 border border-seam bg-panel lg:h-[56dvh]" />}
          >
            <Frame editing={editing} start={start} reach={reach} may={may} />
          </Suspense>
          {may && <Palette editing={editing} palette={palette} />}
          {may && lined && <EdgeOfPool sheet={sheet} edit={edit} />}
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
          {may && <Chosen editing={editing} photos={{ system, kept: photos }} />}
          {!may && (
            <Suspense fallback={null}>
              <PhotoOfAPart
                {...{ system, kept: photos }}
                parts={start.parts.filter((p) => !ruleOfPart(p.kind).nameless) as Part[]}
              />
            </Suspense>
          )}
          {!part && <PlacePhotos system={system} kept={photos} network={sheet} />}
          {lined ? (
            asked.map((w) => (
              <p key={w} className="border-l-4 border-ochre pl-3">
                {w}
              </p>
            ))
          ) : (
            <section>
              <h2 className="text-lg font-semibold">What is in, what is out</h2>
              <ReachWords network={sheet} reach={reach} asked={asked} />
            </section>
          )}
        </aside>
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
