'use client';
import { type ArticleId, ARTICLES, DIFFERENCES, GUIDE_WORDS, type GuideWordId } from '@/core/guide/texts';
import type { DeskTitle } from '@/core/desk/types';
import { byNeed } from '@/ui/kit/by-need';
import { KEYS } from '@/ui/kit/keys';
import Link from 'next/link';
import { Suspense } from 'react';

/** A formula as the guide shows it: not how it is worked out, but what it says and where it is from. */
export type GuideLine = DeskTitle & { readonly source: string; readonly note: string };
const ProcedureTopic = byNeed(() => import('./procedure-topic').then((m) => m.ProcedureTopic));

function Formula({ line, heading: Heading = 'h2' }: { line: GuideLine; heading?: 'h2' | 'h3' }) {
  return (
    <section className="border-t border-seam pt-3" aria-label={line.title}>
      <Heading className="font-semibold">{line.title}</Heading>
      <p className="text-sm text-quiet">{line.answers}</p>
      <p className="figure-narrow mt-2 border-l-4 border-lake pl-3 leading-relaxed">{line.formula}</p>
      <p className="mt-2 text-sm text-quiet">
        Source: {line.source}. Check the edition in force where you work.
        {line.note && <> Note: {line.note}.</>}
      </p>
      <Link
        prefetch={false}
        className="inline-flex min-h-11 items-center text-lake underline"
        href={`/desk#${line.id}`}
      >
        Work it out on the Desk
      </Link>
    </section>
  );
}
const WordList = ({ ids }: { ids: readonly string[] }) =>
  ids.length > 0 && (
    <section>
      <h2 className="font-semibold">Words</h2>
      <ul className="mt-1 flex flex-wrap gap-x-5">
        {ids.map((id) => (
          <li key={id}>
            <a className="inline-flex min-h-11 items-center text-lake underline" href={`#word/${id}`}>
              {GUIDE_WORDS[id as GuideWordId].term}
            </a>
          </li>
        ))}
      </ul>
    </section>
  );

/** One topic of the guide, whole. @returns null for what there is not */
export function TopicView({ id, lines }: { id: string; lines: readonly GuideLine[] }) {
  const [kind, name = '', ...rest] = id.split('/');
  if (kind === 'procedure')
    return (
      <Suspense fallback={<p aria-live="polite">Opening …</p>}>
        <ProcedureTopic pack={name} procedure={rest[0] ?? ''} stage={rest[1]} />
      </Suspense>
    );
  if (kind === 'why' && Object.hasOwn(ARTICLES, name)) {
    const article = ARTICLES[name as ArticleId];
    return (
      <article className="grid gap-4">
        <h1 className="text-2xl font-bold">{article.title}</h1>
        {article.text.map((t) => (
          <p key={t} className="max-w-prose">
            {t}
          </p>
        ))}
        {article.desk.map((d) => {
          const line = lines.find((l) => l.id === d);
          return line && <Formula key={d} line={line} />;
        })}
        <WordList ids={article.words ?? []} />
      </article>
    );
  }
  if (kind === 'word' && Object.hasOwn(GUIDE_WORDS, name)) {
    const word = GUIDE_WORDS[name as GuideWordId];
    const used = (Object.keys(ARTICLES) as ArticleId[]).filter((a) => ARTICLES[a].words?.includes(name));
    return (
      <article className="grid gap-4">
        <h1 className="text-2xl font-bold">{word.term}</h1>
        <p className="max-w-prose">{word.text}</p>
        {used.length > 0 && (
          <ul>
            {used.map((a) => (
              <li key={a}>
                <a className="inline-flex min-h-11 items-center text-lake underline" href={`#why/${a}`}>
                  {ARTICLES[a].title}
                </a>
              </li>
            ))}
          </ul>
        )}
      </article>
    );
  }
  const line = kind === 'formula' ? lines.find((l) => l.id === name) : undefined;
  if (line)
    return (
      <article className="grid gap-4">
        <h1 className="text-2xl font-bold">{line.title}</h1>
        <Formula line={line} />
        {(Object.keys(ARTICLES) as ArticleId[])
          .filter((a) => ARTICLES[a].desk.includes(line.id))
          .map((a) => (
            <a key={a} className="inline-flex min-h-11 items-center text-lake underline" href={`#why/${a}`}>
              {ARTICLES[a].title}
            </a>
          ))}
      </article>
    );
  if (kind === 'schools')
    return (
      <article>
        <h1 className="text-2xl font-bold">Where schools differ</h1>
        <p className="mt-1 max-w-prose text-quiet">
          Each stands in a rule pack, where a house may choose otherwise; what permits more prints its reason.
        </p>
        <dl className="mt-4">
          {DIFFERENCES.map((d) => (
            <div key={d.question} className="grid gap-x-6 border-t border-seam py-3 sm:grid-cols-[15rem_1fr]">
              <dt className="font-semibold">{d.question}</dt>
              <dd>
                <span className="text-quiet">{d.ways.join('; ')}.</span>
                <span className="mt-1 block">{d.here}</span>
              </dd>
            </div>
          ))}
        </dl>
      </article>
    );
  if (kind === 'keys')
    return (
      <article>
        <h1 className="text-2xl font-bold">Keys</h1>
        {KEYS.map(({ where, keys }) => (
          <section key={where} className="mt-4">
            <h2 className="font-semibold">{where}</h2>
            <dl className="mt-1">
              {keys.map(([key, does]) => (
                <div key={key} className="grid grid-cols-[9rem_1fr] gap-4 border-t border-seam py-2">
                  <dt className="figure">{key}</dt>
                  <dd>{does}</dd>
                </div>
              ))}
            </dl>
          </section>
        ))}
      </article>
    );
  return null;
}
