import 'server-only';
import { eq } from 'drizzle-orm';
import type { LogMapping } from '@/core/gauge-log/mapping';
import { inOrganisation } from '@/database/client';
import { logMappings } from '@/database/schema';
import { now } from '@/server/now';

/** How a log of this shape was read the last time; null for a new one. */
export const rememberedMapping = (scope: { org: string }, shape: string): Promise<LogMapping | null> =>
  inOrganisation(scope, async (tx) => {
    const [row] = await tx.select().from(logMappings).where(eq(logMappings.shape, shape));
    return row && 'time' in row.mapping ? row.mapping : null;
  });
export const rememberMapping = (scope: { org: string }, shape: string, mapping: LogMapping): Promise<void> =>
  inOrganisation(scope, async (tx) => {
    const used = new Date(now());
    await tx
      .insert(logMappings)
      .values({ org: scope.org, shape, mapping, used })
      .onConflictDoUpdate({ target: [logMappings.org, logMappings.shape], set: { mapping, used } });
  });
