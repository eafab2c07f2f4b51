import type { Exact } from '@/core/quantity/exact';

/** One run of pipe: bore is the inside diameter, outside is the nominal size that tables go by. */
export interface Pipe {
  readonly id: string;
  readonly name: string;
  readonly material: string;
  readonly size: Exact;
  readonly bore: Exact;
  readonly length: Exact;
  /** Pipe table and size it was taken from; the wall and its material follow from them. */
  readonly table?: string;
  readonly nominal?: string;
  /** What it is rated for, where that is known. */
  readonly rating?: Exact;
}
