'use client';
import { DESK_GROUPS, type DeskGroup, type DeskTitle } from '@/core/desk/types';
import { byNeed } from '@/ui/kit/by-need';
import { Minus, Plus } from 'lucide-react';
import Link from 'next/link';
import { Suspense, useEffect, useMemo, useRef, useState } from 'react';

/** What works a formula out comes when one is opened, or a moment after the list stands. */
const load = () => import('./working').then((m) => m.Working);
const Working = byNeed(load);
interface Open {
  /** Counts openings: a link followed on the same line starts it anew. */
  readonly turn: number;
  readonly id: string;
  /** The part of the address behind #: which formula, and what is entered. */
  readonly link: string;
}
const matches = (f: DeskTitle, words: readonly string[]): boolean => {
  const text = `${f.title} ${f.answers} ${f.formula} ${DESK_GROUPS[f.group]} ${f.id}`.toLowerCase();
  return words.every((w) => text.includes(w));
};

/** One formula: its title and what it answers on a rule; opened, its inputs, results, source and sensitivity. */
function DeskLine({
  formula,
  open,
  onToggle,
}: {
  formula: DeskTitle;
  open: Open | null;
  onToggle: (opening: boolean) => void;
}) {
  const Sign = open ? Minus : Plus;
  return (
    <div id={formula.id} className="scroll-mt-4 border-t border-seam lg:first:border-t-0">
      <h3>
        <button
          type="button"
          aria-expanded={open !== null}
          className="grid min-h-14 w-full grid-cols-[1fr_auto] items-center gap-4 py-2 text-left hover:text-lake"
          onClick={() => onToggle(!open)}
        >
          <span>
            <span className="block font-semibold">{formula.title}</span>
            <span className="block text-sm text-quiet">{formula.answers}</span>
          </span>
          <Sign size={20} aria-hidden />
        </button>
      </h3>
      {open && (
        <Suspense fallback={<p className="pb-5 text-quiet">Opening …</p>}>
          <Working key={open.turn} id={formula.id} link={open.link} />
        </Suspense>
      )}
    </div>
  );
}

/** Every formula as a ruled line that opens into its working. The address carries what is open and entered. */
export function Desk({ lines: all }: { lines: readonly DeskTitle[] }) {
  const [open, setOpen] = useState<Open | null>(null);
  const [search, setSearch] = useState('');
  const field = useRef<HTMLInputElement>(null);
  useEffect(() => {
    const read = () => {
      const id = location.hash.slice(1).split('?')[0]!;
      const found = all.some((f) => f.id === id);
      setOpen((old) => (found ? { id, link: location.hash, turn: (old?.turn ?? 0) + 1 } : null));
      if (found) requestAnimationFrame(() => document.getElementById(id)?.scrollIntoView());
    };
    read();
    addEventListener('hashchange', read);
    const slash = (e: KeyboardEvent) => {
      if (e.key === '/' && !(e.target instanceof HTMLInputElement)) {
        e.preventDefault();
        field.current?.focus();
      }
    };
    addEventListener('keydown', slash);
    const later = setTimeout(() => void load(), 800);
    return () => {
      removeEventListener('hashchange', read);
      removeEventListener('keydown', slash);
      clearTimeout(later);
    };
  }, [all]);
  const groups = useMemo(() => {
    const words = search.toLowerCase().split(/\s+/).filter(Boolean);
    return (Object.keys(DESK_GROUPS) as DeskGroup[])
      .map((key) => ({ key, lines: all.filter((f) => f.group === key && matches(f, words)) }))
      .filter((g) => g.lines.length);
  }, [all, search]);
  return (
    <>
      <h1 className="text-2xl font-bold">Desk</h1>
      <p className="mt-2">
        <Link
          prefetch={false}
          href="/desk/trace"
          className="inline-flex min-h-11 items-center text-lake underline"
        >
          A trace explained: paste times and pressures
        </Link>
      </p>
      <p className="mt-1 max-w-2xl">
        Quick figures without a job: every formula that the bench uses. Open a line, change what you like; the
        address of the page carries it. Works without a signal.
      </p>
      <label className="mt-3 block max-w-xl text-sm">
        Find a formula (key /)
        <input
          ref={field}
          type="search"
          value={search}
          onChange={(e) => setSearch(e.target.value)}
          className="mt-1 block min-h-12 w-full border border-edge bg-panel px-3 text-base"
          placeholder="leak rate, trapped air, psi"
        />
      </label>
      {groups.length === 0 && (
        <p className="mt-6">No formula has these words. Try fewer, like “leak” or “hold”.</p>
      )}
      <div className="mt-6 grid gap-8">
        {groups.map(({ key, lines }) => (
          <section
            key={key}
            aria-labelledby={`group-${key}`}
            className="grid gap-x-8 lg:grid-cols-[12rem_1fr]"
          >
            <h2 id={`group-${key}`} className="border-t-2 border-ink pt-2 font-semibold">
              {DESK_GROUPS[key]}
            </h2>
            <div className="min-w-0 border-b border-seam lg:border-t-2 lg:border-t-ink">
              {lines.map((f) => (
                <DeskLine
                  key={f.id}
                  formula={f}
                  open={open?.id === f.id ? open : null}
                  onToggle={(opening) => {
                    history.replaceState(null, '', opening ? `#${f.id}` : location.pathname);
                    setOpen(opening ? { id: f.id, link: `#${f.id}`, turn: 0 } : null);
                  }}
                />
              ))}
            </div>
          </section>
        ))}
      </div>
      <p className="mt-8 max-w-2xl text-sm text-quiet">
        Figures are defaults from published practice; check the edition in force where you work. The Desk
        works figures out; it judges nothing and keeps nothing.
      </p>
    </>
  );
}
