import { answer, bodyOf, signedIn } from '@/server/handle';
import { setAnchors } from '@/server/sealing/anchors';
import { anchorSchema } from '@/wire/people';

export const PUT = signedIn('govern', async (session, request) =>
  answer(await setAnchors(session, await bodyOf(request, anchorSchema))),
);
