'use client';
import { useEffect, useMemo, useRef, useState } from 'react';
import { DESK_LINES } from '@/core/desk';
import { DESK_GROUPS, type DeskFormula, type DeskGroup } from '@/core/desk/types';
import { readDeskLink, type Entry } from '@/core/desk/work';
import { DeskLine } from './line';

interface Open {
  /** Counts openings: a link followed on the same line starts it anew. */
  readonly turn: number;
  readonly formula: DeskFormula;
  readonly entries: Record<string, Entry>;
  readonly choices: Record<string, string>;
}
const matches = (f: DeskFormula, words: readonly string[]): boolean => {
  const text = `${f.title} ${f.answers} ${f.formula} ${DESK_GROUPS[f.group]} ${f.id}`.toLowerCase();
  return words.every((w) => text.includes(w));
};

/** Every formula as a ruled line that opens into its working. The address carries what is open and entered. */
export function Desk() {
  const [open, setOpen] = useState<Open | null>(null);
  const [search, setSearch] = useState('');
  const field = useRef<HTMLInputElement>(null);
  useEffect(() => {
    const read = () => {
      const found = readDeskLink(DESK_LINES, location.hash);
      setOpen((old) => found && { ...found, turn: (old?.turn ?? 0) + 1 });
      if (found) requestAnimationFrame(() => document.getElementById(found.formula.id)?.scrollIntoView());
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
    return () => {
      removeEventListener('hashchange', read);
      removeEventListener('keydown', slash);
    };
  }, []);
  const groups = useMemo(() => {
    const words = search.toLowerCase().split(/\s+/).filter(Boolean);
    return (Object.keys(DESK_GROUPS) as DeskGroup[])
      .map((key) => ({ key, lines: DESK_LINES.filter((f) => f.group === key && matches(f, words)) }))
      .filter((g) => g.lines.length);
  }, [search]);
  return (
    <>
      <h1 className="text-2xl font-bold">Desk</h1>
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
                  open={open?.formula.id === f.id ? open : null}
                  onToggle={(opening) => {
                    history.replaceState(null, '', opening ? `#${f.id}` : location.pathname);
                    setOpen(opening ? { formula: f, entries: {}, choices: {}, turn: 0 } : null);
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
