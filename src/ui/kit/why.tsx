'use client';
import type { ReactNode } from 'react';
import type { ArticleId } from '@/core/guide/texts';
import { guideOf } from '@/ui/guide/address';
import { Pop } from './pop';

export interface WhyFacts {
  readonly title: string;
  readonly formula?: string;
  readonly inputs?: readonly { readonly name: string; readonly value: string }[];
  readonly source: string;
  readonly note?: string;
  readonly text?: string;
}
const TRIGGER =
  'inline text-left underline decoration-dotted decoration-quiet underline-offset-4 hover:decoration-ink';

/** A number or word that can be asked why: tap shows the formula, the inputs and the source. */
export function Why({
  guide,
  facts,
  children,
  className = '',
}: {
  /** Where the guide explains it: every figure has such a page. */
  guide: ArticleId;
  facts: WhyFacts;
  children: ReactNode;
  className?: string;
}) {
  return (
    <Pop
      className={`${TRIGGER} ${className}`}
      cardClass="max-h-[70dvh] w-[min(26rem,92vw)] overflow-auto p-4 text-base"
      trigger={
        <>
          {children}
          <span className="sr-only">, why?</span>
        </>
      }
    >
      {(close) => (
        <>
          <h3 className="font-semibold">{facts.title}</h3>
          {facts.text && <p className="mt-2">{facts.text}</p>}
          {facts.formula && (
            <p className="figure-narrow mt-2 border-l-4 border-lake pl-3 text-sm leading-relaxed">
              {facts.formula}
            </p>
          )}
          {facts.inputs && facts.inputs.length > 0 && (
            <table className="mt-2 w-full text-sm">
              <tbody>
                {facts.inputs.map((i) => (
                  <tr key={i.name} className="border-t border-seam">
                    <th scope="row" className="py-1 pr-2 text-left font-normal text-quiet">
                      {i.name}
                    </th>
                    <td className="figure-narrow py-1 text-right whitespace-nowrap">{i.value}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          )}
          <p className="mt-3 text-sm text-quiet">
            Source: {facts.source}. Check the edition in force where you work.
          </p>
          {facts.note && <p className="mt-1 text-sm text-quiet">Note: {facts.note}.</p>}
          <p className="mt-3 flex flex-wrap items-center gap-4">
            <button
              type="button"
              onClick={close}
              className="min-h-11 border border-edge px-3 text-sm font-semibold hover:border-ink"
            >
              Close
            </button>
            {/* beside what is open: a hold that runs goes on ringing */}
            <a
              className="inline-flex min-h-11 items-center text-lake underline"
              href={guideOf(guide)}
              target="_blank"
              rel="noreferrer"
            >
              More about it
            </a>
          </p>
        </>
      )}
    </Pop>
  );
}
