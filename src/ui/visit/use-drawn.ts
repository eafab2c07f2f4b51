'use client';
import { type RefObject, useEffect, useRef } from 'react';

interface Heard {
  /** Something begins to be drawn: what stands in its data-due. */
  readonly onPick: (id: string) => void;
  /** Over which day it is; '' for none. */
  readonly onOver: (day: string) => void;
  readonly onDrop: (day: string) => void;
  readonly onLeft: () => void;
}
/** Drawing with the mouse from what has data-due onto what has data-day, within one part of a page. */
export function useDrawn(ref: RefObject<HTMLElement | null>, heard: Heard): void {
  const now = useRef(heard);
  useEffect(() => {
    now.current = heard;
  });
  useEffect(() => {
    const root = ref.current;
    if (!root) return;
    const over = new AbortController();
    let drawn = false;
    const at = (e: DragEvent, what: 'day' | 'due') =>
      (e.target as Element).closest<HTMLElement>(`[data-${what}]`)?.dataset[what] ?? '';
    const on = (type: 'dragstart' | 'dragover' | 'drop' | 'dragend', act: (e: DragEvent) => void) =>
      root.addEventListener(type, act, { signal: over.signal });
    on('dragstart', (e) => {
      const id = at(e, 'due');
      if (!id || !e.dataTransfer) return;
      drawn = true;
      e.dataTransfer.setData('text/plain', id);
      e.dataTransfer.effectAllowed = 'move';
      // a moment later: a list that changes under the hand ends the drawing
      setTimeout(() => now.current.onPick(id));
    });
    on('dragover', (e) => {
      const day = at(e, 'day');
      if (!drawn) return;
      if (day) e.preventDefault();
      now.current.onOver(day);
    });
    on('drop', (e) => {
      const day = at(e, 'day');
      if (!drawn || !day) return;
      e.preventDefault();
      now.current.onDrop(day);
    });
    on('dragend', () => {
      drawn = false;
      now.current.onLeft();
    });
    return () => over.abort();
  }, [ref]);
}
