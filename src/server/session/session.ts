import 'server-only';
import { verify } from '@node-rs/argon2';
import { randomBytes } from 'node:crypto';
import { and, eq, isNull } from 'drizzle-orm';
import { cookies } from 'next/headers';
import { redirect } from 'next/navigation';
import { cache } from 'react';
import { inOrganisation, lookUp } from '@/database/client';
import { organisations, people, sessions } from '@/database/schema';
import { audit } from '@/server/audit';
import { digest } from '@/server/digest';
import { now } from '@/server/now';
import { TroubleError } from '@/server/trouble';
import { uuid7 } from '@/wire/uuid7';
import type { Identity } from '@/wire/role';
import { hashPassword } from './password';

export const COOKIE = 'vast_session';
const LIVES_MS = 14 * 24 * 3600_000;
/** Sign-in attempts that may fail in the window before the address has to wait. */
const ATTEMPTS = 5;
const WINDOW_MS = 15 * 60_000;
/** Compared against when nobody has the address, so that both answers take as long. */
const NOBODY = hashPassword(randomBytes(16).toString('hex'));

export interface Session extends Identity {
  readonly session: string;
  readonly licence: { readonly number: string; readonly until: string } | null;
}

/**
 * Signs a person in. @returns the token for the cookie
 * @throws TroubleError 401 without saying which part was wrong, 429 after too many failures
 */
export async function signIn(
  email: string,
  password: string,
  device: string,
): Promise<{ token: string; expires: number }> {
  const key = email.toLowerCase();
  const moment = now();
  // counted and noted in one step: many at once are not tried on one count
  const [attempt] = await lookUp<{
    allowed: boolean;
    org: string | null;
    id: string | null;
    password_hash: string | null;
  }>('try_sign_in($1, $2, $3, $4)', [key, new Date(moment), new Date(moment - WINDOW_MS), ATTEMPTS]);
  if (!attempt?.allowed)
    throw new TroubleError(
      429,
      'too-many',
      'Too many failed sign-ins for this address. Wait a quarter of an hour, then try again.',
    );
  const { org, id: own, password_hash: hash } = attempt;
  const matches = await verify(hash ?? (await NOBODY), password);
  if (!org || !own || !matches)
    throw new TroubleError(401, 'wrong', 'E-mail or password is not right. Check both and try again.');
  const person = { org, id: own };
  await lookUp('forget_attempts($1)', [key]);
  const token = randomBytes(32).toString('base64url');
  const expires = moment + LIVES_MS;
  await inOrganisation(person, async (tx) => {
    const id = uuid7(moment);
    await tx.insert(sessions).values({
      org: person.org,
      id,
      person: person.id,
      tokenHash: digest(token),
      made: new Date(moment),
      expires: new Date(expires),
      device: device.slice(0, 200),
    });
    await audit(tx, { org: person.org, person: person.id }, 'signed in', id, moment);
  });
  return { token, expires };
}

/** The session of a token, or null when there is none, it ran out or was revoked. */
export async function sessionOf(token: string | undefined): Promise<Session | null> {
  if (!token) return null;
  const [found] = await lookUp<{ org: string; id: string; person: string }>('find_session($1, $2)', [
    digest(token),
    new Date(now()),
  ]);
  if (!found) return null;
  const [row] = await inOrganisation(found, (tx) =>
    tx
      .select({
        name: people.name,
        role: people.role,
        number: people.licenceNumber,
        until: people.licenceUntil,
        organisation: organisations.name,
      })
      .from(people)
      .innerJoin(organisations, eq(organisations.org, people.org))
      .where(eq(people.id, found.person)),
  );
  if (!row) return null;
  const { name, role, organisation, number, until } = row;
  return {
    session: found.id,
    org: found.org,
    person: found.person,
    name,
    role,
    organisation,
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
