import 'server-only';
import { cookies } from 'next/headers';
import type { Identity } from '@/wire/role';
import { COOKIE, DEVICE_COOKIE, sessionOf, type SignedIn } from './session';

const KNOWN_MS = 400 * 24 * 3600_000;

/** Gives the browser its cookies after a sign-in. @returns who is in, for the device */
export async function enter(request: Request, { token, expires, known }: SignedIn): Promise<Identity> {
  const jar = await cookies();
  const kept = {
    httpOnly: true,
    sameSite: 'lax',
    secure: new URL(request.url).protocol === 'https:',
    path: '/',
  } as const;
  jar.set(COOKIE, token, { ...kept, expires: new Date(expires) });
  // the longest a browser keeps one
  jar.set(DEVICE_COOKIE, known, { ...kept, expires: new Date(Date.now() + KNOWN_MS) });
  const { org, person, name, role, organisation } = (await sessionOf(token))!;
  return { org, person, name, role, organisation };
}
