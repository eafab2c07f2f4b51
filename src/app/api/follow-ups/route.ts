import { answer, bodyOf, signedIn } from '@/server/handle';
import { seeToAll } from '@/server/records/owed';
import { seeToSchema } from '@/wire/owed';

/** Sees to several at once. */
export const POST = signedIn('share', async (session, request) =>
  answer(await seeToAll(session, await bodyOf(request, seeToSchema))),
);
