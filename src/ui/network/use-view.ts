'use client';
import type { Part } from '@/core/network/network';
import { useGesture } from '@use-gesture/react';
import { useRef, useState } from 'react';
import { UNIT } from './drawing';

/** What of the sheet is seen: its left upper corner and its width, in the drawing's own scale. */
export interface View {
  readonly x: number;
  readonly y: number;
  readonly width: number;
}
const [NEAREST, FARTHEST] = [220, 6000];
const clamp = (width: number) => Math.max(NEAREST, Math.min(FARTHEST, width));
/** Nearer or farther about a point that stays where it is. */
export function zoomed(view: View, factor: number, about: { x: number; y: number }): View {
  const width = clamp(view.width / factor);
  const k = width / view.width;
  return { width, x: about.x - (about.x - view.x) * k, y: about.y - (about.y - view.y) * k };
}

/**
 * The sheet under fingers, mouse and wheel: a part is dragged, the empty sheet is pushed, two fingers or the wheel zoom.
 * @param onMove null where nothing may be changed
 */
export function useView(
  first: View,
  size: { readonly width: number },
  part: (id: string) => Part | undefined,
  onMove: ((id: string, x: number, y: number, last: boolean) => void) | null,
) {
  const [view, setView] = useState(first);
  const svg = useRef<SVGSVGElement>(null);
  const scale = size.width ? view.width / size.width : 1;
  const point = ([x, y]: readonly [number, number]) => {
    const box = svg.current!.getBoundingClientRect();
    return { x: view.x + (x - box.left) * scale, y: view.y + (y - box.top) * scale };
  };
  useGesture(
    {
      onDrag: ({ delta: [dx, dy], movement: [mx, my], event, memo, last, tap, pinching, cancel }) => {
        if (tap) return undefined;
        if (pinching) return cancel();
        const before = memo as { readonly id: string; readonly x: number; readonly y: number } | undefined;
        const id =
          before?.id ?? (event.target as Element).closest('[data-part]')?.getAttribute('data-part') ?? '';
        const own = part(id);
        const held = before ?? { id, x: own?.x ?? 0, y: own?.y ?? 0 };
        if (own && onMove) onMove(id, held.x + (mx * scale) / UNIT, held.y + (my * scale) / UNIT, last);
        else setView((v) => ({ ...v, x: v.x - dx * scale, y: v.y - dy * scale }));
        return held;
      },
      onPinch: ({ origin, movement: [factor], memo }) => {
        const from = (memo as View | undefined) ?? view;
        setView(zoomed(from, factor, point(origin)));
        return from;
      },
      onWheel: ({ delta: [, dy], event }) => {
        setView(zoomed(view, Math.exp(-dy / 400), point([event.clientX, event.clientY])));
      },
    },
    {
      drag: { filterTaps: true, pointer: { keys: false } },
      wheel: { preventDefault: true },
      target: svg,
      eventOptions: { passive: false },
    },
  );
  const middle = (v: View) => ({ x: v.x + v.width / 2, y: v.y + v.width / 4 });
  return {
    svg,
    view,
    setView,
    near: () => setView((v) => zoomed(v, 1.4, middle(v))),
    far: () => setView((v) => zoomed(v, 1 / 1.4, middle(v))),
  };
}
