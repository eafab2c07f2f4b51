'use client';
import { byNeed } from '@/ui/kit/by-need';
import type { Identity } from '@/wire/role';
import { Search } from 'lucide-react';
import { Suspense, useEffect, useRef, useState } from 'react';

const ASKED = 'vast-stone.find';
const load = () => import('./palette').then((m) => m.Palette);
const Palette = byNeed(load);
/** Once a page has come to rest, so that what is typed right after the keys finds its field. */
const AHEAD_MS = 2_500;
/** Opens the search from wherever it is asked for. */
export const askFind = (): unknown => dispatchEvent(new Event(ASKED));

/** The search over everything: opens with Ctrl or Cmd and K, or from a button. What it is made of is fetched when it is first asked for. */
export function Find({ who }: { who: Identity }) {
  const [open, setOpen] = useState(false);
  // what is typed while it is fetched: asked for, and not there yet
  const [early, setEarly] = useState('');
  const stands = useRef<'no' | 'awaited' | 'yes'>('no');
  useEffect(() => {
    const ask = (wanted: boolean) => {
      stands.current = wanted ? 'awaited' : 'no';
      setEarly('');
      setOpen(wanted);
    };
    const show = () => ask(true);
    const onKey = (e: KeyboardEvent) => {
      if (stands.current === 'awaited' && e.key.length === 1 && !e.ctrlKey && !e.metaKey && !e.altKey) {
        e.preventDefault();
        setEarly((was) => was + e.key);
        return;
      }
      if ((e.ctrlKey || e.metaKey) && !e.shiftKey && !e.altKey && e.key.toLowerCase() === 'k') {
        e.preventDefault();
        ask(stands.current === 'no');
      }
    };
    addEventListener(ASKED, show);
    addEventListener('keydown', onKey);
    const ahead = setTimeout(() => void load().catch(() => undefined), AHEAD_MS);
    return () => {
      clearTimeout(ahead);
      removeEventListener(ASKED, show);
      removeEventListener('keydown', onKey);
    };
  }, []);
  return (
    open && (
      <Suspense fallback={null}>
        <Palette
          who={who}
          early={early}
          onThere={() => {
            stands.current = 'yes';
          }}
          close={() => {
            stands.current = 'no';
            setOpen(false);
          }}
        />
      </Suspense>
    )
  );
}
/** Looks like the field it opens. */
export const FindField = ({ className = '' }: { className?: string }) => (
  <button
    type="button"
    onClick={askFind}
    className={`flex min-h-12 w-full max-w-xl items-center gap-3 border border-edge bg-panel px-3 text-left text-quiet hover:border-ink ${className}`}
  >
    <Search size={20} aria-hidden />
    <span className="flex-1">Find anything</span>
    <kbd className="figure-narrow text-sm max-lg:hidden">Ctrl K</kbd>
  </button>
);
