import { answer, bodyOf, signedIn } from '@/server/handle';
import { sendMessage } from '@/server/outbox/outbox';
import { messageSchema } from '@/wire/visits';

/** Into the stand-in outbox: nothing leaves this machine. */
export const POST = signedIn('share', async (session, request) =>
  answer(await sendMessage(session, await bodyOf(request, messageSchema)), 201),
);
