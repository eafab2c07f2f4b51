'use client';
import { Missing } from '@/ui/kit/by-need';
import dynamic from 'next/dynamic';
import { Opening } from './opening';

/**
 * What conducts a run comes after the page; its address stands in the page, so that it is asked for with the first scripts. Where it
 * cannot be had the page says so.
 */
const BenchRoom = dynamic(
  () =>
    import('./open-bench').then(
      (m) => m.BenchRoom,
      () => Missing,
    ),
  { loading: Opening },
);

/** The live run. Opens from this device first, so that it works without a signal. */
export const Bench = ({ run }: { run: string }) => <BenchRoom run={run} />;
