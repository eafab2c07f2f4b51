import { carriedFor } from '@/server/carried/carried';
import { answer, bodyOf, signedIn } from '@/server/handle';
import { carriedRequestSchema } from '@/wire/carried';

/** What a device takes along, so that it works without a signal. */
export const POST = signedIn('read', async (session, request) =>
  answer(await carriedFor(session, await bodyOf(request, carriedRequestSchema))),
);
