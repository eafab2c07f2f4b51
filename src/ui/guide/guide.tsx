'use client';
import type { Topic, TopicKind } from '@/core/guide';
import { wordsOf } from '@/core/guide/typed';
import { ArrowLeft } from 'lucide-react';
import { useEffect, useMemo, useRef, useState } from 'react';
import { type GuideLine, TopicView } from './topic-view';
import { ProcedureList } from './procedure-list';

/** In the order in which somebody reads who knows nothing yet. */
const ORDER: readonly (readonly [TopicKind, string])[] = [
  ['word', 'Words of the trade and of the product'],
  ['why', 'What stands behind a figure'],
  ['formula', 'Formulas and their sources'],
];
const LINK = 'flex min-h-11 items-center py-1 text-lake underline-offset-4 hover:underline';

/** Words, figures, procedures and schools, explained: a list that is searched as one types, and a topic at a time. */
export function Guide({ topics, lines }: { topics: readonly Topic[]; lines: readonly GuideLine[] }) {
  const [id, setId] = useState('');
  const [typed, setTyped] = useState('');
  const main = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const read = () => {
      const said = decodeURIComponent(location.hash.slice(1));
      const asked = said === 'all' ? '' : said;
      setId((before) => {
        if (before !== asked && before) scrollTo(0, 0);
        return asked;
      });
    };
    read();
    addEventListener('hashchange', read);
    return () => removeEventListener('hashchange', read);
  }, []);
  useEffect(() => {
    if (id) main.current?.focus({ preventScroll: true });
  }, [id]);
  const words = useMemo(() => wordsOf(typed), [typed]);
  const shown = topics.filter((t) => words.every((w) => t.text.includes(w)));
  const known =
    !id ||
    id.startsWith('procedure/') ||
    id === 'schools' ||
    id === 'keys' ||
    topics.some((t) => t.id === id);
  return (
    <div className="grid gap-x-10 gap-y-6 lg:grid-cols-[20rem_1fr]">
      <nav aria-label="Topics of the guide" className={id ? 'max-lg:hidden' : ''}>
        {id ? (
          <p className="text-2xl font-bold" aria-hidden>
            Guide
          </p>
        ) : (
          <h1 className="text-2xl font-bold">Guide</h1>
        )}
        <label className="mt-2 block text-sm">
          Find a word, a figure or a formula
          <input
            type="search"
            value={typed}
            onChange={(e) => setTyped(e.target.value)}
            className="mt-1 block min-h-12 w-full border border-edge bg-panel px-3 text-base"
            placeholder="let-by, trapped air"
          />
        </label>
        {words.length === 0 && (
          <ul className="mt-4 border-t-2 border-ink pt-1">
            <li>
              <a className={LINK} href="#schools">
                Where schools differ
              </a>
            </li>
            <li>
              <a className={LINK} href="#keys">
                Keys
              </a>
            </li>
          </ul>
        )}
        {words.length > 0 && shown.length === 0 && (
          <p className="mt-4">Nothing here has these words. Try fewer, like “let-by” or “hold”.</p>
        )}
        <ProcedureList words={words} at={id} />
        {ORDER.map(([kind, title]) => {
          const of = shown.filter((t) => t.kind === kind);
          return (
            of.length > 0 && (
              <section key={kind} className="mt-4 border-t-2 border-ink pt-1">
                <h2 className="font-semibold">{title}</h2>
                <ul>
                  {of.map((t) => (
                    <li key={t.id}>
                      <a className={LINK} href={`#${t.id}`} aria-current={t.id === id ? 'page' : undefined}>
                        {t.title}
                      </a>
                    </li>
                  ))}
                </ul>
              </section>
            )
          );
        })}
      </nav>
      <div ref={main} tabIndex={-1} className="min-w-0 outline-none" data-topic={id}>
        {id && (
          <a className="mb-2 inline-flex min-h-11 items-center gap-2 text-lake lg:hidden" href="#all">
            <ArrowLeft size={20} aria-hidden /> All of the guide
          </a>
        )}
        {id && known && <TopicView id={id} lines={lines} />}
        {!known && <p>The guide has no such topic. Look for it in the list.</p>}
        {!id && (
          <p className="max-w-prose text-quiet max-lg:hidden">
            Every word of the screens, what stands behind each figure, each formula with its source, and each
            procedure as your house works by it. It opens without a signal.
          </p>
        )}
      </div>
    </div>
  );
}
