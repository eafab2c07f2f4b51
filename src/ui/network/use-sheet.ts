'use client';
import type { NetworkForm } from '@/wire/network';
import { useState } from 'react';

const MOST = 100;
interface History {
  readonly done: readonly NetworkForm[];
  readonly now: NetworkForm;
  readonly undone: readonly NetworkForm[];
  /** What the last change was about: the next one of the same is part of it (a drag, a word being typed). */
  readonly about: string;
}
/** A drawing that is changed step by step and can be put back. */
export function useSheet(first: NetworkForm) {
  const [history, setHistory] = useState<History>({ done: [], now: first, undone: [], about: '' });
  return {
    sheet: history.now,
    canUndo: history.done.length > 0,
    canRedo: history.undone.length > 0,
    /** @param about one change goes on while this stays the same; '' is always a change of its own */
    change: (to: (sheet: NetworkForm) => NetworkForm, about = '') =>
      setHistory((h) => {
        const now = to(h.now);
        if (now === h.now) return h;
        const same = about !== '' && about === h.about;
        return { done: same ? h.done : [...h.done, h.now].slice(-MOST), now, undone: [], about };
      }),
    /** What follows is another change, even of the same thing. */
    settle: () => setHistory((h) => (h.about ? { ...h, about: '' } : h)),
    undo: () =>
      setHistory((h) => {
        const last = h.done[h.done.length - 1];
        return last ? { done: h.done.slice(0, -1), now: last, undone: [h.now, ...h.undone], about: '' } : h;
      }),
    redo: () =>
      setHistory((h) => {
        const [next, ...rest] = h.undone;
        return next ? { done: [...h.done, h.now], now: next, undone: rest, about: '' } : h;
      }),
  };
}
