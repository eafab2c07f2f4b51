import type { RegistrationResponseJSON } from '@simplewebauthn/server';
import { answer, bodyOf, signedIn } from '@/server/handle';
import { keepPasskey } from '@/server/session/passkeys';
import { passkeySchema } from '@/wire/people';

export const POST = signedIn('read', async (session, request) => {
  const { name, response } = await bodyOf(request, passkeySchema);
  return answer(
    await keepPasskey(session, request, { name, response: response as unknown as RegistrationResponseJSON }),
    201,
  );
});
