import 'server-only';
import type { Tx } from '@/database/client';
import { auditLog } from '@/database/schema';
import { now } from '@/server/now';
import { uuid7 } from '@/wire/uuid7';

/** One line of the organisation's audit log: who did what to which thing. */
export const audit = (
  tx: Tx,
  person: { org: string; person: string },
  what: string,
  subject: string,
  at = now(),
) =>
  tx.insert(auditLog).values({
    org: person.org,
    id: uuid7(at),
    at: new Date(at),
    person: person.person,
    what,
    subject: subject.slice(0, 200),
  });
