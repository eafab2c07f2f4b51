import 'server-only';
import { demand } from '@/server/permission';
import { randomBytes } from 'node:crypto';
import { and, eq, isNull } from 'drizzle-orm';
import { faceWords } from '@/core/record/face-words';
import { expectation } from '@/core/run/read';
import { reduce } from '@/core/run/reduce';
import type { RunEvent } from '@/core/run/events';
import { inOrganisation, lookUp } from '@/database/client';
import { organisations, people, signatureLinks } from '@/database/schema';
import { audit } from '@/server/audit';
import { digest } from '@/server/digest';
import { now } from '@/server/now';
import type { Session } from '@/server/session/session';
import { TroubleError } from '@/server/trouble';
import type { LinkSignature, SignatureLinkRequest } from '@/wire/signatures';
import { uuid7 } from '@/wire/uuid7';
import { appendEvents } from './log';
import { eventsOf, planOf } from './read-log';

/** A link to sign is for now, not for next week. House figure. */
const LIVES_HOURS = 48;

/**
 * Makes a link by which a customer or witness signs on a device of their own. One for each role and name: a new one ends
 * the one before. The token is answered once. @throws TroubleError
 */
export async function makeSignatureLink(
  session: Session,
  run: string,
  said: SignatureLinkRequest,
): Promise<{ token: string }> {
  demand(session, 'run');
  const token = randomBytes(18).toString('base64url');
  const moment = now();
  await inOrganisation(session, async (tx) => {
    const plan = await planOf(tx, run);
    const state = reduce(plan, await eventsOf(tx, run));
    if (state.phase !== 'signing' && state.phase !== 'signed')
      throw new TroubleError(
        409,
        'phase',
        'There is nothing to sign yet: end the test and clear the list first.',
      );
    if (!state.signatures.some((s) => s.role === 'tester'))
      throw new TroubleError(409, 'tester', 'The tester signs first.');
    await tx
      .update(signatureLinks)
      .set({ ended: new Date(moment) })
      .where(
        and(eq(signatureLinks.run, run), eq(signatureLinks.role, said.role), isNull(signatureLinks.ended)),
      );
    await tx.insert(signatureLinks).values({
      org: session.org,
      id: uuid7(moment),
      run,
      role: said.role,
      name: said.name.trim(),
      tokenHash: digest(token),
      made: new Date(moment),
      madeBy: session.person,
      expires: new Date(moment + LIVES_HOURS * 3_600_000),
    });
    await audit(tx, session, `made a link to sign as ${said.role}`, `${plan.site.name}: ${plan.system.name}`);
  });
  return { token };
}

const NOT_OPEN = 'This link to sign is not open any more. Ask the tester for a new one.';
async function linkOf(token: string): Promise<{ org: string; id: string }> {
  const [found] = /^[A-Za-z0-9_-]{20,40}$/.test(token)
    ? await lookUp<{ org: string; id: string }>('find_signature_link($1, $2)', [
        digest(token),
        new Date(now()),
      ])
    : [];
  if (!found) throw new TroubleError(404, 'link', NOT_OPEN);
  return found;
}
/** What stands before who signs: the result in plain words, what it does not cover, and as whom they sign. */
export async function readSignatureLink(token: string) {
  const link = await linkOf(token);
  return inOrganisation(link, async (tx) => {
    const [row] = await tx.select().from(signatureLinks).where(eq(signatureLinks.id, link.id));
    const [firm] = await tx.select({ name: organisations.name }).from(organisations);
    const plan = await planOf(tx, row!.run);
    const state = reduce(plan, await eventsOf(tx, row!.run));
    return {
      role: row!.role,
      name: row!.name,
      firm: firm!.name,
      practice: plan.practice,
      ...faceWords(plan, state),
    };
  });
}
/** Takes the signature, or the refusal, into the run's log in the name of whoever made the link. Works once. */
export async function signByLink(token: string, said: LinkSignature): Promise<void> {
  const link = await linkOf(token);
  const { row, maker, plan, expects } = await inOrganisation(link, async (tx) => {
    const [row] = await tx.select().from(signatureLinks).where(eq(signatureLinks.id, link.id));
    const [maker] = await tx.select().from(people).where(eq(people.id, row!.madeBy));
    const plan = await planOf(tx, row!.run);
    return {
      row: row!,
      maker: maker!,
      plan,
      expects: expectation(reduce(plan, await eventsOf(tx, row!.run))),
    };
  });
  if (row.role === 'witness' && (!said.as?.trim() || !said.saw))
    throw new TroubleError(422, 'witness', 'Say in what office you were there, and what you saw.', 'as');
  const moment = now();
  const event = {
    kind: 'signature',
    role: row.role,
    name: said.name.trim(),
    ...(said.strokes ? { strokes: said.strokes } : {}),
    ...(said.refused?.trim() ? { refused: said.refused.trim() } : {}),
    ...(row.role === 'witness' ? { as: said.as!.trim(), saw: said.saw! } : {}),
    via: 'link',
    // the link stands for the device: one entry, made on the server's clock
    id: link.id,
    run: row.run,
    device: link.id,
    deviceSeq: 1,
    at: moment,
    zone: plan.made.zone,
    offset: 0,
    mono: 0,
    pageLoad: link.id,
    by: row.madeBy,
    byName: maker.name,
    expects,
  } as RunEvent;
  const refused = await inOrganisation(link, async (tx) => {
    const log = await eventsOf(tx, row.run);
    return reduce(plan, [...log, event]).withoutEffect.find((w) => w.id === event.id)?.text;
  });
  if (refused) throw new TroubleError(409, 'refused', refused);
  await appendEvents({ org: link.org, person: row.madeBy, role: maker.role }, row.run, [event]);
  await inOrganisation(link, (tx) =>
    tx
      .update(signatureLinks)
      .set({ ended: new Date(now()) })
      .where(and(eq(signatureLinks.id, link.id), isNull(signatureLinks.ended))),
  );
}
