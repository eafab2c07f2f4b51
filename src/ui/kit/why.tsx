'use client';
import { lazy, Suspense, useState, type ReactNode } from 'react';

export interface WhyFacts {
  readonly title: string;
  readonly formula?: string;
  readonly inputs?: readonly { readonly name: string; readonly value: string }[];
  readonly source: string;
  readonly note?: string;
  readonly text?: string;
}
const load = () => import('./why-card');
const Card = lazy(load);
/** Fetches the card ahead of its first use, so that it opens without a signal too. */
export const prepareWhy = (): Promise<unknown> => load();

export const WHY_TRIGGER =
  'inline text-left underline decoration-dotted decoration-quiet underline-offset-4 hover:decoration-ink';

/** A number or word that can be asked why: tap shows the formula, the inputs and the source. */
export function Why({
  facts,
  children,
  className = '',
}: {
  facts: WhyFacts;
  children: ReactNode;
  className?: string;
}) {
  const [asked, setAsked] = useState(false);
  const closed = (
    <button
      type="button"
      className={`${WHY_TRIGGER} ${className}`}
      aria-haspopup="dialog"
      onClick={() => setAsked(true)}
    >
      {children}
      <span className="sr-only">, why?</span>
    </button>
  );
  if (!asked) return closed;
  return (
    <Suspense fallback={closed}>
      <Card facts={facts} className={className}>
        {children}
      </Card>
    </Suspense>
  );
}
