import type { Exact } from '@/core/quantity/exact';

/** One comparison, by the stage it was made in. */
export interface BucketReading {
  readonly visit: number;
  readonly title: string;
  readonly setAt: number;
  read?: {
    readonly at: number;
    readonly pool: Exact;
    readonly bucket: Exact;
    /** Why it says nothing; '' where it does. */
    readonly worthless: string;
    /** m beyond evaporation, hours between, and m3/s where the surface is known. */
    readonly loss: number;
    readonly hours: number;
    readonly rate: number | null;
  };
}
export const newBuckets = (): BucketReading[] => [];
