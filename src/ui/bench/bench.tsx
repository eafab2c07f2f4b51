'use client';
import dynamic from 'next/dynamic';
import { orMissing } from '@/ui/kit/by-need';
import { Opening } from './opening';

const BenchRoom = dynamic(() => orMissing(import('./open-bench').then((m) => m.BenchRoom)), {
  loading: Opening,
});

/** The live run. Opens from this device first, so that it works without a signal; its script is asked for with the first. */
export const Bench = ({ run }: { run: string }) => <BenchRoom run={run} />;
