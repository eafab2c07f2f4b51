import { inOrganisation } from '@/database/client';
import { yardActs } from '@/database/schema';
import { and, eq, sql } from 'drizzle-orm';
import 'server-only';

/** Time that was passed at once in a practice run, ms; 0 in any other. */
export const passedOf = (scope: { org: string }, run: string): Promise<number> =>
  inOrganisation(scope, async (tx) => {
    const [row] = await tx
      .select({ ms: sql<string | null>`sum((${yardActs.body} ->> 'ms')::bigint)` })
      .from(yardActs)
      .where(and(eq(yardActs.run, run), sql`${yardActs.body} ->> 'kind' = 'passed'`));
    return Number(row?.ms ?? 0);
  });
