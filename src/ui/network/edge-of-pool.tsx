'use client';
import { GRID, type Outline, type OutlineShape } from '@/core/network/network';
import { edgeThrough } from '@/core/trades/pool/edge';
import { Button } from '@/ui/kit/button';
import type { NetworkForm } from '@/wire/network';

const SHAPES: Readonly<Record<OutlineShape, string>> = {
  rectangle: 'Rectangle',
  round: 'Round or oval',
  kidney: 'Kidney',
  'l-shape': 'L',
  sketched: 'Through its outlets',
};
const NEW: Outline = { shape: 'rectangle', x: 40, y: 12, width: 80, height: 40 };
const SIDES = {
  x: ['From the left', GRID.width],
  y: ['From the top', GRID.height],
  width: ['Width', GRID.width],
  height: ['Height', GRID.height],
} as const;
type Side = keyof typeof SIDES;

/** The pool's edge on the sheet: one of some shapes in a frame, or laid through the outlets as they stand. */
export function EdgeOfPool({
  sheet,
  edit,
}: {
  sheet: NetworkForm;
  edit: (change: (s: NetworkForm) => NetworkForm) => void;
}) {
  const { outline } = sheet;
  const set = (next: Outline) => edit((s) => ({ ...s, outline: next }));
  const outlets = sheet.parts.filter((p) => p.kind === 'outlet');
  const choose = (shape: OutlineShape) => {
    if (shape === 'sketched') return set(edgeThrough(outlets));
    const { points: _, ...frame } = outline ?? NEW;
    set({ ...frame, shape });
  };
  return (
    <section className="no-print mt-3" aria-labelledby="edge">
      <h2 id="edge" className="text-sm text-quiet">
        Edge of the pool
      </h2>
      <div role="group" aria-label="Shape" className="mt-1 flex flex-wrap gap-2">
        {(Object.entries(SHAPES) as [OutlineShape, string][]).map(([shape, words]) => (
          <Button
            key={shape}
            tone={outline?.shape === shape ? 'act' : 'plain'}
            aria-pressed={outline?.shape === shape}
            disabled={shape === 'sketched' && outlets.length < 3}
            onClick={() => choose(shape)}
          >
            {words}
          </Button>
        ))}
      </div>
      {outline && outline.shape !== 'sketched' && (
        <div className="mt-2 grid grid-cols-2 gap-3 sm:grid-cols-4">
          {(Object.entries(SIDES) as [Side, (typeof SIDES)[Side]][]).map(([side, [words, most]]) => (
            <label key={side} className="text-sm">
              {words}
              <input
                type="range"
                className="mt-1 block min-h-12 w-full accent-lake"
                min={side === 'width' || side === 'height' ? 4 : 0}
                max={Math.min(most, 200)}
                value={outline[side]}
                onChange={(e) => set({ ...outline, [side]: Number(e.target.value) })}
              />
            </label>
          ))}
        </div>
      )}
    </section>
  );
}
