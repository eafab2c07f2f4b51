import type { System } from '@/core/installation/section';
import type { PartKind } from '@/core/network/catalogue';

/** What a trade brings along: what its installations are made of, and what a first drawing of one is. */
export interface Trade {
  /** Whether an installation is of this trade. */
  readonly has: (system: Pick<System, 'medium' | 'duty'>) => boolean;
  /** The parts most of its installations need, most needed first. */
  readonly palette: readonly PartKind[];
  /** What a first drawing is made of before anybody has looked closer. */
  readonly first: First;
}
export interface First {
  /** What stands on its branches, and what they are called by people who count them; null where nothing does. */
  readonly things: {
    readonly list: 'appliances' | 'loops' | 'surfaces';
    readonly words: readonly string[];
  } | null;
  readonly supplyValve: string;
  readonly owner: string;
  readonly testPoint: string;
  readonly inScope: readonly string[];
  readonly notCovered: readonly string[];
}
