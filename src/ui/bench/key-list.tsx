import { BENCH_KEYS } from '@/ui/kit/keys';
import { useEffect, useState } from 'react';

/** The keys of the bench: Enter is the main action, ? shows the list, Escape goes back. */
export function useKeys(back: () => void): boolean {
  const [shown, setShown] = useState(false);
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      const typing = (e.target as HTMLElement).closest('input, textarea, select');
      if (e.key === 'Escape') {
        setShown(false);
        back();
      }
      if (typing || e.ctrlKey || e.metaKey || e.altKey) return;
      if (e.key === '?') setShown((k) => !k);
      if (e.key === 'Enter' && !(e.target as HTMLElement).closest('button, a, summary'))
        document.querySelector<HTMLButtonElement>('[data-primary]:not(:disabled)')?.click();
    };
    addEventListener('keydown', onKey);
    return () => removeEventListener('keydown', onKey);
  }, [back]);
  return shown;
}

export function KeyList() {
  return (
    <dl className="grid grid-cols-[4rem_1fr] gap-1 border border-ink bg-panel p-4" aria-label="Keys">
      {BENCH_KEYS.map(([k, w]) => (
        <div key={k} className="contents">
          <dt className="figure">{k}</dt>
          <dd>{w}</dd>
        </div>
      ))}
    </dl>
  );
}
