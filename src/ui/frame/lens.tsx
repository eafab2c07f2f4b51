'use client';
import { useEffect, useState, useSyncExternalStore } from 'react';
import { Button } from '@/ui/kit/button';
import { Lens } from './lens-dom';
import { useUsage } from './usage';

const KEY = 'vast-stone.both-units';
const CHANGED = 'vast-both-units';
const both = (): boolean => localStorage.getItem(KEY) === '1';
function onBoth(changed: () => void): () => void {
  addEventListener(CHANGED, changed);
  addEventListener('storage', changed);
  return () => {
    removeEventListener(CHANGED, changed);
    removeEventListener('storage', changed);
  };
}
const useBoth = (): boolean => useSyncExternalStore(onBoth, both, () => false);

/** Tells the page's figures, days and times as its reader is used to them. Once on every page. */
export function ReadersLens() {
  const usage = useUsage();
  const twins = useBoth();
  const [lens] = useState(() => (typeof document === 'undefined' ? null : new Lens(document.body)));
  useEffect(() => {
    lens?.tell({ usage, both: twins });
    return () => lens?.tell(null);
  }, [lens, usage, twins]);
  return null;
}
/** One tap: every figure with its twin beside, until it is tapped again. */
export function BothUnits({ className = '' }: { className?: string }) {
  const on = useBoth();
  return (
    <Button
      className={className}
      aria-pressed={on}
      onClick={() => {
        localStorage.setItem(KEY, on ? '0' : '1');
        dispatchEvent(new Event(CHANGED));
      }}
    >
      {on ? 'One unit' : 'Both units'}
    </Button>
  );
}
