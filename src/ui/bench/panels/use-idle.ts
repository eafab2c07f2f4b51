'use client';
import { useEffect, useState } from 'react';

/** Whether nobody has touched anything for a while. */
export function useIdle(active: boolean, after: number): boolean {
  const [idle, setIdle] = useState(false);
  useEffect(() => {
    if (!active) return;
    let timer: ReturnType<typeof setTimeout>;
    const wake = () => {
      setIdle(false);
      clearTimeout(timer);
      timer = setTimeout(() => setIdle(true), after);
    };
    wake();
    const kinds = ['pointerdown', 'keydown', 'wheel'] as const;
    kinds.forEach((k) => addEventListener(k, wake));
    return () => {
      clearTimeout(timer);
      setIdle(false);
      kinds.forEach((k) => removeEventListener(k, wake));
    };
  }, [active, after]);
  return idle;
}
