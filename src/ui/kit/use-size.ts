'use client';
import { useEffect, useState } from 'react';

/** Size of an element as laid out, for charts. */
export function useSize(): [
  (el: HTMLElement | null) => void,
  { readonly width: number; readonly height: number },
] {
  const [el, setEl] = useState<HTMLElement | null>(null);
  const [size, setSize] = useState({ width: 0, height: 0 });
  useEffect(() => {
    if (!el) return;
    const watch = new ResizeObserver(() =>
      setSize({ width: Math.floor(el.clientWidth), height: Math.floor(el.clientHeight) }),
    );
    watch.observe(el);
    return () => watch.disconnect();
  }, [el]);
  return [setEl, size];
}
