import 'server-only';
import { createHmac, timingSafeEqual } from 'node:crypto';
import { isIP } from 'node:net';
import {
  type AuthenticationResponseJSON,
  generateAuthenticationOptions,
  generateRegistrationOptions,
  type RegistrationResponseJSON,
  verifyAuthenticationResponse,
  verifyRegistrationResponse,
} from '@simplewebauthn/server';
import { and, desc, eq, isNull } from 'drizzle-orm';
import { cookies } from 'next/headers';
import { inOrganisation, lookUp } from '@/database/client';
import { passkeys, people } from '@/database/schema';
import { audit } from '@/server/audit';
import { takeTurn } from '@/server/limits';
import { now } from '@/server/now';
import { demand } from '@/server/permission';
import { isId, notHere, TroubleError } from '@/server/trouble';
import { uuid7 } from '@/wire/uuid7';
import { openSession, type From, type Session, type SignedIn } from './session';

const CHALLENGE_COOKIE = 'vast_challenge';
const LIVES_MS = 5 * 60_000;

/** Under which name and address a passkey is made and used. @throws TroubleError where the address has no name */
function party(request: Request): { rpID: string; origin: string } {
  const own = new URL(process.env.VAST_URL ?? request.url);
  if (!isIP(own.hostname.replace(/[[\]]/g, ''))) return { rpID: own.hostname, origin: own.origin };
  // at home on a bare address: the machine's own name is the one that browsers take
  const host = request.headers.get('host') ?? '';
  if (host.split(':')[0] === 'localhost') return { rpID: 'localhost', origin: `http://${host}` };
  throw new TroubleError(
    409,
    'no-name',
    `Passkeys need an address with a name; ${own.hostname} is only a number. On this machine open http://localhost${own.port ? `:${own.port}` : ''}; for others give Vast Stone a name (VAST_URL).`,
  );
}

const sign = (text: string): string =>
  createHmac('sha256', process.env.VAST_SECRET ?? '')
    .update(`challenge\n${text}`)
    .digest('base64url');

/** Keeps a challenge with the browser that asked for it, for this purpose and some minutes. */
async function give(request: Request, challenge: string, purpose: string): Promise<void> {
  const text = `${challenge}.${now() + LIVES_MS}.${purpose}`;
  (await cookies()).set(CHALLENGE_COOKIE, `${text}.${sign(text)}`, {
    httpOnly: true,
    sameSite: 'strict',
    secure: party(request).origin.startsWith('https:'),
    path: '/',
    maxAge: LIVES_MS / 1000,
  });
}
const STALE = () =>
  new TroubleError(409, 'challenge', 'This took too long or was answered already. Try once more.');
/** The challenge this browser was given; it serves no second time. @throws TroubleError */
async function take(purpose: string): Promise<string> {
  const jar = await cookies();
  const [challenge, until, said, mac] = (jar.get(CHALLENGE_COOKIE)?.value ?? '').split('.');
  jar.delete(CHALLENGE_COOKIE);
  const wanted = Buffer.from(sign(`${challenge}.${until}.${said}`));
  const came = Buffer.from(mac ?? '');
  const moment = now();
  if (
    !challenge ||
    said !== purpose ||
    came.length !== wanted.length ||
    !timingSafeEqual(came, wanted) ||
    Number(until) < moment ||
    // each serves once, whichever server is asked
    !(await takeTurn(`challenge ${challenge}`, 1, LIVES_MS))
  )
    throw STALE();
  return challenge;
}

export interface PasskeyRow {
  readonly id: string;
  readonly name: string;
  readonly made: string;
  readonly used: string | null;
}
/** The passkeys of somebody, the newest first. Of others only the owner asks. @throws TroubleError 403 */
export async function passkeysOf(session: Session, person = session.person): Promise<PasskeyRow[]> {
  if (person !== session.person) demand(session, 'govern');
  if (!isId(person)) throw notHere('person');
  const rows = await inOrganisation(session, (tx) =>
    tx
      .select()
      .from(passkeys)
      .where(and(eq(passkeys.person, person), isNull(passkeys.ended)))
      .orderBy(desc(passkeys.made)),
  );
  return rows.map(({ id, name, made, used }) => ({
    id,
    name,
    made: made.toISOString(),
    used: used?.toISOString() ?? null,
  }));
}

/** What a browser needs to make a passkey for who is signed in. */
export async function beginPasskey(session: Session, request: Request) {
  const { rpID } = party(request);
  const { email, had } = await inOrganisation(session, async (tx) => ({
    email: (await tx.select({ email: people.email }).from(people).where(eq(people.id, session.person)))[0]!
      .email,
    had: await tx
      .select({ id: passkeys.credential })
      .from(passkeys)
      .where(and(eq(passkeys.person, session.person), isNull(passkeys.ended))),
  }));
  const options = await generateRegistrationOptions({
    rpName: 'Vast Stone',
    rpID,
    userName: email,
    userDisplayName: session.name,
    userID: new TextEncoder().encode(session.person),
    excludeCredentials: had,
    authenticatorSelection: { residentKey: 'required', userVerification: 'required' },
  });
  await give(request, options.challenge, `make ${session.person}`);
  return options;
}
/** Keeps the passkey that a browser made. @throws TroubleError 409, 422 */
export async function keepPasskey(
  session: Session,
  request: Request,
  said: { readonly name: string; readonly response: RegistrationResponseJSON },
): Promise<{ id: string }> {
  const { rpID, origin } = party(request);
  const challenge = await take(`make ${session.person}`);
  const made = await verifyRegistrationResponse({
    response: said.response,
    expectedChallenge: challenge,
    expectedOrigin: origin,
    expectedRPID: rpID,
    requireUserVerification: true,
  }).catch(() => null);
  if (!made?.verified)
    throw new TroubleError(422, 'passkey', 'The passkey could not be checked. Try once more.');
  const { credential } = made.registrationInfo;
  const moment = now();
  const id = uuid7(moment);
  await inOrganisation(session, async (tx) => {
    const kept = await tx
      .insert(passkeys)
      .values({
        org: session.org,
        id,
        person: session.person,
        credential: credential.id,
        publicKey: Buffer.from(credential.publicKey),
        counter: credential.counter,
        name: said.name.trim(),
        made: new Date(moment),
      })
      .onConflictDoNothing()
      .returning({ id: passkeys.id });
    if (!kept.length) throw new TroubleError(409, 'known', 'This passkey is known already.');
    await audit(tx, session, 'made a passkey', said.name.trim(), moment);
  });
  return { id };
}
/** Ends a passkey: one's own, or as the owner anybody's. @throws TroubleError 403, 404 */
export async function endPasskey(session: Session, id: string): Promise<void> {
  if (!isId(id)) throw notHere('passkey');
  await inOrganisation(session, async (tx) => {
    const [row] = await tx
      .select({ person: passkeys.person, name: passkeys.name })
      .from(passkeys)
      .where(and(eq(passkeys.id, id), isNull(passkeys.ended)));
    if (!row) throw notHere('passkey');
    if (row.person !== session.person) demand(session, 'govern');
    await tx
      .update(passkeys)
      .set({ ended: new Date(now()) })
      .where(eq(passkeys.id, id));
    await audit(tx, session, 'ended a passkey', row.name);
  });
}

/** What a browser needs to sign somebody in: whose passkey it is, the passkey says. */
export async function beginSignIn(request: Request) {
  const options = await generateAuthenticationOptions({
    rpID: party(request).rpID,
    userVerification: 'required',
  });
  await give(request, options.challenge, 'sign-in');
  return options;
}
/** Signs in by a passkey. @throws TroubleError 401 */
export async function signInByPasskey(
  request: Request,
  response: AuthenticationResponseJSON,
  from: From,
): Promise<SignedIn> {
  const { rpID, origin } = party(request);
  const challenge = await take('sign-in');
  const [found] = await lookUp<{
    org: string;
    id: string;
    person: string;
    public_key: Buffer;
    counter: string;
  }>('find_passkey($1)', [String(response.id).slice(0, 2000)]);
  const answer =
    found &&
    (await verifyAuthenticationResponse({
      response,
      expectedChallenge: challenge,
      expectedOrigin: origin,
      expectedRPID: rpID,
      requireUserVerification: true,
      credential: {
        id: response.id,
        publicKey: new Uint8Array(found.public_key),
        counter: Number(found.counter),
      },
    }).catch(() => null));
  if (!found || !answer?.verified)
    throw new TroubleError(
      401,
      'passkey',
      'This passkey is not known here any more. Sign in by e-mail and password, then make a new one.',
    );
  await inOrganisation(found, (tx) =>
    tx
      .update(passkeys)
      .set({ counter: answer.authenticationInfo.newCounter, used: new Date(now()) })
      .where(eq(passkeys.id, found.id)),
  );
  return openSession({ org: found.org, person: found.person }, from, 'signed in by passkey');
}
