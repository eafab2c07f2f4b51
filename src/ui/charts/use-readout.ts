'use client';
import { useState, type KeyboardEvent, type PointerEvent } from 'react';

const STEP = 12;

/** Reading a chart by pointer and arrow keys: where it is read, px from its left edge, and what the drawing listens to. */
export function useReadout(plot: { readonly left: number; readonly right: number }) {
  const [at, setAt] = useState<number | null>(null);
  return {
    at,
    listen: {
      role: 'application',
      tabIndex: 0,
      className: 'block touch-pan-y',
      onPointerMove: (e: PointerEvent<SVGSVGElement>) =>
        setAt(e.clientX - e.currentTarget.getBoundingClientRect().left),
      onPointerLeave: () => setAt(null),
      onKeyDown: (e: KeyboardEvent<SVGSVGElement>) => {
        if (e.key === 'ArrowRight' || e.key === 'ArrowLeft') {
          e.preventDefault();
          const step = e.key === 'ArrowRight' ? STEP : -STEP;
          setAt((x) => Math.min(plot.right, Math.max(plot.left, (x ?? plot.left) + step)));
        }
        if (e.key === 'Escape') setAt(null);
      },
    },
  } as const;
}
