'use client';
import Link from 'next/link';
import { Button } from '@/ui/kit/button';
import { buttonClass } from '@/ui/kit/button-class';

/** A designed state for when something is missing or away: what happened, and what to do next. */
export function Trouble({
  title,
  text,
  number,
  again,
}: {
  title: string;
  text: string;
  /** Under which it stands in the server's log. */
  number?: string;
  again?: () => void;
}) {
  return (
    <section className="mx-auto max-w-xl px-4 py-16" role="alert">
      <h1 className="text-2xl font-bold">{title}</h1>
      <p className="mt-3">{text}</p>
      {number && (
        <p className="mt-3 text-quiet">
          If it goes on, tell whoever keeps the server this number: <span className="figure">{number}</span>
        </p>
      )}
      <div className="mt-6 flex flex-wrap gap-3">
        {again && (
          <Button tone="act" onClick={again}>
            Try again
          </Button>
        )}
        <Link prefetch={false} className={buttonClass('plain')} href="/today">
          Go to Today
        </Link>
      </div>
    </section>
  );
}
