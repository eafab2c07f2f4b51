import { cookies } from 'next/headers';
import { answer, bodyOf, open, signedIn } from '@/server/handle';
import { enter } from '@/server/session/enter';
import { clientOf } from '@/server/session/client';
import { COOKIE, DEVICE_COOKIE, revoke, signIn } from '@/server/session/session';
import { signInSchema } from '@/wire/requests';

export const POST = open(async (request) => {
  const { email, password } = await bodyOf(request, signInSchema);
  return answer(
    await enter(
      request,
      await signIn(email.trim(), password, {
        device: request.headers.get('user-agent') ?? '',
        known: (await cookies()).get(DEVICE_COOKIE)?.value,
        client: clientOf(request),
      }),
    ),
  );
});

/** Signs out: this session, or with ?all=1 every session of the person. */
export const DELETE = signedIn('read', async (session, request) => {
  await revoke(session, new URL(request.url).searchParams.get('all') === '1');
  (await cookies()).delete(COOKIE);
  // what the browser kept of photos and files goes too
  return answer({ signedOut: true }, 200, { 'clear-site-data': '"cache"' });
});
