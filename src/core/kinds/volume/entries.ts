import { entry, maybeExact } from '@/core/run/field';

export const volumeEntries = {
  volume: entry({ drawn: maybeExact(), before: maybeExact(), after: maybeExact() }),
};
