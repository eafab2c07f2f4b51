'use client';
import { ruleOfPart } from '@/core/network/catalogue';
import { type Reach } from '@/core/network/flood';
import { partOf } from '@/core/network/network';
import { Button } from '@/ui/kit/button';
import { useSize } from '@/ui/kit/use-size';
import { type NetworkForm } from '@/wire/network';
import { Maximize, Minus, Plus } from 'lucide-react';
import { useEffect } from 'react';
import { extent, Sheet, UNIT } from './drawing';
import { pipeWords } from './pipe-words';
import { type Editing } from './use-editing';
import { useView, type View } from './use-view';

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

/** The sheet in its frame, moved and zoomed. */
export function Frame({
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
    // oxlint-disable-next-line react-hooks/exhaustive-deps
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
