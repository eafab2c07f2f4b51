import 'server-only';
import { randomBytes } from 'node:crypto';
import { and, desc, eq } from 'drizzle-orm';
import { anchorLine } from '@/core/record/anchor';
import { recordNumber } from '@/core/record/seal';
import { localDate } from '@/core/quantity/local-date';
import { inOrganisation, lookUp, type Tx } from '@/database/client';
import { anchors, counters, organisations, outbox, seals } from '@/database/schema';
import { audit } from '@/server/audit';
import { now } from '@/server/now';
import { demand } from '@/server/permission';
import type { Session } from '@/server/session/session';
import { notHere } from '@/server/trouble';
import { uuid7 } from '@/wire/uuid7';
import { signingSecret } from './keys';

/** Records, not practice: what a certificate's number counts. */
const SERIES = 'record' as const;
const day = (ms: number): string => localDate(ms, 'UTC');

/**
 * Makes the anchor of the last day on which something was sealed, once that day is over: the head of the chain has stood
 * still since, so it is the head of that day's end whenever it is asked for. Sent where somebody wants it sent.
 * Called before anything new is sealed, and by the pages of the house.
 */
export async function anchorDue(tx: Tx, org: string, moment = now()): Promise<void> {
  const [counter] = await tx.select().from(counters).where(eq(counters.series, SERIES));
  if (!counter?.last) return;
  const [head] = await tx
    .select({ number: seals.number, hash: seals.hash, at: seals.sealedAt, elsewhere: seals.broughtIn })
    .from(seals)
    .where(and(eq(seals.series, SERIES), eq(seals.number, recordNumber(SERIES, counter.last))));
  if (!head) return;
  // what came with a whole organisation was not sealed here: the day it came is the first that can be told
  const of = day((head.elsewhere ?? head.at).getTime());
  if (of >= day(moment)) return;
  const [there] = await tx.select({ day: anchors.day }).from(anchors).where(eq(anchors.day, of));
  if (there) return;
  const line = anchorLine({ day: of, number: head.number, hash: head.hash }, await signingSecret(tx));
  const made = await tx
    .insert(anchors)
    .values({ org, day: of, number: head.number, line, made: new Date(moment) })
    .onConflictDoNothing()
    .returning({ day: anchors.day });
  if (!made.length) return;
  const [office] = await tx.select().from(organisations);
  if (!office?.anchorTo) return;
  await tx.insert(outbox).values({
    org,
    id: uuid7(moment),
    at: new Date(moment),
    by: 'Vast Stone',
    to: office.anchorTo,
    subject: `Anchor of ${office.name}, ${of}`,
    body: `Keep this line. By it anybody can see later whether the records up to ${head.number} were written anew:\n\n${line}\n\nHow: on the page “Check a file”, or with the command verify and --anchor.`,
  });
}
/** The same outside of a seal, for the pages of the house. */
export const keepAnchored = (scope: { org: string }): Promise<void> =>
  inOrganisation(scope, (tx) => anchorDue(tx, scope.org));

export interface AnchorRow {
  readonly day: string;
  readonly number: string;
  readonly line: string;
}
export interface Anchors {
  readonly name: string;
  readonly lines: readonly AnchorRow[];
  /** Whom each is sent to, and the public address; '' for none. */
  readonly to: string;
  readonly token: string;
}
/** The anchors of an organisation, the newest first, with the one that is due. */
export async function readAnchors(scope: { org: string }, most = 60): Promise<Anchors> {
  return inOrganisation(scope, async (tx) => {
    await anchorDue(tx, scope.org);
    const lines = await tx.select().from(anchors).orderBy(desc(anchors.day)).limit(most);
    const [office] = await tx.select().from(organisations);
    return {
      name: office!.name,
      lines: lines.map(({ day: of, number, line }) => ({ day: of, number, line })),
      to: office!.anchorTo,
      token: office!.anchorToken ?? '',
    };
  });
}
/** The anchors at a public address. @throws TroubleError 404 */
export async function publicAnchors(token: string): Promise<Anchors> {
  const [found] = /^[A-Za-z0-9_-]{20,40}$/.test(token)
    ? await lookUp<{ org: string }>('find_anchors($1)', [token])
    : [];
  if (!found) throw notHere('list of anchors');
  return readAnchors(found);
}
/** Says whom each anchor is sent to, and whether they stand at a public address. A new address ends the old one. */
export async function setAnchors(
  session: Session,
  said: { readonly to: string; readonly published: boolean },
): Promise<{ token: string }> {
  demand(session, 'govern');
  return inOrganisation(session, async (tx) => {
    const [office] = await tx.select().from(organisations);
    const token = said.published ? (office!.anchorToken ?? randomBytes(18).toString('base64url')) : null;
    await tx.update(organisations).set({ anchorTo: said.to.trim(), anchorToken: token });
    await audit(
      tx,
      session,
      'set the daily anchor',
      [said.to.trim() && `sent to ${said.to.trim()}`, said.published && 'published']
        .filter(Boolean)
        .join(', ') || 'kept in the house',
    );
    return { token: token ?? '' };
  });
}
