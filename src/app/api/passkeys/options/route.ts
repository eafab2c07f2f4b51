import { answer, signedIn } from '@/server/handle';
import { beginPasskey } from '@/server/session/passkeys';

export const POST = signedIn('read', async (session, request) =>
  answer(await beginPasskey(session, request)),
);
