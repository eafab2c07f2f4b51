import 'server-only';
import { desc, eq } from 'drizzle-orm';
import { inOrganisation } from '@/database/client';
import { outbox } from '@/database/schema';
import { audit } from '@/server/audit';
import { now } from '@/server/now';
import type { Session } from '@/server/session/session';

/** Puts a message into the stand-in outbox: nothing leaves this machine. */
export const sendMessage = (
  session: Session,
  message: { id: string; to: string; subject: string; body: string },
): Promise<{ id: string }> =>
  inOrganisation(session, async (tx) => {
    await tx
      .insert(outbox)
      .values({ org: session.org, at: new Date(now()), by: session.name, ...message })
      .onConflictDoNothing();
    await audit(tx, session, 'sent to the simulated outbox', message.subject);
    return { id: message.id };
  });
/** What was sent, newest first. Invitations stand there for the owner alone: their link lets its reader in. */
export const readOutbox = (scope: Pick<Session, 'org' | 'role'>) =>
  inOrganisation(scope, (tx) =>
    tx
      .select()
      .from(outbox)
      .where(scope.role === 'owner' ? undefined : eq(outbox.ownerOnly, false))
      .orderBy(desc(outbox.at))
      .limit(200),
  );
