import type { DatedEntry } from '@/core/instrument/kit';
import type { kitLog } from '@/database/schema';

/** An entry of a thing's log as the core reads it. */
export const datedEntry = (r: typeof kitLog.$inferSelect): DatedEntry => ({
  id: r.id,
  at: r.at.toISOString(),
  by: r.by,
  entry: r.entry,
});
