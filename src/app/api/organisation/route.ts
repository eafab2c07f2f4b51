import { answer, bodyOf, open, signedIn } from '@/server/handle';
import { beginHere } from '@/server/people/organisation';
import { changeOrganisation } from '@/server/people/people';
import { beginSchema, organisationSchema } from '@/wire/people';

/** The first organisation of a new installation. */
export const POST = open(async (request) => {
  await beginHere(await bodyOf(request, beginSchema));
  return answer({}, 201);
});
export const PUT = signedIn('govern', async (session, request) => {
  await changeOrganisation(session, await bodyOf(request, organisationSchema));
  return answer({});
});
