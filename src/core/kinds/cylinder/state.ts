import type { Exact } from '@/core/quantity/exact';

/** What a run was raised with. */
export interface Cylinder {
  readonly visit: number;
  readonly regulator: string;
  readonly regulatorMost: Exact;
  readonly hose: string;
  readonly hoseMost: Exact;
  readonly tied: boolean;
  readonly at: number;
}
export const newCylinders = (): Cylinder[] => [];
