import type { ReactNode } from 'react';

/** A part of a record under the question it answers: closed on the screen, open on paper. */
export const Fold = ({ title, children }: { title: string; children: ReactNode }) => (
  <details className="group border-t border-seam last:border-b">
    <summary className="flex min-h-12 cursor-pointer items-center gap-3 text-lg font-semibold">
      <span aria-hidden className="figure w-4 text-quiet group-open:rotate-90">
        ›
      </span>
      <h2>{title}</h2>
    </summary>
    <div className="grid grid-cols-[minmax(0,1fr)] gap-5 pt-1 pb-5 sm:pl-7">{children}</div>
  </details>
);
