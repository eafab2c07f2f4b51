'use client';
import type { BubbleSize } from '@/core/kinds/joints/entries';
import { capital } from '@/core/quantity/words';
import { photoPath } from '@/ui/network/place-photos';
import type { LeakRequest } from '@/wire/leaks';

/** Radius of a leak's mark on the sheet: the larger its bubbles, the larger it is. */
export const MARK: Readonly<Record<BubbleSize, number>> = { pinhead: 9, pea: 12, larger: 16 };
/** Writes an entry into the book. @returns what is wrong, null when it was taken */
export type Say = (body: LeakRequest['body'], leak?: string) => Promise<string | null>;
/** A photo with the leak marked on it. */
export function Spotted({
  system,
  hash,
  spot,
  size,
  n,
  name,
  onSpot,
}: {
  system: string;
  hash: string;
  spot: { readonly x: number; readonly y: number } | undefined;
  size: BubbleSize | undefined;
  n: number;
  name: string;
  onSpot?: (spot: { x: number; y: number }) => void;
}) {
  const r = MARK[size ?? 'pea'];
  const mark = spot && (
    <span
      className="absolute grid -translate-x-1/2 -translate-y-1/2 place-items-center rounded-full border-2 border-rust bg-panel text-sm font-bold text-rust"
      style={{ left: `${100 * spot.x}%`, top: `${100 * spot.y}%`, width: 2 * r + 6, height: 2 * r + 6 }}
      aria-hidden
    >
      {n}
    </span>
  );
  const picture = (
    <img
      src={`${photoPath(system, hash)}${onSpot ? '' : '?small=1'}`}
      alt={`${capital(name)}${spot ? ', with the leak marked' : ''}`}
      className={onSpot ? 'block w-full max-w-xl' : 'block h-36'}
    />
  );
  return onSpot ? (
    <button
      type="button"
      className="relative block justify-self-start"
      aria-label="Touch the photo where it leaks"
      onClick={(e) => {
        const box = e.currentTarget.getBoundingClientRect();
        // a key presses in the middle
        const [x, y] =
          e.detail === 0
            ? [0.5, 0.5]
            : [(e.clientX - box.left) / box.width, (e.clientY - box.top) / box.height];
        onSpot({ x: Math.min(1, Math.max(0, x)), y: Math.min(1, Math.max(0, y)) });
      }}
    >
      {picture}
      {mark}
    </button>
  ) : (
    <div className="relative justify-self-start">
      {picture}
      {mark}
    </div>
  );
}
