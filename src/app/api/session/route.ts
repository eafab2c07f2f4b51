import { cookies } from 'next/headers';
import { answer, bodyOf, open, signedIn } from '@/server/handle';
import { COOKIE, revoke, sessionOf, signIn } from '@/server/session/session';
import { signInSchema } from '@/wire/requests';

export const POST = open(async (request) => {
  const { email, password } = await bodyOf(request, signInSchema);
  const { token, expires } = await signIn(email.trim(), password, request.headers.get('user-agent') ?? '');
  (await cookies()).set(COOKIE, token, {
    httpOnly: true,
    sameSite: 'lax',
    secure: new URL(request.url).protocol === 'https:',
    path: '/',
    expires: new Date(expires),
  });
  const session = await sessionOf(token);
  const { org, person, name, role, organisation } = session!;
  return answer({ org, person, name, role, organisation });
});

/** Signs out: this session, or with ?all=1 every session of the person. */
export const DELETE = signedIn(async (session, request) => {
  await revoke(session, new URL(request.url).searchParams.get('all') === '1');
  (await cookies()).delete(COOKIE);
  return answer({ signedOut: true });
});
