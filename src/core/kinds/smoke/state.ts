import type { Exact } from '@/core/quantity/exact';
import type { Place, Present, Size } from './entries';

export interface SmokeFinding {
  readonly id: string;
  readonly place: Place;
  readonly where: string;
  readonly size?: Size;
  readonly at: number;
  readonly byName: string;
  sealed?: { readonly by: string; readonly means: string; readonly at: number; readonly flow?: Exact };
}
/** One search. */
export interface Search {
  readonly visit: number;
  /** By what, where no machine was there. */
  without?: string;
  /** When the machine was switched on for it, ms. */
  onAt?: number;
  readonly findings: SmokeFinding[];
  over?: {
    readonly at: number;
    readonly next: 'again' | 'later';
    readonly installer: Present;
    readonly fee: string;
  };
}
export interface SmokeState {
  /** The machine warms up by itself, whatever else is done. */
  onAt: number | null;
  readonly searches: Search[];
}
export const newSmoke = (): SmokeState => ({ onAt: null, searches: [] });
