import { answer, signedIn } from '@/server/handle';
import { endPasskey } from '@/server/session/passkeys';

export const DELETE = signedIn<{ passkey: string }>('read', async (session, _request, { passkey }) => {
  await endPasskey(session, passkey);
  return answer({});
});
