'use client';
import { office } from '@/device/office';
import { noteRecent, readRecent } from '@/device/recent';
import { FIND_KINDS, type FindKind, type Found, LEAST_FIND, MOST_FIND } from '@/wire/find';
import type { Identity } from '@/wire/role';
import { Command } from 'cmdk';
import { X } from 'lucide-react';
import { useRouter } from 'next/navigation';
import { useEffect, useEffectEvent, useLayoutEffect, useRef, useState } from 'react';
import { findPages } from './pages';

/** Asked so long after the last letter, ms. */
const AFTER_MS = 150;
type State = 'empty' | 'looking' | 'found' | 'here';

/** Looks in everything as it is typed: from the office, and without a signal in what this device has. */
function useFound(who: Identity, typed: string): { state: State; found: readonly Found[] } {
  const [answer, setAnswer] = useState<{ words: string; found: readonly Found[]; here: boolean } | null>(
    null,
  );
  const words = typed.trim();
  useEffect(() => {
    if (words.length < LEAST_FIND) return;
    const over = new AbortController();
    const look = async () => {
      const asked = `/api/find?${new URLSearchParams({ words })}`;
      try {
        const { found } = await office<{ found: readonly Found[] }>(asked, { signal: over.signal });
        if (!over.signal.aborted) setAnswer({ words, found, here: false });
      } catch {
        if (over.signal.aborted) return;
        const { findHere } = await import('./find-here');
        const found = await findHere(who, words);
        if (!over.signal.aborted) setAnswer({ words, found, here: true });
      }
    };
    const timer = setTimeout(() => void look(), AFTER_MS);
    return () => {
      clearTimeout(timer);
      over.abort();
    };
  }, [words, who]);
  if (words.length < LEAST_FIND) return { state: 'empty', found: [] };
  // what was found for fewer letters stands until the next answer
  const found = [...(answer?.found ?? []), ...findPages(words, who.role)];
  return { state: answer?.words !== words ? 'looking' : answer.here ? 'here' : 'found', found };
}

const valueOf = (f: Found) => `${f.kind} ${f.href} ${f.title}`;
const kindsOf = (found: readonly Found[]) =>
  (Object.keys(FIND_KINDS) as FindKind[]).filter((k) => found.some((f) => f.kind === k));

/** @param early what was typed before it was there  @param onThere its field takes what is typed */
export function Palette({
  who,
  early,
  onThere,
  close,
}: {
  who: Identity;
  early: string;
  onThere: () => void;
  close: () => void;
}) {
  const [typed, setTyped] = useState(early.slice(0, MOST_FIND));
  const router = useRouter();
  const { state, found } = useFound(who, typed);
  const [recent] = useState(() => readRecent(who));
  const [at, setAt] = useState('');
  const box = useRef<HTMLDialogElement>(null);
  const there = useEffectEvent(onThere);
  // the browser's own: it keeps the focus inside, and Escape closes it
  useLayoutEffect(() => {
    if (!box.current?.open) box.current?.showModal();
    there();
  }, []);
  const go = (f: Found) => {
    noteRecent(who, f);
    box.current?.close();
    // a topic of the guide is named behind #: the page may stand already, or open without a signal
    if (f.href.includes('#') || !navigator.onLine) location.assign(f.href);
    else router.push(f.href);
  };
  const shown = state === 'empty' ? (recent.length ? recent : findPages('', who.role).slice(0, 8)) : found;
  const kinds = kindsOf(shown);
  const [first] = kinds;
  const best = first && valueOf(shown.find((f) => f.kind === first)!);
  // with each answer the first of it is what Enter opens
  useEffect(() => setAt(best ?? ''), [best]);
  const item = (f: Found) => (
    <Command.Item
      key={valueOf(f)}
      value={valueOf(f)}
      onSelect={() => go(f)}
      className="grid min-h-12 cursor-pointer content-center border-l-4 border-transparent px-3 py-1 data-[selected=true]:border-lake data-[selected=true]:bg-ground"
    >
      <span className="font-semibold">{f.title}</span>
      {f.about && <span className="line-clamp-1 text-sm text-quiet">{f.about}</span>}
    </Command.Item>
  );
  return (
    <dialog
      ref={box}
      aria-label="Find anything"
      onClose={close}
      {...{ closedby: 'any' }}
      className="fixed inset-x-0 top-0 m-0 mx-auto flex max-h-dvh w-full max-w-none flex-col border-b border-ink bg-panel p-0 text-ink backdrop:bg-[#0008] sm:top-[10dvh] sm:max-h-[75dvh] sm:w-[min(40rem,92vw)] sm:border"
    >
      <Command
        shouldFilter={false}
        loop
        label="Find anything"
        value={at}
        onValueChange={setAt}
        className="flex min-h-0 flex-col"
      >
        <div className="flex items-center border-b border-seam">
          <Command.Input
            value={typed}
            onValueChange={(t) => setTyped(t.slice(0, MOST_FIND))}
            placeholder="Place, customer, serial, record, word …"
            className="min-h-14 min-w-0 flex-1 bg-panel px-4 text-lg outline-none"
          />
          <button
            type="button"
            aria-label="Close the search"
            onClick={() => box.current?.close()}
            className="grid size-14 place-items-center hover:text-lake"
          >
            <X size={22} aria-hidden />
          </button>
        </div>
        <Command.List className="min-h-0 overflow-y-auto pb-3" data-found={state}>
          {state === 'here' && (
            <p className="px-4 pt-3 text-sm text-ochre">No signal: only what this device took along.</p>
          )}
          {(state === 'found' || state === 'here') && found.length === 0 && (
            <p className="px-4 pt-3" role="status">
              Nothing has all of these words. Try fewer, or part of a number.
            </p>
          )}
          {state === 'empty' && recent.length > 0 ? (
            <Command.Group heading="Opened last" className={GROUP}>
              {recent.map(item)}
            </Command.Group>
          ) : (
            kinds.map((kind) => (
              <Command.Group key={kind} heading={FIND_KINDS[kind]} className={GROUP}>
                {shown.filter((f) => f.kind === kind).map(item)}
              </Command.Group>
            ))
          )}
        </Command.List>
      </Command>
    </dialog>
  );
}
const GROUP =
  '[&_[cmdk-group-heading]]:px-4 [&_[cmdk-group-heading]]:pt-3 [&_[cmdk-group-heading]]:pb-1 [&_[cmdk-group-heading]]:text-sm [&_[cmdk-group-heading]]:text-quiet';
