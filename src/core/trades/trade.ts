import type { System } from '@/core/installation/section';
import type { PartKind } from '@/core/network/catalogue';

/** What a trade brings along: what its installations are made of, and how its source is called. */
export interface Trade {
  readonly title: string;
  /** Whether an installation is of this trade. */
  readonly has: (system: Pick<System, 'medium' | 'duty'>) => boolean;
  /** The parts most of its installations need, most needed first. */
  readonly palette: readonly PartKind[];
  /** Where it is fed from, where nothing more is known. */
  readonly source: string;
}
