'use client';
import { Dialog } from 'radix-ui';
import { useState } from 'react';
import { Button } from './button';
import type { ShownPhoto } from './photos';

/** One photo as large as the screen, the others of the list one press away; two of one thing side by side, the earlier first. */
export default function PhotoLarge({
  photos,
  at,
  onClose,
}: {
  photos: readonly ShownPhoto[];
  at: number;
  onClose: () => void;
}) {
  const [index, setIndex] = useState(at);
  const [beside, setBeside] = useState(false);
  const photo = photos[index]!;
  const others = photos.filter((p) => p !== photo && p.thing === photo.thing);
  // the nearest before it; of the first one the next after it
  const earlier = others.filter((p) => p.at <= photo.at).sort((a, b) => b.at - a.at)[0];
  const pair = earlier ?? [...others].sort((a, b) => a.at - b.at)[0];
  const shown = beside && pair ? [pair, photo].sort((a, b) => a.at - b.at) : [photo];
  const go = (by: number) => {
    setIndex((index + by + photos.length) % photos.length);
    setBeside(false);
  };
  return (
    <Dialog.Root open onOpenChange={(open) => !open && onClose()}>
      <Dialog.Portal>
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed inset-0 z-50 grid grid-rows-[1fr_auto] gap-2 bg-ground p-2 text-ink"
          onKeyDown={(e) => {
            if (e.key === 'ArrowRight') go(1);
            if (e.key === 'ArrowLeft') go(-1);
          }}
        >
          <Dialog.Title className="sr-only">Photo: {photo.words}</Dialog.Title>
          <div
            className={`grid min-h-0 gap-2 ${shown.length > 1 ? 'grid-rows-2 sm:grid-cols-2 sm:grid-rows-1' : ''}`}
          >
            {shown.map((p, i) => (
              <figure key={p.key} className="grid min-h-0 grid-rows-[1fr_auto]">
                <img src={p.large} alt={p.words} className="size-full min-h-0 object-contain" />
                <figcaption className="text-center">
                  {shown.length > 1 && <strong>{i === 0 ? 'Before: ' : 'After: '}</strong>}
                  {p.words}
                  {p.when && <span className="block text-sm text-quiet">{p.when}</span>}
                </figcaption>
              </figure>
            ))}
          </div>
          <div className="flex flex-wrap justify-center gap-3">
            {photos.length > 1 && (
              <>
                <Button className="min-h-14" onClick={() => go(-1)}>
                  Back
                </Button>
                <Button className="min-h-14" onClick={() => go(1)}>
                  Next
                </Button>
              </>
            )}
            {pair && (
              <Button className="min-h-14" aria-pressed={beside} onClick={() => setBeside(!beside)}>
                {beside ? 'Alone' : 'Before and after'}
              </Button>
            )}
            <Dialog.Close asChild>
              <Button tone="act" className="min-h-14">
                Close
              </Button>
            </Dialog.Close>
          </div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
