import 'server-only';
import { eq } from 'drizzle-orm';
import type { LogMapping } from '@/core/gauge-log/mapping';
import { inOrganisation } from '@/database/client';
import { logMappings } from '@/database/schema';
import { now } from '@/server/now';
import type { TableMapping } from '@/wire/bring-in/tables';

const mappingOf = (scope: { org: string }, shape: string): Promise<LogMapping | TableMapping | null> =>
  inOrganisation(scope, async (tx) => {
    const [row] = await tx.select().from(logMappings).where(eq(logMappings.shape, shape));
    return row?.mapping ?? null;
  });
/** How a log of this shape was read the last time; null for a new one. */
export const rememberedMapping = async (
  scope: { org: string },
  shape: string,
): Promise<LogMapping | null> => {
  const mapping = await mappingOf(scope, shape);
  return mapping && 'time' in mapping ? mapping : null;
};
/** How a table with these headings was read the last time, by anybody here. */
export const rememberedTable = async (
  scope: { org: string },
  shape: string,
): Promise<TableMapping | null> => {
  const mapping = await mappingOf(scope, shape);
  return mapping && 'table' in mapping ? mapping : null;
};
export const rememberMapping = (
  scope: { org: string },
  shape: string,
  mapping: LogMapping | TableMapping,
): Promise<void> =>
  inOrganisation(scope, async (tx) => {
    const used = new Date(now());
    await tx
      .insert(logMappings)
      .values({ org: scope.org, shape, mapping, used })
      .onConflictDoUpdate({ target: [logMappings.org, logMappings.shape], set: { mapping, used } });
  });
