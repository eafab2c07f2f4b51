import type { Exact } from '@/core/quantity/exact';
import type { Clarity } from '@/core/trades/pool/listen';
import type { Evidence } from './entries';

export interface ListenState {
  run: { readonly name: string; readonly length: Exact; readonly compressor: string } | null;
  readonly spots: {
    readonly along: Exact;
    readonly loud: number;
    readonly clear: Clarity;
    readonly near: string;
    readonly byName: string;
  }[];
  /** The photo behind it, where one was taken. */
  picture: {
    readonly photo: string;
    readonly from: readonly number[];
    readonly to: readonly number[];
  } | null;
  readonly evidence: Partial<
    Record<Evidence, { readonly says: 'agrees' | 'against' | 'unknown'; readonly text: string }>
  >;
}
export const newListen = (): ListenState => ({ run: null, spots: [], picture: null, evidence: {} });
