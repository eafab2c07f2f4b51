import 'server-only';
import { demand } from '@/server/permission';
import { randomBytes } from 'node:crypto';
import { and, asc, desc, eq, inArray, isNull, lt, ne, or } from 'drizzle-orm';
import { inOrganisation, lookUp, type Tx } from '@/database/client';
import {
  auditLog,
  invitations,
  knownDevices,
  organisations,
  passkeys,
  outbox,
  people,
  runs,
  sessions,
  sites,
  systems,
  watches,
  signatureLinks,
} from '@/database/schema';
import { audit } from '@/server/audit';
import { digest } from '@/server/digest';
import { viewerDay } from '@/server/session/zone';
import { now } from '@/server/now';
import { hashPassword } from '@/server/session/password';
import type { Session } from '@/server/session/session';
import { isId, notHere, TroubleError } from '@/server/trouble';
import type { InvitationRow, Invite, PersonForm, PersonRow } from '@/wire/people';
import type { Role } from '@/wire/role';
import { passwordTrouble } from '@/wire/password';
import { uuid7 } from '@/wire/uuid7';

const INVITATION_DAYS = 14;

/** Who is in the organisation now, by name. */
export const listMembers = (scope: { org: string }): Promise<{ id: string; name: string; role: Role }[]> =>
  inOrganisation(scope, (tx) =>
    tx
      .select({ id: people.id, name: people.name, role: people.role })
      .from(people)
      .where(isNull(people.left))
      .orderBy(asc(people.name)),
  );

/** People and open invitations. */
export const readPeople = (scope: {
  org: string;
}): Promise<{ people: PersonRow[]; invitations: InvitationRow[]; name: string; contact: string }> =>
  inOrganisation(scope, async (tx) => {
    const rows = await tx.select().from(people).orderBy(asc(people.name));
    const open = await tx
      .select()
      .from(invitations)
      .where(isNull(invitations.ended))
      .orderBy(desc(invitations.made));
    const [own] = await tx.select().from(organisations);
    const day = await viewerDay();
    return {
      name: own!.name,
      contact: own!.contact,
      people: rows.map((p) => ({
        id: p.id,
        name: p.name,
        email: p.email,
        role: p.role,
        licenceNumber: p.licenceNumber ?? '',
        licenceUntil: p.licenceUntil ?? '',
        licenceOver: !!p.licenceUntil && p.licenceUntil < day,
        left: p.left?.toISOString() ?? null,
      })),
      invitations: open
        .filter((i) => i.expires.getTime() > now())
        .map((i) => ({
          id: i.id,
          name: i.name,
          email: i.email,
          role: i.role,
          expires: i.expires.toISOString(),
        })),
    };
  });

/**
 * Invites somebody, or lets a member choose a new password. The link is shown once and stands in the outbox; only its
 * hash is kept. @throws TroubleError
 */
export async function invite(session: Session, said: Invite, origin: string): Promise<{ link: string }> {
  demand(session, 'govern');
  const email = said.email.toLowerCase();
  const token = randomBytes(24).toString('base64url');
  const moment = now();
  const link = `${origin}/join/${token}`;
  const [taken] = await lookUp<{ id: string }>('find_person($1)', [email]);
  if (taken && taken.id !== said.person)
    throw new TroubleError(
      409,
      'taken',
      'Somebody signs in with this address already. Use another one.',
      'email',
    );
  await inOrganisation(session, async (tx) => {
    if (said.person) {
      const [member] = await tx
        .select({ id: people.id })
        .from(people)
        .where(and(eq(people.id, said.person), isNull(people.left)));
      if (!member) throw notHere('person');
    }
    await tx.insert(invitations).values({
      org: session.org,
      id: said.id,
      person: said.person,
      name: said.name.trim(),
      email,
      role: said.role,
      tokenHash: digest(token),
      made: new Date(moment),
      madeBy: session.name,
      expires: new Date(moment + INVITATION_DAYS * 86_400_000),
    });
    await tx.insert(outbox).values({
      org: session.org,
      id: uuid7(moment),
      at: new Date(moment),
      by: session.name,
      to: email,
      subject: said.person
        ? `A new password for ${session.organisation}`
        : `Invitation to ${session.organisation}`,
      ownerOnly: true,
      body: `${said.name.trim()}: open ${link} within ${INVITATION_DAYS} days and choose a password.`,
    });
    await audit(
      tx,
      session,
      said.person ? 'offered a new password' : `invited as ${said.role}`,
      email,
      moment,
    );
  });
  return { link };
}
export async function withdrawInvitation(session: Session, id: string): Promise<void> {
  demand(session, 'govern');
  await inOrganisation(session, async (tx) => {
    const gone = isId(id)
      ? await tx
          .update(invitations)
          .set({ ended: new Date(now()) })
          .where(and(eq(invitations.id, id), isNull(invitations.ended)))
          .returning({ email: invitations.email })
      : [];
    if (!gone.length) throw notHere('invitation');
    await audit(tx, session, 'withdrew an invitation', gone[0]!.email);
  });
}

const NOT_OPEN = 'This invitation is not open any more. Ask for a new one.';
async function openInvitation(token: string): Promise<{ org: string; id: string }> {
  const [found] = /^[A-Za-z0-9_-]{20,60}$/.test(token)
    ? await lookUp<{ org: string; id: string }>('find_invitation($1, $2)', [digest(token), new Date(now())])
    : [];
  if (!found) throw new TroubleError(404, 'link', NOT_OPEN);
  return found;
}
/** Who is invited to what, for the page behind the link. @throws TroubleError 404 */
export async function readInvitation(
  token: string,
): Promise<{ name: string; email: string; role: Role; organisation: string; again: boolean }> {
  const found = await openInvitation(token);
  return inOrganisation(found, async (tx) => {
    const [row] = await tx.select().from(invitations).where(eq(invitations.id, found.id));
    const [own] = await tx.select({ name: organisations.name }).from(organisations);
    return {
      name: row!.name,
      email: row!.email,
      role: row!.role,
      organisation: own!.name,
      again: row!.person !== null,
    };
  });
}
/** Takes an invitation up with a password of one's own. Works once. @returns the address to sign in with */
export async function join(token: string, password: string): Promise<{ email: string }> {
  const found = await openInvitation(token);
  const passwordHash = await hashPassword(password);
  const moment = new Date(now());
  return inOrganisation(found, async (tx) => {
    const [row] = await tx
      .update(invitations)
      .set({ ended: moment })
      .where(and(eq(invitations.id, found.id), isNull(invitations.ended)))
      .returning();
    if (!row) throw new TroubleError(404, 'link', NOT_OPEN);
    const weak = passwordTrouble(password, row.email);
    if (weak) throw new TroubleError(422, 'password', `Password: it ${weak}.`, 'password');
    // one that was used ends every other to the same person: an old one is no second way in
    await endLinks(tx, row.person, row.email);
    const person = row.person ?? uuid7(now());
    if (row.person) {
      await tx
        .update(people)
        .set({ passwordHash, email: row.email, left: null })
        .where(eq(people.id, row.person));
      await endSessions(tx, row.person);
    } else
      await tx.insert(people).values({
        org: found.org,
        id: person,
        name: row.name,
        email: row.email,
        role: row.role,
        passwordHash,
      });
    await audit(tx, { org: found.org, person }, row.person ? 'chose a new password' : 'joined', row.email);
    return { email: row.email };
  });
}
/** Nobody goes on as this person: sign-ins end, and no device is known for them any more. */
async function endSessions(tx: Tx, person: string): Promise<void> {
  await tx
    .update(sessions)
    .set({ revoked: new Date(now()) })
    .where(and(eq(sessions.person, person), isNull(sessions.revoked)));
  await tx.delete(knownDevices).where(eq(knownDevices.person, person));
}

/** No link stays open that lets a person in. */
async function endLinks(tx: Tx, person: string | null, email: string): Promise<void> {
  const ended = new Date(now());
  await tx
    .update(invitations)
    .set({ ended })
    .where(
      and(
        isNull(invitations.ended),
        person
          ? or(eq(invitations.person, person), eq(invitations.email, email))
          : eq(invitations.email, email),
      ),
    );
}

/**
 * Changes role and licence, or says that somebody has left: sessions end, records keep the name.
 * @throws TroubleError 409 where nobody would be owner any more
 */
export async function changePerson(session: Session, id: string, form: PersonForm): Promise<void> {
  demand(session, 'govern');
  if (!isId(id)) throw notHere('person');
  await inOrganisation(session, async (tx) => {
    const [row] = await tx.select().from(people).where(eq(people.id, id)).for('update');
    if (!row) throw notHere('person');
    if (row.role === 'owner' && (form.role !== 'owner' || form.left)) {
      const others = await tx
        .select({ id: people.id })
        .from(people)
        .where(and(eq(people.role, 'owner'), ne(people.id, id), isNull(people.left)));
      if (!others.length)
        throw new TroubleError(
          409,
          'last-owner',
          'Somebody must be owner. Make another person owner first.',
          form.left ? 'left' : 'role',
        );
    }
    if (Boolean(form.licenceNumber.trim()) !== Boolean(form.licenceUntil))
      throw new TroubleError(
        422,
        'licence',
        'A licence needs its number and the day it runs out.',
        form.licenceNumber.trim() ? 'licenceUntil' : 'licenceNumber',
      );
    await tx
      .update(people)
      .set({
        name: form.name.trim(),
        role: form.role,
        licenceNumber: form.licenceNumber.trim() || null,
        licenceUntil: form.licenceUntil || null,
        left: form.left ? (row.left ?? new Date(now())) : null,
      })
      .where(eq(people.id, id));
    // a role is asked for at every request, but who left must be out at once, and a new role starts anew
    if (form.left || form.role !== row.role) await endSessions(tx, id);
    if (form.left) {
      await endLinks(tx, id, row.email);
      await tx
        .update(passkeys)
        .set({ ended: new Date(now()) })
        .where(and(eq(passkeys.person, id), isNull(passkeys.ended)));
      await tx
        .update(signatureLinks)
        .set({ ended: new Date(now()) })
        .where(and(isNull(signatureLinks.ended), eq(signatureLinks.madeBy, id)));
    }
    const changes = [
      ...(row.name === form.name.trim() ? [] : [`name ${row.name} to ${form.name.trim()}`]),
      ...(row.role === form.role ? [] : [`role ${row.role} to ${form.role}`]),
      ...(row.licenceUntil === (form.licenceUntil || null) &&
      row.licenceNumber === (form.licenceNumber.trim() || null)
        ? []
        : ['licence']),
      ...(Boolean(row.left) === form.left ? [] : [form.left ? 'left' : 'came back']),
    ];
    if (changes.length) await audit(tx, session, `changed person: ${changes.join(', ')}`, form.name.trim());
  });
}
export async function changeOrganisation(
  session: Session,
  said: { name: string; contact: string },
): Promise<void> {
  demand(session, 'govern');
  await inOrganisation(session, async (tx) => {
    await tx
      .update(organisations)
      .set({ name: said.name.trim(), contact: said.contact.trim() })
      .where(eq(organisations.org, session.org));
    await audit(tx, session, 'changed the organisation', said.name.trim());
  });
}

export interface AuditLine {
  readonly id: string;
  readonly at: string;
  readonly who: string;
  readonly what: string;
  readonly subject: string;
  /** When the line came with a whole organisation; null for what was done here. */
  readonly broughtIn: string | null;
}
/** What a browser says of its device, as far as a person cares. */
const deviceWords = (agent: string): string => {
  const system = /iPhone|iPad|Android|Windows|Macintosh|Linux/.exec(agent)?.[0];
  return system ? `on ${system === 'Macintosh' ? 'a Mac' : system}` : '';
};
/** The audit log, newest first. @param before id of the last line shown @throws TroubleError 403 for anyone but the owner */
export async function readAudit(session: Session, before?: string, most = 200): Promise<AuditLine[]> {
  demand(session, 'govern');
  return inOrganisation(session, async (tx) => {
    const rows = await tx
      .select({ line: auditLog, who: people.name })
      .from(auditLog)
      .leftJoin(people, eq(people.id, auditLog.person))
      .where(before && isId(before) ? lt(auditLog.id, before) : undefined)
      .orderBy(desc(auditLog.id))
      .limit(most);
    // what was named by its id alone is shown as a person knows it
    const ids = rows.map(({ line }) => line.subject).filter(isId);
    const places = tx.select({ id: runs.id, site: sites.name, system: systems.name }).from(runs);
    const named = await places
      .innerJoin(sites, eq(sites.id, runs.site))
      .innerJoin(systems, eq(systems.id, runs.system))
      .where(inArray(runs.id, ids));
    const watched = await tx
      .select({ id: watches.id, site: sites.name, system: systems.name })
      .from(watches)
      .innerJoin(systems, eq(systems.id, watches.system))
      .innerJoin(sites, eq(sites.id, systems.site))
      .where(inArray(watches.id, ids));
    const devices = await tx
      .select({ id: sessions.id, device: sessions.device })
      .from(sessions)
      .where(inArray(sessions.id, ids));
    const words = new Map<string, string>([
      ...[...named, ...watched].map((n) => [n.id, `${n.site}: ${n.system}`] as const),
      ...devices.map((d) => [d.id, deviceWords(d.device)] as const),
    ]);
    return rows.map(({ line, who }) => ({
      id: line.id,
      at: line.at.toISOString(),
      who: who ?? 'the system',
      what: line.what,
      broughtIn: line.broughtIn?.toISOString() ?? null,
      subject: isId(line.subject) ? (words.get(line.subject) ?? '') : line.subject,
    }));
  });
}
