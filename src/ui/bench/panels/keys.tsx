'use client';
import { useEffect } from 'react';
import type { Side } from '../side-entry';

/** One key each: R reading, T top-up, D disturbance, N note, P photo. */
export function Keys({ onSide }: { onSide: (side: Side) => void }) {
  useEffect(() => {
    const map: Record<string, Side> = { r: 'reading', t: 'top-up', d: 'disturbance', n: 'note', p: 'photo' };
    const onKey = (e: KeyboardEvent) => {
      if (e.ctrlKey || e.metaKey || e.altKey || (e.target as HTMLElement).closest('input, textarea, select'))
        return;
      const side = map[e.key.toLowerCase()];
      if (side) {
        e.preventDefault();
        onSide(side);
      }
    };
    addEventListener('keydown', onKey);
    return () => removeEventListener('keydown', onKey);
  }, [onSide]);
  return null;
}
