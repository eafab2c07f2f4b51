import { answer, bodyOf, signedIn } from '@/server/handle';
import { changeVisit } from '@/server/visits/visits';
import { visitChangeSchema } from '@/wire/visits';

export const PUT = signedIn<{ visit: string }>('plan', async (session, request, { visit }) =>
  answer(await changeVisit(session, visit, await bodyOf(request, visitChangeSchema))),
);
