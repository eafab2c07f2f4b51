import { buttonClass } from '@/ui/kit/button-class';
import { may, type Role } from '@/wire/role';
import Link from 'next/link';
import type { ReactNode } from 'react';

const PLACES = {
  yard: ['/yard', 'Scenarios', 'Yard'],
  questions: ['/yard/questions', 'Questions', 'Questions'],
  shown: ['/yard/shown', 'Why it is so', 'Why it is so'],
  board: ['/yard/board', 'Training', 'Training'],
} as const;
export type YardPlace = keyof typeof PLACES;

/** The head of each page of the Yard: where one is, and the ways to the others. */
export function YardHead({ at, role, children }: { at: YardPlace; role: Role; children: ReactNode }) {
  const places = (Object.keys(PLACES) as YardPlace[]).filter((p) => p !== 'board' || may(role, 'seal'));
  return (
    <>
      <div className="flex flex-wrap items-end justify-between gap-x-4 gap-y-2">
        <h1 className="text-2xl font-bold">{PLACES[at][2]}</h1>
        <nav aria-label="Yard" className="flex flex-wrap gap-2 max-sm:grid max-sm:w-full max-sm:grid-cols-2">
          {places.map((p) => (
            <Link
              key={p}
              prefetch={false}
              href={PLACES[p][0]}
              aria-current={p === at ? 'page' : undefined}
              className={buttonClass(p === at ? 'act' : 'plain')}
            >
              {PLACES[p][1]}
            </Link>
          ))}
        </nav>
      </div>
      <p className="mt-1 max-w-prose text-quiet">{children}</p>
    </>
  );
}
