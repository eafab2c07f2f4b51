import { answer, bodyOf, signedIn } from '@/server/handle';
import { changePerson } from '@/server/people/people';
import { personSchema } from '@/wire/people';

export const PUT = signedIn<{ person: string }>('govern', async (session, request, { person }) => {
  await changePerson(session, person, await bodyOf(request, personSchema));
  return answer({});
});
