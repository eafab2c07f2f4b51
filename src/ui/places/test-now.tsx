'use client';
import { beforeYou, BEFORE_YOU } from '@/core/trades/before-you';
import { byNeed } from '@/ui/kit/by-need';
import type { TestNow as TestNowFacts } from '@/wire/test-now';
import { Suspense, useEffect, useState } from 'react';
import { BeforeYouFigure } from './before-you-figure';

const loadFacts = () => import('./test-facts').then((m) => m.Facts);
const Facts = byNeed(loadFacts);

/** What stands before you? A picture, two or three facts, a gauge, and the test begins. */
export function TestNow(props: TestNowFacts) {
  const [key, setKey] = useState('');
  const chosen = beforeYou(key);
  // what is asked next comes while one looks
  useEffect(() => void loadFacts().catch(() => undefined), []);
  return chosen ? (
    <Suspense fallback={<p aria-live="polite">Opening …</p>}>
      <Facts key={key} {...props} of={chosen} onBack={() => setKey('')} />
    </Suspense>
  ) : (
    <ul className="mt-3 grid gap-2 sm:grid-cols-2 lg:grid-cols-3" aria-label="What stands before you?">
      {BEFORE_YOU.map((b) => (
        <li key={b.key}>
          <button
            type="button"
            className="flex min-h-20 w-full items-center gap-4 border border-edge bg-panel px-3 py-1 text-left hover:border-ink"
            onClick={() => setKey(b.key)}
          >
            <BeforeYouFigure of={b.key} />
            <span>
              <span className="block font-semibold">{b.title}</span>
              <span className="block text-sm text-quiet">{b.look}</span>
            </span>
          </button>
        </li>
      ))}
    </ul>
  );
}
