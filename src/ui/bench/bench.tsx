'use client';
import { byNeed } from '@/ui/kit/by-need';
import { Suspense } from 'react';

// asked for at once, so that it comes while the page is still being made to work
const room = typeof window === 'undefined' ? null : import('./open-bench');
room?.catch(() => undefined);
const BenchRoom = byNeed(async () => (await (room ?? import('./open-bench'))).BenchRoom);

/** The live run. Opens from this device first, so that it works without a signal; what conducts it comes after the page. */
export function Bench({ run }: { run: string }) {
  return (
    <Suspense
      fallback={
        <p className="p-8 text-lg" aria-live="polite">
          Opening the run …
        </p>
      }
    >
      <BenchRoom run={run} />
    </Suspense>
  );
}
