'use client';
import { byNeed } from '@/ui/kit/by-need';
import { Suspense } from 'react';
import { Opening } from './opening';

const load = () => import('./open-bench').then((m) => m.BenchRoom);
// asked for at once, so that it comes while the page is still being made to work
if (typeof window !== 'undefined') load().catch(() => undefined);
const BenchRoom = byNeed(load);

/** The live run. Opens from this device first, so that it works without a signal; what conducts it comes after the page. */
export const Bench = ({ run }: { run: string }) => (
  <Suspense fallback={<Opening />}>
    <BenchRoom run={run} />
  </Suspense>
);
