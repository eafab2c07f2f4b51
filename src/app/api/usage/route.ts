import { answer, bodyOf, signedIn } from '@/server/handle';
import { saveOwnUsage } from '@/server/people/usage';
import { usageSchema, wishesOf } from '@/wire/usage';

export const PUT = signedIn('read', async (session, request) => {
  await saveOwnUsage(session, wishesOf(await bodyOf(request, usageSchema)));
  return answer({});
});
