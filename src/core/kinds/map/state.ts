import type { FoundEnd, Look } from '@/core/trades/pool/joins';

/** What this run has seen of unseen joins. */
export interface MapState {
  readonly seen: { readonly look: Look; readonly at: number; readonly byName: string }[];
  /** Looks taken back, of this run or of one before, with why. */
  readonly back: { readonly look: string; readonly why: string; readonly byName: string }[];
  readonly found: FoundEnd[];
  /** Ends whose seat was looked at: round, or not. */
  readonly seats: Record<string, boolean>;
}
export const newMap = (): MapState => ({ seen: [], back: [], found: [], seats: {} });
