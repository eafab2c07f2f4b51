import { answer, bodyOf, signedIn } from '@/server/handle';
import { addTest } from '@/server/visits/visits';
import { visitTestSchema } from '@/wire/visits';

export const POST = signedIn<{ visit: string }>('plan', async (session, request, { visit }) => {
  const { version, test } = await bodyOf(request, visitTestSchema);
  return answer(await addTest(session, visit, version, test), 201);
});
