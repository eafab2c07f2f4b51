import { answer, bodyOf, signedIn } from '@/server/handle';
import { saveHouseUsage } from '@/server/people/usage';
import { usageSchema, wishesOf } from '@/wire/usage';

export const PUT = signedIn('govern', async (session, request) => {
  await saveHouseUsage(session, wishesOf(await bodyOf(request, usageSchema)));
  return answer({});
});
