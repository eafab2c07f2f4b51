import 'server-only';
import { eq } from 'drizzle-orm';
import { type Usage, usageOf, type Wishes } from '@/core/quantity/usage';
import { inOrganisation } from '@/database/client';
import { organisations, people } from '@/database/schema';
import { audit } from '@/server/audit';
import { demand } from '@/server/permission';
import type { Session } from '@/server/session/session';

export interface UsageHere {
  readonly organisation: Wishes;
  readonly own: Wishes;
}
/** What the organisation is used to, and what of it this person is used to otherwise. */
export const usageHere = (session: Session): Promise<UsageHere> =>
  inOrganisation(session, async (tx) => {
    const [row] = await tx
      .select({ organisation: organisations.usage, own: people.usage })
      .from(people)
      .innerJoin(organisations, eq(organisations.org, people.org))
      .where(eq(people.id, session.person));
    return row!;
  });
/** How an organisation's papers, and the pages that customers open, tell figures, days and times. */
export const houseUsage = (scope: { readonly org: string }): Promise<Usage> =>
  inOrganisation(scope, async (tx) => {
    const [row] = await tx.select({ usage: organisations.usage }).from(organisations);
    return usageOf(row?.usage ?? {}, {});
  });
/** A person's own wishes, taken as they are given. */
export const saveOwnUsage = (session: Session, usage: Wishes): Promise<unknown> =>
  inOrganisation(session, (tx) => tx.update(people).set({ usage }).where(eq(people.id, session.person)));
/** What all its people are used to where they wish nothing else. @throws TroubleError 403 */
export function saveHouseUsage(session: Session, usage: Wishes): Promise<void> {
  demand(session, 'govern');
  return inOrganisation(session, async (tx) => {
    await tx.update(organisations).set({ usage });
    await audit(tx, session, 'changed its units, days and times', JSON.stringify(usage));
  });
}
