import { answer, bodyOf, signedIn } from '@/server/handle';
import { makeVisit } from '@/server/visits/visits';
import { newVisitSchema } from '@/wire/visits';

export const POST = signedIn('plan', async (session, request) =>
  answer(await makeVisit(session, await bodyOf(request, newVisitSchema)), 201),
);
