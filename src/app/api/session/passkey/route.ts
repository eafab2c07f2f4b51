import type { AuthenticationResponseJSON } from '@simplewebauthn/server';
import { cookies } from 'next/headers';
import { answer, bodyOf, open } from '@/server/handle';
import { clientOf } from '@/server/session/client';
import { enter } from '@/server/session/enter';
import { signInByPasskey } from '@/server/session/passkeys';
import { DEVICE_COOKIE } from '@/server/session/session';
import { passkeySignInSchema } from '@/wire/people';

export const POST = open(async (request) => {
  const { response } = await bodyOf(request, passkeySignInSchema);
  return answer(
    await enter(
      request,
      await signInByPasskey(request, response as unknown as AuthenticationResponseJSON, {
        device: request.headers.get('user-agent') ?? '',
        known: (await cookies()).get(DEVICE_COOKIE)?.value,
        client: clientOf(request),
      }),
    ),
  );
});
