import { entry, exactSchema, isTrue, maybeExact } from '@/core/run/field';

export const zeroEntries = {
  zero: entry({ figure: exactSchema, openToAir: isTrue() }),
  /** An absolute gauge, open to air: what it shows, or that it is over its range. */
  'at-air': entry({ figure: maybeExact(), over: isTrue().optional() }),
};
