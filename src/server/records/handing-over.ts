import 'server-only';
import { demand } from '@/server/permission';
import { and, desc, eq, isNull } from 'drizzle-orm';
import { randomBytes } from 'node:crypto';
import { faceOf } from '@/core/record/face';
import { PAPERS, papersOf, type PaperKind, type PaperRef } from '@/core/record/papers';
import { TICKET_COLUMNS, ticketLines } from '@/core/record/ticket';
import { inOrganisation } from '@/database/client';
import { outbox, prints, publicLinks, seals } from '@/database/schema';
import { audit } from '@/server/audit';
import { now } from '@/server/now';
import type { Session } from '@/server/session/session';
import { notHere, TroubleError } from '@/server/trouble';
import { uuid7 } from '@/wire/uuid7';
import { recordOf } from './records';

/**
 * Puts a message with papers of a record into the stand-in outbox: nothing leaves this machine. Asked twice with one id
 * it is sent once. @throws TroubleError for a paper the record does not call for
 */
export async function sendPapers(
  session: Session,
  run: string,
  message: { id: string; to: string; note: string; papers: readonly PaperKind[] },
): Promise<{ id: string }> {
  const record = await recordOf(session, run);
  const face = faceOf(record.body);
  const offered = new Set<PaperKind>(['certificate', ...papersOf(face).map((p) => p.kind)]);
  const wrong = message.papers.find((p) => !offered.has(p));
  if (wrong)
    throw new TroubleError(
      422,
      'no-paper',
      `This record does not call for that paper: ${PAPERS[wrong]}.`,
      'papers',
    );
  const papers = message.papers.map((form): PaperRef => ({ run, number: record.seal.number, form }));
  const names = message.papers.map((p) => (p === 'certificate' ? face.title : PAPERS[p]));
  const subject = `${record.seal.number}: ${face.plan.site.name}, ${face.plan.system.name}`;
  const body = [
    ...(message.note.trim() ? [message.note.trim(), ''] : []),
    `${face.body.verdict.label}. ${face.body.verdict.plain}`,
    ...record.markWords,
    '',
    `With this: ${names.join('; ')}.`,
    face.plan.organisation.name,
  ].join('\n');
  return inOrganisation(session, async (tx) => {
    await tx
      .insert(outbox)
      .values({
        org: session.org,
        id: message.id,
        at: new Date(now()),
        by: session.name,
        to: message.to,
        subject,
        body,
        papers,
      })
      .onConflictDoNothing();
    await audit(tx, session, 'sent to the simulated outbox', subject);
    return { id: message.id };
  });
}

/**
 * Gives the narrow ticket to the simulated site printer. What comes out is the strip in words: no line wider than the
 * paper, as a real printer of this kind would cut it.
 * @param origin address under which the public page is found
 */
export async function printTicket(session: Session, run: string, origin: string): Promise<{ id: string }> {
  const record = await recordOf(session, run);
  const face = faceOf(record.body);
  const lines = [
    ...record.markWords.flatMap((m) => [m.toUpperCase()]),
    ...ticketLines(face, record.seal, record.link ? `${origin}/verify/${record.link}` : null),
  ];
  const paper = lines.map((l) => l.slice(0, TICKET_COLUMNS)).join('\n');
  const moment = now();
  const id = uuid7(moment);
  await inOrganisation(session, async (tx) => {
    await tx.insert(prints).values({
      org: session.org,
      id,
      at: new Date(moment),
      by: session.name,
      run,
      number: record.seal.number,
      paper,
    });
    await audit(tx, session, 'printed on the simulated printer', record.seal.number);
  });
  return { id };
}
/** What the simulated printer gave out, newest first. */
export const readPrints = (scope: { org: string }) =>
  inOrganisation(scope, (tx) => tx.select().from(prints).orderBy(desc(prints.at)).limit(50));

export interface PublicLink {
  readonly token: string;
  readonly made: string;
  readonly revoked: string | null;
}
/** Every public link of a record there was, newest first. */
export const linksOf = (scope: { org: string }, run: string): Promise<PublicLink[]> =>
  inOrganisation(scope, async (tx) =>
    (await tx.select().from(publicLinks).where(eq(publicLinks.run, run)).orderBy(desc(publicLinks.made))).map(
      (l) => ({
        token: l.token,
        made: l.made.toISOString(),
        revoked: l.revoked?.toISOString() ?? null,
      }),
    ),
  );
/** Makes a new public link in the place of the old one, or only revokes that. @throws TroubleError 404 */
export async function setPublicLink(
  session: Session,
  run: string,
  act: 'make' | 'revoke',
): Promise<{ token: string | null }> {
  demand(session, 'share');
  return inOrganisation(session, async (tx) => {
    const [sealed] = await tx.select({ number: seals.number }).from(seals).where(eq(seals.run, run));
    if (!sealed) throw notHere('record');
    const moment = new Date(now());
    await tx
      .update(publicLinks)
      .set({ revoked: moment })
      .where(and(eq(publicLinks.run, run), isNull(publicLinks.revoked)));
    const token = act === 'make' ? randomBytes(18).toString('base64url') : null;
    if (token) await tx.insert(publicLinks).values({ org: session.org, run, token, made: moment });
    await audit(tx, session, token ? 'made a public link' : 'revoked a public link', sealed.number);
    return { token };
  });
}
