import 'server-only';
import { verify } from '@node-rs/argon2';
import { randomBytes } from 'node:crypto';
import { and, desc, eq, gt, inArray, isNull, sql } from 'drizzle-orm';
import { cookies } from 'next/headers';
import { redirect } from 'next/navigation';
import { cache } from 'react';
import { usageOf } from '@/core/quantity/usage';
import { inOrganisation, lookUp } from '@/database/client';
import { knownDevices, organisations, people, sessions } from '@/database/schema';
import { audit } from '@/server/audit';
import { digest } from '@/server/digest';
import { now } from '@/server/now';
import { demand } from '@/server/permission';
import { isId, notHere, TroubleError } from '@/server/trouble';
import { uuid7 } from '@/wire/uuid7';
import type { Identity } from '@/wire/role';
import { hashPassword } from './password';

export const COOKIE = 'vast_session';
/** The cookie of a device on which somebody signed in before. */
export const DEVICE_COOKIE = 'vast_device';
const DAY_MS = 24 * 3600_000;
/** A sign-in lasts so long at most, and so long without being used. */
const LIVES_MS = 30 * DAY_MS;
const IDLE_MS = 14 * DAY_MS;
/** The last use is noted so often. */
const NOTED_MS = 3600_000;
/** Sign-in attempts that may fail in the window before the address, or the device known for it, has to wait. */
const ATTEMPTS = 5;
/** The same for one client, whatever addresses it tries: a firm behind one connection still signs in. House figure. */
const ATTEMPTS_CLIENT = 50;
const WINDOW_MS = 15 * 60_000;
/** So many devices are remembered for a person. */
const DEVICES = 12;
/** Compared against when nobody has the address, so that both answers take as long. */
const NOBODY = hashPassword(randomBytes(16).toString('hex'));

export interface Session extends Identity {
  readonly session: string;
  readonly licence: { readonly number: string; readonly until: string } | null;
}

/** From where somebody signs in. */
export interface From {
  /** What the browser calls itself. */
  readonly device: string;
  /** The token of the device cookie, where there is one. */
  readonly known?: string | undefined;
  /** The network address as the server sees it; '' where it cannot. */
  readonly client?: string;
}
export interface SignedIn {
  readonly token: string;
  readonly expires: number;
  /** For the device cookie: here this person has signed in. */
  readonly known: string;
}
/**
 * Signs a person in by password.
 * @throws TroubleError 401 without saying which part was wrong, 429 after too many failures
 */
export async function signIn(
  email: string,
  password: string,
  from: From = { device: '' },
): Promise<SignedIn> {
  const client = from.client ?? '';
  const moment = now();
  // counted and noted in one step: many at once are not tried on one count
  const [attempt] = await lookUp<{
    allowed: boolean;
    counted: string;
    org: string | null;
    id: string | null;
    password_hash: string | null;
  }>('try_sign_in($1, $2, $3, $4, $5, $6, $7)', [
    email,
    from.known ? digest(from.known) : '',
    client,
    new Date(moment),
    new Date(moment - WINDOW_MS),
    ATTEMPTS,
    ATTEMPTS_CLIENT,
  ]);
  if (!attempt?.allowed)
    throw new TroubleError(
      429,
      'too-many',
      'Too many failed sign-ins for this address or from this connection. Wait a quarter of an hour, then try again.',
    );
  const { org, id, password_hash: hash } = attempt;
  const matches = await verify(hash ?? (await NOBODY), password);
  if (!org || !id || !matches)
    throw new TroubleError(401, 'wrong', 'E-mail or password is not right. Check both and try again.');
  await lookUp('forget_attempts($1, $2, $3)', [attempt.counted, client, new Date(moment)]);
  return openSession({ org, person: id }, from, 'signed in');
}

/** Opens a session for somebody who has shown who they are, and remembers the device for them. */
export async function openSession(
  who: { readonly org: string; readonly person: string },
  from: From,
  how: string,
): Promise<SignedIn> {
  const moment = now();
  const token = randomBytes(32).toString('base64url');
  const known = from.known ?? randomBytes(24).toString('base64url');
  const expires = moment + LIVES_MS;
  await inOrganisation(who, async (tx) => {
    const id = uuid7(moment);
    await tx.insert(sessions).values({
      ...who,
      id,
      tokenHash: digest(token),
      made: new Date(moment),
      used: new Date(moment),
      expires: new Date(expires),
      device: from.device.slice(0, 200),
    });
    await tx
      .insert(knownDevices)
      .values({ ...who, tokenHash: digest(known), made: new Date(moment) })
      .onConflictDoNothing();
    const mine = await tx
      .select({ tokenHash: knownDevices.tokenHash })
      .from(knownDevices)
      .where(eq(knownDevices.person, who.person))
      .orderBy(desc(knownDevices.made));
    const old = mine.slice(DEVICES).map((d) => d.tokenHash);
    if (old.length)
      await tx
        .delete(knownDevices)
        .where(and(eq(knownDevices.person, who.person), inArray(knownDevices.tokenHash, old)));
    await audit(tx, who, how, id, moment);
  });
  return { token, expires, known };
}

/** The session of a token, or null when there is none, it ran out or was revoked. */
export async function sessionOf(token: string | undefined): Promise<Session | null> {
  if (!token) return null;
  const moment = now();
  const [found] = await lookUp<{ org: string; id: string; person: string; used: Date }>(
    'find_session($1, $2, $3)',
    [digest(token), new Date(moment), new Date(moment - IDLE_MS)],
  );
  if (!found) return null;
  const [row] = await inOrganisation(found, async (tx) => {
    if (moment - found.used.getTime() > NOTED_MS)
      await tx
        .update(sessions)
        .set({ used: new Date(moment) })
        .where(eq(sessions.id, found.id));
    return tx
      .select({
        name: people.name,
        role: people.role,
        number: people.licenceNumber,
        until: people.licenceUntil,
        organisation: organisations.name,
        house: organisations.usage,
        own: people.usage,
      })
      .from(people)
      .innerJoin(organisations, eq(organisations.org, people.org))
      .where(eq(people.id, found.person));
  });
  if (!row) return null;
  const { name, role, organisation, number, until, house, own } = row;
  return {
    session: found.id,
    org: found.org,
    person: found.person,
    name,
    role,
    organisation,
    usage: usageOf(house, own),
    licence: number && until ? { number, until } : null,
  };
}

/** The session of the present request; asked once per request however many components need it. */
export const currentSession = cache(async (): Promise<Session | null> =>
  sessionOf((await cookies()).get(COOKIE)?.value),
);

/** The session of a page's request; without one the person is led to the sign-in. */
export async function requireSession(): Promise<Session> {
  return (await currentSession()) ?? redirect('/sign-in');
}

/** Revokes one session, or every session of the person. */
export async function revoke(session: Session, all: boolean): Promise<void> {
  await inOrganisation(session, (tx) =>
    tx
      .update(sessions)
      .set({ revoked: new Date(now()) })
      .where(
        and(
          eq(sessions.person, session.person),
          isNull(sessions.revoked),
          ...(all ? [] : [eq(sessions.id, session.session)]),
        ),
      ),
  );
}

export interface OpenSession {
  readonly id: string;
  readonly device: string;
  readonly made: string;
  readonly used: string;
}
/** Where somebody is signed in now, the last used first. Of others only the owner asks. @throws TroubleError 403 */
export async function sessionsOf(session: Session, person = session.person): Promise<OpenSession[]> {
  if (person !== session.person) demand(session, 'govern');
  if (!isId(person)) throw notHere('person');
  const moment = now();
  const rows = await inOrganisation(session, (tx) =>
    tx
      .select()
      .from(sessions)
      .where(
        and(
          eq(sessions.person, person),
          isNull(sessions.revoked),
          gt(sessions.expires, new Date(moment)),
          gt(sql`coalesce(${sessions.used}, ${sessions.made})`, new Date(moment - IDLE_MS)),
        ),
      )
      .orderBy(desc(sql`coalesce(${sessions.used}, ${sessions.made})`)),
  );
  return rows.map((r) => ({
    id: r.id,
    device: r.device,
    made: r.made.toISOString(),
    used: (r.used ?? r.made).toISOString(),
  }));
}
/** Ends one sign-in: one's own, or as the owner anybody's. @throws TroubleError 403, 404 */
export async function endSession(session: Session, id: string): Promise<void> {
  if (!isId(id)) throw notHere('sign-in');
  await inOrganisation(session, async (tx) => {
    const [row] = await tx
      .select({ person: sessions.person })
      .from(sessions)
      .where(and(eq(sessions.id, id), isNull(sessions.revoked)));
    if (!row) throw notHere('sign-in');
    if (row.person !== session.person) demand(session, 'govern');
    await tx
      .update(sessions)
      .set({ revoked: new Date(now()) })
      .where(eq(sessions.id, id));
    await audit(tx, session, 'ended a sign-in', id);
  });
}
